import { useEffect, useRef } from 'react';
import { Animated, Easing } from 'react-native';

/** Milliseconds that a move takes: seen, and never waited for. */
export const MOVE_MS = 150;
/** Pixels that what is refused jolts. */
const JOLT = 6;
/** Pixels from below that what comes next slides in. */
const SLIDE = 14;

/** Whether the person has asked their system for no motion. */
export const isStill = (): boolean =>
  typeof matchMedia === 'function' && matchMedia('(prefers-reduced-motion: reduce)').matches;

const to = (value: Animated.Value, toValue: number, duration: number) =>
  Animated.timing(value, { toValue, duration, easing: Easing.out(Easing.quad), useNativeDriver: false });

/**
 * Jolts twice when something else is refused.
 *
 * @param refused what was refused last, another object for each; null where nothing was
 */
export function useJolt(refused: object | null): Animated.Value {
  const x = useRef(new Animated.Value(0)).current;
  useEffect(() => {
    if (refused === null || isStill()) return;
    const quarter = MOVE_MS / 4;
    const moves = [JOLT, -JOLT, JOLT, 0].map((at) => to(x, at, quarter));
    const jolt = Animated.sequence(moves);
    jolt.start();
    return () => {
      jolt.stop();
      x.setValue(0);
    };
  }, [refused, x]);
  return x;
}

/** Slides in from below whenever something else is shown; at its place from the first. */
export function useSlide(shown: string): Animated.Value {
  const y = useRef(new Animated.Value(0)).current;
  const before = useRef(shown);
  useEffect(() => {
    if (before.current === shown) return;
    before.current = shown;
    if (isStill()) return;
    y.setValue(SLIDE);
    const slide = to(y, 0, MOVE_MS);
    slide.start();
    return () => {
      slide.stop();
      y.setValue(0);
    };
  }, [shown, y]);
  return y;
}

/** Three values that rise from 0 to 1 one after the other, as the three tones of a finished run do. */
export function useRise(): Animated.Value[] {
  const rising = useRef([0, 1, 2].map(() => new Animated.Value(isStill() ? 1 : 0))).current;
  useEffect(() => {
    if (isStill()) return;
    const rise = Animated.stagger(
      MOVE_MS * 0.8,
      rising.map((value) => to(value, 1, MOVE_MS)),
    );
    rise.start();
    return () => {
      rise.stop();
      for (const value of rising) value.setValue(1);
    };
  }, [rising]);
  return rising;
}
