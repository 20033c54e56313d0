import { FirstRun } from '../setup/index.ts';
import { Ground } from '../shell/index.ts';

export default function FirstRoute() {
  return (
    <Ground surface="paper">
      <FirstRun />
    </Ground>
  );
}
