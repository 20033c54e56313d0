export { ConfirmRunSheet } from './ConfirmRunSheet.tsx';
export { ConfirmWaveSheet } from './ConfirmWaveSheet.tsx';
