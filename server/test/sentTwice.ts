import { existsSync, readFileSync } from 'node:fs';
import { endpoints, type Endpoint, type EndpointName } from '@hand-relay/contract';

/** File into which tests write the names of the changes that they sent twice; unset, nothing is written. */
export const SENT_TWICE = 'SENT_TWICE';

/** Whether an endpoint is a change that its key makes happen once. */
export function happensOnce(name: EndpointName): boolean {
  const { method, needs, changes = [], starts }: Endpoint = endpoints[name];
  return method === 'POST' && needs !== 'public' && (changes.length > 0 || starts !== undefined) && name !== 'signOut';
}

/**
 * Changes that no test has sent twice with one key. A restore is none of them: the keys go with what it replaces.
 *
 * @param file that the tests wrote
 */
export function notSentTwice(file: string): string[] {
  const sent = new Set(existsSync(file) ? readFileSync(file, 'utf8').split('\n') : []);
  const names = Object.keys(endpoints) as EndpointName[];
  return names.filter((name) => happensOnce(name) && name !== 'restore' && !sent.has(name));
}
