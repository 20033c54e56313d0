import { useEffect, useRef, type ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { WIDE, type useSwipe } from '../ui/index.ts';

/** Screens lower than this, in pixels, lie on their side or show large letters. */
const LOW = 560;
/** Wide enough for the keys to stand beside the card. */
const SIDE = 600;
/** What a card needs where the screen scrolls. */
const CARD = 250;

/**
 * Card above, keys in reach of the thumb below. On its side the screen has the keys beside the card; with very large
 * letters both scroll, and whatever appears or is asked next is scrolled to.
 */
export function AtTheBin({
  above,
  card,
  keys,
  asks,
  ...swipe
}: {
  above: ReactNode;
  card: ReactNode;
  keys: ReactNode;
  /** What the card says: another text is a card to be read. */
  asks: string;
} & Partial<ReturnType<typeof useSwipe>>) {
  const { width, height } = useWindowDimensions();
  const low = height < LOW;
  const scroller = useRef<ScrollView>(null);
  useEffect(() => scroller.current?.scrollTo({ y: 0, animated: false }), [asks]);
  if (low && width >= SIDE)
    return (
      <View {...swipe} style={{ flex: 1, minHeight: 0, flexDirection: 'row', gap: 12, padding: 12, paddingTop: 0 }}>
        <View style={{ flex: 1, minWidth: 0, minHeight: 0 }}>{card}</View>
        <View style={{ width: Math.min(420, width * 0.42), gap: 8, justifyContent: 'flex-end' }}>{keys}</View>
      </View>
    );
  if (low)
    return (
      <ScrollView
        {...swipe}
        ref={scroller}
        style={{ flex: 1 }}
        contentContainerStyle={{ padding: 12, paddingTop: 0, gap: 10 }}
      >
        <View style={{ minHeight: CARD }}>{card}</View>
        {keys}
      </ScrollView>
    );
  return (
    <View
      {...swipe}
      style={{
        flex: 1,
        minHeight: 0,
        padding: 12,
        paddingTop: 0,
        gap: 10,
        width: '100%',
        maxWidth: width >= WIDE ? 900 : undefined,
        alignSelf: 'center',
      }}
    >
      {above}
      {card}
      {keys}
    </View>
  );
}
