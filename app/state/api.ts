import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import {
  createApi,
  type BaseQueryFn,
  type EndpointBuilder,
  type MutationDefinition,
  type QueryDefinition,
} from '@reduxjs/toolkit/query/react';
import { effectOn, endpoints, topicNames, type Endpoint, type EndpointName, type Topic } from '@hand-relay/contract';
import { z } from 'zod';
import { storeAnswer, storedAnswer, remembered, unanswered } from '../deviceCache/index.ts';
import { addressOf, call, CACHED, networkError, type Call, type Trouble } from './call.ts';

type Table = typeof endpoints;
type Out<S> = S extends z.ZodType ? z.output<S> : undefined;
type In<S> = S extends z.ZodType ? z.input<S> : undefined;
type Part<N extends EndpointName, P extends string> = Table[N] extends Record<P, infer S> ? S : undefined;

export type Body<N extends EndpointName> = In<Part<N, 'body'>>;
export type Answer<N extends EndpointName> = Out<Part<N, 'answer'>>;

/** What an endpoint is asked with beside the id of its address. */
type Asked<N extends EndpointName> =
  Part<N, 'body'> extends z.ZodType ? Body<N> : Part<N, 'query'> extends z.ZodType ? In<Part<N, 'query'>> : Nothing;
type Nothing = Record<string, never>;
type HasAsked<N extends EndpointName> = [Asked<N>] extends [Nothing] ? false : true;
type HasId<N extends EndpointName> = Table[N]['path'] extends `${string}:id${string}` ? true : false;

/** The one argument of an endpoint's hook: its id, what it is asked with, both as one object, or nothing. */
export type Arg<N extends EndpointName> =
  HasId<N> extends true
    ? HasAsked<N> extends true
      ? { id: string } & Asked<N>
      : string
    : HasAsked<N> extends true
      ? Partial<Asked<N>> extends Asked<N>
        ? Asked<N> | void
        : Asked<N>
      : void;

/** Endpoints that answer JSON have a hook: a query each that is asked by GET, a mutation each other one. */
type Hooked = { [N in EndpointName]: Part<N, 'answer'> extends z.ZodType ? N : never }[EndpointName];
type Ask = BaseQueryFn<Call, unknown, Trouble>;
type Definitions = {
  [N in Hooked]: Table[N]['method'] extends 'GET'
    ? QueryDefinition<Arg<N>, Ask, Topic, Answer<N>, 'api'>
    : MutationDefinition<Arg<N>, Ask, Topic, Answer<N>, 'api'>;
};

const baseQuery: Ask = async (ask) => {
  if (ask.name === 'me' && remembered('signed-out') === '1')
    return { error: { ...networkError, code: 'not-signed-in', status: 401 } };
  if (!CACHED.has(ask.name)) return call(ask);
  const address = addressOf(ask);
  // What is kept must not wait behind tries that come to nothing.
  const before = await storedAnswer(address).catch(() => undefined);
  const offline = typeof navigator !== 'undefined' && navigator.onLine === false;
  const answer = await call(ask, offline || before !== undefined ? { retryDelays: [] } : {});
  // Nobody waits for the keeping. A device that is full keeps what it has: its outbox says so.
  if ('data' in answer) void storeAnswer(address, answer.data).catch(() => undefined);
  else if (unanswered(answer.error) && before !== undefined) return { data: before };
  return answer;
};

/** Whether a schema asks for anything. */
const asks = (schema: z.ZodType | undefined): boolean =>
  schema !== undefined && !(schema instanceof z.ZodObject && Object.keys(schema.shape).length === 0);

/** The call that a hook's argument means. */
function callOf(name: EndpointName, endpoint: Endpoint, arg: unknown): Call {
  const part = asks(endpoint.body) ? 'body' : asks(endpoint.query) ? 'query' : null;
  if (!endpoint.path.includes(':id')) return { name, ...(part && arg !== undefined ? { [part]: arg } : {}) };
  if (part === null) return { name, id: arg as string };
  const { id, ...rest } = arg as { id: string };
  return { name, id, [part]: rest };
}

/** The id in the tag of whatever shows a topic as a whole. */
export const WHOLE = '*';

/** Every endpoint of the contract as a hook's definition, with what it shows as tags. */
function definitions(build: EndpointBuilder<Ask, Topic, 'api'>): Definitions {
  const hooked = Object.entries<Endpoint>(endpoints).filter(([, e]) => e.answer !== undefined);
  const made = hooked.map(([key, endpoint]): [string, unknown] => {
    const name = key as EndpointName;
    const query = (arg: unknown) => callOf(name, endpoint, arg);
    if (endpoint.method === 'POST') return [name, build.mutation({ query })];
    const shows = (arg: unknown) =>
      (endpoint.reads ?? []).map((effect) => {
        const { topic, id } = effectOn(effect, callOf(name, endpoint, arg).id ?? '');
        return { type: topic, id: id ?? WHOLE };
      });
    return [name, build.query({ query, providesTags: (_result, _error, arg) => shows(arg) })];
  });
  return Object.fromEntries<unknown>(made) as Definitions;
}

/**
 * The API as hooks, made of the contract. What a call of this page changed comes with its answer, what others changed by
 * the live stream (`stale.ts`).
 */
export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: topicNames,
  keepUnusedDataFor: 120,
  endpoints: definitions,
}).enhanceEndpoints({ endpoints: { floorPlan: { keepUnusedDataFor: 3600 }, lookUp: { keepUnusedDataFor: 5 } } });

/** Has everything read again that is shown, but for one topic where that was just read. */
export const allStale = ({ but }: { but?: Topic } = {}) =>
  api.util.invalidateTags(topicNames.filter((topic) => topic !== but));

type RootState = { [api.reducerPath]: ReturnType<typeof api.reducer> };

/**
 * Reads what a query shows, by a call that begins now: a query that is under way already may have been answered before
 * the last change, and one that finds no server answers what the device remembers.
 *
 * @returns what the server answers; its refusal, which the query then shows too; or what kept it from answering
 */
export const readNow =
  <N extends 'run' | 'benchOrder'>(name: N, id: string) =>
  async (
    dispatch: ThunkDispatch<RootState, unknown, UnknownAction>,
  ): Promise<{ data: Answer<N> } | { error: Trouble; answered: boolean }> => {
    const ask = { name, id };
    // The compiler cannot follow which of the two it is.
    const one = name as 'run';
    const underWay = dispatch(api.util.getRunningQueryThunk(one, id));
    const answer = await call(ask, { retryDelays: [] });
    // Its answer would take the place of the newer one.
    await underWay;
    if ('data' in answer) {
      if (CACHED.has(name)) void storeAnswer(addressOf(ask), answer.data).catch(() => undefined);
      const data = answer.data as Answer<N>;
      await dispatch(api.util.upsertQueryData(one, id, data as Answer<typeof one>));
      return { data };
    }
    const answered = !unanswered(answer.error) && answer.error.code !== 'not-signed-in';
    if (answered) await dispatch(api.endpoints[one].initiate(id, { subscribe: false, forceRefetch: true }));
    return { error: answer.error, answered };
  };
