import { Ground } from '../shell/index.ts';
import { setup } from '../places.ts';

const FirstRun = setup.view('FirstRun');

export default function FirstRoute() {
  return (
    <Ground surface="paper">
      <FirstRun />
    </Ground>
  );
}
