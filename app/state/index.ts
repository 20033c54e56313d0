export { addressOf, api, call, restoreBackup, type Trouble } from './api.ts';
export { deviceName, remember, remembered } from './device.ts';
export { goLive } from './live.ts';
export { MeContext, placesOf, useMay, useMe, useNow } from './me.ts';
export { setMarked, toggle } from './marked.ts';
export { close, tell, type Notice } from './notices.ts';
export { readOrders, type OrderStatus } from './orderList.ts';
export { store, useFrom, useSend } from './store.ts';
export { troubleOf, words } from './trouble.ts';
