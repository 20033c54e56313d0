import { useLocalSearchParams } from 'expo-router';
import { ItemView } from '../../../desk/index.ts';

export default function ItemRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ItemView key={id} id={id} />;
}
