import { WavesView } from '../../desk/index.ts';

export default WavesView;
