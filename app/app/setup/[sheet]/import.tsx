import { useLocalSearchParams } from 'expo-router';
import { setup } from '../../../places.ts';

const ImportView = setup.view('ImportView');

export default function ImportRoute() {
  const { sheet } = useLocalSearchParams<{ sheet: string }>();
  return <ImportView key={sheet} id={sheet} />;
}
