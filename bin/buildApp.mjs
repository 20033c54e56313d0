import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { must, root } from './lib.mjs';

const out = join(root, 'dist', 'app');

/** Files that gain from compression, by their endings. */
const compressible = /\.(html|js|css|json|svg|ttf|wasm|ico)$/;

/** Exports the web app for production, adds its service worker, and compresses what is served. */
export async function buildApp() {
  rmSync(out, { recursive: true, force: true });
  must('npx', ['expo', 'export', '--platform', 'web', '--output-dir', out, join(root, 'app')]);
  if (!existsSync(join(out, 'index.html'))) throw new Error('The export made no index.html.');
  nameBuild();
  await serviceWorker();
  for (const file of readdirSync(out, { recursive: true, encoding: 'utf8' })) {
    const path = join(out, file);
    if (!statSync(path).isFile() || !compressible.test(path)) continue;
    const bytes = readFileSync(path);
    writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
    // The script is what every first visit waits for.
    const quality = path.endsWith('.js') ? 11 : 9;
    writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }));
  }
}

/** Writes into the page which build it is, by which an open app knows that the server has another. */
function nameBuild() {
  const file = join(out, 'index.html');
  const page = readFileSync(file, 'utf8');
  const build = createHash('sha256').update(page).digest('hex').slice(0, 12);
  writeFileSync(file, page.replace('<head>', `<head><meta name="build" content="${build}" />`));
}

/** The service worker: the app itself is on the device, and pictures are once they were shown. */
async function serviceWorker() {
  // Imported here, because this file is read before anything is installed.
  const { generateSW } = await import('workbox-build');
  const { warnings } = await generateSW({
    globDirectory: out,
    globPatterns: ['**/*.{html,js,css,ttf,ico,svg,png,webmanifest,wasm}'],
    swDest: join(out, 'sw.js'),
    maximumFileSizeToCacheInBytes: 12e6,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    skipWaiting: true,
    clientsClaim: true,
    cleanupOutdatedCaches: true,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    runtimeCaching: [
      {
        urlPattern: /\/api\/pictures\//,
        handler: 'CacheFirst',
        options: { cacheName: 'pictures', expiration: { maxEntries: 3000 } },
      },
    ],
  });
  for (const warning of warnings) console.warn(warning);
}
