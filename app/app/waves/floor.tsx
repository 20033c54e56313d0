import { FloorView } from '../../waves/index.ts';

export default FloorView;
