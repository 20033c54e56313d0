import { QuickView } from '../../quick/index.ts';

export default QuickView;
