import { database } from './database.ts';

/** Keeps what the server answered, for when it cannot be reached. */
export async function storeAnswer(address: string, answer: unknown): Promise<void> {
  await (await database())?.put('answers', answer, address);
}

/** What the server answered last at an address; undefined where nothing is kept. */
export async function storedAnswer(address: string): Promise<unknown> {
  return (await database())?.get('answers', address);
}

/** What the server answered last at all addresses that begin so. */
export async function storedAnswers(prefix: string): Promise<unknown[]> {
  return (await (await database())?.getAll('answers', IDBKeyRange.bound(prefix, `${prefix}\uffff`))) ?? [];
}

/** Forgets what was answered at one address. */
export async function forgetAnswer(address: string): Promise<void> {
  await (await database())?.delete('answers', address);
}

/** Forgets all answers: they are somebody's who signs out. */
export async function forgetAnswers(): Promise<void> {
  await (await database())?.clear('answers');
}
