import { DevicesView } from '../../setup/index.ts';

export default DevicesView;
