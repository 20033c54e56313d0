import { act, renderHook } from '@testing-library/react-native';
import { SERVER_TIME } from '@hand-relay/contract';
import { serverNow, useClockError } from '../state/serverTime.ts';
import { addressOf, call, useOrigin } from '../state/call.ts';
import { makeStore } from '../state/store.ts';
import { add, fill, releaseOf, setLines, toggle } from '../state/tray.ts';
import { close, notify } from '../state/notices.ts';
import { readOrders } from '../state/orderList.ts';
import { troubleOf, words } from '../state/trouble.ts';
import '../text/index.ts';

interface Sent {
  address: string;
  method: string;
  headers: Record<string, string>;
  body: unknown;
}
const sent: Sent[] = [];
/** Answers in turn; an error is a network that fails. */
function answers(...list: (Error | { status: number; body: unknown; headers?: Record<string, string> })[]) {
  sent.length = 0;
  globalThis.fetch = ((address: string, init: Omit<Sent, 'address'>) => {
    sent.push({ ...init, address });
    const reply = list.length > 1 ? list.shift()! : list[0]!;
    if (reply instanceof Error) return Promise.reject(reply);
    return Promise.resolve({
      ok: reply.status < 400,
      status: reply.status,
      headers: new Headers(reply.headers),
      json: () => (reply.body === undefined ? Promise.reject(new Error('no JSON')) : Promise.resolve(reply.body)),
    });
  }) as never;
}
const lost = new TypeError('no network');

describe('calls', () => {
  beforeEach(() => {
    useOrigin('http://relay.test');
    jest.useFakeTimers();
  });
  afterEach(() => jest.useRealTimers());
  const patiently = async <T>(asked: Promise<T>) => {
    await jest.advanceTimersByTimeAsync(5000);
    return asked;
  };

  it('wait for no answer for ever: a network that swallows what is sent is none', async () => {
    globalThis.fetch = ((_: string, { signal }: { signal: AbortSignal }) =>
      new Promise((_, reject) => signal.addEventListener('abort', () => reject(new Error('aborted'))))) as never;
    const scan = call({ name: 'runInput', id: 'r1' }, { retryDelays: [] });
    await jest.advanceTimersByTimeAsync(4_001);
    expect(await scan).toMatchObject({ error: { code: 'network' } });
    const list = call({ name: 'waves' }, { retryDelays: [] });
    await jest.advanceTimersByTimeAsync(20_001);
    expect(await list).toMatchObject({ error: { code: 'network' } });
  });

  it('go by the time of the server, where the clock of the device is wrong', async () => {
    const at = (minutes: number) => ({ [SERVER_TIME]: String(Date.now() + minutes * 60_000) });
    answers({ status: 200, body: { waves: [] }, headers: at(37) });
    await call({ name: 'waves' });
    expect(serverNow() - Date.now()).toBeCloseTo(37 * 60_000, -2);
    const { result } = renderHook(() => useClockError());
    expect(result.current).toBe(37);
    // Somebody sets the clock: the next answer contradicts what was known.
    answers({ status: 200, body: { waves: [] }, headers: at(0) });
    await act(() => call({ name: 'waves' }));
    expect(serverNow() - Date.now()).toBeCloseTo(0, -2);
    expect(result.current).toBe(0);
    // An answer that was long on its way says little, as long as it does not contradict what is known.
    answers({ status: 200, body: { waves: [] }, headers: at(0.05) });
    const slow = globalThis.fetch;
    globalThis.fetch = async (...asked: Parameters<typeof fetch>) => {
      jest.setSystemTime(Date.now() + 10_000);
      return slow(...asked);
    };
    await call({ name: 'waves' });
    expect(serverNow() - Date.now()).toBeCloseTo(0, -2);
    answers({ status: 200, body: { waves: [] }, headers: {} });
    await call({ name: 'waves' });
    expect(Number.isFinite(serverNow())).toBe(true);
  });

  it('know when an earlier version kept a call that there is no more', async () => {
    answers({ status: 200, body: {} });
    expect(await call({ name: 'gone' as never, id: 'r1' })).toMatchObject({ error: { code: 'unknown-call' } });
    expect(sent).toEqual([]);
  });

  it('make addresses of endpoints, with ids and questions that cannot break them', () => {
    expect(addressOf({ name: 'order', id: 'a/b?c' })).toBe('/api/orders/a%2Fb%3Fc');
    expect(addressOf({ name: 'find', query: { code: '(01)0952 & more' } })).toBe(
      '/api/find?code=%2801%290952+%26+more',
    );
    expect(addressOf({ name: 'shipmentsJson', query: { from: '2026-03-02', to: undefined } })).toBe(
      '/api/shipments?from=2026-03-02',
    );
  });

  it('carry a key that stays the same while the network fails, and another for another change', async () => {
    answers(lost, lost, { status: 200, body: { wave: 'w1' } });
    expect(await patiently(call({ name: 'planWave', id: 'w1' }))).toEqual({ data: { wave: 'w1' } });
    expect(sent.map((s) => [s.method, s.address])).toEqual(
      Array(3).fill(['POST', 'http://relay.test/api/waves/w1/plan']),
    );
    const key = sent[0]!.headers['Idempotency-Key'];
    expect(key).toMatch(/^[\w-]{16,}$/);
    expect(new Set(sent.map((s) => s.headers['Idempotency-Key']))).toEqual(new Set([key]));
    answers({ status: 200, body: {} });
    await call({ name: 'planWave', id: 'w1' });
    expect(sent[0]!.headers['Idempotency-Key']).not.toBe(key);
    await call({ name: 'waves' });
    expect(sent[1]!.headers['Idempotency-Key']).toBeUndefined();
    expect(sent[1]!.headers['X-Device']).toBeTruthy();
  });

  it('give up after three tries, and say so in words', async () => {
    answers(lost);
    const answer = await patiently(call({ name: 'release', body: { orders: ['a'] } }));
    expect(sent).toHaveLength(3);
    expect('error' in answer && words(answer.error)).toBe(
      'The server does not answer. Your entry is saved here: try again.',
    );
  });

  it('do not ask again what was refused, and keep its facts', async () => {
    answers({
      status: 409,
      body: { code: 'cart-busy', facts: { cart: 'CART-01', run: '0007' }, fields: [], requestId: 'q' },
    });
    const answer = await call({ name: 'takeRun', id: 'r', body: { cart: 'CART-01' } });
    expect(sent).toHaveLength(1);
    expect('error' in answer && words(answer.error)).toBe('CART-01 is still used by run 0007. Take an empty one.');
  });

  it('tell a server at fault from one that does not answer, and take the page of a guest network for none', async () => {
    answers({ status: 502, body: undefined });
    const answer = await call({ name: 'waves' });
    expect(answer).toMatchObject({ error: { code: 'server-fault', status: 502 } });
    // A guest network answers every call with its own page, as HTML or as JSON.
    for (const body of [undefined, { portal: 'sign in here' }, null, ['a']]) {
      answers({ status: 200, body });
      expect(await call({ name: 'waves' }, { retryDelays: [] })).toMatchObject({ error: { code: 'network' } });
      expect(await call({ name: 'runInput', id: 'r1' }, { retryDelays: [] })).toMatchObject({
        error: { code: 'network' },
      });
    }
    answers({ status: 404, body: undefined });
    expect(await call({ name: 'waves' })).toMatchObject({ error: { code: 'network' } });
    expect(troubleOf(new Error('bug')).code).toBe('unexpected');
  });
});

