import { StuckView } from '../../setup/index.ts';

export default StuckView;
