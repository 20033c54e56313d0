import { Slot } from 'expo-router';
import { Gate, Ground } from '../../shell/index.ts';

export default function SetupRoutes() {
  return (
    <Gate>
      <Ground surface="paper">
        <Slot />
      </Ground>
    </Gate>
  );
}
