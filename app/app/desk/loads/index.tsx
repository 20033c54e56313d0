import { loads } from '../../../places.ts';

export default loads.view('LoadsView');
