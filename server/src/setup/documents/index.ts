export { badgeSheet } from './badges.ts';
export { handoffLabel } from './handoffLabel.ts';
export { countSheet } from './countSheet.ts';
export { cartonNumbers } from './cartonNumbers.ts';
export { cartonLabel } from './label.ts';
export { binLabels, pickList, wavePaper } from './pickList.ts';
export { packingSlip } from './packingSlip.ts';
export { testPage } from './testPage.ts';
export { shipmentGoods } from './goods.ts';
