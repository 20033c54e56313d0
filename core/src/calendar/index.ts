export {
  addDays,
  departureFor,
  departureOn,
  leavesWith,
  instantOf,
  localDate,
  weekday,
  type Departure,
} from './calendar.ts';
