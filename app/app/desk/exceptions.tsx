import { exceptions } from '../../places.ts';

export default exceptions.view('ExceptionsView');
