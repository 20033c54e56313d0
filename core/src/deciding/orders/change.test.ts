import fc from 'fast-check';
import { addDays } from '../../calendar/index.ts';
import { changeHead, isAs, type HeadChange, type OrderHead } from './index.ts';

const timetable = [
  { id: 'Morning van', cutOff: '09:30', days: [1, 2, 3, 4, 5], channel: null },
  { id: 'Web parcels', cutOff: '17:00', days: [1, 2, 3, 4, 5, 6], channel: 'web' },
  { id: 'Gone', cutOff: '12:00', days: [], channel: null },
];
const shipTo = { name: 'Nine Oaks', street: 'Mill Lane 4', postcode: 'AB1 2CD', city: 'Tarn', country: 'GB' };
const was: OrderHead & { channel: string } = {
  channel: 'web',
  due: '2026-12-01',
  departure: 'Morning van',
  lane: null,
  door: null,
  priority: 5,
  shipComplete: false,
  packing: 'usual',
  reference: 'PO 77',
  note: '',
  shipTo,
};
const change = (set: HeadChange, of: Partial<typeof was> = {}) =>
  changeHead({ ...was, ...of }, set, timetable, 'Europe/London');
const at = (ms: number | null | undefined) => (ms ? new Date(ms).toISOString() : null);

describe('the head of an order', () => {
  it('keeps its departure on another day, and leaves on the last day before on which that leaves', () => {
    expect(at(change({ due: '2026-12-03' })?.leavesAt)).toBe('2026-12-03T09:30:00.000Z');
    // A Sunday: the van leaves on Friday.
    expect(at(change({ due: '2026-12-06' })?.leavesAt)).toBe('2026-12-04T09:30:00.000Z');
  });
  it('gets the departure of its channel with a day, where it had none', () =>
    expect(change({ due: '2026-12-05' }, { departure: null })).toMatchObject({
      head: { departure: 'Web parcels' },
      leavesAt: Date.parse('2026-12-05T17:00:00Z'),
      undo: { due: '2026-12-01', departure: null },
    }));
  it('may have no departure, or one that leaves on no day', () => {
    expect(change({ departure: null })).toMatchObject({ leavesAt: null, undo: { departure: 'Morning van' } });
    expect(change({ departure: 'Gone' })?.leavesAt).toBeNull();
  });
  it('says what changed, and nothing where all is so already', () => {
    expect(change({ priority: 1, shipTo: { ...shipTo, street: 'Mill Lane 5' } })?.differences).toEqual([
      { field: 'priority', before: '5', after: '1' },
      {
        field: 'shipTo',
        before: 'Nine Oaks, Mill Lane 4, AB1 2CD Tarn, GB',
        after: 'Nine Oaks, Mill Lane 5, AB1 2CD Tarn, GB',
      },
    ]);
    const { name, ...rest } = shipTo;
    expect(change({ priority: 5, shipTo: { ...rest, name } })).toBeNull();
  });

  it('is as it was after what it says undoes it, also its hour of leaving', () =>
    fc.assert(
      fc.property(
        fc.record(
          {
            due: fc.integer({ min: 0, max: 400 }).map((n) => addDays('2026-01-01', n)),
            departure: fc.constantFrom(null, ...timetable.map((d) => d.id)),
            priority: fc.integer({ min: 1, max: 9 }),
            shipComplete: fc.boolean(),
            lane: fc.constantFrom(null, 'LANE-2'),
            note: fc.string({ maxLength: 4 }),
          },
          { requiredKeys: [] },
        ),
        fc.constantFrom(null, 'Morning van', 'Web parcels'),
        (set, departure) => {
          const before = { ...was, departure };
          const after = changeHead(before, set, timetable, 'UTC');
          if (!after) return;
          expect(isAs(after.head, set)).toBe(true);
          const back = changeHead({ ...after.head, channel: 'web' }, after.undo, timetable, 'UTC');
          expect({ ...back?.head, channel: 'web' }).toEqual(before);
          expect(isAs(after.head, after.undo)).toBe(false);
          const leaves = changeHead({ ...before, note: 'other' }, { note: '' }, timetable, 'UTC')!.leavesAt;
          expect(back?.leavesAt).toBe(leaves);
        },
      ),
    ));
});
