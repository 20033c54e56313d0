import { useLocalSearchParams } from 'expo-router';
import { ImportView } from '../../../setup/index.ts';

export default function ImportRoute() {
  const { sheet } = useLocalSearchParams<{ sheet: string }>();
  return <ImportView key={sheet} id={sheet} />;
}
