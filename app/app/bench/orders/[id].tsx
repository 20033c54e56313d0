import { useLocalSearchParams } from 'expo-router';
import { BenchOrderView } from '../../../bench/index.ts';

export default function BenchOrderRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <BenchOrderView key={id} id={id} />;
}
