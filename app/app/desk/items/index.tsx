import { ItemsView } from '../../../desk/index.ts';

export default ItemsView;
