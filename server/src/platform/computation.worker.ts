import { planWave, type WavePlan, type WaveProblem } from '@hand-relay/core/waves';
import { readFile, writeWorkbook, type ReadFile, type SentFile } from './file.ts';

export function planWaveTask(problem: WaveProblem): WavePlan {
  return planWave(problem);
}

export function readFileTask(file: SentFile): Promise<ReadFile> {
  return readFile(file);
}

export function writeWorkbookTask(cells: (string | number)[][]): Promise<Uint8Array> {
  return writeWorkbook(cells);
}
