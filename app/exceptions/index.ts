export { ExceptionsView } from './ExceptionsView.tsx';
