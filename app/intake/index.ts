export { IntakeView } from './IntakeView.tsx';
