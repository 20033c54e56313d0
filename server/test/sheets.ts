import type { JobAnswer } from '@hand-relay/contract';
import type { SheetName } from '@hand-relay/core/reading/sheets';
import type { Person } from './relay.ts';

const base64 = (text: string | Uint8Array) => Buffer.from(text).toString('base64');

/** Files of master data, looked at and taken as the app does. */
export function setupOf(person: Person) {
  const look = (sheet: SheetName, data: string | Uint8Array, matching?: Record<string, string | null>) =>
    person.get('previewSheet', {
      id: sheet,
      body: { file: `${sheet}.csv`, data: base64(data), ...(matching ? { matching } : {}) },
    });
  const ended = async (job: string): Promise<JobAnswer> => {
    for (;;) {
      const answer = await person.get('job', { id: job });
      if (answer.state !== 'running') return answer;
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
  };
  const take = async (sheet: SheetName, data: string | Uint8Array, matching?: Record<string, string | null>) => {
    const body = { file: `${sheet}.csv`, data: base64(data), ...(matching ? { matching } : {}) };
    return ended((await person.get('importSheet', { id: sheet, body })).job);
  };
  const rows = async (sheet: SheetName) => (await person.get('sheetRows', { id: sheet })).rows;
  return { look, take, rows, ended };
}
