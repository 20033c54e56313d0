import { G, Path, Rect, Text as SvgText } from 'react-native-svg';
import { fonts } from '../theme.ts';
import type { Drawing } from './Signs.tsx';

/** Somebody on the floor, where they scanned last. */
export interface PlanPerson {
  name: string;
  aisle: string;
  y: number;
  /** What is wrong, short, as "12 min"; nothing when all is well. */
  wrong?: string | undefined;
}

/** The baton of somebody, its tip where they are. */
export function BatonAt({ u, v, fill, drawing: { px } }: { u: number; v: number; fill: string; drawing: Drawing }) {
  return (
    <Path d={`M${u - px(26)} ${v - px(6)}h${px(20)}l${px(6)} ${px(6)}l${px(-6)} ${px(6)}h${px(-20)}z`} fill={fill} />
  );
}

const LETTER = 6.7;

/** Each by their baton and a plate with their name; in the colour of caution only where something is wrong. */
export function People({
  people,
  x,
  drawing,
}: {
  people: readonly PlanPerson[];
  x: ReadonlyMap<string, number>;
  drawing: Drawing;
}) {
  const { at, px, surface } = drawing;
  return (
    <G>
      {people.map((p) => {
        const [u, v] = at(x.get(p.aisle) ?? 0, p.y);
        const colour = p.wrong ? surface.caution : surface.ink;
        const text = p.wrong ? `${p.name} · ${p.wrong}` : p.name;
        const width = text.length * LETTER + 14;
        return (
          <G key={p.name}>
            <BatonAt u={u} v={v} fill={colour} drawing={drawing} />
            <Rect
              x={u + px(4)}
              y={v - px(11)}
              width={px(width)}
              height={px(22)}
              rx={px(3)}
              fill={surface.raised}
              stroke={colour}
              strokeWidth={px(1.5)}
            />
            <SvgText
              x={u + px(4 + width / 2)}
              y={v + px(5)}
              fontSize={px(14)}
              fontFamily={fonts.strong}
              textAnchor="middle"
              fill={colour}
            >
              {text}
            </SvgText>
          </G>
        );
      })}
    </G>
  );
}
