import type { FloorPlan as Plan } from '@hand-relay/contract';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import Svg, { Defs, G, Pattern, Rect } from 'react-native-svg';
import { charcoal, useSurface } from '../theme.ts';
import { BatonAt, People, type PlanPerson } from './People.tsx';
import { boxOf, turnMatrix, wholePlan, type PlanView, type Point, type Turn } from './planView.ts';
import { RackNames, Racks, racksOf } from './Racks.tsx';
import { AisleSigns, drawingOf, Ends, FloorMarks, Spots } from './Signs.tsx';
import type { PlanStop } from './stopsOf.ts';
import { Stops, WalkLine, Walks } from './Walk.tsx';
import { cutWalk } from './walk.ts';

/** Pixels a metre until the drawing knows how large it is. */
const GUESS = 16;

export interface FloorPlanProps {
  plan: Plan;
  /** The walk of a run. */
  path?: readonly Point[];
  /** Ways of several runs, drawn thin. */
  paths?: readonly (readonly Point[])[];
  stops?: PlanStop[];
  people?: readonly PlanPerson[];
  /** Whether racks are filled by what is still to be picked there. */
  heat?: boolean;
  /** Bins that a search found. */
  found?: ReadonlySet<string>;
  /** Bins that are not there yet, drawn filled. */
  fresh?: ReadonlySet<string>;
  /** A stretch that is being marked. */
  marking?: { aisle: string; from: number; to: number } | null;
  /** What of the floor is seen; it fills the box around it. Without: all, as wide as there is room. */
  view?: PlanView;
  /** Which way of the floor is up. */
  turn?: Turn;
  label: string;
}

/**
 * The floor to scale: racks along the aisles, what is blocked in hazard stripes, one-way aisles with arrows, walks as
 * lines with numbered stops, and the baton where somebody scanned last. Signs keep their size on the screen, however
 * much of the floor is seen.
 */
export function FloorPlan({
  plan,
  path,
  paths,
  stops,
  people,
  heat = false,
  found,
  fresh,
  marking,
  view,
  turn = 'north',
  label,
}: FloorPlanProps) {
  const surface = useSurface();
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const shown = view ?? wholePlan(plan);
  const box = boxOf(shown, turn);
  const scale = size ? Math.max(0.1, Math.min(size.width / box.width, size.height / box.height)) : GUESS;
  const drawing = drawingOf(turn, scale, shown, surface);
  const x = useMemo(() => new Map(plan.aisles.map((a) => [a.id, a.x])), [plan]);
  const { racks, most } = useMemo(() => racksOf(plan, found, fresh), [plan, found, fresh]);
  const last = stops?.findLastIndex((s) => s.done) ?? -1;
  const behind = (stops ?? []).slice(0, last + 1).map((s): Point => [x.get(s.aisle) ?? 0, s.y]);
  const walk = path && cutWalk(path, behind);
  const at = behind.at(-1);
  // The drawing is centred in its box, which may show more than was asked for.
  const middle = { x: shown.left + shown.width / 2, y: shown.bottom + shown.height / 2 };
  const reach = size ? Math.max(size.width, size.height) / scale / 2 + 1 : Infinity;
  const seen = (px: number, py: number) => Math.abs(px - middle.x) < reach && Math.abs(py - middle.y) < reach;
  return (
    <View
      role="img"
      aria-label={label}
      style={view ? { flex: 1 } : { width: '100%', aspectRatio: box.width / box.height }}
      onLayout={(e) => setSize({ width: e.nativeEvent.layout.width, height: e.nativeEvent.layout.height })}
    >
      <Svg width="100%" height="100%" viewBox={`${box.u} ${box.v} ${box.width} ${box.height}`} aria-hidden>
        <Defs>
          <Pattern id="hazard" width={1.2} height={1.2} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <Rect width={1.2} height={1.2} fill={surface.caution} />
            <Rect width={0.6} height={1.2} fill={surface.name === 'floor' ? surface.sunk : charcoal} />
          </Pattern>
        </Defs>
        <G transform={turnMatrix[turn]}>
          <Racks racks={racks} most={most} heat={heat} surface={surface} />
          <FloorMarks plan={plan} marking={marking} drawing={drawing} />
        </G>
        <RackNames
          racks={racks.filter((r) => seen(r.x, r.y))}
          most={most}
          heat={heat}
          at={drawing.at}
          scale={scale}
          surface={surface}
        />
        <Spots places={plan.places} drawing={drawing} />
        {paths && <Walks paths={paths} drawing={drawing} />}
        {walk && <WalkLine {...walk} drawing={drawing} />}
        <Ends plan={plan} drawing={drawing} />
        {stops && <Stops stops={stops} x={x} drawing={drawing} />}
        {at && <BatonAt {...spot(drawing.at(...at))} fill={surface.ink} drawing={drawing} />}
        {people && <People people={people} x={x} drawing={drawing} />}
        <AisleSigns plan={plan} drawing={drawing} />
      </Svg>
    </View>
  );
}

const spot = ([u, v]: [number, number]) => ({ u, v });
