import { useState, type ReactNode } from 'react';
import { Animated, useWindowDimensions, View } from 'react-native';
import { useJolt, useSlide } from './motion.ts';
import { Picture } from './Picture.tsx';
import { Signal } from './Signal.tsx';
import { Stripes } from './Stripes.tsx';
import { useNarrow, useSurface } from './theme.ts';
import { Text } from './Text.tsx';

export interface StepCardProps {
  /** What to do: "Go to". */
  verb: string;
  /** Where or how many, in the largest type: "B-07-2". */
  code: string;
  /** Beside the code, where it needs a word: "pieces". */
  unit?: string | undefined;
  /** Without a picture where whoever looks wants none. */
  item: { name: string; sku: string; picture: string };
  /** Beside the item: how many, and what to check. */
  count: string;
  facts: string[];
  /** Along the foot: what comes of it, and what comes next. */
  foot?: { label: string; value: string }[];
  cold?: string | undefined;
  /** What tells the goods from others that look like them: stands where a verdict would that needs no reading. */
  alike?: string | undefined;
  notes: string[];
  /** The last verdict: shown until the next input. */
  verdict?: { kind: 'done' | 'refused' | 'caution'; text: string } | null | undefined;
  /** In place of the picture where there is room: the cart, drawn into so many pixels of height. */
  drawing?: ((height: number) => ReactNode) | undefined;
}

/** Pixels of height below which the card leaves out what can be done without. */
const TIGHT = 300;
/** And below which it keeps to the place, the goods and how many. */
const LEAST = 215;
/** From which on there is room for the largest code. */
const ROOMY = 430;
/** Pixels below what is said from which on there is room for the foot, a picture and the large picture. */
const FOOT = 300;
const PICTURE = 215;
const LARGE_PICTURE = 370;
const PAD = 14;
/** What is kept free for what is said, so that the code stays where it is. */
const BAND = 56;
/** Width of a letter of a code, in parts of its size. */
const LETTER = 0.56;
/** Pixels of height that verb, goods, foot and gaps take beside code and drawing. */
const TEXTS = 190;
/** Pixels below which a drawing of a cart shows nothing. */
const LEAST_DRAWING = 96;

