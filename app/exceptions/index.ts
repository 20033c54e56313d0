export { ExceptionsRail } from './ExceptionsRail.tsx';
export { ExceptionsView } from './ExceptionsView.tsx';
