export { isFilled, loadScenario } from './load.ts';
export * as house from './house.ts';
export { writeLastMonth, writePast } from './past/index.ts';
export { scenario, type Scenario, type ScenarioItem } from './scenario.ts';
export { departuresAround, playShift, ShiftClock, SHIFT_MS } from './shift/index.ts';
