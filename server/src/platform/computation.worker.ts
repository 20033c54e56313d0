import { planWave, type WavePlan, type WaveProblem } from '@hand-relay/core/waves';
import { drawPage, type PageWanted } from './draw.ts';
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

export function drawPageTask(wanted: PageWanted): Promise<Uint8Array | null> {
  return drawPage(wanted);
}
