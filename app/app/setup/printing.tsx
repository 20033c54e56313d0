import { PrintingView } from '../../setup/index.ts';

export default PrintingView;
