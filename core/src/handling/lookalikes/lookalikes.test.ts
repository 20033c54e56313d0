import fc from 'fast-check';
import { lookAlikes, type Goods } from './index.ts';

const goods = (id: string, name: string, more: Partial<Goods> = {}): Goods => ({
  id,
  name,
  sizeMm: [80, 80, 110],
  picture: 'jar',
  gtins: [],
  ...more,
});
const none = () => 0;

describe('items that are easily taken for one another', () => {
  it('are alike in name and size, and told apart by the words in which they differ', () => {
    const jar = goods('a', 'Round jar, 340 ml');
    const others = [goods('b', 'Round jar, 250 ml'), goods('c', 'Smoker, large'), goods('d', 'Hex jar, 340 ml')];
    const found = lookAlikes(jar, others, none);
    expect(found.map((f) => f.item)).toEqual(['b', 'd']);
    expect(found[0]).toMatchObject({ this: '340', other: '250', why: ['name', 'size', 'picture'] });
    expect(found[1]).toMatchObject({ this: 'Round', other: 'Hex' });
  });

  it('are told apart by their size where the names are the same, and are no matter where the sizes differ much', () => {
    const [small, large] = [goods('a', 'Carton'), goods('b', 'Carton', { sizeMm: [85, 80, 110] })];
    expect(lookAlikes(small, [large], none)[0]).toMatchObject({ this: '80 × 80 × 110 mm', other: '85 × 80 × 110 mm' });
    const beech = goods('a', 'Frame, beech, flat', { picture: 'x' });
    expect(lookAlikes(beech, [goods('b', 'Frame, pine, wired', { sizeMm: [300, 20, 9] })], none)).toEqual([]);
  });

  it('are those that scans have caught before, however they look', () => {
    const [a, b] = [goods('a', 'Veil'), goods('b', 'Gloves, leather', { sizeMm: [300, 90, 20], picture: 'glove' })];
    expect(lookAlikes(a, [b], none)).toEqual([]);
    expect(lookAlikes(a, [b], () => 2)[0]).toMatchObject({ item: 'b', why: ['caught'] });
  });

  const any = fc.record({
    name: fc.stringMatching(/^[A-Za-z ,0-9]{0,24}$/),
    sizeMm: fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: 1, max: 900 }))) as fc.Arbitrary<
      [number, number, number]
    >,
    picture: fc.constantFrom('', 'jar', 'hive'),
    gtins: fc.array(fc.stringMatching(/^\d{14}$/), { maxLength: 2 }),
  });
  it('are so both ways, whatever they are, with what tells each from the other', () => {
    fc.assert(
      fc.property(any, any, fc.nat(3), (x, y, errors) => {
        const [a, b] = [
          { id: 'a', ...x },
          { id: 'b', ...y },
        ];
        const [there, back] = [lookAlikes(a, [b], () => errors)[0], lookAlikes(b, [a], () => errors)[0]];
        expect(there?.score).toEqual(back?.score);
        expect([there?.this, there?.other]).toEqual([back?.other, back?.this]);
        if (there) expect(there.why.length).toBeGreaterThan(0);
        expect(lookAlikes(a, [a], () => 9)).toEqual([]);
      }),
    );
  });
});
