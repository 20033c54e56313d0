import supertest from 'supertest';
import { endpoints, firstRoleNames, firstRoles, type Endpoint, type EndpointName } from '@hand-relay/contract';
import { house } from '@hand-relay/demo';
import { openTest, personOf, type TestRelay } from './relay.ts';

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

  it('refuses alike whatever was wrong, and rests an account after repeated failures, even for the right word', async () => {
    const said = async (body: object) => {
      const { status, body: problem } = await post(body);
      return { status, code: (problem as { code: string }).code, facts: (problem as { facts: object }).facts };
    };
    const unknown = await said({ name: 'nobody', password: 'x' });
    expect(unknown).toEqual({ status: 401, code: 'sign-in', facts: { minutes: 5 } });
    for (let i = 0; i < 5; i++) expect(await said({ name: 'tobi', password: 'wrong' })).toEqual(unknown);
    expect(await said({ name: 'tobi', password: house.PASSWORD })).toEqual(unknown);
    now = new Date(now.getTime() + 5 * 60_000 + 1);
    expect((await post({ name: 'tobi', password: house.PASSWORD })).status).toBe(200);
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
