import { setup } from '../../places.ts';

export default setup.view('PackagingView');
