import { useLocalSearchParams } from 'expo-router';
import { pallets } from '../../places.ts';

const PalletView = pallets.view('PalletView');

export default function PalletRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <PalletView key={id} id={id} />;
}
