import { useLocalSearchParams } from 'expo-router';
import { OrderView } from '../../../desk/index.ts';

export default function OrderRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <OrderView key={id} id={id} />;
}
