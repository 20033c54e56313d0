import { HoldRulesView } from '../../holds/index.ts';

export default HoldRulesView;
