import { desk } from '../../places.ts';

export default desk.view('LinesView');
