import { text } from 'node:stream/consumers';
import { installed } from './lib.mjs';

/** One JSON document in, one out; what cannot be answered ends with 2 and one line that names the field. */
const refuse = (line) => {
  process.stderr.write(`${line}\n`);
  process.exit(2);
};

installed(2);
const { register } = await import('tsx/esm/api');
register();
const { verbs, schemasOf, PlannerError } = await import('@hand-relay/core/planner');
const { openSolver } = await import('@hand-relay/core/solver');

const [first, ...rest] = process.argv.slice(2);
// `schema VERB` prints what a verb's documents must look like, as JSON Schema.
const [name, ...more] = first === 'schema' ? rest : [first, ...rest];
const verb = Object.hasOwn(verbs, name ?? '') ? verbs[name] : undefined;
if (!verb || more.length > 0) refuse(`verb: must be one of ${Object.keys(verbs).join(', ')}`);
if (first === 'schema') {
  process.stdout.write(`${JSON.stringify(schemasOf(verb), null, 2)}\n`);
  process.exit(0);
}
let document;
try {
  document = JSON.parse(await text(process.stdin));
} catch (error) {
  refuse(`document: must be JSON (${error.message.split('\n')[0]})`);
}
try {
  const answer = JSON.stringify(verb.run(document, { solver: await openSolver(), now: () => performance.now() }));
  process.stdout.write(`${answer}\n`);
} catch (error) {
  if (!(error instanceof PlannerError)) throw error;
  refuse(error.message);
}
