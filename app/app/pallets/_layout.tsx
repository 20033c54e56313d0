import { Slot } from 'expo-router';
import { Gate, Ground } from '../../shell/index.ts';

export default function PalletLayout() {
  return (
    <Gate>
      <Ground surface="floor">
        <Slot />
      </Ground>
    </Gate>
  );
}
