import { useLocalSearchParams } from 'expo-router';
import { RunView } from '../../../floor/index.ts';

export default function RunRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <RunView key={id} id={id} />;
}
