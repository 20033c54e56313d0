import { useLocalSearchParams } from 'expo-router';
import { BackView } from '../../../floor/index.ts';

export default function BackRoute() {
  const { run } = useLocalSearchParams<{ run: string }>();
  return <BackView key={run} run={run} />;
}
