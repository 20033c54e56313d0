import { parseArgs } from 'node:util';

/**
 * Stands in for a host system from outside: sends orders, changes and cancellations to a running server through its
 * API, and receives the confirmations. Ends with 2 and one line where something was asked that cannot be.
 */
const refuse = (line) => {
  process.stderr.write(`${line}\n`);
  process.exit(2);
};
const usual = {
  url: 'http://localhost:4600',
  name: 'maren',
  password: 'honeycomb',
  site: '',
  orders: '3',
  changes: '1',
  cancellations: '0',
  every: '20',
  times: '0',
  seed: '',
};
let asked;
try {
  const options = Object.fromEntries(Object.keys(usual).map((name) => [name, { type: 'string' }]));
  asked = { ...usual, ...parseArgs({ options, strict: true }).values };
} catch (error) {
  refuse(
    `${error.message.split('\n')[0]} There are: ${Object.keys(usual)
      .map((name) => `--${name}`)
      .join(', ')}.`,
  );
}
const whole = (name, least, most) => {
  const value = Number(asked[name]);
  if (!/^\d+$/.test(asked[name]) || value < least || value > most)
    refuse(`--${name}: must be a whole number from ${least} to ${most}, not "${asked[name]}"`);
  return value;
};
const amounts = Object.fromEntries(['orders', 'changes', 'cancellations'].map((name) => [name, whole(name, 0, 100)]));
const every = whole('every', 2, 3600);
const times = whole('times', 0, 1_000_000);
const seed = asked.seed === '' ? null : whole('seed', 0, 2 ** 31 - 1);

let cookie = '';
async function call(method, path, body) {
  const address = new URL(path, asked.url);
  if (asked.site) address.searchParams.set('at', asked.site);
  let response;
  try {
    response = await fetch(address, {
      method,
      headers: {
        'Content-Type': 'application/json',
        'Idempotency-Key': crypto.randomUUID(),
        'X-Device': 'host system',
        cookie,
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
  } catch (error) {
    refuse(`--url: ${asked.url} does not answer (${error.cause?.code ?? error.message})`);
  }
  const answer = await response.json().catch(() => ({}));
  if (!response.ok) refuse(`${path}: ${answer.title ?? response.status} (${answer.detail ?? ''})`);
  cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? cookie;
  return answer;
}

const say = (line) => process.stdout.write(`${line}\n`);
const outcome = ({ facts }) =>
  [facts.outcome, ...(facts.differences ?? []).map((d) => `${d.field} ${d.before} → ${d.after}`)].join('; ');

await call('POST', '/api/session', { name: asked.name, password: asked.password });
for (let n = 1; ; n++) {
  const sent = await call('POST', '/api/host/play', { ...amounts, ...(seed === null ? {} : { seed: seed + n }) });
  for (const message of [...sent.messages].reverse()) say(`sent ${message.kind} ${message.order}: ${outcome(message)}`);
  const heard = await call('POST', '/api/host/receive', {});
  for (const { order, facts } of heard.messages)
    say(`received confirmation of ${order}: ${facts.shipment}, ${facts.tracking ?? 'no tracking number'}`);
  if (n === times) break;
  await new Promise((resolve) => setTimeout(resolve, every * 1000));
}
