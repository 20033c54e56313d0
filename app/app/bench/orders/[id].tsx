import { useLocalSearchParams } from 'expo-router';
import { bench } from '../../../places.ts';

const BenchOrderView = bench.view('BenchOrderView');

export default function BenchOrderRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <BenchOrderView key={id} id={id} />;
}
