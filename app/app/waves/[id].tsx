import { useLocalSearchParams } from 'expo-router';
import { WaveView } from '../../desk/index.ts';

export default function WaveRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <WaveView id={id} />;
}
