import Svg, { Defs, Path, Pattern, Rect } from 'react-native-svg';
import { charcoal, useSurface } from './theme.ts';

/** Stripes at 45 degrees, charcoal on caution: here a person stops. */
export function Stripes({ height = 10 }: { height?: number }) {
  const surface = useSurface();
  return (
    <Svg width="100%" height={height} aria-hidden>
      <Defs>
        <Pattern id="stripes" width="20" height="20" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <Rect width="20" height="20" fill={surface.caution} />
          <Path d="M0 0H10V20H0Z" fill={charcoal} />
        </Pattern>
      </Defs>
      <Rect width="100%" height={height} fill="url(#stripes)" />
    </Svg>
  );
}
