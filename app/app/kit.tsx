import { kit } from '../places.ts';

export default kit.view('KitView');
