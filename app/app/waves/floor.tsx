import { waves } from '../../places.ts';

export default waves.view('FloorView');
