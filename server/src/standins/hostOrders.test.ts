import fc from 'fast-check';
import { orderDraft } from '@hand-relay/contract';
import { seeded } from '@hand-relay/core/random';
import { changedOrder, newOrder, type HostWorld } from './hostOrders.ts';

const world = (items: number): HostWorld => ({
  items: Array.from({ length: items }, (_, i) => `IT-${i}`),
  customers: ['C1', 'C2'].map((number) => ({
    number,
    name: `Customer ${number}`,
    street: '1 Weir Street',
    postcode: 'ZA1 2BC',
    city: 'Dunmere',
    country: 'GB',
  })),
  days: ['2026-03-02', '2026-03-03'],
});

describe("the host's stand-in", () => {
  it('sends orders that the house takes, the same ones for the same seed', () => {
    fc.assert(
      fc.property(fc.nat(), fc.integer({ min: 1, max: 9 }), (seed, items) => {
        const order = newOrder(seeded(seed), world(items), 'H-1');
        expect(orderDraft.safeParse(order).error?.issues).toBeUndefined();
        expect(new Set(order.lines.map((l) => l.sku)).size).toBe(order.lines.length);
        expect(newOrder(seeded(seed), world(items), 'H-1')).toEqual(order);
      }),
    );
  });

  it('changes an order in its lines alone, and never to nothing', () => {
    let changed = 0;
    fc.assert(
      fc.property(fc.nat(), fc.integer({ min: 1, max: 9 }), (seed, items) => {
        const random = seeded(seed);
        const order = newOrder(random, world(items), 'H-1');
        const other = changedOrder(random, world(items), order);
        expect(orderDraft.safeParse(other).error?.issues).toBeUndefined();
        expect({ ...other, lines: [] }).toEqual({ ...order, lines: [] });
        expect(other.lines.length).toBeGreaterThan(0);
        // A line keeps its item: another one would have to be changed by hand.
        for (const line of other.lines)
          expect(order.lines.find((l) => l.line === line.line)?.sku ?? line.sku).toBe(line.sku);
        if (JSON.stringify(other) !== JSON.stringify(order)) changed += 1;
      }),
      { numRuns: 200 },
    );
    expect(changed).toBeGreaterThan(120);
  });
});
