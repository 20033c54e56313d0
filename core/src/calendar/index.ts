export {
  addDays,
  daysBetween,
  departureFor,
  departureOn,
  leavesWith,
  instantOf,
  localDate,
  weekday,
  type Departure,
} from './calendar.ts';
