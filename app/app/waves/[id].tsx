import { useLocalSearchParams } from 'expo-router';
import { WaveView } from '../../waves/index.ts';

export default function WaveRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <WaveView id={id} />;
}
