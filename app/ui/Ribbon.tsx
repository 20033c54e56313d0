import { ScrollView, View } from 'react-native';
import { useEffect, useRef } from 'react';
import { Shape } from './Signal.tsx';
import { useSurface } from './theme.ts';
import { Txt } from './Txt.tsx';

export interface RibbonStop {
  key: string;
  code: string;
  state: 'done' | 'short' | 'open';
}

const WIDTH = 92;

/** The stops done and to come: the one at hand stands out, done ones carry the baton, short ones the triangle. */
export function Ribbon({ stops, current, label }: { stops: RibbonStop[]; current: string | undefined; label: string }) {
  const surface = useSurface();
  const scroller = useRef<ScrollView>(null);
  const at = stops.findIndex((s) => s.key === current);
  useEffect(() => {
    scroller.current?.scrollTo({ x: Math.max(0, (at - 1) * (WIDTH + 4)), animated: false });
  }, [at]);
  return (
    <ScrollView
      ref={scroller}
      horizontal
      showsHorizontalScrollIndicator={false}
      aria-label={label}
      // What scrolls is reached by keyboard too.
      tabIndex={0}
      style={{ flexGrow: 0 }}
      contentContainerStyle={{ gap: 4 }}
    >
      {stops.map((stop) => {
        const here = stop.key === current;
        return (
          <View
            key={stop.key}
            style={{
              width: WIDTH,
              height: 36,
              flexDirection: 'row',
              gap: 6,
              alignItems: 'center',
              justifyContent: 'center',
              borderRadius: 4,
              borderWidth: here ? 2 : 1,
              borderColor: here ? surface.ink : surface.line,
              backgroundColor: here ? surface.raised : 'transparent',
            }}
          >
            {stop.state !== 'open' && <Shape kind={stop.state === 'done' ? 'done' : 'caution'} size={12} />}
            <Txt kind="label" colour={stop.state === 'open' || here ? 'ink' : 'quiet'} lines={1}>
              {stop.code}
            </Txt>
          </View>
        );
      })}
    </ScrollView>
  );
}
