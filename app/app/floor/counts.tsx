import { CountsView } from '../../floor/index.ts';

export default CountsView;
