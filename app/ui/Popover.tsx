import Overlay from '@rneui/themed/dist/Overlay';
import type { ReactNode } from 'react';
import { useWindowDimensions } from 'react-native';
import { SurfaceContext, surfaces, useSurface, WIDE } from './theme.ts';

/** Where a panel opens on a wide screen: below what it belongs to, or above where more room is there. */
export type PopoverAt = { left: number; width: number; maxHeight: number } & ({ top: number } | { bottom: number });

/** A panel beside what opened it, or at the foot of a phone; Escape and a tap beside put it away. */
export function Popover({
  at,
  onClose,
  onShow,
  children,
}: {
  at: PopoverAt;
  onClose: () => void;
  onShow?: () => void;
  children: ReactNode;
}) {
  const surface = useSurface();
  const { width, height } = useWindowDimensions();
  const wide = width >= WIDE;
  return (
    <Overlay
      isVisible
      onBackdropPress={onClose}
      onRequestClose={onClose}
      {...(onShow ? { onShow } : {})}
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
        wide ? at : { width, bottom: 0, left: 0, maxHeight: height * 0.8 },
      ]}
    >
      <SurfaceContext.Provider value={surface === surfaces.floor ? 'floor' : 'paper'}>
        {children}
      </SurfaceContext.Provider>
    </Overlay>
  );
}
