export { DeskHome } from './DeskHome.tsx';
export { DeskLayout } from './DeskLayout.tsx';
export { IntakeView } from './IntakeView.tsx';
export { OrderView } from './OrderView.tsx';
export { WavesView } from './WavesView.tsx';
export { WaveView } from './WaveView.tsx';
