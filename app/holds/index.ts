export { HoldBanner } from './HoldBanner.tsx';
export { HoldRulesView } from './HoldRulesView.tsx';
export { Stops } from './Stops.tsx';
export { HoldSheet } from './HoldSheet.tsx';
