export {
  chooseForWave,
  dueSteps,
  gathersNow,
  type Gathering,
  type Limits,
  type OpenWave,
  type TimetableRule,
} from './timetable.ts';
