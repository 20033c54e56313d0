import type { DraftOfOrder, OrderDetail } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, startWave, takeIn } from './steps.ts';

const DAY = 86_400_000;
/** The first of the next days that is one of these, 0 is Sunday. */
const nextDay = (...days: number[]) => {
  const at = [1, 2, 3, 4, 5, 6, 7].map((n) => new Date(Date.now() + n * DAY)).find((d) => days.includes(d.getUTCDay()));
  return at!.toISOString().slice(0, 10);
};

describe('orders that people enter and change', () => {
  let relay: TestRelay;
  let [desk, service, picker, packer] = [] as unknown as Person[];
  const order = (id: string): Promise<OrderDetail> => desk!.get('order', { id });
  const change = (changes: object[], mode = 'change', by = service!) =>
    by.get('changeOrders', { body: { mode, changes } });
  beforeAll(async () => {
    relay = await openTest();
    [desk, service, picker, packer] = await Promise.all(
      (['maren', 'tobi', 'pico', 'ada'] as const).map((id) => relay.as(id)),
    );
  });
  afterAll(async () => {
    await checkBooks(relay, 'all of it');
    await relay.close();
  });

  it('changes many at once, says what that does before, and takes back what nobody changed since', async () => {
    const ids: string[] = [];
    for (const n of [1, 2, 3]) ids.push(await takeIn(desk!, { number: `C-${n}`, lines: [['HT-003', 1]] }));
    const before = await Promise.all(ids.map(order));
    const { departures } = await desk!.get('deskPlaces');
    const other = departures.find((d) => d !== before[0]!.departure)!;
    const set = { due: nextDay(3), departure: other, priority: 1, lane: 'LANE-1', note: 'rang' };
    const look = await change([{ orders: ids, set }], 'preview');
    expect(look).toMatchObject({ changed: 3, same: 0, closed: 0, underWay: 0, undo: [] });
    expect(await order(ids[0]!)).toEqual(before[0]);
    const done = await change([{ orders: [...ids, 'nobody'], set }]);
    expect(done).toMatchObject({ changed: 3, closed: 1 });
    const after = await order(ids[0]!);
    expect(after).toMatchObject({ due: set.due, departure: other, priority: 1, lane: 'LANE-1', note: 'rang' });
    expect(after.leavesAt!.slice(0, 10) <= set.due).toBe(true);
    expect(await change([{ orders: ids, set }])).toMatchObject({ changed: 0, same: 3, undo: [] });
    // Somebody else has changed the second since: that stays.
    await change([{ orders: [ids[1]!], set: { note: 'rang twice' } }], 'change', desk);
    expect(await change(done.undo)).toMatchObject({ changed: 2, since: 1 });
    const back = await Promise.all(ids.map(order));
    expect([back[0], back[2]]).toEqual([before[0], before[2]]);
    expect(back[1]).toMatchObject({ note: 'rang twice', priority: 1 });
    const { entries } = await desk!.get('trail', { id: ids[0]! });
    expect(entries.filter((e) => e.kind === 'order-edited').map((e) => [e.person, e.facts['differences']])).toEqual([
      ['Tobi Raske', expect.arrayContaining([{ field: 'priority', before: '5', after: '1' }])],
      ['Tobi Raske', expect.arrayContaining([{ field: 'priority', before: '1', after: '5' }])],
    ]);
  });

  it('refuses a departure or a place that is not there, and whoever has not the right', async () => {
    const id = await takeIn(desk!, { number: 'C-NO', lines: [['HT-003', 1]] });
    const no = (set: object, by = desk!) =>
      by.refused('changeOrders', { body: { mode: 'change', changes: [{ orders: [id], set }] } });
    expect(await no({ departure: 'Balloon' })).toMatchObject({
      code: 'no-such-departure',
      fields: [{ path: 'changes.0.set.departure' }],
    });
    expect(await no({ lane: 'LANE-99' })).toMatchObject({
      code: 'no-such-place',
      fields: [{ path: 'changes.0.set.lane' }],
    });
    expect(await no({})).toMatchObject({ status: 400 });
    expect(await no({ priority: 10 })).toMatchObject({ fields: [{ path: 'changes.0.set.priority' }] });
    expect((await no({ priority: 1 }, packer)).status).toBe(403);
  });

  it('lets work under way go on, and gives a shipment the carrier of its new departure', async () => {
    const id = await takeIn(desk!, { number: 'C-WORK', lines: [['HT-004', 2]] });
    const wave = await startWave(desk!, [id]);
    const [run] = (await desk!.get('wave', { id: wave })).runs;
    await pickAll(picker!, run!.id, 'CART-05');
    await packAll(packer!, id);
    const { departure, shipments } = await order(id);
    const { departures } = await desk!.get('deskPlaces');
    const carrierOf = async () => (await desk!.get('shipment', { id: shipments[0]!.id })).row.carrier;
    const carrier = await carrierOf();
    for (const other of departures) {
      const set = { departure: other, shipTo: { ...(await order(id)).shipTo, street: `Lane of ${other}` } };
      const look = await change([{ orders: [id], set }], 'preview');
      expect(look).toMatchObject({ changed: 1, underWay: 1, labelled: 1, tracked: 0 });
      const { undo } = await change([{ orders: [id], set }]);
      expect((await order(id)).carrier!.startsWith((await carrierOf())!)).toBe(true);
      await change(undo);
      expect(await order(id)).toMatchObject({ departure });
      expect(await carrierOf()).toBe(carrier);
    }
  });

  it('holds, lifts and cancels many, each undone as one', async () => {
    const ids: string[] = [];
    for (const n of [1, 2]) ids.push(await takeIn(desk!, { number: `B-${n}`, lines: [['HT-003', n]] }));
    const heldNow = async () =>
      (await Promise.all(ids.map((id) => desk!.get('holds', { id })))).map((h) => h.holds.length);
    const body = { orders: [...ids, 'nobody'], reason: 'Customer rang', stops: ['release'] };
    const { holds, ...sums } = await service!.get('holdOrders', { body });
    expect([sums, await heldNow()]).toEqual([{ held: 2, closed: 1 }, [1, 1]]);
    // Another hold that only others lift stays.
    await desk!.get('holdOrder', { id: ids[1]!, body: { reason: 'By the supervisor', stops: ['release'] } });
    const lifted = await service!.get('liftHolds', { body: { orders: ids, reason: 'All clear' } });
    expect(lifted).toMatchObject({ lifted: 2, mayNot: 1 });
    expect(await heldNow()).toEqual([0, 1]);
    expect(await service!.get('restoreHolds', { body: { holds: lifted.holds } })).toEqual({ holds: 2 });
    expect(await heldNow()).toEqual([1, 2]);
    await service!.get('liftHolds', { body: { holds, reason: 'Undone' } });
    await desk!.get('liftHolds', { body: { orders: ids, reason: 'Undone' } });
    expect(await heldNow()).toEqual([0, 0]);

    const gone = await service!.get('cancelOrders', { body: { orders: [...ids, 'nobody'], reason: 'rang off' } });
    expect(gone).toMatchObject({ cancelled: 2, nothing: 1, units: 3 });
    expect((await Promise.all(ids.map(order))).map((o) => o.status)).toEqual(['cancelled', 'cancelled']);
    const lines = gone.lines.map((l) => ({ ...l, units: l.units + 1 }));
    expect((await service!.refused('restoreOrders', { body: { lines } })).code).toBe('nothing-to-restore');
    expect(await service!.get('restoreOrders', { body: { lines: gone.lines } })).toEqual({ orders: 2 });
    expect((await Promise.all(ids.map(order))).map((o) => [o.status, o.lines[0]!.cancelled])).toEqual([
      ['open', 0],
      ['open', 0],
    ]);
    expect(await service!.get('tagOrders', { body: { orders: ids, add: ['vip'] } })).toEqual({
      changed: 2,
      orders: expect.arrayContaining(ids),
    });
  });

  describe('a form', () => {
    const enter = (draft: object, more: object = {}) => ({
      body: { mode: 'take', id: null, version: null, draft, ...more },
    });
    const draftOf = async (customer: string) => {
      const { customers } = await service!.get('customerChoices', { query: { find: customer } });
      const { number, name, street, postcode, city, country } = customers[0]!;
      const { items } = await service!.get('itemChoices', { query: { find: 'HT-003' } });
      expect(items[0]).toMatchObject({ sku: 'HT-003', service: false, free: expect.any(Number) });
      return {
        channel: 'account',
        customer: number,
        reference: 'by phone',
        due: nextDay(1, 2, 3, 4, 5),
        shipTo: { name, street, postcode, city, country },
        lines: [{ line: 1, sku: items[0]!.sku, quantity: 5 }],
      };
    };
    it('enters an order, which gets the next number, and says at each field what is wrong', async () => {
      const draft = await draftOf('C-');
      const made = await service!.get('enterOrder', enter(draft));
      expect(made).toMatchObject({ outcome: 'new', number: expect.stringMatching(/-\d{5}$/), version: 1 });
      expect(await order(made.id!)).toMatchObject({ reference: 'by phone', document: '', lines: [{ asked: 5 }] });
      const next = await service!.get('enterOrder', enter(draft));
      expect(Number(next.number.slice(-5))).toBe(Number(made.number.slice(-5)) + 1);
      const again = await service!.refused('enterOrder', enter({ ...draft, number: made.number }));
      expect(again).toMatchObject({ code: 'number-used', fields: [{ path: 'draft.number' }] });
      const lines = [...draft.lines, { line: 2, sku: 'NO-SUCH', quantity: 1 }];
      const wrong = await service!.refused('enterOrder', enter({ ...draft, customer: 'C-0', lines }));
      expect(wrong).toMatchObject({
        code: 'order-wrong',
        fields: [
          { path: 'draft.customer', message: 'a-known-customer' },
          { path: 'draft.lines.1.sku', message: 'a-known-item' },
        ],
      });
    });

    it('changes an order with its lines while work is under way, and not one that others changed in the meantime', async () => {
      const { id } = (await service!.get('enterOrder', enter(await draftOf('C-')))) as { id: string };
      await startWave(desk!, [id]);
      const read = (): Promise<DraftOfOrder> => service!.get('orderDraft', { id });
      const was = await read();
      const more = [
        { ...was.draft.lines[0]!, quantity: 3 },
        { line: 2, sku: 'HT-004', quantity: 2 },
      ];
      const draft = { ...was.draft, lines: more, shipComplete: true };
      const changed = enter(draft, { id, version: was.version });
      const look = await service!.get('enterOrder', { body: { ...changed.body, mode: 'preview' } });
      expect(look).toMatchObject({
        outcome: 'adapts',
        differences: [
          { field: 'shipComplete', before: 'false', after: 'true' },
          { field: 'line 1 quantity', before: '5', after: '3' },
          { field: 'line 2', before: '', after: '2 × HT-004' },
        ],
      });
      expect(await read()).toEqual(was);
      const done = await service!.get('enterOrder', changed);
      expect((await order(id)).lines.map((l) => [l.asked - l.cancelled, l.released])).toEqual([
        [3, 3],
        [2, 0],
      ]);
      expect((await service!.refused('enterOrder', changed)).code).toBe('changed-since');
      const other = { ...was.draft, lines: [{ ...was.draft.lines[0]!, sku: 'HT-004' }] };
      const now = { id, version: done.version };
      expect((await service!.refused('enterOrder', enter(other, now))).code).toBe('order-in-work');
      // Taken back by what it was before.
      await service!.get('enterOrder', enter(was.draft, now));
      expect((await order(id)).lines.filter((l) => l.quantity > 0).map((l) => l.asked - l.cancelled)).toEqual([5]);
    });

    it('keeps the departure that a person chose when a document comes again', async () => {
      const { departures } = await desk!.get('deskPlaces');
      const taken = { number: 'F-DEP', lines: [['HT-003', 1]] as [string, number][] };
      const id = await takeIn(desk!, taken);
      const other = departures.find((d) => d !== null && d !== 'none')!;
      await change([{ orders: [id], set: { departure: other } }]);
      await takeIn(desk!, { ...taken, reference: 'PO 8' });
      expect(await order(id)).toMatchObject({ reference: 'PO 8', departure: other });
    });
  });
});
