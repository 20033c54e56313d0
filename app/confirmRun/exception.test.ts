import type { RunPick } from '@hand-relay/contract';
import { exceptionOf, faultsOf } from './exception.ts';

const pick = (units: number, serialsInBin: string[] = []) =>
  ({ step: { units, serialsInBin, item: { tracksSerial: serialsInBin.length > 0 } } }) as unknown as RunPick;

describe('what differs from the plan at a pick', () => {
  it('begins as planned, and is nothing wrong then', () => {
    expect(exceptionOf(pick(3))).toEqual({ units: '3', reason: null, note: '', serials: [] });
    expect(faultsOf(pick(3), exceptionOf(pick(3)))).toEqual({});
    expect(faultsOf(pick(3), undefined)).toEqual({});
  });
  it('needs a reason for fewer, and takes no more than planned', () => {
    const short = { ...exceptionOf(pick(3)), units: '1' };
    expect(faultsOf(pick(3), short)).toEqual({ reason: 'reason' });
    expect(faultsOf(pick(3), { ...short, reason: 'damaged' })).toEqual({});
    for (const units of ['4', '', 'two', '-1', '1.5'])
      expect(faultsOf(pick(3), { ...short, units })).toEqual({ units: 'units' });
  });
  it('knows the serial numbers where all of the bin are taken, else each is asked for', () => {
    expect(exceptionOf(pick(2, ['S1', 'S2'])).serials).toEqual(['S1', 'S2']);
    const some = pick(2, ['S1', 'S2', 'S3']);
    expect(faultsOf(some, exceptionOf(some))).toEqual({ serials: 'serials' });
    const typed = (serials: string[]) => faultsOf(some, { ...exceptionOf(some), serials });
    expect(typed(['S1', 'S3'])).toEqual({});
    expect(typed(['S1', 'S1'])).toEqual({ serials: 'serials' });
    expect(typed(['S1', 'S9'])).toEqual({ serials: 'serials' });
  });
});
