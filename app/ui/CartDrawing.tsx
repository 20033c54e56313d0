import { Pressable, View } from 'react-native';
import { cartFront } from '@hand-relay/core/handling/picking';
import { Shape } from './Signal.tsx';
import { charcoal, hivis, useSurface } from './theme.ts';
import { Text } from './Text.tsx';

/** A place of the cart: who has it, and whether anything of it is still to do. */
export interface CartCell {
  number: number;
  /** The end of its order's number. */
  label: string;
  state: 'open' | 'done';
}

const GAP = 3;
const WHEEL = 12;
/** A front is drawn no larger: it is read at arm's length. */
const WIDEST = 340;
const HIGHEST = 200;

/**
 * The front of a cart as its real grid of places: the one in hand is filled, others carry the end of their order's
 * number, done ones the baton.
 *
 * @param front how many places, and how many side by side where the site says so
 * @param height room for it; places are never drawn lower than a finger is wide where they can be touched
 */
export function CartDrawing({
  front,
  cells,
  target,
  label,
  height = HIGHEST,
  onPress,
  nameOf,
}: {
  front: { places: number; across: number | null };
  cells: readonly CartCell[];
  /** The place in hand. */
  target?: number | null;
  label: string;
  height?: number;
  onPress?: (number: number) => void;
  /** What a place that can be touched is called. */
  nameOf?: (cell: CartCell) => string;
}) {
  const surface = useSurface();
  const most = Math.max(front.places, ...cells.map((c) => c.number), target ?? 1);
  const { columns, rows } = cartFront(most, front.across);
  const least = onPress ? 44 : 20;
  const high = Math.max(least, Math.floor((Math.min(height, HIGHEST) - WHEEL - 8 - GAP * (rows + 1)) / rows));
  const byNumber = new Map(cells.map((c) => [c.number, c]));
  return (
    <View
      {...(onPress ? { role: 'group' } : { role: 'img' })}
      aria-label={label}
      style={{ width: '100%', maxWidth: WIDEST }}
    >
      <View style={{ borderWidth: 2, borderColor: surface.quiet, borderRadius: 4, padding: GAP, gap: GAP }}>
        {Array.from({ length: rows }, (_, row) => (
          <View key={row} style={{ flexDirection: 'row', gap: GAP }}>
            {Array.from({ length: columns }, (__, column) => {
              const number = row * columns + column + 1;
              if (number > most) return <View key={number} style={{ flex: 1 }} />;
              const cell = byNumber.get(number);
              const here = number === target;
              const look = {
                flex: 1,
                height: high,
                minWidth: 0,
                borderRadius: 2,
                borderWidth: here ? 0 : 2,
                borderColor: cell ? surface.ink : surface.line,
                backgroundColor: here ? hivis : 'transparent',
                alignItems: 'center' as const,
                justifyContent: 'center' as const,
                overflow: 'hidden' as const,
              };
              const inside = here ? (
                <Text
                  kind="code"
                  style={{ color: charcoal, fontSize: Math.min(64, high), lineHeight: Math.min(64, high) }}
                >
                  {String(number)}
                </Text>
              ) : cell?.state === 'done' ? (
                <Shape kind="done" size={Math.min(20, high - 8)} />
              ) : cell ? (
                <Text kind="label" lines={1} {...(high < 28 ? { style: { fontSize: 12, lineHeight: 14 } } : {})}>
                  {cell.label}
                </Text>
              ) : null;
              return onPress && cell ? (
                <Pressable
                  key={number}
                  role="button"
                  aria-label={nameOf?.(cell) ?? cell.label}
                  onPress={() => onPress(number)}
                  style={look}
                >
                  {inside}
                </Pressable>
              ) : (
                <View key={number} style={look}>
                  {inside}
                </View>
              );
            })}
          </View>
        ))}
      </View>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', paddingHorizontal: 20 }} aria-hidden>
        {[0, 1].map((wheel) => (
          <View
            key={wheel}
            style={{ width: WHEEL, height: WHEEL, borderRadius: WHEEL / 2, borderWidth: 2, borderColor: surface.quiet }}
          />
        ))}
      </View>
    </View>
  );
}

/** So many signs of an order's number fit into a place of a cart. */
const SIGNS = 5;

/** The end of an order's number, by which orders on one cart are told apart. */
export const endOf = (number: string) => (number.length <= SIGNS ? number : `…${number.slice(-SIGNS + 1)}`);
