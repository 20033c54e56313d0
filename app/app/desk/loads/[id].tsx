import { useLocalSearchParams } from 'expo-router';
import { LoadView } from '../../../loads/index.ts';

export default function LoadRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <LoadView key={id} id={id} />;
}
