export { RunsView } from './RunsView.tsx';
export { TripView } from './TripView.tsx';
export { RunView } from './RunView.tsx';
export { BackView } from './BackView.tsx';
export { CountsView } from './CountsView.tsx';
