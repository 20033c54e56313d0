export { Gate } from './Gate.tsx';
export { place } from './place.tsx';
export { Ground } from './Ground.tsx';
export { Page } from './Page.tsx';
export { SignIn } from './SignIn.tsx';
export { PrintKey } from './PrintKey.tsx';
export { ReasonSheet } from './ReasonSheet.tsx';
export { Tabs, type Tab } from './Tabs.tsx';
export { useSwitchSite } from './useSwitchSite.ts';
