import { act, renderHook, waitFor } from '@testing-library/react-native';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { endpoints, type outboxCall } from '@hand-relay/contract';
import type { Me, RunDetail, RunPick } from '@hand-relay/contract';
import type { z } from 'zod';
import { checkDigit } from '@hand-relay/core/reading/gs1';
import { freshProgress, judgePick, type PickInput } from '@hand-relay/core/handling/picking';
import { usualSettings, type SiteSettings } from '@hand-relay/core/deciding/settings';
import { useRun } from '../floor/useRun.ts';
import { api } from '../state/api.ts';
import { useOrigin } from '../state/call.ts';
import { outbox } from '../offline/index.ts';
import { MeContext, store } from '../state/index.ts';
import { aPick } from './aPick.ts';
import '../text/index.ts';

const heard: string[] = [];
jest.mock('../ui/sound.ts', () => ({ play: (sound: string) => void heard.push(sound) }));

const gtin = (n: number) => `095212340010${n}${checkDigit(`095212340010${n}`)}`;
const pick = (n: number, units: number): RunPick =>
  aPick(
    { order: { id: `o${n}`, number: `LA-${n}`, note: '', hold: null }, at: { aisle: 'A', y: n } },
    {
      id: `p${n}`,
      bin: `A-0${n}-1`,
      item: {
        id: `i${n}`,
        sku: `JR-00${n}`,
        name: `Jar ${n}`,
        packs: [{ gtin: gtin(n), level: 'unit', units: 1 }],
        tracksLot: false,
        tracksSerial: false,
      },
      units,
      position: { cart: 'CART-01', number: n },
    },
  );

/** A server that holds a run and judges as ours does; it can be unreachable, slow, or of another mind. */
function server(picks: RunPick[]) {
  const run = { id: 'r1', number: '0001', callSign: 'amber', state: 'picking', pickerId: 'me' } as RunDetail['run'];
  const state = {
    picks: picks.map((p) => ({ ...p })),
    inputs: [] as { pick: string; input: PickInput }[],
    /** Scans that the device refused by itself. */
    refused: [] as object[],
    reachable: true,
    refuse: null as string | null,
    hold: null as Promise<void> | null,
    /** What the next reading of the run waits for on its way back, after the server has looked. */
    slow: null as Promise<void> | null,
    /** Whether the run can be read: its inputs may pass where its answers do not. */
    readable: true,
    left: null as string | null,
  };
  const answer = async (path: string, init?: { body?: string }): Promise<[number, unknown]> => {
    if (path === '/api/outbox') {
      const answers: object[] = [];
      for (const { name, id, body } of (JSON.parse(init!.body!) as { calls: z.infer<typeof outboxCall>[] }).calls) {
        const [status, data] = await answer(endpoints[name].path.replace(':id', id), { body: JSON.stringify(body) });
        answers.push(status < 400 ? { data } : { error: { ...(data as object), status } });
      }
      return [200, { answers }];
    }
    const detail = { run, picks: state.picks, positions: [], cartons: [], path: [] };
    const whole = {
      ...detail,
      startedAt: null,
      leftAt: null,
      cartFront: { places: 1, across: null },
      setUp: null,
      people: [],
      stages: 'pick-pack-ship',
      proposedLane: null,
      lanes: [{ code: 'LANE-1', name: 'Lane 1' }],
    };
    if (path === '/api/runs/r1') return [200, whole];
    const body = JSON.parse(init?.body ?? '{}') as { pick: string; input: PickInput };
    if (path.endsWith('/leave')) {
      state.left = (body as unknown as { lane: string }).lane;
      return [200, whole];
    }
    if (/\/(walk-from|left|take-out)$/.test(path)) return [200, {}];
    if (path.endsWith('/refused')) return [200, { seen: state.refused.push(body) }];
    if (path.endsWith('/undo')) {
      const last = [...state.picks].reverse().find((p) => p.state !== 'open');
      if (last) Object.assign(last, { state: 'open', picked: 0, progress: freshProgress });
      return [200, { pick: last?.step.id ?? null }];
    }
    await state.hold;
    state.inputs.push(body);
    if (state.refuse) return [409, { code: state.refuse, facts: {}, fields: [], requestId: 'q' }];
    const at = state.picks.findIndex((p) => p.step.id === body.pick);
    const own = state.picks[at]!;
    const verdict = judgePick(own.step, own.progress, body.input, '2026-06-01');
    if (verdict.verdict !== 'refused')
      state.picks[at] = {
        ...own,
        progress: verdict.progress,
        ...(verdict.verdict === 'done' ? { state: 'done', picked: verdict.units } : {}),
      };
    return [200, { ...verdict, runComplete: false, gotName: verdict.verdict === 'refused' ? 'Smoker' : undefined }];
  };
  globalThis.fetch = (async (address: string, init?: { body?: string }) => {
    if (!state.reachable) throw new TypeError('no network');
    const path = String(address).replace('http://relay.test', '');
    const reads = path === '/api/runs/r1';
    if (reads && !state.readable) throw new TypeError('no network');
    const [status, data] = await answer(path, init);
    // What travels is a copy: the device must not share our objects.
    const copy = JSON.parse(JSON.stringify(data)) as unknown;
    const { slow } = state;
    if (reads && slow) {
      state.slow = null;
      await slow;
    }
    return { ok: status < 400, status, headers: new Headers(), json: () => Promise.resolve(copy) };
  }) as never;
  return state;
}

