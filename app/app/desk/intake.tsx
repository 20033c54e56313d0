import { intake } from '../../places.ts';

export default intake.view('IntakeView');
