import { Piscina } from 'piscina';
import type { WavePlan, WaveProblem } from '@hand-relay/core/waves';
import type { PageWanted } from './draw.ts';
import type { ReadFile, SentFile } from './file.ts';
import { moduleFile } from './modules.ts';

/** Heavy computation, in threads of its own. */
export interface Computation {
  planWave(problem: WaveProblem): Promise<WavePlan>;
  /** Cuts a file of master data into cells. */
  readFile(file: SentFile): Promise<ReadFile>;
  /** An XLSX file of rows of cells, the heading first. */
  writeWorkbook(cells: (string | number)[][]): Promise<Uint8Array>;
  /** A page of a PDF as PNG. */
  drawPage(wanted: PageWanted): Promise<Uint8Array | null>;
  close(): Promise<void>;
}

/** Opens the pool. One thread leaves a small machine's other core to the requests. */
export function openComputation(): Computation {
  const file = moduleFile('platform/computation.worker');
  const pool = new Piscina({
    filename: file.endsWith('.ts') ? file.replace('.worker.ts', '.source.mjs') : file,
    maxThreads: 1,
    idleTimeout: 60_000,
  });
  return {
    planWave: (problem) => pool.run(problem, { name: 'planWaveTask' }) as Promise<WavePlan>,
    readFile: (file) => pool.run(file, { name: 'readFileTask' }) as Promise<ReadFile>,
    writeWorkbook: (cells) => pool.run(cells, { name: 'writeWorkbookTask' }) as Promise<Uint8Array>,
    drawPage: (wanted) => pool.run(wanted, { name: 'drawPageTask' }) as Promise<Uint8Array | null>,
    close: () => pool.destroy(),
  };
}
