import { IntakeView } from '../../desk/index.ts';

export default IntakeView;
