import { TrackView } from '../../waves/index.ts';

export default TrackView;
