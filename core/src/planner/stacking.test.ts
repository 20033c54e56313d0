import { PlannerError, verbs } from './index.ts';

const ask = (verb: 'cartonise' | 'palletise', document: unknown) => {
  const { run, result } = verbs[verb]!;
  const answer = run(document, { solver: null as never, now: () => 0 });
  expect(result.safeParse(answer).error).toBeUndefined();
  return answer;
};
const refused = (verb: 'cartonise' | 'palletise', document: unknown) => {
  try {
    ask(verb, document);
  } catch (error) {
    if (error instanceof PlannerError) return error.message;
    throw error;
  }
  return null;
};

describe('the planner: cartonise', () => {
  const carton = { id: 'C2', inner: [400, 300, 250], tare: 320, maxWeight: 20_000, cost: 0.85 };
  const item = { id: 'i1', size: [400, 300, 125], weight: 410, units: 2 };
  const asked = { cartons: [carton], items: [item] };

  it('answers with places, the weight with the tare, what is filled, and the bound', () => {
    expect(ask('cartonise', asked)).toEqual({
      cartons: [
        {
          carton: 'C2',
          weight: 1140,
          fill: 1,
          placements: [
            { item: 'i1', at: [0, 0, 0], size: [400, 300, 125] },
            { item: 'i1', at: [0, 0, 125], size: [400, 300, 125] },
          ],
        },
      ],
      cost: 0.85,
      lowerBound: 0.85,
    });
    const twice = ask('cartonise', { ...asked, items: [{ ...item, maxLoadOnTop: 409 }], objective: 'cartons' });
    // Lying on its short side it would not fit, and nothing may rest on it. The bound is in cartons.
    expect(twice).toMatchObject({ cost: 1.7, lowerBound: 1 });
    expect(ask('cartonise', { ...asked, items: [] })).toEqual({ cartons: [], cost: 0, lowerBound: 0 });
    // Half of it rests on something, unless it may float.
    const floating = [item, { id: 'i2', size: [400, 150, 100], units: 1 }];
    expect(ask('cartonise', { cartons: [{ ...carton, inner: [400, 300, 350] }], items: floating })).toMatchObject({
      cost: 0.85,
    });
  });

  it.each([
    [{ ...asked, items: [{ ...item, size: [400, 301, 299] }] }, 'items[0]: must fit a carton, and i1 fits none'],
    [{ ...asked, items: [{ ...item, weight: 20_001 }] }, 'items[0]: must fit a carton'],
    [{ ...asked, items: [{ ...item, size: [0, 1, 1] }] }, 'items[0].size[0]: must be more than 0'],
    [{ ...asked, items: [{ ...item, size: [1, 1] }] }, 'items[0].size: must be three numbers'],
    [{ ...asked, items: [item, item] }, 'items[1].id: must not be there twice'],
    [{ ...asked, items: [{ ...item, units: 1.5 }] }, 'items[0].units: must be a whole number'],
    [{ ...asked, cartons: [{ ...carton, tara: 1 }] }, 'cartons[0].tara: is not a field'],
    [{ ...asked, support: 1.1 }, 'support: must lie between 0 and 1'],
    [{ ...asked, objective: 'speed' }, 'objective: must be cost or cartons'],
  ])('refuses %#', (document, message) => expect(refused('cartonise', document)).toContain(message));
});

describe('the planner: palletise', () => {
  const pallet = { length: 1200, width: 800, height: 144, tare: 25_000, maxHeight: 700, maxLoad: 1_000_000 };
  const unit = (id: string, more = {}) => ({ id, size: [1200, 800, 250], weight: 9000, keepUpright: true, ...more });

  it('stacks from the deck up, later stops below, each unit under its own name', () => {
    const two = { pallet, units: [unit('a', { stop: 1 }), unit('b', { stop: 2 })] };
    expect(ask('palletise', two)).toEqual({
      pallets: [
        {
          height: 644,
          weight: 43_000,
          fill: (2 * 250) / 556,
          placements: [
            { unit: 'b', at: [0, 0, 144], size: [1200, 800, 250] },
            { unit: 'a', at: [0, 0, 394], size: [1200, 800, 250] },
          ],
        },
      ],
      lowerBound: 1,
    });
    // A unit without a stop counts as last: it lies below.
    const last = ask('palletise', { pallet, units: [unit('a', { stop: 9 }), unit('z')] }) as {
      pallets: { placements: { unit: string }[] }[];
    };
    expect(last.pallets[0]!.placements.map((p) => p.unit)).toEqual(['z', 'a']);
    expect(ask('palletise', { pallet, units: [] })).toEqual({ pallets: [], lowerBound: 0 });
  });

  it.each([
    [{ pallet, units: [unit('a', { size: [1201, 800, 1] })] }, 'units[0]: must fit the pallet, and a does not'],
    [{ pallet, units: [unit('a', { weight: 2_000_000 })] }, 'units[0]: must fit the pallet'],
    [{ pallet: { ...pallet, maxHeight: 144 }, units: [] }, 'pallet.maxHeight: must be more than'],
    [{ pallet, units: [unit('a'), unit('a')] }, 'units[1].id: must not be there twice'],
    [{ pallet, units: [unit('a', { stop: 'x' })] }, 'units[0].stop: must be a whole number'],
  ])('refuses %#', (document, message) => expect(refused('palletise', document)).toContain(message));
});
