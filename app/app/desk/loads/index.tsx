import { LoadsView } from '../../../loads/index.ts';

export default LoadsView;
