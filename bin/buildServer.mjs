import { join } from 'node:path';
import { root } from './lib.mjs';

/** Entry points: each becomes one file in dist/server, workers beside the mains. */
const entries = {
  start: 'server/src/start.ts',
  demo: 'demo/src/start.ts',
  restore: 'server/src/restore.ts',
  carry: 'server/src/carry.ts',
  'embedded.worker': 'server/src/platform/database/embedded.worker.ts',
  'files.worker': 'server/src/platform/files.worker.ts',
  'computation.worker': 'server/src/computation.worker.ts',
};

/** Bundles our own sources for the server; packages stay outside, in node_modules. */
export async function buildServer() {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: Object.fromEntries(Object.entries(entries).map(([name, file]) => [name, join(root, file)])),
    outdir: join(root, 'dist', 'server'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    plugins: [
      {
        name: 'packages-stay-outside',
        setup(build) {
          build.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@hand-relay/') ? undefined : { path, external: true },
          );
        },
      },
    ],
  });
}
