import { useOrigin } from '../state/call.ts';
import { Stale } from '../state/stale.ts';
import { onEvent } from '../state/live.ts';
import { readOutlook } from '../state/outlook.ts';
import { makeStore, type Store } from '../state/store.ts';

const answer = (at: string, ...orders: string[]) => ({
  at,
  orders: orders.map((id, n) => [id, n === 0 ? 'goes' : 'choose', 1, 5, 900, 2, 8, null]),
  short: [],
});

describe('the outlook of the Desk', () => {
  const asked: string[] = [];
  let reply: (path: string) => Promise<object>;
  beforeEach(() => {
    asked.length = 0;
    useOrigin('http://relay.test');
    globalThis.fetch = (async (address: string) => {
      const path = String(address).replace('http://relay.test', '');
      asked.push(path);
      const body = await reply(path);
      const ok = !('code' in body);
      return { ok, status: ok ? 200 : 409, headers: new Headers(), json: () => Promise.resolve(body) };
    }) as never;
  });

  const quiet = (store: Store) => ({ stale: new Stale(store), orders: () => {} });

  it('says of what changes while it is computed that it changed', async () => {
    const store = makeStore();
    onEvent(store, { topic: 'orders', ids: ['early'] }, quiet(store));
    reply = () => {
      onEvent(store, { topic: 'orders', ids: ['a'] }, quiet(store));
      return Promise.resolve(answer('2026-03-02T09:12:00.000Z', 'a', 'b'));
    };
    await store.dispatch(readOutlook({}));
    expect(store.getState().outlook.changed).toEqual({ a: true });
  });

  it('is asked for with what is in view, and kept by order', async () => {
    reply = () => Promise.resolve(answer('2026-03-02T09:12:00.000Z', 'a', 'b'));
    const store = makeStore();
    await store.dispatch(readOutlook({ class: 'A', until: '2026-03-03' }));
    expect(asked).toEqual(['/api/desk/outlook?class=A&until=2026-03-03']);
    const { rows, at } = store.getState().outlook;
    expect(at).toBe('2026-03-02T09:12:00.000Z');
    expect(rows['b']).toEqual({
      id: 'b',
      readiness: 'choose',
      sureLines: 1,
      sureUnits: 5,
      sureValue: 900,
      couldLines: 2,
      couldUnits: 8,
      fullBy: null,
    });
  });

  it('counts what changed since it was computed, and forgets it when it is computed again', async () => {
    reply = () => Promise.resolve(answer('2026-03-02T09:12:00.000Z', 'a'));
    const store = makeStore();
    onEvent(store, { topic: 'orders', ids: ['early'] }, quiet(store));
    expect(store.getState().outlook.changed).toEqual({});
    await store.dispatch(readOutlook({}));
    onEvent(store, { topic: 'orders', ids: ['a', 'b'] }, quiet(store));
    onEvent(store, { topic: 'orders', ids: ['a'] }, quiet(store));
    onEvent(store, { topic: 'stock', ids: [] }, quiet(store));
    expect(store.getState().outlook).toMatchObject({ changed: { a: true, b: true }, stock: true });
    await store.dispatch(readOutlook({}));
    expect(store.getState().outlook).toMatchObject({ changed: {}, stock: false });
  });

  it('says what failed and keeps what was there; of two views the one asked last is shown', async () => {
    reply = () => Promise.resolve(answer('2026-03-02T09:12:00.000Z', 'a'));
    const store = makeStore();
    await store.dispatch(readOutlook({}));
    reply = () => Promise.resolve({ code: 'not-allowed', facts: {}, fields: [], requestId: '', status: 409 });
    await store.dispatch(readOutlook({}));
    expect(store.getState().outlook.trouble?.code).toBe('not-allowed');
    expect(store.getState().outlook.rows['a']).toBeDefined();
    let first: (value: object) => void = () => {};
    reply = (path) =>
      path.includes('class=A')
        ? new Promise((resolve) => (first = resolve))
        : Promise.resolve(answer('2026-03-02T09:20:00.000Z', 'late'));
    const slow = store.dispatch(readOutlook({ class: 'A' }));
    await store.dispatch(readOutlook({ class: 'B' }));
    first(answer('2026-03-02T09:15:00.000Z', 'stale'));
    await slow;
    expect(Object.keys(store.getState().outlook.rows)).toEqual(['late']);
    expect(store.getState().outlook.reading).toBe(false);
  });
});
