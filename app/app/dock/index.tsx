import { dock } from '../../places.ts';

export default dock.view('DockHome');
