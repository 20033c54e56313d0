import { ExceptionsView } from '../../exceptions/index.ts';

export default ExceptionsView;
