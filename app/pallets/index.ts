export { PalletsView } from './PalletsView.tsx';
export { PalletView } from './PalletView.tsx';
