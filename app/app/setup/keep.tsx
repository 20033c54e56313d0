import { KeepView } from '../../setup/index.ts';

export default KeepView;
