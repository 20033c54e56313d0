import { ScannerView } from '../../setup/index.ts';

export default ScannerView;
