import { DeskHome } from '../../desk/index.ts';

export default DeskHome;
