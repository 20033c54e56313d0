import { DockHome } from '../../dock/index.ts';

export default DockHome;
