import { ChooseView } from '../../desk/index.ts';

export default ChooseView;
