import { useLocalSearchParams } from 'expo-router';
import { waves } from '../../places.ts';

const WaveView = waves.view('WaveView');

export default function WaveRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <WaveView id={id} />;
}
