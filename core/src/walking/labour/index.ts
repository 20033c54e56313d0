export { chances, type Chance, type Due } from './departures.ts';
export { estimate, firstStandards, type Standards, type Work } from './estimate.ts';
export { chanceOf, dueIn, forecast, forecastInTurn, paceOf, type Forecast, type Hand, type Left } from './forecast.ts';
export { relayOf, type Relay, type RelayLeg, type RelayWork } from './relay.ts';
export { isOn, shiftOf, workforce, type LocalMoment, type Shift, type Worker } from './shifts.ts';
export { placesToWork, silentSince, type Means } from './means.ts';
export { roughWalk } from './rough.ts';
