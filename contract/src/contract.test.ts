import fc from 'fast-check';
import type { z } from 'zod';
import { pickSettings, usualSettings } from '@hand-relay/core/deciding/settings';
import {
  changeEvent,
  effectOn,
  endpoints,
  firstRoleNames,
  firstRoles,
  intakeBody,
  inputBody,
  joined,
  orderFromRow,
  orderPageQuery,
  orderRowFields,
  packBody,
  placeNeeds,
  places,
  rights,
  shipmentExportQuery,
  topicNames,
  trackingBody,
  siteSettings,
  type Endpoint,
  type EndpointName,
} from './index.ts';

const table = Object.entries(endpoints) as [EndpointName, Endpoint][];
const paths = (schema: z.ZodType, value: unknown) =>
  schema.safeParse(value).error?.issues.map((i) => i.path.join('.')) ?? [];

describe('the table of endpoints', () => {
  it('names each address and method once', () => {
    const addresses = table.map(([, e]) => `${e.method} ${e.path}`);
    expect(new Set(addresses).size).toBe(addresses.length);
    for (const [name, e] of table) expect([name, e.path.startsWith('/api/')]).toEqual([name, true]);
  });

  it('answers either with a schema or with a file, and changes only what has a body to check', () => {
    for (const [name, e] of table) {
      // What is sent page by page is JSON of a schema, and a file.
      expect([name, Boolean(e.answer) !== Boolean(e.file) || e.file === 'application/json']).toEqual([name, true]);
      expect([name, Boolean(e.body)]).toEqual([name, e.method === 'POST']);
      expect([name, Boolean(e.query) && e.method === 'POST']).toEqual([name, false]);
    }
  });

  it('asks only for rights that somebody has, and gives every right to somebody who needs it', () => {
    const asked = new Set(
      table.flatMap(([, e]) => [...(Array.isArray(e.needs) ? (e.needs as string[]) : []), ...(e.parts ?? [])]),
    );
    for (const right of rights) expect([right, asked.has(right)]).toEqual([right, true]);
    for (const right of asked)
      expect([right, firstRoleNames.some((r) => (firstRoles[r] as readonly string[]).includes(right))]).toEqual([
        right,
        true,
      ]);
    // Nobody signs in to a place that is not theirs: every role has one to go to.
    for (const role of firstRoleNames)
      expect([role, places.some((p) => (firstRoles[role] as readonly string[]).includes(placeNeeds[p]))]).toEqual([
        role,
        true,
      ]);
  });

  it('lets those who pick, pack or load see no orders but those in hand', () => {
    for (const role of ['picker', 'packer', 'loader'] as const)
      for (const right of ['orders.see', 'orders.release', 'orders.import', 'orders.cancel'] as const)
        expect([role, right, (firstRoles[role] as readonly string[]).includes(right)]).toEqual([role, right, false]);
  });
});

describe('how a site works', () => {
  it('is as usual in what is left out, and keeps its checks in the order of the work, each once', () => {
    expect(siteSettings.parse({})).toEqual(usualSettings);
    const picking = (list: string[]) => ({ checks: list, order: 'either', counting: 'each' });
    const told = siteSettings.parse({ picking: { one: picking(['position', 'bin', 'bin']), many: picking([]) } });
    expect(told.picking.one.checks).toEqual(['bin', 'position']);
    expect(pickSettings(told, 1)).toBe(told.picking.one);
    expect(pickSettings(told, 2)).toBe(told.picking.many);
  });

  it('says at which word it is wrong', () => {
    expect(paths(siteSettings, { stages: 'fly' })).toEqual(['stages']);
    expect(paths(siteSettings, { sounds: { accepted: true } })).toEqual(['sounds.refused', 'sounds.finished']);
    expect(paths(siteSettings, { picking: { one: { checks: ['nose'], order: 'either', counting: 'each' } } })).toEqual([
      'picking.one.checks.0',
      'picking.many',
    ]);
    expect(paths(siteSettings, { colour: 'red' })).toEqual(['']);
  });
});

describe('rows of the order list', () => {
  it('carry each field in the order of the list', () => {
    const values = orderRowFields.map((field, i) => `${field} ${i}`);
    const order = orderFromRow(values) as unknown as Record<string, string>;
    orderRowFields.forEach((field, i) => expect(order[field]).toBe(`${field} ${i}`));
  });
});

