export { KitView } from './KitView.tsx';
