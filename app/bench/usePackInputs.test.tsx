import { act, renderHook, waitFor } from '@testing-library/react-native';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { judgePack, type BenchState, type PackInput } from '@hand-relay/core/handling/packing';
import { checkDigit } from '@hand-relay/core/reading/gs1';
import { api } from '../state/api.ts';
import { useOrigin } from '../state/call.ts';
import { store } from '../state/index.ts';
import '../text/index.ts';
import { usePackInputs } from './usePackInputs.ts';

const heard: string[] = [];
jest.mock('../ui/sound.ts', () => ({ play: (sound: string) => void heard.push(sound) }));

const gtin = (n: number) => `095212340020${n}${checkDigit(`095212340020${n}`)}`;
const goods = (n: number, units: number): BenchState['loose'][number] => ({
  item: {
    id: `i${n}`,
    sku: `JR-00${n}`,
    name: `Jar ${n}`,
    group: null,
    packs: [{ gtin: gtin(n), level: 'unit', units: 1 }],
    tracksLot: false,
    tracksSerial: false,
  },
  lot: null,
  serial: null,
  units,
});

const noCarton = { id: 'c1', number: 1, sscc: null, weight: { expectedG: 500, toleranceG: 40, measuredG: null } };

/** A server that packs an order as ours does, slowly. */
function server(loose: BenchState['loose']) {
  const bench: BenchState = {
    loose,
    carton: null,
    others: [],
    weighing: 'optional',
    boxes: [{ code: 'BOX-S', name: 'Small' }],
    toLane: null,
    lanes: [],
  };
  const there = {
    bench,
    heard: [] as PackInput[],
    removed: [] as object[],
    refuse: null as string | null,
    broken: false,
  };
  globalThis.fetch = (async (address: string, init?: { body?: string }) => {
    await new Promise((resolve) => setTimeout(resolve, 5));
    const answer = (status: number, data: object) => ({
      ok: status < 400,
      status,
      headers: new Headers(),
      json: () => Promise.resolve(JSON.parse(JSON.stringify(data)) as unknown),
    });
    if (String(address).endsWith('/take-out')) {
      there.removed.push(JSON.parse(init!.body!) as object);
      return answer(200, {});
    }
    if (!String(address).endsWith('/inputs')) {
      const contents = bench.carton?.contents.map(({ item, units }) => ({ item, lot: '', serial: '', units }));
      const cartons = contents ? [{ id: 'c1', contents }] : [];
      return answer(200, { id: 'o1', benches: [{ code: 'BENCH-1', name: 'Bench 1' }], bench, cartons });
    }
    if (there.broken)
      return answer(409, { code: 'order-held', facts: { order: 'LA-1', why: 'Credit' }, fields: [], requestId: 'q' });
    const { input } = JSON.parse(init!.body!) as { input: PackInput };
    there.heard.push(input);
    if (there.refuse) return answer(200, { verdict: 'refused', code: there.refuse, expected: '', got: 'x' });
    const verdict = judgePack(bench, input, 2026);
    if (verdict.verdict === 'open') {
      bench.carton = { ...noCarton, typeCode: verdict.box, contents: [] };
      return answer(200, { ...verdict, carton: 'c1', number: 1 });
    }
    if (verdict.verdict === 'put') {
      const units = verdict.moves.reduce((n, m) => n + m.units, 0);
      const row = bench.loose.find((l) => l.item.id === verdict.item)!;
      row.units -= units;
      bench.loose = bench.loose.filter((l) => l.units > 0);
      bench.carton!.contents.push({ item: verdict.item, name: row.item.name, group: null, units });
      return answer(200, { verdict: 'put', carton: 'c1', units });
    }
    return answer(200, { ...verdict, carton: 'c1', sscc: '395212340000000012', lane: 'LANE-2' });
  }) as never;
  return there;
}

function open() {
  const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
  const { result } = renderHook(() => usePackInputs('o1'), { wrapper });
  const scan = (...codes: string[]) => act(() => codes.forEach((text) => result.current.input({ kind: 'scan', text })));
  const says = (text: string | RegExp, kind: string) =>
    waitFor(() => {
      expect(result.current.said).toMatchObject({ kind });
      expect(result.current.said!.text).toMatch(text);
    });
  const undo = () => act(() => result.current.undo());
  return { scan, says, undo };
}

describe('inputs of a packer', () => {
  beforeEach(() => {
    heard.length = 0;
    useOrigin('http://relay.test');
  });
  afterEach(() => act(() => void store.dispatch(api.util.resetApiState())));

  it('wait for one another, each judged by what the one before it left', async () => {
    const there = server([goods(1, 2), goods(2, 1)]);
    const { scan, says } = open();
    scan('BOX-S', gtin(1), gtin(1), gtin(2));
    await waitFor(() => expect(there.heard).toHaveLength(4));
    await says(/^1 added, 3 in carton/, 'done');
    expect(there.bench.loose).toEqual([]);
    scan('DO-CLOSE');
    await says(/LANE-2/, 'done');
    expect(heard).toEqual(['accepted', 'accepted', 'accepted', 'accepted', 'finished']);
  });

  it('are refused at the bench and counted by the server; what the server alone knows is said too', async () => {
    const there = server([goods(1, 2)]);
    const { scan, says } = open();
    scan(gtin(1));
    await says(/carton/i, 'refused');
    await waitFor(() => expect(there.heard).toHaveLength(1));
    expect(heard).toEqual(['refused']);
    scan('BOX-S');
    await says('', 'done');
    there.refuse = 'keep-apart';
    scan(gtin(1));
    await waitFor(() => expect(heard).toEqual(['refused', 'accepted', 'refused']));
    there.broken = true;
    scan(gtin(1));
    await says(/LA-1 is on hold: Credit/, 'refused');
  });

  it('count the item that is scanned behind a number of the sheet, where several wait', async () => {
    const there = server([goods(1, 5), goods(2, 5)]);
    const { scan, says } = open();
    scan('BOX-S', 'COUNT-3');
    await says(/3/, 'caution');
    scan(gtin(2));
    await says(/^3 added/, 'done');
    expect(there.bench.loose.map((l) => l.units)).toEqual([5, 2]);
    expect(there.heard.at(-1)).toEqual({ kind: 'scan', text: gtin(2), times: 3 });
  });

  it('take back what was put in last, once', async () => {
    const there = server([goods(1, 3), goods(2, 2)]);
    const { scan, says, undo } = open();
    scan('BOX-S', gtin(1), gtin(2));
    await says(/^1 added, 2 in carton/, 'done');
    undo();
    await says('Removed again.', 'done');
    expect(there.removed).toEqual([{ item: 'i2', lot: '', serial: '', units: 1 }]);
    undo();
    await says(/^Nothing to undo/, 'refused');
    expect(there.removed).toHaveLength(1);
  });
});
