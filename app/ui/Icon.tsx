import type { StyleProp, ViewStyle } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { iconPaths } from './iconPaths.ts';

export type IconName = keyof typeof iconPaths;

/** An icon, hidden from screen readers: a word beside it, or its button's name, says what it means. */
export function Icon({
  name,
  size,
  color,
  style,
}: {
  name: IconName;
  size: number;
  color: string;
  style?: StyleProp<ViewStyle>;
}) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden {...(style ? { style } : {})}>
      <Path d={iconPaths[name]} fill={color} />
    </Svg>
  );
}
