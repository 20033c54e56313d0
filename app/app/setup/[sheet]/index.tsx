import { useLocalSearchParams } from 'expo-router';
import { SheetView } from '../../../setup/index.ts';

export default function SheetRoute() {
  const { sheet } = useLocalSearchParams<{ sheet: string }>();
  return <SheetView key={sheet} id={sheet} />;
}
