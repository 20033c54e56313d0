import { get } from 'node:http';
import { endpoints, type Endpoint, type EndpointName } from '@hand-relay/contract';
import { people, PASSWORD, PIN } from '../house.ts';

type Answer<N extends EndpointName> = (typeof endpoints)[N] extends { answer: { parse(value: unknown): infer A } }
  ? A
  : undefined;

interface Asked {
  id?: string;
  body?: object;
}

/** One of the demo's people at a device: everything is done as the app does it. */
export interface Person {
  id: string;
  /** @throws Error naming what the server refused */
  ask<N extends EndpointName>(name: N, asked?: Asked): Promise<Answer<N>>;
  /** The same; null where the server refused it. */
  try<N extends EndpointName>(name: N, asked?: Asked): Promise<Answer<N> | null>;
  /** Keeps their device heard at a server, as an open screen does, for as long as that runs. */
  stay(base: string): void;
}

/** Signs in one of the demo's people at a server. */
export async function signIn(base: string, id: (typeof people)[number]['id'], agent: string): Promise<Person> {
  const person = people.find((p) => p.id === id)!;
  const headers = { 'content-type': 'application/json', 'user-agent': agent };
  const session = await fetch(`${base}${endpoints.signIn.path}`, {
    method: 'POST',
    headers,
    body: JSON.stringify(person.login ? { name: person.login, password: PASSWORD } : { badge: person.badge, pin: PIN }),
  });
  if (!session.ok) throw new Error(`${id} cannot sign in: ${await session.text()}`);
  const cookie = session.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
  let calls = 0;
  const send = async (name: EndpointName, { id: of = '', body = {} }: Asked) => {
    const { method, path }: Endpoint = endpoints[name];
    calls += 1;
    return fetch(base + path.replace(':id', of), {
      method,
      headers: { ...headers, cookie, 'idempotency-key': `shift-${id}-${calls}` },
      ...(method === 'POST' ? { body: JSON.stringify(body) } : {}),
    });
  };
  return {
    id,
    async ask(name, asked = {}) {
      const answer = await send(name, asked);
      if (!answer.ok) throw new Error(`${id}, ${name}: ${await answer.text()}`);
      return (await answer.json()) as never;
    },
    async try(name, asked = {}) {
      const answer = await send(name, asked);
      if (answer.status >= 500) throw new Error(`${id}, ${name}: ${await answer.text()}`);
      return answer.ok ? ((await answer.json()) as never) : null;
    },
    stay(at) {
      const stream = get(`${at}${endpoints.events.path}`, { headers: { ...headers, cookie } }, (answer) =>
        answer.resume(),
      );
      // A server that ends takes its streams with it.
      stream.on('error', () => undefined);
    },
  };
}
