import { useId } from 'react';
import { View } from 'react-native';
import Svg, { Defs, Line, Path, Pattern, Rect } from 'react-native-svg';
import { Text, useSurface } from '../ui/index.ts';

const HEIGHT = 12;

/**
 * What an item has beside what is asked of it: solid is free, hatched is missing, and a tick stands where the next supply
 * would bring it, with its day.
 */
export function SupplyBar({
  asked,
  served,
  next,
  width,
  label,
}: {
  asked: number;
  served: number;
  next: { units: number; day: string } | null;
  width: number;
  label: string;
}) {
  const surface = useSurface();
  const id = useId().replace(/[^a-z0-9]/gi, '');
  const at = (units: number) => Math.min(width, (units / Math.max(1, asked)) * width);
  const tick = next ? Math.min(width - 1, Math.max(1, at(served + next.units))) : null;
  return (
    <View role="img" aria-label={label} style={{ width, gap: 1 }}>
      <Svg width={width} height={HEIGHT + 4} aria-hidden>
        <Defs>
          <Pattern id={id} width={6} height={6} patternUnits="userSpaceOnUse">
            <Path d="M-1,1l2,-2M0,6l6,-6M5,7l2,-2" stroke={surface.quiet} strokeWidth={1.2} />
          </Pattern>
        </Defs>
        <Rect x={0} y={2} width={width} height={HEIGHT} fill={`url(#${id})`} stroke={surface.line} />
        <Rect x={0} y={2} width={at(served)} height={HEIGHT} fill={surface.ink} />
        {tick !== null && <Line x1={tick} x2={tick} y1={0} y2={HEIGHT + 4} stroke={surface.done} strokeWidth={2} />}
      </Svg>
      {next && (
        <Text kind="small" colour="quiet" lines={1}>
          {next.day}
        </Text>
      )}
    </View>
  );
}
