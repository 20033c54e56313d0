import { house } from '@hand-relay/demo';
import { endpoints, type Endpoint, type EndpointName } from '@hand-relay/contract';
import { seeded } from '@hand-relay/core/random';
import supertest from 'supertest';
import { openTest, personOf, type Person, type TestRelay } from './relay.ts';
import { requestFor, type Draw } from './requests.ts';
import { packAll, pickedOrder, takeIn } from './steps.ts';

/** Wren is supervisor of the depot alone; Maren administers the house and works at both sites; Pico picks at both. */
describe('rights of a site and rights of the house', () => {
  let relay: TestRelay;
  let [maren, wren] = [] as unknown as [Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    maren = await relay.as('maren');
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'wren', password: house.PASSWORD }).expect(200);
    wren = personOf(agent);
  });
  afterAll(() => relay.close());
  const secrets = () => relay.query('select id, login, badge, password_hash, pin_hash from person order by id');
  const change = (by: Person, id: string, row: object) => by.get('changeSheet', { id, body: { rows: [row] } });
  const signsIn = async (body: object) => (await supertest(relay.app).post('/api/session').send(body)).status === 200;

  it('lets nobody take over an account of another site, or of somebody who may more', async () => {
    const before = await secrets();
    const roles = 'picker';
    for (const row of [
      { person: 'maren', name: 'Maren Holt', roles: 'supervisor', login: 'maren', password: 'taken over 1' },
      { person: 'tobi', name: 'Tobi Raske', roles, login: 'tobi', password: 'taken over 2' },
      { person: 'pico', name: 'Pico Lund', roles, badge: 'BADGE-2001', pin: '9999' },
      { person: 'pico', name: 'Pico Lund', roles, badge: 'BADGE-9999' },
      { person: 'wren', name: 'Wren Abbot', roles: 'administrator', login: 'wren', badge: 'BADGE-5001' },
      { person: 'new', name: 'New One', roles: 'administrator', badge: 'BADGE-7000', pin: '1234' },
    ]) {
      const { errors, changed } = await change(wren, 'people', row);
      expect([row, changed, errors.length]).toEqual([row, 0, 1]);
      expect(errors[0]!.expected).toMatch(/^(within-own-rights|of-this-site-alone)$/);
    }
    const retire = await wren.refused('retireSheetRows', {
      id: 'people',
      body: { rows: [{ person: 'maren' }], retired: true },
    });
    expect(retire).toMatchObject({ status: 403, code: 'beyond-rights' });
    expect(await secrets()).toEqual(before);
    expect(await signsIn({ name: 'maren', password: house.PASSWORD })).toBe(true);
    // Of their own site's people they change all; of those of several what concerns this site.
    expect(
      (await change(wren, 'people', { person: 'osk', name: 'Osk D.', roles, badge: 'BADGE-5002', pin: '8642' }))
        .changed,
    ).toBe(1);
    expect(
      (await change(wren, 'people', { person: 'pico', name: 'Pico Lund', roles, badge: 'BADGE-2001', team: 'north' }))
        .changed,
    ).toBe(1);
    expect(await signsIn({ badge: 'BADGE-5002', pin: '8642' })).toBe(true);
  });

  it('lets nobody make or change a role beyond their own rights, nor undo their way there', async () => {
    for (const row of [
      { role: 'supervisor', set_up: true, house_backups: true },
      { role: 'helper', pick: true, house_people: true },
      { role: 'administrator', pick: false },
    ]) {
      const { errors } = await change(wren, 'roles', row);
      expect(errors).toMatchObject([{ column: 'role', expected: 'within-own-rights' }]);
    }
    expect((await change(wren, 'roles', { role: 'helper', pick: true })).changed).toBe(1);
    // What an administrator changed about a role above theirs is not theirs to undo.
    await maren.get('switchSite', { body: { site: 'fennock' } });
    const rights = Object.fromEntries(
      ['set_up', 'pick', 'house_people', 'house_items', 'house_backups', 'house_sites'].map((r) => [r, true]),
    );
    const { entry } = await change(maren, 'roles', { role: 'administrator', ...rights, see_trails: false });
    await maren.get('switchSite', { body: { site: 'larkmoor' } });
    expect(await wren.refused('setupUndo', { body: { entry } })).toMatchObject({ code: 'beyond-rights' });
  });

  it('keeps backups, what all sites share, and the site itself to those who have the house', async () => {
    expect(await wren.refused('backup')).toMatchObject({ status: 403, code: 'not-allowed' });
    expect(await wren.refused('restore')).toMatchObject({ status: 403, code: 'not-allowed' });
    for (const id of ['items', 'customers', 'carriers', 'cartons']) {
      const [row] = (await wren.get('sheetRows', { id })).rows;
      expect(await wren.refused('retireSheetRows', { id, body: { rows: [row!], retired: true } })).toMatchObject({
        code: 'not-allowed',
        facts: { needs: ['house.items'] },
      });
      const file = { file: 'x.csv', data: Buffer.from('a,b\n').toString('base64') };
      expect(await wren.refused('importSheet', { id, body: file })).toMatchObject({ code: 'not-allowed' });
    }
    const { site } = await wren.get('site');
    expect(await wren.refused('changeSite', { body: { ...site, name: 'Mine' } })).toMatchObject({
      code: 'not-allowed',
    });
    // A type of cart that the other site pushes too is not this one's to resize.
    await relay.query(
      "insert into cart (site_id, code, type_id) select 'fennock', 'SHARED', type_id from cart where code = 'CART-01'",
    );
    const { cart, type } = (await wren.get('sheetRows', { id: 'carts' })).rows.find((r) => r['cart'] === 'SHARED')!;
    const { errors } = await change(wren, 'carts', { cart, type, positions: 1 });
    expect(errors).toMatchObject([{ column: 'type', expected: 'not-of-another-site' }]);
  });

  it('journals every change of an account, and tells whom it concerns until they saw it', async () => {
    await change(maren, 'people', {
      person: 'suri',
      name: 'Suri Okell',
      roles: 'picker',
      badge: 'BADGE-2002',
      pin: '1357',
    });
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ badge: 'BADGE-2002', pin: '1357' }).expect(200);
    const suri = personOf(agent);
    const told = (await suri.get('me')).accountChanges;
    expect(told).toMatchObject([{ by: 'Maren Holt', what: ['pin'], role: null }]);
    await suri.get('sawAccountChanges', { body: { upTo: told[0]!.id } });
    expect((await suri.get('me')).accountChanges).toEqual([]);
    const { rights } = (await suri.get('me')).person;
    expect(rights).toEqual(['runs.pick']);
    await change(maren, 'roles', { role: 'picker', pick: true, pack: true });
    expect((await suri.get('me')).accountChanges).toMatchObject([{ what: ['role'], role: 'picker' }]);
    await change(maren, 'roles', { role: 'picker', pick: true, pack: false });
    expect((await maren.get('setupHistory')).entries).toContainEqual(
      expect.objectContaining({ kind: 'account-changed', person: 'Maren Holt' }),
    );
    // What one changes oneself is no news, and nobody tells of the future.
    await suri.get('sawAccountChanges', { body: { upTo: Number.MAX_SAFE_INTEGER } });
    expect((await suri.get('me')).accountChanges).toHaveLength(2);
  });

  it('shows what was printed to those only who may see what it shows', async () => {
    const order = await pickedOrder(maren, await relay.as('pico'), 'CART-01', {
      number: 'H-1',
      lines: [['HT-001', 1]],
    });
    const { shipment } = await packAll(await relay.as('ada'), order);
    const badges = await maren.get('print', { body: { kind: 'badges', station: 'OFFICE' } });
    const slip = await maren.get('print', { body: { kind: 'packing-slip', of: shipment!, station: 'OFFICE' } });
    const packer = await relay.as('ada');
    // Beside it the label that printed by itself when the carton was closed; not the badges.
    const seen = (await packer.get('printJobs')).jobs;
    expect(seen.map((j) => j.title)).toEqual([
      expect.stringMatching(/^Packing slip/),
      expect.stringMatching(/^Label, carton 1 of/),
    ]);
    expect(seen[0]!.id).toBe(slip.job);
    expect(await packer.refused('printJobPdf', { id: badges.job })).toMatchObject({ status: 404 });
    expect(await packer.refused('printJobPng', { id: badges.job })).toMatchObject({ status: 404 });
    expect((await packer.ask('printJobPdf', { id: slip.job })).status).toBe(200);
    const all = (await maren.get('printJobs')).jobs.map((j) => j.id);
    expect(all.sort()).toEqual([badges.job, ...seen.map((j) => j.id)].sort());
    expect(await packer.refused('print', { body: { kind: 'badges', station: 'OFFICE' } })).toMatchObject({
      status: 403,
    });
  });

  it('lets no endpoint reach what is of another site, whatever id it is asked with', async () => {
    const mine = await takeIn(maren, { number: 'H-2', lines: [['HT-001', 1]] });
    const ids: Record<string, string[]> = { order: [mine] };
    for (const table of ['wave', 'run', 'pick', 'shipment', 'carton', 'print_job', 'hold_rule', 'place', 'bin_count'])
      ids[table] = (
        await relay.query<{ id: string }>(
          table === 'pick'
            ? "select k.id from pick k join run r on r.id = k.run_id where r.site_id = 'larkmoor' limit 2"
            : `select id from ${table} where site_id = 'larkmoor' limit 2`,
        )
      ).map((r) => r.id);
    const known = Object.values(ids).flat();
    expect(known.length).toBeGreaterThan(10);
    const draw: Draw = { random: seeded(5), known, hostile: 0 };
    const state = async () =>
      JSON.stringify(
        await relay.query(
          `select (select count(*) from journal where site_id = 'larkmoor') as j, (select count(*) from movement where site_id = 'larkmoor') as m,
                  (select md5(string_agg(o::text, ',' order by o.id)) from customer_order o where site_id = 'larkmoor') as o,
                  (select md5(string_agg(w::text, ',' order by w.id)) from wave w where site_id = 'larkmoor') as w,
                  (select md5(string_agg(r::text, ',' order by r.id)) from run r where site_id = 'larkmoor') as r`,
        ),
      );
    const before = await state();
    // What has no site of its own: a picture is named by its bytes, a sheet by its kind.
    const open: EndpointName[] = [
      'picture',
      'sheetRows',
      'sheetFile',
      'sheetExample',
      'signIn',
      'signOut',
      'events',
      'switchSite',
    ];
    for (const [name, endpoint] of Object.entries(endpoints) as [EndpointName, Endpoint][]) {
      if (open.includes(name) || endpoint.needs === 'public') continue;
      for (const id of endpoint.path.includes(':id') ? known : ['']) {
        const body = requestFor(endpoint.body, draw) as object;
        const answer = await wren.ask(name, { id, body });
        if (endpoint.path.includes(':id'))
          expect([name, id, answer.status >= 400 || reachesNothing(answer.text, mine)]).toEqual([name, id, true]);
        expect([name, answer.status < 500]).toEqual([name, true]);
      }
    }
    expect(await state()).toBe(before);
  });
});

/** An answer that was given for an id of another site without telling anything of it. */
const reachesNothing = (text: string, order: string) => !text.includes(order) && !text.includes('larkmoor');
