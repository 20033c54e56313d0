import { G, Rect } from 'react-native-svg';
import { useSurface } from '../ui/index.ts';

const SIZE = 5;

/** The departure: two rows of squares across the lane, as paint on a hall's floor. */
export function FinishLine({ x, height }: { x: number; height: number }) {
  const surface = useSurface();
  const left = x - SIZE;
  return (
    <G>
      <Rect
        x={left}
        y={3}
        width={2 * SIZE}
        height={height - 6}
        fill={surface.raised}
        stroke={surface.ink}
        strokeWidth={1}
      />
      {Array.from({ length: Math.floor((height - 6) / SIZE) }, (_, i) => (
        <Rect key={i} x={left + (i % 2) * SIZE} y={3 + i * SIZE} width={SIZE} height={SIZE} fill={surface.ink} />
      ))}
    </G>
  );
}
