import { Worker } from 'node:worker_threads';
import { DatabaseThread } from './thread.ts';

/** A thread that can copy nothing, and dies of being asked for its heap. */
const program = `
  const { parentPort } = require('node:worker_threads');
  parentPort.on('message', ({ kind }) => {
    if (kind === 'dump') parentPort.postMessage({ kind: 'failed', message: 'no memory for a copy' });
    else if (kind === 'heap') throw new Error('the database cannot go on');
    else parentPort.postMessage({ kind: 'closed' }), process.exit(0);
  });
  parentPort.postMessage({ kind: 'ready' });`;

async function open(onDead: (error: Error) => void): Promise<DatabaseThread> {
  const thread = new DatabaseThread(new Worker(program, { eval: true }), onDead);
  await thread.answer('ready');
  return thread;
}

describe("the database's thread", () => {
  it('answers what fails, and goes on', async () => {
    const dead: Error[] = [];
    const thread = await open((error) => dead.push(error));
    for (let i = 0; i < 2; i++) {
      const answer = thread.answer('dumped');
      thread.ask('dump');
      await expect(answer).rejects.toThrow('no memory for a copy');
    }
    const closed = thread.answer('closed');
    thread.ask('close');
    await closed;
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(dead).toEqual([]);
  });

  it('tells of its death once, to whoever waits and to whoever asks later', async () => {
    const dead: Error[] = [];
    const thread = await open((error) => dead.push(error));
    const waits = [thread.answer('heap'), thread.answer('dumped')].map((w) => w.catch((error: Error) => error.message));
    thread.ask('heap');
    expect(await Promise.all(waits)).toEqual(['the database cannot go on', 'the database cannot go on']);
    await expect(thread.answer('dumped')).rejects.toThrow('cannot go on');
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(dead.map((e) => e.message)).toEqual(['the database cannot go on']);
  });
});
