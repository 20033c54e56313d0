export { actsFor, dayActs, openAt, openPlaces, type DayAct, type OpenPlace, type OrderUnits } from './openAt.ts';
