import { Gate, Ground } from '../../shell/index.ts';
import { dock } from '../../places.ts';

const DockLayout = dock.view('DockLayout');

export default function DockRoutes() {
  return (
    <Gate>
      <Ground surface="paper">
        <DockLayout />
      </Ground>
    </Gate>
  );
}
