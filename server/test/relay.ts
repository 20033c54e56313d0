import { appendFileSync } from 'node:fs';
import { sql } from 'drizzle-orm';
import supertest from 'supertest';
import { DONE_AGO, endpoints, type Endpoint, type EndpointName, type Problem } from '@hand-relay/contract';
import type { z } from 'zod';
import { localDate } from '@hand-relay/core/calendar';
import { house, loadScenario, scenario as generate, type Scenario } from '@hand-relay/demo';
import { happensOnce, SENT_TWICE } from './sentTwice.ts';
import { postgresServer } from './postgres.ts';
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

/** How often each change is sent twice in a file of tests: the first time that it is made. */
const TWICE = 1;
const sentTwice = new Map<string, number>();

/** What a change leaves behind whose second sending did something. */
const TRACES = sql`
  select concat_ws(' ', (select count(*) from journal), (select count(*) from movement), (select count(*) from job),
    (select count(*) from print_job), (select count(*) from host_message), (select sum(last) from counter)) as traces`;
/** A job goes on in the meantime: that there is only one of it must do. */
const JOBS = sql`select count(*)::text as traces from job`;

/**
 * A server on a database of its own, with nothing in it.
 *
 * @param from what a database on the PostgreSQL server of the tests begins with, where `options` names no other
 */
export async function openEmpty(
  options: Partial<ServerOptions> = {},
  from: 'tables' | 'house' = 'tables',
): Promise<Relay> {
  return openRelay({
    database: options.database ?? { url: await postgresServer('own', from) },
    logLevel: process.env['LOG_LEVEL'] ?? 'silent',
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
  const relay = await openEmpty({ ...(clock ? { clock } : {}), ...more }, usual ? 'house' : 'tables');
  const scenario =
    usual || filled
      ? generate({ today: localDate(Date.parse(process.env['HOUSE_DAY']!), house.site.timeZone) })
      : await loadScenario(relay.platform.db, (clock ?? (() => new Date()))(), { size: size ?? 1 });
  return {
    ...relay,
    scenario,
    query: async <T>(statement: string) => (await relay.platform.db.execute(sql.raw(statement))).rows as T[],
    as: (id) => signedIn(relay, id, more.database ? undefined : relay),
  };
}

/** Signs in one of the demo's people at a server. */
export async function signedIn(
  relay: Relay,
  id: (typeof house.people)[number]['id'],
  watched?: Relay,
): Promise<Person> {
  const person = house.people.find((p) => p.id === id)!;
  const agent = supertest.agent(relay.app);
  const body = person.login
    ? { name: person.login, password: house.PASSWORD }
    : { badge: person.badge, pin: house.PIN };
  await agent.post('/api/session').send(body).expect(200);
  return personOf(agent, watched);
}

/** One person who speaks to two servers in turn, as behind a proxy that shares out requests. */
export function byTurns(one: Person, other: Person): Person {
  let turn = 0;
  const next = () => (++turn % 2 ? one : other);
  return {
    ask: (...asked) => next().ask(...asked),
    get: (...asked) => next().get(...asked),
    refused: (...asked) => next().refused(...asked),
  };
}

/**
 * A person at a device.
 *
 * @param watched a server on which changes are sent twice with one key, to see that the second does nothing; one that
 *   others use at the same time is not watched
 */
export function personOf(agent: ReturnType<typeof supertest.agent>, watched?: Relay): Person {
  const send = (name: EndpointName, { id = '', body = {}, query = {}, key, ago = 0 }: Asked) => {
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
  const ask = async (name: EndpointName, asked: Asked = {}): Promise<supertest.Response> => {
    const key = asked.key ?? `test-${++keys}`;
    const begun = ++asking;
    under += 1;
    try {
      const first = await send(name, { ...asked, key });
      if (watched && first.status === 200 && happensOnce(name)) await again(name, { ...asked, key }, begun);
      return first;
    } finally {
      under -= 1;
    }
  };
  /** Sends a change once more, unless something else is under way, and looks that nothing came of it. */
  const again = async (name: EndpointName, asked: Asked, begun: number) => {
    const times = sentTwice.get(name) ?? 0;
    const { starts }: Endpoint = endpoints[name];
    // What is being stopped writes on until it has stopped.
    const goesOn = starts !== undefined || name === 'cancelJob';
    const traces = async () =>
      (await watched!.platform.db.execute<{ traces: string }>(goesOn ? JOBS : TRACES)).rows[0]!.traces;
    const alone = () => begun === asking && under === 1;
    if (times >= TWICE || !alone()) return;
    const before = await traces();
    const second = await send(name, asked);
    const after = await traces();
    if (!alone()) return;
    if (second.status !== 200) throw new Error(`${name}, sent again: ${second.status} ${JSON.stringify(second.body)}`);
    if (after !== before) throw new Error(`${name} did something again: ${before}, then ${after}`);
    sentTwice.set(name, times + 1);
    if (process.env[SENT_TWICE]) appendFileSync(process.env[SENT_TWICE], `${name}\n`);
  };
  return {
    ask,
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

/** Requests so far, and those under way. */
let asking = 0;
let under = 0;
