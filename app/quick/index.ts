export { QuickView } from './QuickView.tsx';
