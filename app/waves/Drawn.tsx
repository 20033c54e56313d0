import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import Svg from 'react-native-svg';

/** A drawing in as many pixels as there are, with its meaning in words. */
export function Drawn({
  label,
  height,
  children,
}: {
  label: string;
  height: number;
  children: (width: number) => ReactNode;
}) {
  const [width, setWidth] = useState(0);
  return (
    <View
      role="img"
      aria-label={label}
      style={{ height }}
      onLayout={(e) => setWidth(Math.round(e.nativeEvent.layout.width))}
    >
      {width > 0 && (
        <Svg width={width} height={height} aria-hidden>
          {children(width)}
        </Svg>
      )}
    </View>
  );
}
