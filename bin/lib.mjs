import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The repository's root. */
export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

export const quiet = { EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', NO_UPDATE_NOTIFIER: '1' };

/** Runs a command to its end, its output shown (on `out`); ends this process with its code when it fails. */
export function must(command, args, env = {}, out = 1) {
  const done = spawnSync(command, args, {
    cwd: root,
    stdio: ['inherit', out, 2],
    env: { ...process.env, ...quiet, ...env },
  });
  if (done.error) throw done.error;
  if (done.status !== 0) process.exit(done.status ?? 1);
}

/**
 * Installs what the lock file names, when that was not done since it changed.
 *
 * @param out 2 where the standard output belongs to an answer
 */
export function installed(out = 1) {
  const stamp = join(root, 'node_modules', '.installed');
  const wanted = hashOf(['package-lock.json']);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  writeSync(out, 'Installing packages (about two minutes the first time) …\n');
  must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {}, out);
  writeFileSync(stamp, wanted);
}

/** A hash over files and folders of the repository, by their contents. */
export function hashOf(paths) {
  const hash = createHash('sha256');
  const walk = (path) => {
    const full = join(root, path);
    if (!existsSync(full)) return;
    if (!statSync(full).isDirectory()) {
      hash.update(path).update(readFileSync(full));
      return;
    }
    for (const name of readdirSync(full).sort())
      if (name !== 'node_modules' && name !== '.expo') walk(join(path, name));
  };
  paths.forEach(walk);
  return hash.digest('hex');
}

/** Does a step when its sources changed since it was last done. */
export function unlessDone(name, sources, step) {
  const folder = join(root, 'dist');
  mkdirSync(folder, { recursive: true });
  const stamp = join(folder, `.${name}`);
  const wanted = hashOf(sources);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return Promise.resolve();
  return Promise.resolve(step()).then(() => writeFileSync(stamp, wanted));
}

/** Hands this process over to another program: signals go to it, and its end is ours. */
export function become(file, args = [], env = {}) {
  const child = spawn(process.execPath, [file, ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code, signal) => process.exit(code ?? (signal ? 1 : 0)));
}
