export {
  addressOf,
  api,
  call,
  fetchFile,
  nobodyAnswered,
  restoreBackup,
  tags,
  type Call,
  type Trouble,
} from './api.ts';
export { arrange } from './arrange.ts';
export { begin } from './begin.ts';
export { remember, remembered } from '../kept/index.ts';
export { deviceName, randomKey } from './device.ts';
export { floorWork } from './floorWork.ts';
export { forSite, workFor } from './forSite.ts';
export { goLive } from './live.ts';
export { MeContext, placesOf, useMay, useMe, useNow } from './me.ts';
export { close, tell, type Notice } from './notices.ts';
export { readOrders, type OrderStatus } from './orderList.ts';
export { store, useFrom, useSend } from './store.ts';
export { troubleOf, words } from './trouble.ts';
export { readOutlook } from './outlook.ts';
export { add, fill, releaseOf, setLines, toggle, type Tray } from './tray.ts';
export { finishLeaving, hasCome, leave } from './signedOut.ts';
