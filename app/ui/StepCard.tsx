import { useState, type ReactNode } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { Picture } from './Picture.tsx';
import { Signal } from './Signal.tsx';
import { Stripes } from './Stripes.tsx';
import { useNarrow, useSurface } from './theme.ts';
import { Txt } from './Txt.tsx';

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
  cold?: string | undefined;
  /** What tells the goods from others that look like them: stands where a verdict would that needs no reading. */
  alike?: string | undefined;
  notes: string[];
  /** The last verdict: shown until the next input. */
  verdict?: { kind: 'done' | 'refused' | 'caution'; text: string } | null | undefined;
  children?: ReactNode;
}

/** Pixels of height below which the card leaves out what can be done without. */
const TIGHT = 300;
/** And below which it keeps to the place, the goods and how many. */
const LEAST = 215;
const PAD = 14;
/** Width of a letter of a code, in parts of its size. */
const LETTER = 0.56;

/** One instruction: verb, place in huge type, item with picture, count, position; what was just said about it on top. */
export function StepCard({
  verb,
  code,
  unit,
  item,
  count,
  facts,
  cold,
  alike,
  notes,
  verdict,
  children,
}: StepCardProps) {
  const surface = useSurface();
  const { width } = useWindowDimensions();
  /** What the card has for itself: a camera, a keyboard or large letters may leave little. */
  const [room, setRoom] = useState({ width: width - 24, height: Infinity });
  // What the last pick came to is heard too; what this one must not be taken for has to be read.
  const band =
    alike !== undefined && (!verdict || verdict.kind === 'done') ? { kind: 'caution' as const, text: alike } : verdict;
  const tight = room.height < TIGHT;
  const least = room.height < LEAST;
  const narrow = useNarrow();
  // A code is read whole, in one line.
  const fits = Math.floor((room.width - 2 * PAD) / (code.length * LETTER));
  const huge = Math.min(fits, least ? 44 : tight ? 56 : width > 700 ? 96 : 72);
  return (
    <View
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
      }}
    >
      <View aria-live="assertive" style={{ minHeight: tight ? 0 : 46 }}>
        {band && (
          <>
            {band.kind === 'refused' && <Stripes />}
            <View
              style={{
                paddingHorizontal: 14,
                paddingVertical: tight ? 4 : 10,
                borderBottomWidth: 1,
                borderColor: surface.line,
              }}
            >
              <Signal kind={band.kind} text={band.text} size={tight || band.kind === 'done' ? 'strong' : 'large'} />
            </View>
          </>
        )}
      </View>
      <View
        style={{
          flex: 1,
          minHeight: 0,
          padding: tight ? 8 : PAD,
          paddingTop: 6,
          gap: tight ? 2 : 8,
          justifyContent: 'space-evenly',
        }}
      >
        <View style={{ flexShrink: 1 }}>
          {!(least && band) && (
            <Txt kind={tight ? 'body' : 'large'} colour="quiet">
              {verb}
            </Txt>
          )}
          <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 12, flexWrap: 'wrap' }}>
            <Txt kind="code" style={{ fontSize: huge, lineHeight: huge * 1.06 }}>
              {code}
            </Txt>
            {unit !== undefined && <Txt kind="large">{unit}</Txt>}
          </View>
        </View>
        <View style={{ flexDirection: 'row', gap: 14, alignItems: 'flex-start', flexShrink: 1 }}>
          {!tight && !narrow && item.picture !== '' && <Picture name={item.picture} size={92} />}
          <View style={{ flex: 1, minWidth: 0, gap: 2 }}>
            <Txt kind={tight ? 'strong' : 'large'} lines={least ? 1 : tight ? 2 : 3}>
              {item.name}
            </Txt>
            {!tight && (
              <Txt kind="mono" colour="quiet">
                {item.sku}
              </Txt>
            )}
            <Txt kind="heading">{count}</Txt>
            {cold !== undefined && <Signal kind="cold" text={cold} size="body" />}
          </View>
        </View>
        {facts.length + notes.length > 0 && (
          <View style={{ gap: 2 }}>
            {facts.length > 0 && !(least && band) && (
              <Txt colour="quiet" {...(tight ? { kind: 'small' as const, lines: 1 } : {})}>
                {facts.join(' · ')}
              </Txt>
            )}
            {notes.map((note) => (
              <Signal key={note} kind="caution" text={note} size="body" />
            ))}
          </View>
        )}
        {children}
      </View>
    </View>
  );
}
