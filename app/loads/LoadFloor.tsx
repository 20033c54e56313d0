import { Svg, Rect } from 'react-native-svg';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { useSurface } from '../ui/index.ts';

const PLACE_MM = 800;
const CELL = 22;
const GAP = 3;

/** The floor of a vehicle from above, its front at the left: places that are taken, that are free, and what is too much. */
export function LoadFloor({ widthMm, places, taken }: { widthMm: number; places: number; taken: number }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const across = Math.max(1, Math.floor(widthMm / PLACE_MM));
  const all = Math.max(places, Math.min(taken, places + 2 * across));
  const long = Math.ceil(all / across);
  const ownLong = Math.ceil(places / across);
  const [width, height] = [long * (CELL + GAP) + 2 * GAP, across * (CELL + GAP) + GAP];
  return (
    <View role="img" aria-label={t('loads.floorLabel', { taken, places })} style={{ maxWidth: '100%' }}>
      <Svg width="100%" style={{ maxWidth: width, aspectRatio: width / height }} viewBox={`0 0 ${width} ${height}`}>
        <Rect
          x={0.5}
          y={0.5}
          width={ownLong * (CELL + GAP) + GAP - 1}
          height={height - 1}
          fill="none"
          stroke={surface.quiet}
        />
        {Array.from({ length: all }, (_, i) => (
          <Rect
            key={i}
            x={GAP + Math.floor(i / across) * (CELL + GAP) + (i >= places ? 2 * GAP : 0)}
            y={GAP + (i % across) * (CELL + GAP)}
            width={CELL}
            height={CELL}
            fill={i >= places ? surface.refused : i < taken ? surface.ink : surface.sunk}
          />
        ))}
      </Svg>
    </View>
  );
}
