import { RunsView } from '../../floor/index.ts';

export default RunsView;
