export { isFilled, loadScenario } from './load.ts';
export * as house from './house.ts';
export { scenario, type Scenario, type ScenarioItem } from './scenario.ts';