/** One instruction: verb, place in huge type, item with picture, count, position; what was just said about it on top. */
export function StepCard({
  verb,
  code,
  unit,
  item,
  count,
  facts,
  foot = [],
  cold,
  alike,
  notes,
  verdict,
  drawing,
}: StepCardProps) {
  const surface = useSurface();
  const { width } = useWindowDimensions();
  /** What the card has for itself: a camera, a keyboard or large letters may leave little. */
  const [room, setRoom] = useState({ width: width - 24, height: Infinity });
  const [said, setSaid] = useState(BAND);
  const jolt = useJolt(verdict?.kind === 'refused' ? verdict : null);
  const slide = useSlide(`${verb} ${code}`);
  // What the last pick came to is heard too; what this one must not be taken for has to be read.
  const band =
    alike !== undefined && (!verdict || verdict.kind === 'done') ? { kind: 'caution' as const, text: alike } : verdict;
  const tight = room.height < TIGHT;
  const least = room.height < LEAST;
  /** What is left below what is said. */
  const below = room.height - Math.max(said, tight ? 0 : BAND);
  const narrow = useNarrow();
  // A code is read whole, in one line.
  const fits = Math.floor((room.width - 2 * PAD) / (code.length * LETTER));
  const huge = Math.min(fits, least ? 44 : tight ? 56 : room.height >= ROOMY && !drawing ? 104 : 72);
  const forDrawing = Math.min(200, Math.floor(below - TEXTS - huge * 1.06));
  const drawn = drawing && !tight && !narrow && forDrawing >= LEAST_DRAWING;
  const picture =
    tight || narrow || drawn || item.picture === '' || below < PICTURE ? 0 : below < LARGE_PICTURE ? 92 : 128;
  return (
    <Animated.View
      role="group"
      aria-label={`${verb} ${code}`}
      onLayout={(e) => setRoom(e.nativeEvent.layout)}
      style={{
        flex: 1,
        minHeight: 0,
        borderWidth: 1,
        borderColor: verdict?.kind === 'refused' ? surface.refused : surface.line,
        borderRadius: 4,
        backgroundColor: surface.raised,
        overflow: 'hidden',
        transform: [{ translateX: jolt }],
      }}
    >
      <View
        aria-live="assertive"
        onLayout={(e) => setSaid(e.nativeEvent.layout.height)}
        style={{ minHeight: tight ? 0 : BAND, flexShrink: 0 }}
      >
        {band && (
          <>
            {band.kind === 'refused' && <Stripes />}
            <View
              style={{
                paddingHorizontal: 14,
                // With the stripes above it a refusal is as high as anything else that is said.
                paddingVertical: tight ? 4 : band.kind === 'refused' ? 7 : 10,
                borderBottomWidth: 1,
                borderColor: surface.line,
              }}
            >
              <Signal kind={band.kind} text={band.text} size={tight || band.kind === 'done' ? 'strong' : 'large'} />
            </View>
          </>
        )}
      </View>
      <View style={{ flex: 1, minHeight: 0, padding: tight ? 8 : PAD, paddingTop: 6, gap: tight ? 2 : 10 }}>
        <Animated.View style={{ flexShrink: 1, transform: [{ translateY: slide }] }}>
          {!(least && band) && (
            <Text kind={tight ? 'body' : 'large'} colour="quiet">
              {verb}
            </Text>
          )}
          <View style={{ flexDirection: 'row', alignItems: 'baseline', columnGap: 12, flexWrap: 'wrap' }}>
            <Text kind="code" style={{ fontSize: huge, lineHeight: huge * 1.06 }}>
              {code}
            </Text>
            {unit !== undefined && <Text kind="large">{unit}</Text>}
          </View>
        </Animated.View>
        {drawn && drawing(forDrawing)}
        <View style={{ flexDirection: 'row', gap: 14, alignItems: 'flex-start', flexShrink: 1 }}>
          {picture > 0 && <Picture name={item.picture} size={picture} />}
          <View style={{ flex: 1, minWidth: 0, gap: 2 }}>
            <Text kind={tight ? 'strong' : 'large'} lines={least || drawn ? 1 : tight ? 2 : 3}>
              {item.name}
            </Text>
            {!tight && !drawn && (
              <Text kind="mono" colour="quiet">
                {item.sku}
              </Text>
            )}
            <Text kind="heading">{count}</Text>
            {cold !== undefined && <Signal kind="cold" text={cold} size="body" />}
          </View>
        </View>
        {(drawn ? 0 : facts.length) + notes.length > 0 && (
          <View style={{ gap: 2 }}>
            {facts.length > 0 && !drawn && !(least && band) && (
              <Text colour="quiet" {...(tight || below < LARGE_PICTURE ? { kind: 'small' as const, lines: 1 } : {})}>
                {facts.join(' · ')}
              </Text>
            )}
            {notes.map((note) => (
              <Signal key={note} kind="caution" text={note} size="body" />
            ))}
          </View>
        )}
      </View>
      {foot.length > 0 && below >= FOOT && (
        <View style={{ flexDirection: 'row', borderTopWidth: 1, borderColor: surface.line }}>
          {foot.map(({ label, value }, i) => (
            <View
              key={label}
              style={{
                flex: 1,
                minWidth: 0,
                paddingHorizontal: PAD,
                paddingVertical: 6,
                ...(i > 0 ? { borderLeftWidth: 1, borderColor: surface.line } : {}),
              }}
            >
              <Text kind="label" colour="quiet">
                {label}
              </Text>
              <Text kind="strong" lines={1} style={{ fontSize: 20, lineHeight: 26 }}>
                {value}
              </Text>
            </View>
          ))}
        </View>
      )}
    </Animated.View>
  );
}
