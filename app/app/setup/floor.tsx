import { FloorMaker } from '../../setup/index.ts';

export default FloorMaker;
