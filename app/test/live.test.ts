import { api } from '../state/api.ts';
import { begin } from '../state/begin.ts';
import { Stale } from '../state/stale.ts';
import { goLive, onEvent } from '../state/live.ts';
import { makeStore } from '../state/store.ts';
import { CHANGED, orderRowFields, type OrderRow } from '@hand-relay/contract';
import { call, tab, useOrigin } from '../state/call.ts';
import { readOrders, refreshOrders } from '../state/orderList.ts';

const row = (id: string, more: Partial<OrderRow> = {}) => {
  const order: OrderRow = {
    id,
    number: id,
    kind: 'order',
    channel: 'web',
    reference: '',
    city: '',
    carrier: null,
    reserved: 0,
    value: 0,
    customer: 'x',
    customerClass: 'A',
    due: '2026-03-02',
    departure: null,
    leavesAt: null,
    priority: 3,
    lines: 1,
    coveredLines: 1,
    asked: 5,
    released: 0,
    picked: 0,
    packed: 0,
    shipped: 0,
    status: 'open',
    tags: '',
    service: null,
    lane: null,
    waves: '',
    pickers: '',
    classRank: 1,
    runs: '',
    ...more,
  };
  return orderRowFields.map((f) => order[f]);
};

describe('what happens elsewhere', () => {
  // A call that found nobody is tried again for a second and a half: its end comes before the test's world goes.
  afterAll(() => new Promise((resolve) => setTimeout(resolve, 2000)));
  const asked: string[] = [];
  const answers: Record<string, object> = {};
  let said: string | null = null;
  beforeEach(() => {
    asked.length = 0;
    useOrigin('http://relay.test');
    globalThis.fetch = ((address: string) => {
      const path = String(address).replace('http://relay.test', '');
      asked.push(path);
      const answer = Object.entries(answers).find(([start]) => path.startsWith(start))?.[1] ?? {};
      const headers = new Headers(said === null ? {} : { [CHANGED]: said });
      return Promise.resolve({ ok: true, status: 200, headers, json: () => Promise.resolve(answer) });
    }) as never;
  });

  it('reads the list page by page, then only what changed', async () => {
    const store = makeStore();
    answers['/api/orders?status=open&limit=250'] = { rows: [row('a'), row('b')], next: 'x~b', total: 3 };
    answers['/api/orders?status=open&limit=1000&after=x%7Eb'] = { rows: [row('c')], next: null, total: 3 };
    await store.dispatch(readOrders('open'));
    expect(Object.keys(store.getState().orderList.rows)).toEqual(['a', 'b', 'c']);
    answers['/api/orders?ids'] = {
      rows: [row('b', { released: 5 }), row('c', { status: 'closed' })],
      next: null,
      total: 2,
    };
    await store.dispatch(refreshOrders(['b', 'c']));
    const { rows, total } = store.getState().orderList;
    expect(rows['b']!.released).toBe(5);
    expect(rows['c']).toBeUndefined();
    expect(total).toBe(2);
    expect(asked).toHaveLength(3);
  });

  it('keeps a row that was refreshed while an older page of the list was on its way', async () => {
    const store = makeStore();
    await store.dispatch(readOrders('open'));
    const inTime = globalThis.fetch;
    const arrive: (() => void)[] = [];
    globalThis.fetch = (async (address: string) => {
      const answer = await inTime(address);
      await new Promise<void>((resolve) => arrive.push(resolve));
      return answer;
    }) as never;
    answers['/api/orders?status=open&limit=250'] = { rows: [row('a'), row('b')], next: null, total: 2 };
    const all = store.dispatch(readOrders('open'));
    const [first, second] = [5, 3].map((released) => {
      answers['/api/orders?ids'] = { rows: [row('b', { released })], next: null, total: 1 };
      return store.dispatch(refreshOrders(['b']));
    });
    await new Promise((resolve) => setTimeout(resolve, 10));
    // The last answer comes first.
    arrive[2]!();
    await second;
    arrive[1]!();
    await first;
    arrive[0]!();
    await all;
    const { rows } = store.getState().orderList;
    expect([Object.keys(rows).sort(), rows['b']!.released]).toEqual([['a', 'b'], 3]);
    globalThis.fetch = inTime;
  });

  it('tells a short to the Desk in words, with the way to its order', () => {
    const store = makeStore();
    const orders: string[][] = [];
    onEvent(
      store,
      {
        topic: 'orders',
        ids: ['o1'],
        news: {
          kind: 'short',
          facts: { order: 'LA-1', orderId: 'o1', item: 'Jar', missing: 2, reason: 'not-found', picker: 'Pico' },
        },
      },
      { stale: new Stale(store), orders: (ids) => orders.push(ids) },
    );
    expect(store.getState().notices[0]).toMatchObject({
      kind: 'caution',
      text: 'Pico is short of 2 × Jar for LA-1: Cannot find',
      link: '/desk/exceptions',
    });
    expect(orders).toEqual([['o1']]);
  });

  it('reads again what a change names and the lists of its topic, and nothing for what this page did itself', async () => {
    const store = makeStore();
    globalThis.EventSource = function Stream() {
      return { readyState: 0, close: () => {} };
    } as never;
    const end = goLive(store);
    for (const id of ['a', 'b']) await store.dispatch(api.endpoints.run.initiate(id));
    await store.dispatch(api.endpoints.myRuns.initiate());
    await store.dispatch(api.endpoints.bench.initiate());
    const afterwards = async () => {
      await new Promise((resolve) => setTimeout(resolve, 120));
      return asked.splice(0).sort();
    };
    await afterwards();
    const readers = { stale: new Stale(store), orders: () => {} };
    onEvent(store, { topic: 'runs', ids: ['b'] }, readers);
    onEvent(store, { topic: 'picks', ids: ['b'] }, readers);
    expect(await afterwards()).toEqual(['/api/runs', '/api/runs/b']);
    onEvent(store, { topic: 'runs', ids: ['b'], by: tab }, readers);
    expect(await afterwards()).toEqual([]);
    // It came with the answer; an answer that does not say so may have changed all that its endpoint may.
    said = JSON.stringify([{ topic: 'runs', ids: ['a'] }]);
    await call({ name: 'returnRun', id: 'a' });
    expect(await afterwards()).toEqual(['/api/runs', '/api/runs/a', '/api/runs/a/return']);
    said = null;
    await call({ name: 'returnRun', id: 'a' });
    expect(await afterwards()).toEqual(['/api/bench', '/api/runs', '/api/runs/a', '/api/runs/a/return', '/api/runs/b']);
    // Nobody answered, and yet it may have happened: then the stream tells.
    const by = tab;
    const answered = globalThis.fetch;
    globalThis.fetch = () => Promise.reject(new Error('no network'));
    await call({ name: 'returnRun', id: 'a' }, { retryDelays: [] });
    globalThis.fetch = answered;
    onEvent(store, { topic: 'runs', ids: ['a'], by }, readers);
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(asked).toContain('/api/runs/a');
    end();
  });

  it('reads lists at most every second and a half while others scan, and at once what this page changed', async () => {
    jest.useFakeTimers();
    try {
      const store = makeStore();
      const stale = new Stale(store);
      const waves = store.dispatch(api.endpoints.waves.initiate());
      const run = store.dispatch(api.endpoints.run.initiate('a'));
      // Until both are read, however long that takes a busy machine: what is counted comes after.
      let read = false;
      void Promise.all([waves, run]).then(() => (read = true));
      while (!read) await jest.advanceTimersByTimeAsync(10);
      await jest.advanceTimersByTimeAsync(50);
      asked.length = 0;
      for (let scans = 0; scans < 40; scans++) {
        stale.add({ topic: scans % 4 ? 'progress' : 'picks', ids: ['a'] });
        await jest.advanceTimersByTimeAsync(150);
      }
      await jest.advanceTimersByTimeAsync(3000);
      // Six seconds of scans, a quarter of them in the run that is shown.
      expect(asked.filter((path) => path === '/api/runs/a')).toHaveLength(10);
      expect(asked.filter((path) => path === '/api/waves')).toHaveLength(5);
      stale.add({ topic: 'progress', ids: ['b'] });
      await jest.advanceTimersByTimeAsync(50);
      asked.length = 0;
      stale.addOwn([{ topic: 'progress', ids: ['b'] }]);
      await jest.advanceTimersByTimeAsync(50);
      expect(asked).toEqual(['/api/waves']);
      stale.end();
      waves.unsubscribe();
      run.unsubscribe();
    } finally {
      jest.useRealTimers();
    }
  });

  it('opens its stream again where an answer was none: asks who is signed in, and reads everything once it is there', async () => {
    jest.useFakeTimers();
    const streams: { readyState: number; onopen: () => void; onerror: () => void; close: () => void }[] = [];
    const closed = jest.fn();
    globalThis.EventSource = function Stream() {
      const stream = { readyState: 0, onopen: () => {}, onerror: () => {}, close: closed };
      streams.push(stream);
      return stream;
    } as never;
    const store = makeStore();
    const me = store.dispatch(api.endpoints.me.initiate());
    const end = goLive(store);
    try {
      await jest.advanceTimersByTimeAsync(10);
      streams[0]!.onopen();
      asked.length = 0;
      // A lost connection: the browser tries again by itself.
      streams[0]!.onerror();
      await jest.advanceTimersByTimeAsync(5_000);
      expect([streams.length, asked]).toEqual([1, []]);
      // A proxy answers in place of a server that is just starting, twice.
      for (const wait of [2_000, 4_000]) {
        streams.at(-1)!.readyState = 2;
        streams.at(-1)!.onerror();
        await jest.advanceTimersByTimeAsync(wait - 1);
        const before = streams.length;
        await jest.advanceTimersByTimeAsync(1);
        expect(streams).toHaveLength(before + 1);
      }
      expect(asked).toEqual(['/api/session', '/api/session']);
      streams.at(-1)!.onopen();
      await jest.advanceTimersByTimeAsync(10);
      expect(asked).toHaveLength(3);
      // Over, it is not opened any more.
      streams.at(-1)!.readyState = 2;
      streams.at(-1)!.onerror();
      end();
      await jest.advanceTimersByTimeAsync(60_000);
      expect(streams).toHaveLength(3);
      expect(closed).toHaveBeenCalled();
    } finally {
      me.unsubscribe();
      jest.useRealTimers();
    }
  });

  it('begins with who is signed in, and on the Desk with its open orders', async () => {
    for (const [address, orders] of [
      ['/desk', true],
      ['/desk?group=customer', true],
      ['/desk?show=closed', false],
      ['/desk/orders/a', false],
      ['/floor', false],
    ] as const) {
      asked.length = 0;
      const store = makeStore();
      begin(store, address);
      await new Promise((resolve) => setTimeout(resolve, 20));
      expect([address, asked.filter((path) => path.startsWith('/api/orders?status=open&limit=250')).length]).toEqual([
        address,
        orders ? 1 : 0,
      ]);
      expect(asked).toContain('/api/session');
      expect(store.getState().orderList.read).toBe(orders);
    }
  });
});
