export { BenchOrderView } from './BenchOrderView.tsx';
export { BenchView } from './BenchView.tsx';
