import { HistoryView } from '../../setup/index.ts';

export default HistoryView;
