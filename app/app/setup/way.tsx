import { WayView } from '../../setup/index.ts';

export default WayView;
