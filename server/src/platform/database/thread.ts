import type { Worker } from 'node:worker_threads';
import type { ThreadAnswer, ThreadAsked } from './embedded.worker.ts';

type AnswerOf<K extends ThreadAnswer['kind']> = Extract<ThreadAnswer, { kind: K }>;

/** The embedded database's thread: what it is asked is answered once, also by its end. */
export class DatabaseThread {
  /** What ended the thread before it was asked to close. */
  died: Error | null = null;
  private readonly worker: Worker;
  private readonly waiting = new Set<(error: Error) => void>();

  constructor(worker: Worker, onDead: (error: Error) => void) {
    this.worker = worker;
    let closed = false;
    const end = (error: Error) => {
      if (closed || this.died) return;
      this.died = error;
      for (const reject of this.waiting) reject(error);
      onDead(error);
    };
    worker.on('message', ({ kind }: ThreadAnswer) => {
      closed ||= kind === 'closed';
    });
    worker.once('error', end);
    worker.once('exit', (code) => end(new Error(`The database's thread ended with ${code}.`)));
  }

  ask(kind: ThreadAsked['kind']): void {
    this.worker.postMessage({ kind } satisfies ThreadAsked);
  }

  /** The next answer of a kind; rejected with what failed, or with what ended the thread. */
  answer<K extends ThreadAnswer['kind']>(kind: K): Promise<AnswerOf<K>> {
    return new Promise((resolve, reject) => {
      const done = () => {
        this.worker.off('message', onMessage);
        this.waiting.delete(fail);
      };
      const fail = (error: Error) => {
        done();
        reject(error);
      };
      const onMessage = (message: ThreadAnswer) => {
        if (message.kind === 'failed') return fail(new Error(message.message));
        if (message.kind !== kind) return;
        done();
        resolve(message as AnswerOf<K>);
      };
      if (this.died) return reject(this.died);
      this.worker.on('message', onMessage);
      this.waiting.add(fail);
    });
  }
}
