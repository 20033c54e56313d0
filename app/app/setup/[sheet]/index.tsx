import { useLocalSearchParams } from 'expo-router';
import { setup } from '../../../places.ts';

const SheetView = setup.view('SheetView');

export default function SheetRoute() {
  const { sheet } = useLocalSearchParams<{ sheet: string }>();
  return <SheetView key={sheet} id={sheet} />;
}
