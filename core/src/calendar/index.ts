export { addDays, departureFor, departureOn, instantOf, localDate, weekday, type Departure } from './calendar.ts';
