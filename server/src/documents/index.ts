export { badgeSheet } from './badges.ts';
export { cartonLabel } from './label.ts';
export { packingSlip } from './packingSlip.ts';
