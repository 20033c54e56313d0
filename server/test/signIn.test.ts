import type { AddressInfo } from 'node:net';
import supertest from 'supertest';
import { endpoints, firstRoleNames, firstRoles, type Endpoint, type EndpointName, type Me } from '@hand-relay/contract';
import { house } from '@hand-relay/demo';
import { openTest, personOf, type TestRelay } from './relay.ts';
import { startWave, takeIn } from './steps.ts';

describe('signing in', () => {
  let relay: TestRelay;
  // A browser drops cookies that end before its own present: the clock begins there.
  let now = new Date();
  beforeAll(async () => {
    relay = await openTest({ clock: () => now });
  });
  afterAll(() => relay.close());
  const post = (body: object) => supertest(relay.app).post('/api/session').send(body);

  it('gives a cookie that scripts and other sites cannot use', async () => {
    const { headers, body } = await post({ badge: 'badge-2001', pin: house.PIN });
    expect(body).toMatchObject({ person: { name: 'Pico Lund', rights: ['runs.pick'] } });
    expect(headers['set-cookie']![0]).toMatch(/^relay=[\w-]{43}; Path=\/; Expires=.+; HttpOnly; SameSite=Strict$/);
  });

  it('refuses alike whatever was wrong and whether anybody has the name, and locks after five tries, even for the right word', async () => {
    const said = async (body: object) => {
      const { status, body: problem } = await post(body);
      return { status, code: (problem as { code: string }).code, facts: (problem as { facts: object }).facts };
    };
    const until = new Date(now.getTime() + 5 * 60_000).toISOString();
    const locked = { status: 429, code: 'sign-in-locked', facts: { minutes: 5, until } };
    for (const name of ['nobody', 'tobi']) {
      for (let i = 0; i < 5; i++)
        expect(await said({ name, password: 'wrong' })).toEqual({ status: 401, code: 'sign-in', facts: {} });
      expect([name, await said({ name, password: house.PASSWORD })]).toEqual([name, locked]);
    }
    now = new Date(now.getTime() + 5 * 60_000 + 1);
    expect((await post({ name: 'tobi', password: house.PASSWORD })).status).toBe(200);
  });

  it('takes the secret alone of who was signed in on a device, counted with all other tries, and ends the session before', async () => {
    const device = supertest.agent(relay.app);
    const { body: before } = await device.post('/api/session').send({ badge: 'BADGE-2003', pin: house.PIN });
    const { person, until } = before as Me;
    const { headers } = await device.post('/api/session').send({ person: person.id, pin: house.PIN });
    expect(headers['set-cookie']![0]).toMatch(/^relay=/);
    const sessions = `select count(*)::int as n from session where person_id = '${person.id}'`;
    expect(await relay.query(sessions)).toEqual([{ n: 1 }]);
    now = new Date(now.getTime() + 60_000);
    const { body: again } = await device.post('/api/session').send({ person: person.id, pin: house.PIN });
    expect(Date.parse((again as Me).until)).toBe(Date.parse(until) + 60_000);
    // From elsewhere, by id and by badge together there are five tries; an id that nobody has is refused alike.
    const statuses: number[] = [];
    for (const body of [{ person: person.id }, { badge: 'BADGE-2003' }])
      for (let i = 0; i < 3; i++) statuses.push((await post({ ...body, pin: '0000' })).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
    expect((await post({ person: 'nobody', pin: '0000' })).body).toMatchObject({ status: 401, code: 'sign-in' });
    now = new Date(now.getTime() + 5 * 60_000 + 1);
  });

  it('tells whose device is offline with a run in hand, until it is heard again', async () => {
    const later = (minutes: number) => (now = new Date(now.getTime() + minutes * 60_000));
    const [desk, suri] = [await relay.as('maren'), await relay.as('suri')];
    const id = await takeIn(desk, { number: 'HEARD-1', lines: [['HT-001', 1]] });
    const { runs } = await desk.get('wave', { id: await startWave(desk, [id]) });
    await suri.get('takeRun', { id: runs[0]!.id, body: { cart: 'CART-09' } });
    const heard = now.toISOString();
    const offline = async () => (await desk.get('crew')).people.find((p) => p.id === 'suri')!.offlineSince;
    const device = async () => {
      const { devices } = await desk.get('devices');
      return devices.find((d) => d.person === 'Suri Okell')!.offlineSince;
    };
    later(2);
    expect([await offline(), await device()]).toEqual([null, null]);
    later(2);
    expect([await offline(), await device()]).toEqual([heard, heard]);
    await suri.get('myRuns');
    expect([await offline(), await device()]).toEqual([null, null]);
    // Who has nothing in hand is missed by nobody.
    await suri.get('returnRun', { id: runs[0]!.id });
    later(10);
    expect(await offline()).toBeNull();
    expect(await device()).not.toBeNull();
  });

  it('counts tries that come at the same time: no more than five are looked at', async () => {
    const tries = Array.from({ length: 25 }, (_, i) => post({ name: 'ines', password: `guess ${i}` }));
    const statuses = (await Promise.all(tries)).map((r) => r.status);
    expect(statuses.filter((s) => s === 401)).toHaveLength(5);
    expect(statuses.filter((s) => s === 429)).toHaveLength(20);
  });

  it('locks nobody out by what others try elsewhere, and neither secret by tries of the other', async () => {
    const own = supertest.agent(relay.app);
    const body = { name: 'len', password: house.PASSWORD };
    await own.post('/api/session').send(body).expect(200);
    const guess = { name: 'len', password: 'wrong' };
    for (let i = 0; i < 6; i++) await post(guess);
    expect((await post(body)).status).toBe(429);
    expect((await own.post('/api/session').send(body)).status).toBe(200);
    expect((await post({ badge: 'BADGE-4001', pin: house.PIN })).status).toBe(200);
    // A device that is known has a limit of its own.
    for (let i = 0; i < 5; i++) await own.post('/api/session').send(guess).expect(401);
    await own.post('/api/session').send(body).expect(429);
    now = new Date(now.getTime() + 5 * 60_000 + 1);
  });

  it('has a limit for all strangers together, however many addresses they have', async () => {
    const trusted = await openTest();
    try {
      trusted.app.set('trust proxy', 1);
      const statuses: number[] = [];
      for (let i = 0; i < 60; i++)
        statuses.push(
          (
            await supertest(trusted.app)
              .post('/api/session')
              .set('X-Forwarded-For', `10.0.${i}.1`)
              .send({ badge: 'BADGE-2001', pin: '0000' })
          ).status,
        );
      expect(statuses.filter((s) => s === 401)).toHaveLength(50);
    } finally {
      await trusted.close();
    }
  });

  it('ends all other sessions of a person whose secret was changed, and their live events', async () => {
    const [one, two] = [supertest.agent(relay.app), supertest.agent(relay.app)];
    const body = { name: 'maren', password: house.PASSWORD };
    for (const agent of [one, two]) await agent.post('/api/session').send(body).expect(200);
    const server = await relay.listen(0);
    const { port } = server.address() as AddressInfo;
    const { headers } = await supertest(relay.app).post('/api/session').send(body);
    const cookie = headers['set-cookie']![0]!.split(';')[0]!;
    const stream = await fetch(`http://localhost:${port}/api/events`, { headers: { cookie } });
    expect(stream.status).toBe(200);
    const ended = (async () => {
      for await (const _ of stream.body! as unknown as AsyncIterable<Uint8Array>);
      return true;
    })();
    const maren = {
      person: 'maren',
      name: 'Maren Holt',
      roles: 'administrator supervisor',
      login: 'maren',
      badge: 'BADGE-1001',
    };
    const changed = await personOf(one).get('changeSheet', {
      id: 'people',
      body: { rows: [{ ...maren, password: 'another word' }] },
    });
    expect(changed.changed).toBe(1);
    await personOf(one).get('me');
    now = new Date(now.getTime() + 6_000);
    expect((await personOf(two).refused('me')).code).toBe('not-signed-in');
    expect(await ended).toBe(true);
    await personOf(one).get('changeSheet', { id: 'people', body: { rows: [{ ...maren, password: house.PASSWORD }] } });
  });

  it('tells which field is not well formed', async () => {
    const { body } = await post({ badge: 'BADGE-2001', pin: 'abcd' });
    expect(body).toMatchObject({ status: 400, code: 'malformed' });
    const { body: empty } = await supertest(relay.app)
      .post('/api/session')
      .set('Content-Type', 'application/json')
      .send('{nope');
    expect(empty).toMatchObject({ status: 400, code: 'malformed' });
  });

  it('ends with the sign-out, and with the shift', async () => {
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'len', password: house.PASSWORD });
    const person = personOf(agent);
    await person.get('me');
    await person.get('signOut');
    expect((await person.refused('me')).code).toBe('not-signed-in');
    await agent.post('/api/session').send({ name: 'len', password: house.PASSWORD });
    now = new Date(now.getTime() + 15 * 3_600_000);
    expect((await person.refused('me')).code).toBe('not-signed-in');
  });

  it('keeps no password and no session in the clear', async () => {
    await post({ name: 'maren', password: house.PASSWORD });
    const people = await relay.query<{ password_hash: string | null }>(
      'select password_hash from person where login is not null',
    );
    for (const p of people) expect(p.password_hash).toMatch(/^\$argon2id\$/);
  });

  describe('the rights of every role against every endpoint', () => {
    it.each(firstRoleNames)('%s', async (role) => {
      const id = `test-${role}`;
      const [hash] = await relay.query<{ password_hash: string }>(
        "select password_hash from person where id = 'maren'",
      );
      await relay.query(
        `insert into person (id, site_id, name, login, password_hash) values ('${id}', 'larkmoor', '${role}', '${id}', '${hash!.password_hash}')`,
      );
      await relay.query(`insert into membership (person_id, site_id, roles) values ('${id}', 'larkmoor', '{${role}}')`);
      const agent = supertest.agent(relay.app);
      await agent.post('/api/session').send({ name: id, password: house.PASSWORD }).expect(200);
      const nobody = personOf(supertest.agent(relay.app));
      const person = personOf(agent);
      for (const [name, endpoint] of Object.entries(endpoints) as [EndpointName, Endpoint][]) {
        if (endpoint.needs === 'public' || name === 'events' || name === 'signOut') continue;
        const asked = { id: 'nothing', query: { code: 'X' } };
        expect([name, (await nobody.ask(name, asked)).status]).toEqual([name, 401]);
        const allowed =
          endpoint.needs === 'person' ||
          endpoint.needs.some((right) => (firstRoles[role] as readonly string[]).includes(right));
        const { status } = await person.ask(name, asked);
        expect([name, status === 403]).toEqual([name, !allowed]);
        expect([name, status === 401]).toEqual([name, false]);
      }
    });
  });
});
