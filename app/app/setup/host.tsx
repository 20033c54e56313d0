import { HostView } from '../../setup/index.ts';

export default HostView;
