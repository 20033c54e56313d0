export { FindPanel } from './FindPanel.tsx';
