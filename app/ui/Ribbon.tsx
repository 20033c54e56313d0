import { Pressable, View } from 'react-native';
import { isStill, MOVE_MS } from './motion.ts';
import { useSurface } from './theme.ts';

export interface RibbonStop {
  key: string;
  state: 'done' | 'short' | 'open';
}

const HIGH = 12;

/** The stops done and to come as one strip, a segment to each: a touch opens the list of them, where there is one. */
export function Ribbon({
  stops,
  current,
  label,
  onPress,
}: {
  stops: RibbonStop[];
  current: string | undefined;
  label: string;
  onPress?: () => void;
}) {
  const surface = useSurface();
  return (
    <Pressable
      role={onPress ? 'button' : 'img'}
      aria-label={label}
      disabled={!onPress}
      onPress={onPress ?? null}
      // The strip is thin, what a thumb hits is not.
      style={{ height: 28, justifyContent: 'center', flexShrink: 0 }}
    >
      <View style={{ flexDirection: 'row', gap: stops.length > 60 ? 1 : 3, height: HIGH }}>
        {stops.map((stop) => {
          const here = stop.key === current;
          const colour =
            stop.state === 'done' ? surface.done : stop.state === 'short' ? surface.caution : 'transparent';
          return (
            <View
              key={stop.key}
              style={
                {
                  flex: here ? 2 : 1,
                  minWidth: 0,
                  borderRadius: 2,
                  borderWidth: stops.length > 60 ? 0 : here ? 2 : 1,
                  borderColor: here ? surface.ink : stop.state === 'open' ? surface.quiet : colour,
                  backgroundColor: here
                    ? surface.ink
                    : colour === 'transparent' && stops.length > 60
                      ? surface.line
                      : colour,
                  // A stop that is done fills; a system that wants no motion has none.
                  transitionProperty: 'background-color, flex-grow',
                  transitionDuration: isStill() ? '0ms' : `${MOVE_MS}ms`,
                } as object
              }
            />
          );
        })}
      </View>
    </Pressable>
  );
}
