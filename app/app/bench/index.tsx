import { BenchView } from '../../bench/index.ts';

export default BenchView;
