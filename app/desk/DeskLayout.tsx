import { Slot, usePathname } from 'expo-router';
import { useWindowDimensions, View } from 'react-native';
import { useSurface, WIDE } from '../ui/index.ts';
import { OrderList } from './OrderList.tsx';

/** On a wide screen the list stays beside what is opened from it; on a phone they follow one another. */
export function DeskLayout() {
  const { width } = useWindowDimensions();
  const path = usePathname();
  const surface = useSurface();
  const open = path.startsWith('/desk/orders/') ? path.split('/').at(-1) : undefined;
  if (width < WIDE || (path !== '/desk' && open === undefined)) return <Slot />;
  return (
    <View style={{ flex: 1, minHeight: 0, flexDirection: 'row' }}>
      <View style={{ flex: 3, minWidth: 0 }}>
        <OrderList open={open} />
      </View>
      <View
        style={open ? { flex: 2, minWidth: 380, borderLeftWidth: 1, borderColor: surface.line } : { display: 'none' }}
      >
        <Slot />
      </View>
    </View>
  );
}
