import { api } from '../state/api.ts';
import { begin } from '../state/begin.ts';
import { goLive, hear } from '../state/live.ts';
import { makeStore } from '../state/store.ts';
import { orderRowFields, type OrderRow } from '@hand-relay/contract';
import { useOrigin } from '../state/call.ts';
import { readOrders, refreshOrders } from '../state/orderList.ts';

const row = (id: string, more: Partial<OrderRow> = {}) => {
  const order: OrderRow = {
    id,
    number: id,
    channel: 'web',
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
    ...more,
  };
  return orderRowFields.map((f) => order[f]);
};

describe('what happens elsewhere', () => {
  const asked: string[] = [];
  const answers: Record<string, object> = {};
  beforeEach(() => {
    asked.length = 0;
    useOrigin('http://relay.test');
    globalThis.fetch = ((address: string) => {
      const path = String(address).replace('http://relay.test', '');
      asked.push(path);
      const answer = Object.entries(answers).find(([start]) => path.startsWith(start))?.[1] ?? {};
      return Promise.resolve({ ok: true, status: 200, headers: new Headers(), json: () => Promise.resolve(answer) });
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

  it('tells a short to the Desk in words, with the way to its order', () => {
    const store = makeStore();
    const orders: string[][] = [];
    hear(
      store,
      {
        topic: 'orders',
        ids: ['o1'],
        news: {
          kind: 'short',
          facts: { order: 'LA-1', orderId: 'o1', item: 'Jar', missing: 2, reason: 'not-found', picker: 'Pico' },
        },
      },
      (ids) => orders.push(ids),
    );
    expect(store.getState().notices[0]).toMatchObject({
      kind: 'caution',
      text: 'Pico is short of 2 × Jar for LA-1: Cannot find',
      link: '/desk/exceptions',
    });
    expect(orders).toEqual([['o1']]);
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
