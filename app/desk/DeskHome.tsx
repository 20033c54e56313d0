import { useWindowDimensions } from 'react-native';
import { WIDE } from '../ui/index.ts';
import { OrderList } from './OrderList.tsx';

/** On a phone the list; on a wide screen the layout shows it already. */
export function DeskHome() {
  const { width } = useWindowDimensions();
  return width < WIDE ? <OrderList /> : null;
}
