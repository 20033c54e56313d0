import { useLocalSearchParams } from 'expo-router';
import { ShipmentView } from '../../dock/index.ts';

export default function ShipmentRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ShipmentView key={id} id={id} />;
}
