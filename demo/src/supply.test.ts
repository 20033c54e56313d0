import { firstHolds, stoppedCustomer } from './holds.ts';
import { scenario } from './scenario.ts';
import { comingSupply } from './supply.ts';

const today = '2026-03-02';
const world = scenario({ today });
const asked = new Map<string, number>();
for (const order of world.orders)
  for (const l of order.lines) {
    const units = l.quantity * l.item.packs.find((p) => p.level === l.pack)!.units;
    asked.set(l.item.id, (asked.get(l.item.id) ?? 0) + units);
  }
const here = new Map<string, number>();
for (const row of world.stock) here.set(row.item, (here.get(row.item) ?? 0) + row.units);
const missing = (item: string) => (asked.get(item) ?? 0) - (here.get(item) ?? 0);

describe('what the scenario leaves to decide', () => {
  const coming = comingSupply(world, today);
  it('is supply for most items that fall short, each by its own document, none before tomorrow', () => {
    expect(coming.length).toBeGreaterThan(5);
    for (const c of coming) {
      expect(missing(c.itemId)).toBeGreaterThan(0);
      expect(c.due > today).toBe(true);
      expect(c.units).toBeGreaterThan(0);
    }
    expect(new Set(coming.map((c) => c.reference)).size).toBe(coming.length);
    expect(new Set(coming.map((c) => c.source))).toEqual(new Set(['purchase', 'transfer']));
  });
  it('covers what is missing where it comes at all, and leaves some items without', () => {
    const short = [...asked.keys()].filter((item) => missing(item) > 0);
    const sums = new Map<string, number>();
    for (const c of coming) sums.set(c.itemId, (sums.get(c.itemId) ?? 0) + c.units);
    for (const [item, units] of sums) expect(units).toBeGreaterThanOrEqual(missing(item));
    expect(short.filter((item) => !sums.has(item)).length).toBeGreaterThan(0);
  });
  it('holds the orders of one customer, and no other for the same reason', () => {
    const stopped = stoppedCustomer(world);
    const held = firstHolds('larkmoor', world.orders, stopped).filter((h) => h.ruleId === 'hold-rule-larkmoor-1');
    const orders = world.orders.filter((o) => o.customer === stopped).map((o) => `order-${o.number.toLowerCase()}`);
    expect(held.map((h) => h.orderId)).toEqual(orders);
    expect(held[0]).toMatchObject({ stops: ['release', 'picking', 'packing', 'shipping'] });
  });
  it('is the same for the same day, and moves with it', () => {
    expect(comingSupply(scenario({ today }), today)).toEqual(coming);
    const later = comingSupply(scenario({ today: '2026-03-09' }), '2026-03-09');
    expect(later.map((c) => c.itemId)).toEqual(coming.map((c) => c.itemId));
    expect(later[0]!.due > coming[0]!.due).toBe(true);
  });
});
