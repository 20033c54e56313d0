import { useLocalSearchParams } from 'expo-router';
import { desk } from '../../../places.ts';

const OrderView = desk.view('OrderView');

export default function OrderRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <OrderView key={id} id={id} />;
}
