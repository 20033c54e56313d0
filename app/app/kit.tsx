import { KitView } from '../kit/index.ts';

export default KitView;