describe('what is sent in', () => {
  const line = { line: 1, sku: 'JR-001', quantity: 2 };
  const order = {
    number: 'A-1',
    channel: 'web',
    customer: 'C1001',
    due: '2026-03-02',
    shipTo: { name: 'A', street: 'B', postcode: 'C', city: 'D', country: 'GB' },
    lines: [line],
  };

  it('has its defaults in one place', () => {
    expect(intakeBody.parse({ mode: 'preview', orders: [order] }).orders![0]).toMatchObject({
      priority: 5,
      shipComplete: false,
      reference: '',
      note: '',
      lines: [{ pack: 'unit', note: '' }],
    });
    expect(orderPageQuery.parse({})).toEqual({ limit: 2500, status: 'open' });
    expect(orderPageQuery.parse({ limit: '40' }).limit).toBe(40);
  });

  it.each([
    [{ ...order, due: '2026-02-30' }, 'orders.0.due'],
    [{ ...order, due: '02.03.2026' }, 'orders.0.due'],
    [{ ...order, priority: 0 }, 'orders.0.priority'],
    [{ ...order, lines: [] }, 'orders.0.lines'],
    [{ ...order, lines: [line, line] }, 'orders.0.lines'],
    [{ ...order, lines: [{ ...line, quantity: 1.5 }] }, 'orders.0.lines.0.quantity'],
    [{ ...order, lines: [{ ...line, pack: 'pallet' }] }, 'orders.0.lines.0.pack'],
    [{ ...order, shipTo: { ...order.shipTo, country: 'Britain' } }, 'orders.0.shipTo.country'],
    [{ ...order, number: '   ' }, 'orders.0.number'],
    [{ ...order, price: 3 }, 'orders.0'],
  ])('is refused at the field that is wrong: %#', (wrong, path) => {
    expect(paths(intakeBody, { mode: 'take', orders: [wrong] })).toEqual([path]);
  });

  it('is a file or orders, never both and never neither', () => {
    expect(paths(intakeBody, { mode: 'take' })).toEqual(['csv']);
    expect(paths(intakeBody, { mode: 'take', csv: 'x', orders: [order] })).toEqual(['csv']);
    expect(paths(intakeBody, { mode: 'take', csv: '' })).toEqual([]);
  });

  it('counts in whole units that can be, whatever is typed', () => {
    fc.assert(
      fc.property(fc.oneof(fc.double(), fc.integer(), fc.string(), fc.constant(null)), (units) => {
        const good = typeof units === 'number' && Number.isInteger(units) && units >= 0 && units <= 9_999_999;
        expect(inputBody.safeParse({ pick: 'p', input: { kind: 'count', units } }).success).toBe(good);
        const put = { bench: 'BENCH-1', input: { kind: 'put', item: 'i', lot: null, units } };
        expect(packBody.safeParse(put).success).toBe(good && units >= 1);
      }),
    );
  });

  it('says where a tracking number comes from, and a range of days by days', () => {
    expect(trackingBody.safeParse({ from: 'carrier' }).success).toBe(true);
    expect(trackingBody.safeParse({ from: 'carrier', number: 'RR1' }).success).toBe(false);
    expect(trackingBody.safeParse({ from: 'person' }).success).toBe(false);
    expect(trackingBody.parse({ from: 'person', number: '  RR1 ' })).toEqual({ from: 'person', number: 'RR1' });
    expect(paths(shipmentExportQuery, { from: '2026-13-01' })).toEqual(['from']);
    expect(changeEvent.safeParse({ topic: 'weather', ids: [] }).success).toBe(false);
  });
});

describe('the table of effects', () => {
  const list = Object.entries<Endpoint>(endpoints);
  it('says of every change what it may change, and of everything that is asked by GET what it shows', () => {
    const undeclared = list.filter(([, e]) => (e.method === 'POST' ? !e.changes || e.reads : e.answer && !e.reads));
    expect(undeclared.map(([name]) => name)).toEqual([]);
    expect(list.filter(([, e]) => e.method === 'GET' && e.changes).map(([name]) => name)).toEqual([]);
  });
  it('names one thing only where the address does', () => {
    const one = list.filter(([, e]) =>
      [...(e.reads ?? []), ...(e.changes ?? [])].some((effect) => effect.includes('#')),
    );
    expect(one.filter(([, { path }]) => !path.includes(':id')).map(([name]) => name)).toEqual([]);
  });
  it('has nothing that is changed and never shown, or shown and never changed', () => {
    const of = (key: 'reads' | 'changes') =>
      new Set(list.flatMap(([, e]) => e[key] ?? []).map((e) => effectOn(e, '').topic));
    expect([of('reads'), of('changes')].map((topics) => [...topics].sort())).toEqual([
      [...topicNames].sort(),
      [...topicNames].sort(),
    ]);
  });
  it('tells several changes as one for each topic', () => {
    const change = (topic: 'runs' | 'orders', ...ids: string[]) => ({ topic, ids });
    expect(joined([change('runs', 'a', 'b'), change('orders', 'o'), change('runs', 'b', 'c')])).toEqual([
      change('runs', 'a', 'b', 'c'),
      change('orders', 'o'),
    ]);
    // More than can be named stays more than can be named.
    expect(joined([change('runs', 'a'), change('runs')])).toEqual([change('runs')]);
  });
});
