import { SiteView } from '../../setup/index.ts';

export default SiteView;
