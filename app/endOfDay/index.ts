export { EndOfDayView } from './EndOfDayView.tsx';
