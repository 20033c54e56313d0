import { SetupHome } from '../../setup/index.ts';

export default SetupHome;
