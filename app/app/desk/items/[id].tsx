import { useLocalSearchParams } from 'expo-router';
import { desk } from '../../../places.ts';

const ItemView = desk.view('ItemView');

export default function ItemRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ItemView key={id} id={id} />;
}
