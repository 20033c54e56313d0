import { addDays } from '@hand-relay/core/calendar';
import { readCode } from '@hand-relay/core/reading/codes';
import { mapFloor } from '@hand-relay/core/walking/floor';
import { hasCheckDigit } from '@hand-relay/core/reading/gs1';
import { fitsAlone } from '@hand-relay/core/stacking/boxes';
import * as house from './house.ts';
import { floor, scenario, start, zones, type Scenario } from './scenario.ts';

const today = '2026-03-02';

describe('the demo scenario', () => {
  const world = scenario({ today });
  const itemOf = new Map(world.items.map((i) => [i.id, i]));
  const binOf = new Map(world.bins.map((b) => [b.code, b]));

  it('is the same for the same seed, and another for another', () => {
    expect(scenario({ today })).toEqual(world);
    expect(scenario({ today, seed: 2 }).orders).not.toEqual(world.orders);
  });

  it('has the house that it tells of', () => {
    const count = <T>(of: readonly T[], what: (t: T) => boolean) => of.filter(what).length;
    expect(Math.abs(world.items.length - 320)).toBeLessThan(30);
    expect(Math.abs(world.bins.length - 1400)).toBeLessThan(60);
    expect(floor.aisles).toHaveLength(12);
    expect(floor.crossAisles).toHaveLength(3);
    expect(house.lanes).toHaveLength(5);
    expect(house.benches).toHaveLength(4);
    expect(house.doors).toHaveLength(3);
    expect(world.orders).toHaveLength(260);
    expect(world.customers).toHaveLength(40);
    expect([...new Set(world.customers.map((c) => c.class))].sort()).toEqual(['A', 'B', 'C']);
    expect([...new Set(house.cartTypes.map((c) => c.positions))].sort((a, b) => a - b)).toEqual([4, 8, 12]);
    for (const channel of ['web', 'account', 'field'])
      expect(count(world.orders, (o) => o.channel === channel)).toBeGreaterThan(30);
    const lines = world.orders.map((o) => o.lines.length);
    expect([Math.min(...lines), Math.max(...lines)]).toEqual([1, 14]);
    const days = new Set(world.orders.map((o) => o.due));
    expect([...days].sort()).toEqual([0, 1, 2, 3].map((n) => addDays(today, n)));
    for (const role of ['supervisor', 'service', 'picker', 'packer', 'loader', 'manager'])
      expect([role, house.people.some((p) => (p.roles as readonly string[]).includes(role))]).toEqual([role, true]);
    // Everybody can sign in one way at least.
    for (const p of house.people) expect(p.login ?? p.badge).toBeTruthy();
  });

  it('gives every pack a number of its own with its check digit, that a scanner reads as goods', () => {
    const gtins = world.items.flatMap((i) => i.packs.map((p) => p.gtin));
    expect(new Set(gtins).size).toBe(gtins.length);
    for (const gtin of gtins) {
      expect([gtin, gtin.length, hasCheckDigit(gtin)]).toEqual([gtin, 14, true]);
      expect(readCode(gtin, 2026)).toMatchObject({ kind: 'gs1', gtin });
    }
    for (const item of world.items) {
      const units = item.packs.map((p) => p.units);
      expect([item.sku, units[0], [...units].sort((a, b) => a - b)]).toEqual([item.sku, 1, units]);
      // An outer pack holds whole inner ones.
      const [, inner, outer] = units;
      if (inner && outer) expect([item.sku, outer % inner]).toEqual([item.sku, 0]);
    }
  });

  it('keeps what must be kept apart, cold, locked or carried by two in its own zone', () => {
    const zoneOf = (s: Scenario['stock'][number]) => binOf.get(s.bin)!.zone;
    for (const row of world.stock) {
      const { family } = itemOf.get(row.item)!;
      expect([row.item, zoneOf(row)]).toEqual([row.item, family.zone]);
      expect([row.item, row.lot !== '']).toEqual([row.item, family.tracksLot]);
      expect([row.item, row.serial !== '']).toEqual([row.item, family.tracksSerial]);
    }
    const zonesOf = (which: (f: Scenario['items'][number]['family']) => boolean) => [
      ...new Set(world.items.filter((i) => which(i.family)).map((i) => i.family.zone)),
    ];
    expect(zonesOf((f) => f.temperature === 'chilled')).toEqual(['chill']);
    expect(zonesOf((f) => f.apart === 'acid')).toEqual(['treat']);
    expect(zonesOf((f) => f.tracksSerial)).toEqual(['cage']);
    expect(zonesOf((f) => f.handling === 'two-person')).toEqual(['heavy']);
    expect(zones.find((z) => z.code === 'cage')!.locked).toBe(true);
    expect(zones.find((z) => z.code === 'chill')!.temperature).toBe('chilled');
  });

  it('has one item a bin, each serial number once, and every lot with a date ahead', () => {
    const inBin = new Map<string, Set<string>>();
    for (const { bin, item } of world.stock) inBin.set(bin, (inBin.get(bin) ?? new Set()).add(item));
    for (const [bin, items] of inBin) expect([bin, items.size]).toEqual([bin, 1]);
    const serials = world.stock.flatMap((s) => s.serial || []);
    expect(new Set(serials).size).toBe(serials.length);
    expect(serials.length).toBeGreaterThan(50);
    const dated = new Map(world.lots.map((l) => [`${l.item} ${l.lot}`, l.bestBefore]));
    for (const row of world.stock)
      if (row.lot) expect(dated.get(`${row.item} ${row.lot}`)! > addDays(today, 15)).toBe(true);
  });

  it('stands on one floor: every bin can be walked to, and is read from its sign', () => {
    expect(binOf.size).toBe(world.bins.length);
    const map = mapFloor(floor);
    for (const bin of world.bins) {
      expect(readCode(bin.code, 2026)).toEqual({ kind: 'bin', bin: bin.code });
      const walk = map.distance(start, bin);
      expect(Number.isFinite(walk) && walk > 0 && walk < 80).toBe(true);
    }
  });

  it('asks for goods that exist, in packs that they have, most of which are there', () => {
    const stock = new Map<string, number>();
    for (const row of world.stock) stock.set(row.item, (stock.get(row.item) ?? 0) + row.units);
    const asked = new Map<string, number>();
    for (const { lines } of world.orders) {
      expect(new Set(lines.map((l) => l.item.id)).size).toBe(lines.length);
      for (const l of lines) {
        const pack = l.item.packs.find((p) => p.level === l.pack);
        expect(pack).toBeDefined();
        asked.set(l.item.id, (asked.get(l.item.id) ?? 0) + l.quantity * pack!.units);
      }
    }
    const contested = [...asked].filter(([item, units]) => units > (stock.get(item) ?? 0)).length;
    // Some items are contested, or there would be nothing to decide; most are not.
    expect(contested).toBeGreaterThan(5);
    expect(contested / asked.size).toBeLessThan(0.4);
    const popular = [...asked.values()].sort((a, b) => b - a);
    const top = popular.slice(0, Math.ceil(popular.length / 5)).reduce((n, u) => n + u, 0);
    expect(top / popular.reduce((n, u) => n + u, 0)).toBeGreaterThan(0.4);
  });

  it('has a carton for every single thing it sells', () => {
    const homeless = world.items
      .filter(
        (i) =>
          !house.cartonTypes.some(
            (t) =>
              i.weightG <= t.maxWeightG &&
              fitsAlone({ size: i.size, keepUpright: i.family.keepUpright }, [...t.innerMm] as [
                number,
                number,
                number,
              ]),
          ),
      )
      .map((i) => i.sku);
    expect(homeless).toEqual([]);
  });

  it('grows by its size factor, orders and stock alike', () => {
    const large = scenario({ today, size: 10 });
    expect(large.orders).toHaveLength(2600);
    expect(new Set(large.orders.map((o) => o.number)).size).toBe(2600);
    const sum = (w: Scenario) => w.stock.reduce((n, s) => n + s.units, 0);
    expect(sum(large) / sum(world)).toBeGreaterThan(8);
    expect(large.items.map((i) => i.sku)).toEqual(world.items.map((i) => i.sku));
  });
});
