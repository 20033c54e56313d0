import { bench } from '../../places.ts';

export default bench.view('BenchView');
