import type { CustomerChoice, DraftOfOrder, ItemChoice } from '@hand-relay/contract';
import { formOf, newForm, sentOf, unitsOf, withCustomer, withLine } from './enterForm.ts';

const jar: ItemChoice = {
  id: 'i1',
  sku: 'JR-004',
  name: 'Round jar',
  unit: 'piece',
  picture: '',
  service: false,
  packs: { unit: 1, outer: 12 },
  free: 30,
};
const customer = (number: string, street: string): CustomerChoice => ({
  number,
  name: `Customer ${number}`,
  class: 'A',
  street,
  postcode: 'AB1 2CD',
  city: 'Tarn',
  country: 'GB',
});
const filled = () => {
  const form = withCustomer(newForm('2026-12-01', 'account'), customer('C1', 'Mill Lane 4'), null);
  return { ...form, lines: [{ ...form.lines[0]!, item: jar, text: 'JR-004', quantity: '3', pack: 'outer' as const }] };
};

describe('the form of an order', () => {
  it('says what is missing by the path that the server would name', () => {
    const { faults } = sentOf({ ...newForm('soon', 'account'), link: 'www', kind: 'transfer' });
    expect([...faults]).toEqual([
      ['draft.customer', 'needed'],
      ['draft.due', 'badDay'],
      ['draft.shipTo.name', 'needed'],
      ['draft.shipTo.country', 'badCountry'],
      ['draft.link', 'badLink'],
      ['draft.toSite', 'needed'],
      ['draft.lines', 'oneLine'],
    ]);
    const typed = { ...filled(), lines: filled().lines.map((l) => ({ ...l, item: null, quantity: '0' })) };
    expect([...sentOf(typed).faults]).toEqual([
      ['draft.lines.0.sku', 'needed'],
      ['draft.lines.0.quantity', 'whole'],
    ]);
  });

  it('sends what is filled, without a line that nobody used', () => {
    const { draft, faults } = sentOf({ ...withLine(filled()), tags: 'gift, , call first' });
    expect(faults.size).toBe(0);
    expect(draft).toMatchObject({ customer: 'C1', tags: ['gift', 'call first'], shipTo: { street: 'Mill Lane 4' } });
    expect(draft.lines).toEqual([{ line: 1, sku: 'JR-004', quantity: 3, pack: 'outer', note: '' }]);
    expect(unitsOf(filled().lines[0]!)).toBe(36);
  });

  it('follows another customer with the address, unless somebody typed one', () => {
    const first = customer('C1', 'Mill Lane 4');
    const moved = withCustomer(filled(), customer('C2', 'Dock Road 9'), first);
    expect(moved).toMatchObject({ customer: 'C2', shipTo: { street: 'Dock Road 9' } });
    const typed = { ...filled(), shipTo: { ...filled().shipTo, street: 'Elsewhere 1' } };
    expect(withCustomer(typed, customer('C2', 'Dock Road 9'), first).shipTo.street).toBe('Elsewhere 1');
  });

  it('is an order as it is, or a copy with a number, reference and day of its own', () => {
    const { draft } = sentOf({ ...filled(), number: 'SO-1', reference: 'PO 7', link: 'https://docs.example/1' });
    const there = { draft, departure: 'Van', version: 3, open: true, takenAt: '', items: [jar] } as DraftOfOrder;
    const form = formOf(there);
    expect(form).toMatchObject({ number: 'SO-1', departure: 'Van', lines: [{ item: jar, quantity: '3' }] });
    expect(sentOf(form).draft).toEqual(draft);
    expect(withLine(form).lines.map((l) => l.line)).toEqual([1, 2]);
    const copy = formOf(there, '2027-01-04');
    expect(copy).toMatchObject({ number: '', reference: '', link: '', departure: '', due: '2027-01-04' });
    expect(copy.lines).toEqual(form.lines);
  });
});
