import { createContext, useCallback, useContext, useEffect, useRef, useState, type ReactNode } from 'react';
import type { ViewStyle } from 'react-native';
import { isStill } from './motion.ts';
import { hivis, useSurface } from './theme.ts';

/** Milliseconds for which a handoff is edged. */
const EDGED_MS = 600;

/** What a row does when the work it shows passes to another leg. */
const RowContext = createContext<(() => void) | null>(null);

const outline = { outlineStyle: 'solid', outlineColor: hivis } as const;

/** Whether something is edged now, and what edges it for a moment. */
function useEdge(): { edge: () => void; edged: boolean } {
  const [times, setTimes] = useState(0);
  const edge = useCallback(() => {
    if (!isStill()) setTimes((n) => n + 1);
  }, []);
  useEffect(() => {
    if (times === 0) return;
    const over = setTimeout(() => setTimes(0), EDGED_MS);
    return () => clearTimeout(over);
  }, [times]);
  return { edge, edged: times > 0 };
}

/**
 * A row of a list that is edged for a moment when a baton in it passes on.
 *
 * @returns the row's style, and what its contents are put into
 */
export function useHandoffRow(): { edgeStyle: ViewStyle; within: (children: ReactNode) => ReactNode } {
  const { ink } = useSurface();
  const { edge, edged } = useEdge();
  // With a hairline of ink within, as hi-vis alone is not seen on paper.
  const edgeStyle: ViewStyle = edged
    ? { ...outline, outlineWidth: 4, outlineOffset: -4, boxShadow: `inset 0 0 0 5px ${ink}` }
    : {};
  const within = useCallback(
    (children: ReactNode) => <RowContext.Provider value={edge}>{children}</RowContext.Provider>,
    [edge],
  );
  return { edgeStyle, within };
}

/**
 * Edges the row around, or where there is none the baton itself, when the work passes to another leg while it is shown.
 *
 * @param at the leg that is worked
 */
export function useHandoff(at: string | null): ViewStyle {
  const row = useContext(RowContext);
  const { edge, edged } = useEdge();
  const before = useRef(at);
  useEffect(() => {
    if (before.current === at) return;
    before.current = at;
    (row ?? edge)();
  }, [at, row, edge]);
  return edged ? { ...outline, outlineWidth: 3, outlineOffset: 3 } : {};
}
