import { makeStore } from './store.ts';
import { syncTray, trayChanged } from './syncTray.ts';
import { add, fill } from './tray.ts';

const flush = () => jest.advanceTimersByTimeAsync(1_000);

describe('the tray of a person', () => {
  let kept = { orders: ['a'], lines: {} as Record<string, number> };
  const sent: unknown[] = [];
  beforeEach(() => {
    jest.useFakeTimers();
    kept = { orders: ['a'], lines: {} };
    sent.length = 0;
    globalThis.fetch = ((_address: string, init: { method: string; body?: string }) => {
      if (init.method === 'POST') {
        kept = JSON.parse(init.body!) as typeof kept;
        sent.push(kept);
      }
      const answer = init.method === 'POST' ? {} : kept;
      return Promise.resolve({ ok: true, status: 200, headers: new Headers(), json: () => Promise.resolve(answer) });
    }) as never;
  });
  afterEach(() => jest.useRealTimers());

  it('is read from the server, joined with what was put in before, and sent once after several changes', async () => {
    const store = makeStore();
    store.dispatch(add(['b']));
    const end = syncTray(store);
    await flush();
    expect(store.getState().tray.orders).toEqual(['a', 'b']);
    store.dispatch(add(['c']));
    store.dispatch(add(['d']));
    await flush();
    expect(kept.orders).toEqual(['a', 'b', 'c', 'd']);
    expect(sent.length).toBeLessThanOrEqual(2);
    end();
    expect(store.getState().tray.orders).toEqual([]);
    await flush();
    // Who leaves takes nothing out of it.
    expect(kept.orders).toEqual(['a', 'b', 'c', 'd']);
  });

  it('follows another device of the same person, and nobody else', async () => {
    const store = makeStore();
    const end = syncTray(store);
    await flush();
    kept = { orders: ['x'], lines: {} };
    trayChanged('maren', ['tobi']);
    await flush();
    expect(store.getState().tray.orders).toEqual(['a']);
    trayChanged('maren', ['maren']);
    await flush();
    expect(store.getState().tray.orders).toEqual(['x']);
    store.dispatch(fill({ orders: [] }));
    end();
  });
});
