import { quick } from '../../places.ts';

export default quick.view('QuickView');
