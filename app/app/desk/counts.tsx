import { DeskCounts } from '../../desk/index.ts';

export default DeskCounts;
