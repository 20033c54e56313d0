import { useEffect, useRef, type ReactNode } from 'react';
import { View } from 'react-native';
import type { PlanView } from './floor/planView.ts';

const STEP = 1.25;
const LEAST = 6;

/** The part of a floor after a zoom about a point of it, never smaller than six metres nor larger than all of it twice. */
export function zoomed(view: PlanView, whole: PlanView, factor: number, x: number, y: number): PlanView {
  const width = Math.min(whole.width * 2, Math.max(LEAST, view.width / factor));
  const scale = width / view.width;
  return {
    left: x - (x - view.left) * scale,
    bottom: y - (y - view.bottom) * scale,
    width,
    height: view.height * scale,
  };
}

/**
 * A floor that is moved by dragging and by arrow keys, and zoomed by the wheel, two fingers, + and -; 0 shows all. A tap
 * that moves nothing is told with its place on the floor.
 */
export function PanZoom({
  view,
  whole,
  onView,
  onTap,
  label,
  children,
}: {
  view: PlanView;
  whole: PlanView;
  onView: (view: PlanView) => void;
  onTap?: (x: number, y: number) => void;
  label: string;
  children: ReactNode;
}) {
  const box = useRef<HTMLElement | null>(null);
  const latest = useRef({ view, whole, onView, onTap });
  useEffect(() => {
    latest.current = { view, whole, onView, onTap };
  });
  useEffect(() => {
    const element = box.current;
    if (!element) return undefined;
    const fingers = new Map<number, { x: number; y: number }>();
    let moved = 0;
    const now = () => latest.current;
    /** Metres for each pixel, and where a pixel lies on the floor: the drawing is centred in its box. */
    const place = (clientX: number, clientY: number) => {
      const rect = element.getBoundingClientRect();
      const { view: v } = now();
      const scale = Math.max(v.width / rect.width, v.height / rect.height);
      const left = v.left - (rect.width * scale - v.width) / 2;
      const top = v.bottom + v.height + (rect.height * scale - v.height) / 2;
      return { scale, x: left + (clientX - rect.left) * scale, y: top - (clientY - rect.top) * scale };
    };
    const down = (e: PointerEvent) => {
      fingers.set(e.pointerId, { x: e.clientX, y: e.clientY });
      if (fingers.size === 1) moved = 0;
    };
    const move = (e: PointerEvent) => {
      const before = fingers.get(e.pointerId);
      if (!before) return;
      const { view: v, whole: w, onView } = now();
      const others = [...fingers].filter(([id]) => id !== e.pointerId).map(([, f]) => f);
      const here = { x: e.clientX, y: e.clientY };
      fingers.set(e.pointerId, here);
      moved += Math.abs(here.x - before.x) + Math.abs(here.y - before.y);
      if (moved < 6) return;
      const [other] = others;
      if (other) {
        const far = (a: { x: number; y: number }) => Math.hypot(a.x - other.x, a.y - other.y);
        const at = place((here.x + other.x) / 2, (here.y + other.y) / 2);
        onView(zoomed(v, w, far(here) / Math.max(1, far(before)), at.x, at.y));
      } else {
        const { scale } = place(here.x, here.y);
        onView({ ...v, left: v.left - (here.x - before.x) * scale, bottom: v.bottom + (here.y - before.y) * scale });
      }
    };
    const up = (e: PointerEvent) => {
      if (!fingers.delete(e.pointerId) || fingers.size > 0 || moved >= 6 || e.type === 'pointercancel') return;
      const { x, y } = place(e.clientX, e.clientY);
      now().onTap?.(x, y);
    };
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const { x, y } = place(e.clientX, e.clientY);
      now().onView(zoomed(now().view, now().whole, e.deltaY < 0 ? STEP : 1 / STEP, x, y));
    };
    const key = (e: KeyboardEvent) => {
      const { view: v, whole: w, onView } = now();
      const by = v.width / 10;
      const moves: Record<string, PlanView> = {
        ArrowLeft: { ...v, left: v.left - by },
        ArrowRight: { ...v, left: v.left + by },
        ArrowUp: { ...v, bottom: v.bottom + by },
        ArrowDown: { ...v, bottom: v.bottom - by },
        '+': zoomed(v, w, STEP, v.left + v.width / 2, v.bottom + v.height / 2),
        '-': zoomed(v, w, 1 / STEP, v.left + v.width / 2, v.bottom + v.height / 2),
        '0': w,
      };
      const next = moves[e.key];
      if (!next) return;
      e.preventDefault();
      onView(next);
    };
    element.addEventListener('pointerdown', down);
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', up);
    element.addEventListener('wheel', wheel, { passive: false });
    element.addEventListener('keydown', key);
    return () => {
      element.removeEventListener('pointerdown', down);
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', up);
      element.removeEventListener('wheel', wheel);
      element.removeEventListener('keydown', key);
    };
  }, []);
  return (
    <View
      ref={box as never}
      role="group"
      aria-label={label}
      tabIndex={0}
      style={{
        flex: 1,
        minHeight: 0,
        overflow: 'hidden',
        ...({ touchAction: 'none', userSelect: 'none', cursor: 'grab' } as object),
      }}
    >
      {children}
    </View>
  );
}
