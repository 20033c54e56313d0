import { Slot, usePathname } from 'expo-router';
import { useWindowDimensions, View } from 'react-native';
import { useSurface, WIDE } from '../ui/index.ts';
import { DockList } from './DockList.tsx';

/** On a wide screen the shipments stay beside the one that is open. */
export function DockLayout() {
  const { width } = useWindowDimensions();
  const path = usePathname();
  const surface = useSurface();
  if (width < WIDE) return <Slot />;
  return (
    <View style={{ flex: 1, minHeight: 0, flexDirection: 'row' }}>
      <View style={{ flex: 3, minWidth: 0 }}>
        <DockList open={path.split('/')[2]} />
      </View>
      <View style={{ flex: 2, minWidth: 400, borderLeftWidth: 1, borderColor: surface.line }}>
        <Slot />
      </View>
    </View>
  );
}
