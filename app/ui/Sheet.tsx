import Overlay from '@rneui/themed/dist/Overlay';
import type { ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { SurfaceContext, surfaces, useSurface, WIDE } from './theme.ts';
import { Text } from './Text.tsx';

/** A sheet over the screen: at the bottom of a phone, in the middle of a wide screen. Escape and a tap beside close it. */
export function Sheet({
  title,
  onClose,
  children,
  keys,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
  keys: ReactNode;
}) {
  const surface = useSurface();
  const { width, height } = useWindowDimensions();
  const wide = width >= WIDE;
  return (
    <Overlay
      isVisible
      onBackdropPress={onClose}
      onRequestClose={onClose}
      animationType="none"
      backdropStyle={{ backgroundColor: 'rgba(20,24,26,0.55)' }}
      overlayStyle={[
        {
          padding: 0,
          borderRadius: 4,
          backgroundColor: surface.ground,
          shadowOpacity: 0,
          elevation: 0,
          maxHeight: height * 0.9,
        },
        wide ? { width: 640 } : { width, position: 'absolute', bottom: 0, left: 0 },
      ]}
    >
      <SurfaceContext.Provider value={surface === surfaces.floor ? 'floor' : 'paper'}>
        <View
          {...({ dataSet: { surface: surface.name } } as object)}
          role="dialog"
          aria-label={title}
          style={{ maxHeight: height * 0.9 }}
        >
          <View style={{ padding: 16, borderBottomWidth: 1, borderColor: surface.line }}>
            <Text kind="heading" level={2}>
              {title}
            </Text>
          </View>
          <ScrollView style={{ flexShrink: 1 }} contentContainerStyle={{ padding: 16, gap: 12 }}>
            {children}
          </ScrollView>
          <View
            style={{
              padding: 16,
              flexDirection: 'row',
              flexWrap: 'wrap',
              justifyContent: 'flex-end',
              gap: 8,
              borderTopWidth: 1,
              borderColor: surface.line,
            }}
          >
            {keys}
          </View>
        </View>
      </SurfaceContext.Provider>
    </Overlay>
  );
}
