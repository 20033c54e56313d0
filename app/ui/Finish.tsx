import { Animated, View } from 'react-native';
import { useRise } from './motion.ts';
import { useSurface } from './theme.ts';

const HIGH = [14, 22, 30];

/** Three segments that rise with the three tones of a finished run. */
export function Finish() {
  const surface = useSurface();
  const rising = useRise();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 4, height: HIGH[2] }} aria-hidden>
      {rising.map((value, i) => (
        <Animated.View
          key={i}
          style={{
            width: 10,
            height: value.interpolate({ inputRange: [0, 1], outputRange: [2, HIGH[i]!] }),
            borderRadius: 2,
            backgroundColor: surface.done,
          }}
        />
      ))}
    </View>
  );
}
