import { UnreachableStop } from '@hand-relay/core/walking/routing';
import { planWave, routeRun, type WavePlan } from '@hand-relay/core/walking/waves';
import type { DeskPolicy } from '@hand-relay/core/deciding/allocation';
import { planByRules, type Memory, type RuledPlan } from '@hand-relay/core/stacking/cartonising';
import { palletiseUnits, UnitFitsNoPallet } from '@hand-relay/core/stacking/palletising';
import { openSolver } from '@hand-relay/core/solver';
import { computeComparison, computeItem, computeOrder, computeOutlook } from './desk/availability/index.ts';
import type { CartonsAsked, PalletsAsked, PalletsFound, PlanAsked } from './platform/computation.ts';
import { drawPage, type PageWanted } from './platform/draw.ts';
import type { WalkAsked, WalkFound } from './platform/search.ts';

/** Milliseconds between two tellings of how far a plan is. */
const TELLING = 300;

export function planWaveTask({ problem, seconds, port }: PlanAsked): WavePlan {
  const begun = performance.now();
  let reportedAt = begun;
  try {
    return planWave(problem, {
      spent: () => (performance.now() - begun) / (1000 * seconds),
      onProgress(far) {
        const now = performance.now();
        if (!port || now - reportedAt < TELLING) return;
        reportedAt = now;
        port.postMessage(far);
      },
    });
  } finally {
    port?.close();
  }
}

export function walkTask({ problem, stops }: WalkAsked): WalkFound {
  try {
    return { walk: routeRun(problem, stops) };
  } catch (error) {
    if (error instanceof UnreachableStop) return { unreachable: error.stop };
    throw error;
  }
}

const packed: Memory = new Map();

export function cartonsTask({ problem, rules, begun, seconds }: CartonsAsked): RuledPlan {
  const end = performance.now() + 1000 * seconds;
  return planByRules(problem, rules, begun, { over: () => performance.now() > end }, packed);
}

export function palletsTask({ units, problem, seconds }: PalletsAsked): PalletsFound {
  const end = performance.now() + 1000 * seconds;
  try {
    return palletiseUnits(units, problem, { over: () => performance.now() > end });
  } catch (error) {
    if (error instanceof UnitFitsNoPallet) return { tooLarge: error.id };
    throw error;
  }
}

export function drawPageTask(wanted: PageWanted): Promise<Uint8Array | null> {
  return drawPage(wanted);
}

export const outlookTask = computeOutlook;

export function orderPromiseTask({ problem, order }: { problem: string; order: string }) {
  return computeOrder(problem, order);
}

export function askersTask({ problem, item, policy }: { problem: string; item: string; policy: DeskPolicy }) {
  return computeItem(problem, item, policy, openSolver);
}

export function comparePoliciesTask({ problem, seconds }: { problem: string; seconds: number }) {
  return computeComparison(problem, seconds, openSolver);
}