let leave = () => {};
async function open(picks: RunPick[], settings: Partial<SiteSettings> = {}) {
  const there = server(picks);
  const me = {
    site: { timeZone: 'Europe/London' },
    settings: { ...usualSettings, nearlyEmpty: -1, ...settings },
  } as unknown as Me;
  const wrapper = ({ children }: { children: ReactNode }) => (
    <Provider store={store}>
      <MeContext.Provider value={me}>{children}</MeContext.Provider>
    </Provider>
  );
  await outbox.start('me');
  const { result, unmount } = renderHook(() => useRun('r1'), { wrapper });
  leave = () => {
    unmount();
    store.dispatch(api.util.resetApiState());
  };
  await waitFor(() => expect(result.current.current).toBeDefined());
  const input = (what: PickInput) => act(() => result.current.input(what));
  const scan = (text: string) => input({ kind: 'scan', text });
  return { there, result, input, scan };
}

describe('a run on the device', () => {
  beforeEach(() => {
    heard.length = 0;
    useOrigin('http://relay.test');
  });
  afterEach(async () => {
    leave();
    // What is under way comes to its end before the next begins.
    await new Promise((resolve) => setTimeout(resolve, 50));
  });

  it('answers a scan at once, before the server has, and the server agrees', async () => {
    const { there, result, scan } = await open([pick(1, 2), pick(2, 1)]);
    let release = () => {};
    there.hold = new Promise((resolve) => (release = resolve));
    for (const code of ['A-01-1', gtin(1), gtin(1), 'CART-01-1']) scan(code);
    // Nothing has come back yet; the card is at the next pick already.
    expect(there.inputs).toEqual([]);
    expect(result.current.current!.step.id).toBe('p2');
    expect(result.current.verdict).toEqual({ kind: 'done', text: 'Picked 2 × Jar 1' });
    expect(heard).toEqual(['accepted', 'accepted', 'accepted', 'accepted']);
    release();
    await waitFor(() => expect(there.picks[0]!.state).toBe('done'));
    expect(there.inputs.map((i) => (i.input as { text: string }).text)).toEqual([
      'A-01-1',
      gtin(1),
      gtin(1),
      'CART-01-1',
    ]);
    await waitFor(() => expect(result.current.picks[0]).toMatchObject({ state: 'done', picked: 2 }));
  });

  it('refuses a wrong scan with its sound, says what was expected, and names what was scanned when the server knows', async () => {
    const { result, scan, there } = await open([pick(1, 1)]);
    scan('A-02-1');
    expect(heard).toEqual(['refused']);
    expect(result.current.verdict).toEqual({ kind: 'refused', text: 'This is bin A-02-1. Go to A-01-1.' });
    scan('A-01-1');
    scan(gtin(2));
    await waitFor(() =>
      expect(result.current.verdict).toEqual({ kind: 'refused', text: 'This is Smoker. Pick Jar 1.' }),
    );
    expect(result.current.current).toMatchObject({ progress: { bin: true, counted: 0 } });
    expect(there.inputs).toHaveLength(3);
  });

  it('refuses what may not be scanned at all at once, and tells the server, which counts it', async () => {
    const { result, there } = await open([pick(1, 1)]);
    const why = { code: 'order-held', facts: { order: 'LA-1', why: 'Customer rang.', got: 'A-01-1' } };
    act(() => result.current.refuse(result.current.picks[0]!, why));
    expect(result.current.verdict!.text).toMatch(/^LA-1 is on hold: Customer rang/);
    act(() => result.current.leave('LANE-9'));
    expect(result.current.verdict!.text).toMatch(/LANE-9/);
    const lane = { of: null, code: 'not-a-lane', facts: { got: 'LANE-9' } };
    await waitFor(() => expect(there.refused).toEqual([{ of: 'p1', ...why }, lane]));
    await waitFor(() => expect(outbox.snapshot().entries).toEqual([]));
    expect([heard, there.inputs, there.left]).toEqual([['refused', 'refused'], [], null]);
  });

  it('sounds the finish with the last pick, and has no step left', async () => {
    const { result, scan, input, there } = await open([pick(1, 3)]);
    scan('A-01-1');
    input({ kind: 'count', units: 3 });
    input({ kind: 'touch', what: 'position' });
    expect(heard.at(-1)).toBe('finished');
    expect(result.current.current).toBeUndefined();
    await waitFor(() => expect(there.picks[0]).toMatchObject({ state: 'done', picked: 3 }));
  });

  it('goes back to what the server has when the server decides otherwise', async () => {
    const { there, result, scan } = await open([pick(1, 1), pick(2, 1)]);
    there.refuse = 'pick-done';
    scan('A-01-1');
    await waitFor(() =>
      expect(result.current.verdict).toEqual({ kind: 'refused', text: 'Somebody has already confirmed this pick.' }),
    );
    await waitFor(() => expect(result.current.current!.progress.bin).toBe(false));
    there.refuse = null;
    scan('A-01-1');
    await waitFor(() => expect(there.picks[0]!.progress.bin).toBe(true));
  });

  it('goes on where the server cannot be reached, keeps what was done, and sends it in order when it can', async () => {
    const { there, result, scan } = await open([pick(1, 1), pick(2, 1)]);
    there.reachable = false;
    for (const code of ['A-01-1', gtin(1), 'CART-01-1', 'A-02-1']) scan(code);
    expect(result.current.current).toMatchObject({ step: { id: 'p2' }, progress: { bin: true } });
    await waitFor(() => expect(outbox.snapshot().reachable).toBe(false));
    expect(outbox.snapshot().entries).toHaveLength(4);
    expect(there.inputs).toEqual([]);
    // Undone before it was sent: the server hears of both.
    act(() => result.current.undo());
    expect(result.current.picks[0]).toMatchObject({ state: 'open', picked: 0 });
    there.reachable = true;
    await act(() => outbox.pump());
    expect(there.inputs).toHaveLength(4);
    expect(there.picks.map((p) => [p.state, p.progress.bin])).toEqual([
      ['open', false],
      ['open', true],
    ]);
    await waitFor(() => expect(outbox.snapshot()).toMatchObject({ reachable: true, entries: [] }));
  });

  it('does not take for the present run a reading that began before the server heard of the last scan', async () => {
    const { there, result, scan } = await open([pick(1, 1), pick(2, 1)]);
    let arrive = () => {};
    there.slow = new Promise((resolve) => (arrive = resolve));
    // As when the network is back: everything is read again, while what was done is on its way.
    act(() => void result.current.refetch());
    for (const code of ['A-01-1', gtin(1), 'CART-01-1']) scan(code);
    await waitFor(() => expect(there.picks[0]!.state).toBe('done'));
    await act(async () => {
      arrive();
      await new Promise((resolve) => setTimeout(resolve, 30));
    });
    await waitFor(() => expect(outbox.snapshot().entries).toEqual([]));
    expect(result.current.picks.map((p) => p.state)).toEqual(['done', 'open']);
  });

  it('keeps what was sent of a run until the run itself could be read again', async () => {
    const { there, result, scan } = await open([pick(1, 1), pick(2, 1)]);
    there.readable = false;
    for (const code of ['A-01-1', gtin(1), 'CART-01-1']) scan(code);
    await waitFor(() => expect(there.picks[0]!.state).toBe('done'));
    await act(() => outbox.pump());
    expect(outbox.snapshot().entries.map((e) => e.sent)).toEqual([true, true, true]);
    expect(result.current.picks.map((p) => p.state)).toEqual(['done', 'open']);
    there.readable = true;
    await act(() => outbox.pump());
    await waitFor(() => expect(outbox.snapshot().entries).toEqual([]));
    expect(result.current.picks.map((p) => p.state)).toEqual(['done', 'open']);
  });

  it('leaves the cart in a lane that there is, before the server has heard of it', async () => {
    const { there, result, scan, input } = await open([pick(1, 1)]);
    scan('A-01-1');
    input({ kind: 'count', units: 1 });
    input({ kind: 'touch', what: 'position' });
    act(() => result.current.leave('LANE-9'));
    expect(result.current.verdict).toMatchObject({ kind: 'refused' });
    act(() => result.current.leave('lane-1'));
    expect(result.current.run!.run).toMatchObject({ state: 'left', lane: 'LANE-1' });
    await waitFor(() => expect(there.left).toBe('LANE-1'));
  });

  it('takes picks out of turn, goes on with the next in walking order, and undoes the last', async () => {
    const { there, result, scan, input } = await open([pick(1, 1), pick(2, 1), pick(3, 1)]);
    act(() => result.current.turnTo('p2'));
    scan('A-02-1');
    input({ kind: 'count', units: 1 });
    input({ kind: 'touch', what: 'position' });
    expect(result.current.current!.step.id).toBe('p3');
    await waitFor(() => expect(there.picks[1]!.state).toBe('done'));
    await waitFor(() => expect(outbox.snapshot().entries).toEqual([]));
    act(() => result.current.undo());
    expect(result.current.current!.step.id).toBe('p2');
    expect(result.current.verdict).toEqual({ kind: 'caution', text: 'Undone. It is open again.' });
    act(() => result.current.undo());
    expect(result.current.verdict!.text).toBe('Nothing to undo in this run.');
  });

  it('goes on to another bin where goods are not in theirs, without the server, and undoing joins both again', async () => {
    const first = pick(1, 5);
    first.step.elsewhere = [{ bin: 'C-01-1', lot: null, units: 9, serials: [], at: { aisle: 'C', y: 2 } }];
    const { there, result, scan, input } = await open([first, pick(2, 1)]);
    there.reachable = false;
    input({ kind: 'short', units: 2, reason: 'not-enough', rest: { bin: 'C-01-1', lot: null } });
    input({ kind: 'count', units: 2 });
    scan('CART-01-1');
    expect(result.current.picks.map((p) => [p.step.id, p.state, p.step.units])).toEqual([
      ['p1', 'done', 2],
      ['p1.r', 'open', 3],
      ['p2', 'open', 1],
    ]);
    expect(result.current.current!.step).toMatchObject({ id: 'p1.r', bin: 'C-01-1', units: 3 });
    expect(result.current.verdict!.text).toBe('3 more from C-01-1');
    act(() => result.current.undo());
    expect(result.current.picks.map((p) => [p.step.id, p.state, p.step.units])).toEqual([
      ['p1', 'open', 5],
      ['p2', 'open', 1],
    ]);
    act(() => result.current.later('p1'));
    expect(result.current.picks.map((p) => p.step.id)).toEqual(['p2', 'p1']);
    act(() => result.current.takeOut(first.order));
    expect(result.current.picks.map((p) => p.step.id)).toEqual(['p2']);
    there.reachable = true;
  });

  it('asks what is left where nearly nothing should be, and takes one touch for it', async () => {
    const { result, scan, input } = await open([pick(1, 1), pick(2, 1)], { nearlyEmpty: 4 });
    scan('A-01-1');
    input({ kind: 'count', units: 1 });
    input({ kind: 'touch', what: 'position' });
    expect(result.current.leftOver).toEqual({ pick: 'p1', bin: 'A-01-1', item: 'Jar 1', expected: 4 });
    act(() => result.current.sayLeft(4));
    expect(result.current.leftOver).toBeNull();
    expect(result.current.verdict!.text).toBe('4 left in A-01-1: noted.');
  });
});
