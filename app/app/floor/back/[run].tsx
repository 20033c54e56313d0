import { useLocalSearchParams } from 'expo-router';
import { floor } from '../../../places.ts';

const BackView = floor.view('BackView');

export default function BackRoute() {
  const { run } = useLocalSearchParams<{ run: string }>();
  return <BackView key={run} run={run} />;
}
