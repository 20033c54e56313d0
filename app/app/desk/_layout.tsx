import { Gate, Ground } from '../../shell/index.ts';
import { desk } from '../../places.ts';

const DeskLayout = desk.view('DeskLayout');

export default function DeskRoutes() {
  return (
    <Gate>
      <Ground surface="paper">
        <DeskLayout />
      </Ground>
    </Gate>
  );
}
