export { FloorView } from './FloorView.tsx';
export { TrackView } from './TrackView.tsx';
export { WaveView } from './WaveView.tsx';
