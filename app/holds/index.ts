export { HoldBanner } from './HoldBanner.tsx';
export { HoldRulesView } from './HoldRulesView.tsx';
export { HoldSheet } from './HoldSheet.tsx';
