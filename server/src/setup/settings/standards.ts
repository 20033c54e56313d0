import { firstStandards, type Standards } from '@hand-relay/core/walking/labour';

/** The standards that planning, previews and forecasts of every site go by: the one place that chooses them. */
export const standards: Standards = firstStandards;
