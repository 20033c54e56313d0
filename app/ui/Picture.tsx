import { Image, View } from 'react-native';
import Svg, { Circle, Ellipse, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import type { ReactNode } from 'react';
import { fonts, useSurface } from './theme.ts';

interface Ink {
  line: string;
  body: string;
  tone: string;
  /** Turn of the variant, from 0: moves a detail, so that each item has a drawing of its own. */
  turn: number;
}

const tones: Record<string, string> = {
  gold: '#D9A521',
  yellow: '#E3C322',
  white: '#F4F3EF',
  black: '#2B2F31',
  silver: '#B4BCC0',
  check: '#B3564D',
  comb: '#C9862B',
  red: '#C5483F',
  green: '#4F9A5E',
  blue: '#4A80C1',
  olive: '#7C7F4B',
};

const stroke = (ink: Ink, width = 2) => ({
  stroke: ink.line,
  strokeWidth: width,
  strokeLinejoin: 'round' as const,
  strokeLinecap: 'round' as const,
});

/** One drawing a family, on a field of 64 by 64. */
const drawings: Record<string, (ink: Ink) => ReactNode> = {
  /** What has no drawing of its own. */
  parcel: (i) => (
    <>
      <Path d="M8 20L32 10L56 20V46L32 56L8 46Z" fill={i.body} {...stroke(i)} />
      <Path d="M8 20L32 30L56 20M32 30V56" fill="none" {...stroke(i)} />
    </>
  ),
  frame: (i) => (
    <>
      <Path d="M4 14H60V20H54V56H10V20H4Z" fill={i.body} {...stroke(i)} />
      <Rect x="15" y="24" width="34" height="27" fill={i.tone} {...stroke(i, 1.5)} />
      {i.turn % 3 === 2 && [30, 37, 44].map((y) => <Line key={y} x1="15" x2="49" y1={y} y2={y} {...stroke(i, 1)} />)}
      {i.turn % 3 === 0 && <Line x1="15" x2="49" y1="24" y2="51" {...stroke(i, 1)} />}
    </>
  ),
  wax: (i) => (
    <>
      <Rect x="8" y="14" width="48" height="36" fill="#E7B93C" {...stroke(i)} />
      {Array.from({ length: 9 }, (_, n) => (
        <Path
          key={n}
          d={`M${13 + (n % 3) * 14 + (n > 2 && n < 6 ? 5 : 0)} ${20 + Math.floor(n / 3) * 11}l4-2.4 4 2.4v4.8l-4 2.4-4-2.4z`}
          fill="none"
          {...stroke(i, 1.2)}
        />
      ))}
      {i.turn % 3 === 1 && <Path d="M8 25H56M8 39H56" {...stroke(i, 1)} />}
    </>
  ),
  jar: (i) => (
    <>
      <Rect x="19" y="6" width="26" height="9" rx="1.5" fill={i.tone} {...stroke(i)} />
      <Path
        d={
          [
            'M18 17H46Q52 20 52 28V50Q52 58 44 58H20Q12 58 12 50V28Q12 20 18 17Z',
            'M20 17H44L53 27V48L44 58H20L11 48V27Z',
            'M14 17H50V58H14Z',
            'M20 17H44Q48 20 46 25Q54 30 51 38Q56 46 50 58H14Q8 46 13 38Q10 30 18 25Q16 20 20 17Z',
            'M18 17H46L52 24V58H12V24Z',
          ][Math.floor(i.turn / 6) % 5]
        }
        fill={i.body}
        {...stroke(i)}
      />
    </>
  ),
  lid: (i) => (
    <>
      <Ellipse cx="32" cy="38" rx={16 + (i.turn % 3) * 5} ry="9" fill={i.tone} {...stroke(i)} />
      <Path
        d={`M${16 - (i.turn % 3) * 5} 38v-9a${16 + (i.turn % 3) * 5} 9 0 0 1 ${32 + (i.turn % 3) * 10} 0v9`}
        fill={i.tone}
        {...stroke(i)}
      />
      <Ellipse cx="32" cy="29" rx={16 + (i.turn % 3) * 5} ry="9" fill={i.tone} {...stroke(i)} />
    </>
  ),
  roll: (i) => (
    <>
      <Circle cx="28" cy="32" r="20" fill={i.body} {...stroke(i)} />
      <Circle cx="28" cy="32" r="7" fill={i.tone} {...stroke(i)} />
      <Path d="M28 52H58V44H46" fill="none" {...stroke(i)} />
    </>
  ),
  smoker: (i) => (
    <>
      <Rect
        x="18"
        y="26"
        width="24"
        height="32"
        rx="2"
        fill={i.turn > 1 && i.turn < 4 ? '#C07A45' : i.body}
        {...stroke(i)}
      />
      <Path d={`M18 26Q22 12 34 12L${50 + (i.turn % 2) * 6} 7V14L38 18Q42 22 42 26Z`} fill={i.tone} {...stroke(i)} />
      <Path d="M18 32H6V54H18" fill="#8A5A3A" {...stroke(i)} />
    </>
  ),
  sack: (i) => (
    <>
      <Path d="M20 14Q32 20 44 14L48 20Q56 40 50 58H14Q8 40 16 20Z" fill="#C8AE82" {...stroke(i)} />
      <Path d="M18 20Q32 26 46 20" fill="none" {...stroke(i)} />
    </>
  ),
  suit: (i) => (
    <>
      <Path
        d={
          i.turn < 12
            ? 'M22 16L10 24V42L16 42V58H29L32 42L35 58H48V42L54 42V24L42 16Z'
            : i.turn < 24
              ? 'M22 16L10 24V42H18V52H46V42H54V24L42 16Z'
              : 'M22 16L8 26V46H18V58H46V46H56V26L42 16Z'
        }
        fill={i.turn % 12 < 6 ? '#F4F3EF' : '#7C7F4B'}
        {...stroke(i)}
      />
      <Circle cx="32" cy="11" r="8" fill={i.body} {...stroke(i)} />
    </>
  ),
  glove: (i) => (
    <Path
      d="M20 58V38L12 30V20Q16 18 18 22L22 28V10Q26 7 28 11V24V8Q32 5 34 9V24V10Q38 7 40 11V26V16Q44 13 46 17V42L42 58Z"
      fill={i.turn < 6 ? '#D6A967' : '#4A80C1'}
      {...stroke(i)}
    />
  ),
  veil: (i) => (
    <>
      <Ellipse cx="32" cy="18" rx="26" ry="6" fill={i.tone} {...stroke(i)} />
      <Path d="M22 16Q22 6 32 6Q42 6 42 16" fill={i.tone} {...stroke(i)} />
      <Path d="M12 21V54H52V21" fill="none" {...stroke(i)} />
      <Path d="M20 22V54M28 23V54M36 23V54M44 22V54M12 32H52M12 43H52" fill="none" {...stroke(i, 0.8)} />
    </>
  ),
  canister: (i) => (
    <>
      <Path d="M16 20H40L50 28V58H14V24Z" fill="#E9C46A" {...stroke(i)} />
      <Rect x="36" y="10" width="10" height="9" fill={i.tone} {...stroke(i)} />
      <Path d="M18 20V12H32V20" fill="none" {...stroke(i, 3)} />
    </>
  ),
  tub: (i) => (
    <>
      <Path d="M12 22H52L48 56H16Z" fill={i.body} {...stroke(i)} />
      <Rect x="9" y="15" width="46" height="8" rx="2" fill={i.tone} {...stroke(i)} />
    </>
  ),
  block: (i) => (
    <>
      <Path d="M8 28L26 18H58V42L40 54H8Z" fill={i.body} {...stroke(i)} />
      <Path d="M8 28H40V54M40 28L58 18" fill="none" {...stroke(i)} />
    </>
  ),
  drum: (i) => (
    <>
      <Path d="M12 14V44Q32 54 52 44V14" fill={i.body} {...stroke(i)} />
      <Ellipse cx="32" cy="14" rx="20" ry="6" fill={i.tone} {...stroke(i)} />
      <Path d="M18 47L14 60M46 47L50 60M32 50V60" {...stroke(i, 3)} />
      {i.turn > 2 && i.turn < 6 ? (
        <Rect x="26" y="3" width="12" height="8" fill={i.line} />
      ) : (
        <Path d="M32 10V4H44" fill="none" {...stroke(i, 3)} />
      )}
    </>
  ),
  refractometer: (i) => (
    <>
      <G transform="rotate(-35 32 32)">
        <Rect x="6" y="26" width="40" height="12" rx="3" fill={i.tone} {...stroke(i)} />
        <Rect x="46" y="24" width="12" height="16" rx="2" fill={i.line} />
        <Path d="M6 26L0 30V38H6Z" fill="#8FC1EA" {...stroke(i)} />
      </G>
    </>
  ),
  scale: (i) => (
    <>
      <Rect x="6" y="40" width="52" height="10" rx="2" fill={i.body} {...stroke(i)} />
      <Path d="M12 40V34H52V40M14 50V56M50 50V56" fill="none" {...stroke(i)} />
      <Rect x="22" y={10 + (i.turn % 3) * 2} width="20" height="14" fill={i.tone} {...stroke(i)} />
    </>
  ),
  flask: (i) => (
    <>
      <Path d="M24 20H40V26Q50 30 50 38V58H14V38Q14 30 24 26Z" fill={i.body} {...stroke(i)} />
      <Rect x="22" y="9" width="20" height="10" fill="#C5483F" {...stroke(i)} />
      <Path d="M32 33L41 49H23Z" fill="#F2A33A" {...stroke(i, 1.5)} />
    </>
  ),
  box: (i) => (
    <>
      {i.turn % 5 < 2 && (
        <Rect
          x="8"
          y={i.turn % 5 === 0 ? 14 : 24}
          width="48"
          height={i.turn % 5 === 0 ? 40 : 26}
          fill="#B98552"
          {...stroke(i)}
        />
      )}
      {i.turn % 5 < 2 && <Rect x="24" y="30" width="16" height="5" rx="2.5" fill={i.line} />}
      {i.turn % 5 === 2 && <Path d="M4 30L32 16L60 30V42H4Z" fill="#8C979D" {...stroke(i)} />}
      {i.turn % 5 === 3 && <Path d="M6 34H58V44H50V50H44V44H20V50H14V44H6Z" fill="#B98552" {...stroke(i)} />}
      {i.turn % 5 === 4 && <Path d="M6 30H58V40H6ZM28 32h8v6h-8z" fill="#B98552" fillRule="evenodd" {...stroke(i)} />}
    </>
  ),
  tool: (i) => (
    <Path
      d={
        i.turn % 2
          ? 'M10 54L44 16L52 12L56 18L50 24L16 60Z'
          : 'M12 58L40 24Q36 12 48 8L46 15L52 18L58 14Q58 26 46 28L18 62Z'
      }
      fill={i.tone}
      {...stroke(i)}
    />
  ),
  fork: (i) =>
    i.turn < 2 ? (
      <Path d="M8 52L40 20Q52 8 58 8Q56 20 46 28L14 58Z" fill={i.body} {...stroke(i)} />
    ) : (
      <Path d="M10 58L30 36M26 30L36 42M30 26L44 12M34 32L49 18M38 38L54 24" fill="none" {...stroke(i, 4)} />
    ),
  brush: (i) => (
    <>
      <Rect x="4" y="16" width="56" height="10" rx="4" fill="#B98552" {...stroke(i)} />
      {Array.from({ length: 8 }, (_, n) => (
        <Line key={n} x1={22 + n * 5} x2={22 + n * 5} y1="26" y2={44 + (i.turn % 4) * 4} {...stroke(i, 1.6)} />
      ))}
    </>
  ),
  pen: (i) =>
    i.turn < 5 ? (
      <>
        <Path d="M14 50L46 14L54 21L22 57Z" fill={i.tone} {...stroke(i)} />
        <Path d="M14 50L10 60L22 57Z" fill={i.line} />
      </>
    ) : (
      <>
        {[0, 1, 2, 3].map((n) => (
          <Circle key={n} cx={20 + (n % 2) * 24} cy={20 + Math.floor(n / 2) * 24} r="9" fill={i.tone} {...stroke(i)} />
        ))}
      </>
    ),
  cage: (i) => (
    <>
      <Rect x="10" y="18" width="44" height="28" rx={i.turn === 2 ? 14 : 3} fill="none" {...stroke(i)} />
      {[18, 26, 34, 42].map((x) => (
        <Line key={x} x1={x} x2={x} y1="18" y2="46" {...stroke(i, 1.5)} />
      ))}
    </>
  ),
  feeder: (i) => (
    <>
      <Path d={i.turn < 4 ? 'M10 28H54V54H10Z' : 'M8 20H56V34H8Z'} fill={i.body} {...stroke(i)} />
      <Circle cx="32" cy={i.turn < 4 ? 28 : 27} r={8 + (i.turn % 2) * 3} fill={i.tone} {...stroke(i)} />
    </>
  ),
  sieve: (i) => (
    <>
      <Path
        d={i.turn > 2 && i.turn < 6 ? 'M10 16H54L32 58Z' : 'M8 20H56L50 42Q32 52 14 42Z'}
        fill={i.body}
        {...stroke(i)}
      />
      <Path d="M20 26H44M22 34H42M24 42H40" {...stroke(i, 1)} />
    </>
  ),
  bucket: (i) => (
    <>
      <Path d="M12 16H52L47 56H17Z" fill="#F4F3EF" {...stroke(i)} />
      <Path d="M12 16Q32 2 52 16" fill="none" {...stroke(i)} />
      <Rect x="27" y="45" width="10" height="8" fill={i.tone} {...stroke(i)} />
    </>
  ),
  mould: (i) => (
    <>
      <Rect x="14" y="10" width="36" height="48" rx="3" fill={i.body} {...stroke(i)} />
      <Path
        d={
          [
            'M26 18H38V50H26Z',
            'M29 16H35L37 50H27Z',
            'M32 16Q46 26 44 50H20Q18 26 32 16Z',
            'M32 20a9 9 0 1 0 .1 0z',
            'M32 18L44 30L38 48H26L20 30Z',
          ][i.turn % 5]
        }
        fill={i.tone}
        {...stroke(i, 1.5)}
      />
    </>
  ),
  spool: (i) => (
    <>
      <Rect x="16" y="12" width="32" height="7" fill={i.tone} {...stroke(i)} />
      <Rect x="16" y="46" width="32" height="7" fill={i.tone} {...stroke(i)} />
      <Path d="M20 19H44V46H20Z" fill="#F4F3EF" {...stroke(i)} />
      {[25, 31, 37].map((y) => (
        <Line key={y} x1="20" x2="44" y1={y} y2={y + 3} {...stroke(i, 1)} />
      ))}
    </>
  ),
};

/**
 * An item's drawing, from its picture's name `drawing/mark/turn`: the mark (a size, letter or colour) is what tells
 * it from its neighbours, so it is drawn too.
 */
export function Picture({ name, size = 64 }: { name: string; size?: number }) {
  return name.startsWith(OWN) ? (
    <Photograph id={name.slice(OWN.length)} size={size} />
  ) : (
    <Drawing name={name} size={size} />
  );
}

/** A picture that the house took itself. */
function Photograph({ id, size }: { id: string; size: number }) {
  const surface = useSurface();
  return (
    <Image
      aria-hidden
      source={{ uri: `/api/pictures/${id}` }}
      resizeMode="contain"
      style={{
        width: size,
        height: size,
        borderRadius: 4,
        borderWidth: 1,
        borderColor: surface.line,
        backgroundColor: '#FFFFFF',
      }}
    />
  );
}

function Drawing({ name, size }: { name: string; size: number }) {
  const surface = useSurface();
  const [kind = '', mark = '', turn = '0'] = name.split('/');
  const draw = drawings[kind];
  const ink: Ink = { line: '#3A4146', body: '#DCD8CC', tone: tones[mark] ?? '#D3A24A', turn: Number(turn) };
  return (
    <View
      aria-hidden
      style={{
        width: size,
        height: size,
        borderRadius: 4,
        backgroundColor: surface.name === 'floor' ? '#F4F3EF' : '#FFFFFF',
        borderWidth: 1,
        borderColor: surface.line,
      }}
    >
      <Svg width="100%" height="100%" viewBox="-2 -2 68 68">
        {(draw ?? drawings['parcel']!)(ink)}
        {!tones[mark] && mark !== '' && size >= 40 && (
          <>
            <Rect x={62 - mark.length * 8} y="50" width={mark.length * 8 + 3} height="15" fill="#FFFFFF" />
            <SvgText x="63" y="63" fontSize="15" fontFamily={fonts.code} textAnchor="end" fill={charcoalMark}>
              {mark}
            </SvgText>
          </>
        )}
      </Svg>
    </View>
  );
}

/** How the name of a picture of one's own begins. */
const OWN = 'own:';
const charcoalMark = '#1E2326';

/**
 * Asks for photographs before they are shown, so that the device has them when it is offline: what is asked once
 * its service worker keeps. Without one, or offline, nothing is lost by it.
 */
export async function fetchPictures(names: readonly string[]): Promise<void> {
  for (const name of new Set(names))
    if (name.startsWith(OWN)) await fetch(`/api/pictures/${name.slice(OWN.length)}`).catch(() => undefined);
}
