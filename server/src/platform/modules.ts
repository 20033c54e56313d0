import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { Worker, type WorkerOptions } from 'node:worker_threads';

/**
 * File of one of our modules for a worker thread: the source beside us in development, the bundle's own file once
 * built (where every module of ours lies in the bundle's folder).
 */
export function moduleFile(name: string): string {
  const here = dirname(fileURLToPath(import.meta.url));
  const source = join(here, '..', `${name}.ts`);
  return existsSync(source) ? source : join(here, `${name.split('/').at(-1)}.js`);
}

/** Starts one of our modules in a thread: a bundled file directly, a source through the loader. */
export function startThread(name: string, options: WorkerOptions): Worker {
  const file = moduleFile(name);
  if (!file.endsWith('.ts')) return new Worker(file, options);
  const boot = `import('tsx/esm/api').then((tsx) => { tsx.register(); return import(${JSON.stringify(pathToFileURL(file).href)}); })
    .catch((error) => setImmediate(() => { throw error; }));`;
  return new Worker(boot, { ...options, eval: true });
}

/** Which version this is. */
export function productVersion(): string {
  return (JSON.parse(readFileSync(productFolder('package.json'), 'utf8')) as { version: string }).version;
}

/** Which build of the app lies in a folder, as its page says; null where it says nothing. */
export function appBuild(folder: string | null | undefined): string | null {
  const page = folder ? join(folder, 'index.html') : '';
  if (!existsSync(page)) return null;
  return /<meta name="build" content="([0-9a-f]+)"/.exec(readFileSync(page, 'utf8'))?.[1] ?? null;
}

/** A folder of the repository or of the installed product, from its root. */
export function productFolder(...parts: string[]): string {
  let at = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(at, 'server', 'drizzle'))) {
    const up = dirname(at);
    if (up === at) throw new Error('The product folder was not found above the running program.');
    at = up;
  }
  return join(at, ...parts);
}
