import { buildApp } from './buildApp.mjs';
import { buildServer } from './buildServer.mjs';
import { installed, unlessDone } from './lib.mjs';

/** Builds all that the server serves, where its sources changed. */
export async function build() {
  installed();
  await unlessDone('server', ['core', 'contract', 'server/src', 'demo/src', 'bin', 'package-lock.json'], () => {
    console.log('Building the server …');
    return buildServer();
  });
  await unlessDone('app', ['core/src', 'contract/src', 'app', 'bin', 'package-lock.json'], () => {
    console.log('Building the app (about a minute the first time) …');
    return buildApp();
  });
}

if (import.meta.filename === process.argv[1]) await build();
