import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Asker, OrderAvailability, PolicyComparison } from '@hand-relay/contract';
import type { DeskPolicy } from '@hand-relay/core/deciding/allocation';
import { unreadable } from '@hand-relay/core/reading/intake';
import type { Begun, CartonProblem, CartonRule, RuledPlan } from '@hand-relay/core/stacking/cartonising';
import type { NamedUnit, PalletProblem, StackedUnit } from '@hand-relay/core/stacking/palletising';
import type { ItemOutlook } from '@hand-relay/core/deciding/availability';
import type { WavePlan, WaveProblem } from '@hand-relay/core/walking/waves';
import type { PageWanted } from './draw.ts';
import { notRead, type ReadFile, type SentFile } from './file.ts';
import { moduleFile } from './modules.ts';
import type { ReadOrderFile, SentOrderFile } from './orderFile.ts';
import type { WalkAsked, WalkFound } from './search.ts';

/** Heavy computation, in threads of its own. */
export interface Computation {
  /** Plans a wave; `quick` for a look beside other work, else in the thread for searches of seconds. */
  planWave(problem: WaveProblem, options: PlanWaveOptions): Promise<WavePlan>;
  /** The walk of one run, in a thread that nothing longer keeps busy. */
  walk(asked: WalkAsked): Promise<WalkFound>;
  /** The cartons that goods of an order take; where the time is short, the best so far. */
  cartons(asked: CartonsAsked): Promise<RuledPlan>;
  /** How units stack on pallets; where the time is short, the best so far. */
  pallets(asked: PalletsAsked): Promise<PalletsFound>;
  /** How far open orders can go; the Desk's problem comes as text. */
  outlook(problem: string): Promise<{ orders: (string | number | null)[][]; short: ItemOutlook[] }>;
  orderPromise(ask: { problem: string; order: string }): Promise<OrderAvailability | null>;
  askers(ask: { problem: string; item: string; policy: DeskPolicy }): Promise<Asker[]>;
  comparePolicies(ask: { problem: string; seconds: number }): Promise<Omit<PolicyComparison, 'at'>>;
  /** Cuts a file of master data into cells. */
  readFile(file: SentFile): Promise<ReadFile>;
  /** Orders of a CSV, XLSX, JSON or UBL file. */
  readOrderFile(file: SentOrderFile): Promise<ReadOrderFile>;
  /** An XLSX file of rows of cells, the heading first. */
  writeWorkbook(cells: (string | number)[][]): Promise<Uint8Array>;
  /** A page of a PDF as PNG. */
  drawPage(wanted: PageWanted): Promise<Uint8Array | null>;
  close(): Promise<void>;
}

export interface PlanWaveOptions {
  /** The search ends with the best so far. */
  seconds: number;
  quick?: boolean;
  /** Called with the progress now and then, from 0 to 1. */
  onProgress?: (far: number) => void;
  /** Stops it at once; the promise is rejected with an `AbortError`. */
  signal?: AbortSignal;
}

/** What the thread is asked. */
export interface PlanAsked {
  problem: WaveProblem;
  seconds: number;
  port: MessagePort | null;
}

export interface CartonsAsked {
  problem: CartonProblem;
  /** The site's own rules, one for each kind of goods. */
  rules: (CartonRule | null)[];
  begun: Begun | null;
  seconds: number;
}

export interface PalletsAsked {
  units: NamedUnit[];
  problem: Omit<PalletProblem, 'kinds' | 'counts'>;
  seconds: number;
}

/** The pallets, or the unit that fits none. */
export type PalletsFound = { pallets: StackedUnit[][]; lowerBound: number } | { tooLarge: string };

/** Longest that a file may take to be read, and heap that its thread may use. */
const FILE_MS = 30_000;
const FILE_HEAP_MB = 1_000;

/**
 * Opens the threads: one for what answers quickly, so that a small machine's other core is left to the requests, one
 * for walks that a change waits for, one for cartons and
 * pallets that packers wait for, one for searches of seconds, which nothing waits behind, and two for files that
 * people send, which may be anything.
 */
export function openComputation(): Computation {
  const file = moduleFile('computation.worker');
  const filename = file.endsWith('.ts') ? file.replace('.worker.ts', '.source.mjs') : file;
  const quick = new Piscina({ filename, maxThreads: 1, idleTimeout: 60_000 });
  const files = new Piscina({
    filename: moduleFile('platform/files.worker').replace(/\.worker\.ts$/, '.source.mjs'),
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 10_000,
    resourceLimits: { maxOldGenerationSizeMb: FILE_HEAP_MB },
  });
  const slow = new Piscina({ filename, minThreads: 0, maxThreads: 1, idleTimeout: 10_000 });
  const walks = new Piscina({ filename, minThreads: 0, maxThreads: 1, idleTimeout: 60_000 });
  const cartons = new Piscina({ filename, minThreads: 0, maxThreads: 1, idleTimeout: 60_000 });
  const run = <T>(task: string, argument: unknown) => quick.run(argument, { name: task }) as Promise<T>;
  /** Reads what somebody sent: a thread that takes too long, or too much memory, is ended and replaced. */
  const bounded = async <T>(
    name: string,
    argument: unknown,
    instead: (expected: 'a-smaller-file' | 'a-simpler-file') => T,
  ): Promise<T> => {
    const signal = AbortSignal.timeout(FILE_MS);
    try {
      return (await files.run(argument, { name, signal })) as T;
    } catch (error) {
      if (signal.aborted) return instead('a-simpler-file');
      if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY') return instead('a-smaller-file');
      throw error;
    }
  };
  return {
    async planWave(problem, { seconds, quick: soon = false, onProgress, signal }) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (far: number) => onProgress?.(far));
      const asked: PlanAsked = { problem, seconds, port: port2 };
      try {
        const pool = soon ? quick : slow;
        return (await pool.run(asked, {
          name: 'planWaveTask',
          transferList: [port2],
          ...(signal ? { signal } : {}),
        })) as WavePlan;
      } finally {
        port1.close();
      }
    },
    walk: (asked) => walks.run(asked, { name: 'walkTask' }) as Promise<WalkFound>,
    cartons: (asked) => cartons.run(asked, { name: 'cartonsTask' }) as Promise<RuledPlan>,
    pallets: (asked) => cartons.run(asked, { name: 'palletsTask' }) as Promise<PalletsFound>,
    outlook: (problem) => run('outlookTask', problem),
    orderPromise: (ask) => run('orderPromiseTask', ask),
    askers: (ask) => (ask.policy === 'most-orders' ? slow : quick).run(ask, { name: 'askersTask' }) as Promise<Asker[]>,
    comparePolicies: (ask) => slow.run(ask, { name: 'comparePoliciesTask' }) as Promise<Omit<PolicyComparison, 'at'>>,
    readFile: (sent) =>
      bounded<ReadFile>('readFileTask', sent, (expected) =>
        notRead({ row: 0, column: '', value: sent.name, expected }),
      ),
    readOrderFile: (sent) =>
      bounded<ReadOrderFile>('readOrderFileTask', sent, (expected) => unreadable(0, '', '', expected)),
    writeWorkbook: (cells) => files.run(cells, { name: 'writeWorkbookTask' }) as Promise<Uint8Array>,
    drawPage: (wanted) => run('drawPageTask', wanted),
    close: async () => {
      await Promise.all([quick, slow, walks, cartons, files].map((pool) => pool.destroy()));
    },
  };
}
