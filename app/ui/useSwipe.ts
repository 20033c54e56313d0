import { useRef } from 'react';
import type { GestureResponderEvent } from 'react-native';

/** Pixels along the screen that make a swipe, and across it that make none. */
const LONG = 60;
const SLANT = 40;

/** Recognises swipes of one finger to the left or right, beside touches and scrolling. */
export function useSwipe(onSwipe: (way: 'left' | 'right') => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onTouchStart: ({ nativeEvent: { touches } }: GestureResponderEvent) => {
      const [first, second] = touches;
      from.current = first && !second ? { x: first.pageX, y: first.pageY } : null;
    },
    onTouchEnd: ({ nativeEvent: { changedTouches } }: GestureResponderEvent) => {
      const begun = from.current;
      const [at] = changedTouches;
      from.current = null;
      if (!begun || !at) return;
      const [dx, dy] = [at.pageX - begun.x, at.pageY - begun.y];
      if (Math.abs(dx) >= LONG && Math.abs(dy) <= SLANT) onSwipe(dx < 0 ? 'left' : 'right');
    },
  };
}
