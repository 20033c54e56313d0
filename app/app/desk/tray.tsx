import { TrayView } from '../../desk/index.ts';

export default TrayView;
