import { useLocalSearchParams } from 'expo-router';
import { floor } from '../../../places.ts';

const RunView = floor.view('RunView');

export default function RunRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <RunView key={id} id={id} />;
}
