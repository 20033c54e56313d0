import { DockLayout } from '../../dock/index.ts';
import { Gate, Ground } from '../../shell/index.ts';

export default function DockRoutes() {
  return (
    <Gate>
      <Ground surface="paper">
        <DockLayout />
      </Ground>
    </Gate>
  );
}
