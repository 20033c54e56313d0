import { useRef } from 'react';
import { View } from 'react-native';
import { number } from '../text/index.ts';
import { Text, useSurface } from '../ui/index.ts';

export interface Part {
  key: string;
  title: string;
  units: number;
  current: boolean;
}

/**
 * Stock as a bar, a stretch for whoever gets of it and the rest at its end. The edges between stretches are dragged, by
 * mouse or finger, to move units from one neighbour to the other; keys do the same in the list below.
 */
export function ShareBar({
  parts,
  left,
  label,
  onMove,
  onChoose,
}: {
  parts: Part[];
  /** Units that nobody gets. */
  left: number;
  label: string;
  /** Units move from one part to the next; negative ones move back. The last edge is with what is left over. */
  onMove: (edge: number, units: number) => void;
  onChoose: (key: string) => void;
}) {
  const surface = useSurface();
  const bar = useRef<HTMLDivElement | null>(null);
  const drag = useRef<{ edge: number; x: number; moved: number } | null>(null);
  const total = Math.max(1, parts.reduce((n, p) => n + p.units, 0) + Math.max(0, left));
  const unitsOf = (pixels: number) => Math.round((pixels / (bar.current?.clientWidth || 1)) * total);
  const edge = (at: number) => (
    <div
      key={`edge ${at}`}
      data-edge={at}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { edge: at, x: event.clientX, moved: 0 };
      }}
      onPointerMove={(event) => {
        if (!drag.current) return;
        const wanted = unitsOf(event.clientX - drag.current.x);
        // Dragged to the right the left neighbour grows: units come from the right.
        if (wanted !== drag.current.moved) onMove(at, drag.current.moved - wanted);
        drag.current.moved = wanted;
      }}
      onPointerUp={() => (drag.current = null)}
      style={{
        width: 20,
        marginLeft: -10,
        marginRight: -10,
        cursor: 'ew-resize',
        touchAction: 'none',
        zIndex: 1,
        display: 'flex',
        justifyContent: 'center',
      }}
    >
      <div style={{ width: 6, backgroundColor: surface.ink, border: `1px solid ${surface.ground}` }} />
    </div>
  );
  return (
    <View role="img" aria-label={label}>
      <div ref={bar} style={{ display: 'flex', height: 56, border: `1px solid ${surface.ink}`, userSelect: 'none' }}>
        {parts.flatMap((part, i) => [
          <div
            key={part.key}
            onClick={() => onChoose(part.key)}
            style={{
              flexGrow: part.units,
              flexBasis: 0,
              // The one at hand can be grasped even when it gets nothing yet.
              minWidth: part.current ? 44 : 0,
              overflow: 'hidden',
              padding: part.units / total > 0.06 ? '4px 12px' : 0,
              backgroundColor: part.current ? surface.act : i % 2 === 0 ? surface.sunk : surface.chosen,
              boxSizing: 'border-box',
            }}
          >
            {part.units / total > 0.06 && (
              <View>
                <Text kind="small" lines={1} {...(part.current ? { style: { color: surface.ground } } : {})}>
                  {part.title}
                </Text>
                <Text kind="strong" lines={1} {...(part.current ? { style: { color: surface.ground } } : {})}>
                  {number(part.units)}
                </Text>
              </View>
            )}
          </div>,
          edge(i),
        ])}
        <div style={{ flexGrow: Math.max(0, left), flexBasis: 0, minWidth: 0 }} />
      </div>
    </View>
  );
}
