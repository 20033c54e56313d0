import { judgeHolds, type HoldRule } from './index.ts';

const credit: HoldRule = {
  id: 'credit',
  conditions: { match: 'all', list: [{ field: 'creditStop', test: 'is', value: 'yes' }] },
};
const dear: HoldRule = {
  id: 'dear',
  conditions: { match: 'all', list: [{ field: 'value', test: 'at-least', value: '500' }] },
};

describe('holds', () => {
  const judge = (values: object, laid: Parameters<typeof judgeHolds>[2] = []) =>
    judgeHolds([credit, dear], values as never, laid);
  it('are laid on where conditions hold, once', () => {
    expect(judge({ creditStop: true, value: 500 })).toEqual({ add: ['credit', 'dear'], gone: [] });
    expect(judge({ creditStop: true, value: 20 }, [{ id: 'h', rule: 'credit', lifted: false }])).toEqual({
      add: [],
      gone: [],
    });
  });
  it('go when their reason has gone, also when their rule has', () => {
    expect(judge({ value: 20 }, [{ id: 'h', rule: 'credit', lifted: false }])).toEqual({ add: [], gone: ['h'] });
    expect(judge({ value: 20 }, [{ id: 'h', rule: 'retired', lifted: false }])).toEqual({ add: [], gone: ['h'] });
  });
  it('stay lifted once a person has lifted them', () =>
    expect(judge({ creditStop: true }, [{ id: 'h', rule: 'credit', lifted: true }])).toEqual({ add: [], gone: [] }));
});
