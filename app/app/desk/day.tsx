import { endOfDay } from '../../places.ts';

export default endOfDay.view('EndOfDayView');
