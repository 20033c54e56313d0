import { DeskLayout } from '../../desk/index.ts';
import { Gate, Ground } from '../../shell/index.ts';

export default function DeskRoutes() {
  return (
    <Gate>
      <Ground surface="paper">
        <DeskLayout />
      </Ground>
    </Gate>
  );
}
