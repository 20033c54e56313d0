export { ConfirmRunSheet } from './ConfirmRunSheet.tsx';