describe('what the tab keeps', () => {
  it('is the tray: orders in turn, each once, and lines that get exactly so much', () => {
    const store = makeStore();
    store.dispatch(toggle('a'));
    store.dispatch(toggle('b'));
    store.dispatch(toggle('a'));
    store.dispatch(add(['b', 'c']));
    store.dispatch(setLines({ order: 'd', lines: { 'd-1': 4 } }));
    expect(releaseOf(store.getState().tray, 'w1')).toEqual({
      orders: ['b', 'c', 'd'],
      lines: [{ line: 'd-1', units: 4 }],
      wave: 'w1',
    });
    store.dispatch(fill({ orders: [] }));
    expect(store.getState().tray).toEqual({ orders: [], lines: {} });
  });

  it('are notices until they are closed, each with an id of its own', () => {
    const store = makeStore();
    store.dispatch(notify({ kind: 'done', text: 'one' }));
    store.dispatch(notify({ kind: 'refused', text: 'two' }));
    const [one, two] = store.getState().notices;
    expect(one!.id).not.toBe(two!.id);
    store.dispatch(close(one!.id));
    const shown = () => store.getState().notices.filter((n) => n.shown);
    expect(shown().map((n) => n.text)).toEqual(['two']);
    // Closed ones can be read again; what a later one makes untrue goes, and is not to be taken back any more.
    const undo = { name: 'unrelease', body: {} } as const;
    store.dispatch(notify({ kind: 'done', text: 'wave 1 gathers', about: 'w1', undo }));
    store.dispatch(notify({ kind: 'done', text: 'wave 1 started', about: 'w1' }));
    expect(shown().map((n) => n.text)).toEqual(['two', 'wave 1 started']);
    expect(store.getState().notices.map((n) => [n.text, n.undo])).toEqual([
      ['one', undefined],
      ['two', undefined],
      ['wave 1 gathers', undefined],
      ['wave 1 started', undefined],
    ]);
  });

  it('is the list that was asked for last, whichever answer comes first', async () => {
    const store = makeStore();
    const waiting: Record<string, (answer: object) => void> = {};
    globalThis.fetch = ((address: string) => {
      const status = new URL(address).searchParams.get('status')!;
      return new Promise((resolve) => {
        waiting[status] = (answer) =>
          resolve({ ok: true, status: 200, headers: new Headers(), json: () => Promise.resolve(answer) });
      });
    }) as never;
    const first = store.dispatch(readOrders('open'));
    const second = store.dispatch(readOrders('closed'));
    waiting['closed']!({ rows: [], next: null, total: 0 });
    await second;
    waiting['open']!({ rows: [['a']], next: null, total: 1 });
    await first;
    expect(store.getState().orderList).toMatchObject({ status: 'closed', rows: {}, total: 0, reading: false });
  });

  it('says why the list could not be read, and reads it at the next try', async () => {
    const store = makeStore();
    answers({ status: 403, body: { code: 'not-allowed', facts: {}, fields: [], requestId: 'q' } });
    await store.dispatch(readOrders('open'));
    expect(store.getState().orderList).toMatchObject({ read: false, trouble: { code: 'not-allowed' } });
    answers({ status: 200, body: { rows: [], next: null, total: 0 } });
    await store.dispatch(readOrders('open'));
    expect(store.getState().orderList).toMatchObject({ read: true, trouble: null });
  });
});
