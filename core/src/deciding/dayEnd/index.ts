export { actsFor, dayActs, openAt, openPlaces, type DayAct, type OpenPlace } from './openAt.ts';
