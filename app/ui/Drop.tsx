import Overlay from '@rneui/themed/dist/Overlay';
import { useRef, useState, type ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { Button } from './Button.tsx';
import type { IconName } from './Icon.tsx';
import { Text } from './Text.tsx';
import { SurfaceContext, surfaces, useSurface, WIDE } from './theme.ts';

const WIDTH = 300;
const EDGE = 8;

/** A key that opens a small panel below it, or at the foot of a phone; Escape and a tap beside put it away. */
export function Drop({
  title,
  label,
  set = false,
  icon = 'chevron-down',
  children,
}: {
  /** What the key says: the name, and what is chosen. */
  title: string;
  /** The panel's name. */
  label: string;
  /** Whether something is chosen in it. */
  set?: boolean;
  icon?: IconName;
  /** What it holds; a function gets the way to put it away. */
  children: ReactNode | ((close: () => void) => ReactNode);
}) {
  const surface = useSurface();
  const { width, height } = useWindowDimensions();
  const wide = width >= WIDE;
  const key = useRef<View>(null);
  const [at, setAt] = useState<{ left: number; top: number } | null>(null);
  const open = () => {
    const box = (key.current as unknown as HTMLElement).getBoundingClientRect();
    setAt({ left: Math.max(EDGE, Math.min(box.left, width - WIDTH - EDGE)), top: box.bottom + 2 });
  };
  const close = () => setAt(null);
  return (
    <View ref={key}>
      <Button size="small" title={title} icon={icon} pressed={set} onPress={open} />
      {at && (
        <Overlay
          isVisible
          onBackdropPress={close}
          onRequestClose={close}
          animationType="none"
          backdropStyle={{ backgroundColor: wide ? 'transparent' : 'rgba(20,24,26,0.55)' }}
          overlayStyle={[
            {
              padding: 0,
              borderRadius: 4,
              borderWidth: 1,
              borderColor: surface.quiet,
              backgroundColor: surface.raised,
              shadowOpacity: 0,
              elevation: 0,
              position: 'absolute',
            },
            wide
              ? { width: WIDTH, ...at, maxHeight: height - at.top - EDGE }
              : { width, bottom: 0, left: 0, maxHeight: height * 0.8 },
          ]}
        >
          <SurfaceContext.Provider value={surface === surfaces.floor ? 'floor' : 'paper'}>
            <View
              {...({ dataSet: { surface: surface.name } } as object)}
              role="dialog"
              aria-label={label}
              style={{ flexShrink: 1 }}
            >
              <ScrollView style={{ flexShrink: 1 }} contentContainerStyle={{ padding: 12, gap: 10 }}>
                <Text kind="label" colour="quiet">
                  {label}
                </Text>
                {typeof children === 'function' ? children(close) : children}
              </ScrollView>
            </View>
          </SurfaceContext.Provider>
        </Overlay>
      )}
    </View>
  );
}
