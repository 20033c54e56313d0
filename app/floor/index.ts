export { RunsView } from './RunsView.tsx';
export { RunView } from './RunView.tsx';
