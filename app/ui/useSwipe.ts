import { useRef } from 'react';
import type { GestureResponderEvent } from 'react-native';

/** Pixels along the screen that make a swipe, and across it that make none. */
const LONG = 60;
const SLANT = 40;

/** Hears swipes of one finger to the left or right, beside touches and scrolling. */
export function useSwipe(onSwipe: (way: 'left' | 'right') => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onTouchStart: ({ nativeEvent: { touches, pageX, pageY } }: GestureResponderEvent) => {
      from.current = touches.length > 1 ? null : { x: pageX, y: pageY };
    },
    onTouchEnd: ({ nativeEvent: { changedTouches, pageX, pageY } }: GestureResponderEvent) => {
      const begun = from.current;
      from.current = null;
      if (!begun) return;
      const at = changedTouches[0] ?? { pageX, pageY };
      const [dx, dy] = [at.pageX - begun.x, at.pageY - begun.y];
      if (Math.abs(dx) >= LONG && Math.abs(dy) <= SLANT) onSwipe(dx < 0 ? 'left' : 'right');
    },
  };
}
