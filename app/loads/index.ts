export { LoadsView } from './LoadsView.tsx';
export { LoadView } from './LoadView.tsx';
