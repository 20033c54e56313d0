import { SurplusView } from '../../desk/index.ts';

export default SurplusView;
