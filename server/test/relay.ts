import { sql } from 'drizzle-orm';
import supertest from 'supertest';
import { DONE_AGO, endpoints, type Endpoint, type EndpointName, type Problem } from '@hand-relay/contract';
import type { z } from 'zod';
import { localDate } from '@hand-relay/core/calendar';
import { house, loadScenario, scenario as generate, type Scenario } from '@hand-relay/demo';
import { openRelay, type Relay, type ServerOptions } from '../src/server.ts';

type Out<S> = S extends z.ZodType ? z.output<S> : unknown;
type Answer<N extends EndpointName> = Out<(typeof endpoints)[N] extends { answer: infer A } ? A : undefined>;

export interface Asked {
  id?: string;
  body?: object;
  query?: Record<string, string | number>;
  key?: string;
  /** Milliseconds since it was done, as a device tells that kept it. */
  ago?: number;
}

/** A person at a device: calls endpoints as the app does. */
export interface Person {
  /** The answer, whatever its status. */
  ask(name: EndpointName, asked?: Asked): Promise<supertest.Response>;
  /** The answer of a call that must succeed. */
  get<N extends EndpointName>(name: N, asked?: Asked): Promise<Answer<N>>;
  /** The refusal of a call that must be refused. */
  refused(name: EndpointName, asked?: Asked): Promise<Problem>;
}

export interface TestRelay extends Relay {
  scenario: Scenario;
  /** Signs in one of the demo's people, by id. */
  as(person: (typeof house.people)[number]['id']): Promise<Person>;
  query<T>(statement: string): Promise<T[]>;
}

let keys = 0;

/** A server on a database of its own in memory, with nothing in it. */
export function openEmpty(options: Partial<ServerOptions> = {}, from = process.env['CLUSTER_DUMP']!): Promise<Relay> {
  return openRelay({
    database: { folder: null, from },
    logLevel: 'silent',
    checkAnswers: true,
    signInsPerMinute: 1000,
    standins: true,
    ...options,
  });
}

/**
 * A server filled with the demo scenario.
 *
 * @param filled where it has a database of its own: whether that holds the scenario of today already
 */
export async function openTest(
  { size, clock }: { size?: number; clock?: () => Date } = {},
  { filled, ...more }: Partial<ServerOptions> & { filled?: boolean } = {},
): Promise<TestRelay> {
  // The demo as it was filled when the tests began, unless it must be of another time or size.
  const usual = size === undefined && !clock && filled === undefined;
  const relay = await openEmpty(
    { ...(clock ? { clock } : {}), ...more },
    usual ? process.env['HOUSE_DUMP']! : undefined,
  );
  const scenario =
    usual || filled
      ? generate({ today: localDate(Date.parse(process.env['HOUSE_DAY']!), house.site.timeZone) })
      : await loadScenario(relay.platform.db, (clock ?? (() => new Date()))(), { size: size ?? 1 });
  return {
    ...relay,
    scenario,
    query: async <T>(statement: string) => (await relay.platform.db.execute(sql.raw(statement))).rows as T[],
    async as(id) {
      const person = house.people.find((p) => p.id === id)!;
      const agent = supertest.agent(relay.app);
      const body = person.login
        ? { name: person.login, password: house.PASSWORD }
        : { badge: person.badge, pin: house.PIN };
      await agent.post('/api/session').send(body).expect(200);
      return personOf(agent);
    },
  };
}

export function personOf(agent: ReturnType<typeof supertest.agent>): Person {
  const ask = (name: EndpointName, { id = '', body = {}, query = {}, key, ago = 0 }: Asked = {}) => {
    const endpoint: Endpoint = endpoints[name];
    const path = endpoint.path.replace(':id', id);
    return endpoint.method === 'GET'
      ? agent.get(path).query(query)
      : agent
          .post(path)
          .query(query)
          .set('Idempotency-Key', key ?? `test-${++keys}`)
          .set(DONE_AGO, String(ago))
          .send(body);
  };
  return {
    ask: async (name, asked) => ask(name, asked),
    async get(name, asked) {
      const response = await ask(name, asked);
      if (response.status !== 200) throw new Error(`${name}: ${response.status} ${JSON.stringify(response.body)}`);
      return response.body as never;
    },
    async refused(name, asked) {
      const response = await ask(name, asked);
      if (response.status < 400)
        throw new Error(`${name} was not refused: ${JSON.stringify(response.body).slice(0, 300)}`);
      return response.body as Problem;
    },
  };
}
