import { useLocalSearchParams } from 'expo-router';
import { loads } from '../../../places.ts';

const LoadView = loads.view('LoadView');

export default function LoadRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <LoadView key={id} id={id} />;
}
