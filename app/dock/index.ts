export { DockHome } from './DockHome.tsx';
export { DockLayout } from './DockLayout.tsx';
export { ShipmentView } from './ShipmentView.tsx';
