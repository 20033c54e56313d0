export { FirstRun } from './FirstRun.tsx';
export { FloorMaker } from './FloorMaker.tsx';
export { HistoryView } from './HistoryView.tsx';
export { ImportView } from './ImportView.tsx';
export { SetupHome } from './SetupHome.tsx';
export { SheetView } from './SheetView.tsx';
export { SiteView } from './SiteView.tsx';
