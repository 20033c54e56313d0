import { useLocalSearchParams } from 'expo-router';
import { dock } from '../../places.ts';

const ShipmentView = dock.view('ShipmentView');

export default function ShipmentRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ShipmentView key={id} id={id} />;
}
