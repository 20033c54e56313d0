export { addDays, departureFor, instantOf, localDate, weekday, type Departure } from './calendar.ts';
