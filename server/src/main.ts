import { readFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { dirname, isAbsolute } from 'node:path';
import { drawnIn, restore } from './setup/backup/index.ts';
import { OperatorError, productFolder, type LogFile, type ServerSettings } from './platform/index.ts';
import type { Relay, ServerOptions } from './server.ts';
import { mustFit, ownCertificate } from './tls.ts';

/**
 * Settings of a start, from the environment.
 *
 * @throws BadSetting naming the variable and what it must be
 */
export function settings(env: NodeJS.ProcessEnv): {
  port: number;
  options: ServerOptions;
  tls: { cert: string; key: string } | null;
} {
  const url = env['DATABASE_URL'];
  if (url && !POSTGRES.test(url)) throw new BadSetting(`DATABASE_URL must begin with postgres://, received "${url}".`);
  const logLevel = env['LOG_LEVEL'] ?? 'info';
  if (!LOG_LEVELS.includes(logLevel))
    throw new BadSetting(`LOG_LEVEL must be one of ${LOG_LEVELS.join(', ')}, received "${logLevel}".`);
  return {
    port: wholeNumber(env, 'PORT', 4600, 65_535),
    options: {
      database: url
        ? { url, server: databaseServer(env) }
        : {
            folder: env['DATA_DIR'] ?? productFolder('.data'),
            flushSeconds: wholeNumber(env, 'FLUSH_SECONDS', 5, 3600),
          },
      appFolder: productFolder('dist', 'app'),
      logLevel,
      trustedProxies: wholeNumber(env, 'TRUST_PROXY', 0, 10),
      standins: onOff(env, 'STANDINS'),
      retentionDays: Math.max(1, wholeNumber(env, 'RETENTION_DAYS', 90, 36_500)),
      backups: {
        keep: wholeNumber(env, 'BACKUPS', 7, 1000),
        ...(env['BACKUPS_COPY'] ? { second: wholePath('BACKUPS_COPY', env['BACKUPS_COPY']) } : {}),
      },
      ...(env['LOG_FILE'] ? { logFile: logFileIn(env, env['LOG_FILE']) } : {}),
      ...(env['ORDER_FOLDER'] ? { orderFolder: wholePath('ORDER_FOLDER', env['ORDER_FOLDER']) } : {}),
      ...(env['SETUP_TOKEN'] ? { setupToken: setupTokenIn(env['SETUP_TOKEN']) } : {}),
    },
    tls: tlsFiles(env),
  };
}

/** How a PostgreSQL server's connections are used. */
function databaseServer(env: NodeJS.ProcessEnv): ServerSettings {
  const listenUrl = env['DATABASE_LISTEN_URL'];
  if (listenUrl && !POSTGRES.test(listenUrl))
    throw new BadSetting(`DATABASE_LISTEN_URL must begin with postgres://, received "${listenUrl}".`);
  const pooler = onOff(env, 'DATABASE_POOLER');
  if (pooler && !listenUrl)
    throw new BadSetting(
      'DATABASE_POOLER needs DATABASE_LISTEN_URL, an address past the pooler: notifications come by a connection of their own.',
    );
  return {
    pool: Math.max(2, wholeNumber(env, 'DATABASE_POOL', 10, 1000)),
    connectMs: wholeNumber(env, 'DATABASE_CONNECT_MS', 10_000, 600_000),
    lockMs: wholeNumber(env, 'DATABASE_LOCK_MS', 20_000, 600_000),
    statementMs: wholeNumber(env, 'DATABASE_STATEMENT_MS', 120_000, 3_600_000),
    pooler,
    ...(listenUrl ? { listenUrl } : {}),
  };
}

function wholePath(name: string, folder: string): string {
  if (!isAbsolute(folder)) throw new BadSetting(`${name} must be a whole path of a folder, received "${folder}".`);
  return folder;
}

function logFileIn(env: NodeJS.ProcessEnv, path: string): LogFile {
  if (!isAbsolute(path)) throw new BadSetting(`LOG_FILE must be a whole path of a file, received "${path}".`);
  return {
    path,
    megabytes: Math.max(1, wholeNumber(env, 'LOG_MB', 20, 10_000)),
    keep: wholeNumber(env, 'LOG_KEEP', 10, 1000),
  };
}

function setupTokenIn(token: string): string {
  if (!/^[\w-]{8,40}$/.test(token))
    throw new BadSetting(`SETUP_TOKEN must be 8 to 40 letters, digits, hyphens or underscores, received "${token}".`);
  return token;
}

/** Files of a certificate of one's own: both or none. */
function tlsFiles(env: NodeJS.ProcessEnv): { cert: string; key: string } | null {
  const [cert, key] = [env['TLS_CERT'], env['TLS_KEY']];
  if (!cert && !key) return null;
  if (!cert || !key) throw new BadSetting('TLS_CERT and TLS_KEY belong together: name both files, or none.');
  const read = (name: string, file: string) => {
    try {
      return readFileSync(file, 'utf8');
    } catch {
      throw new BadSetting(`${name} must be a file that can be read, received "${file}".`);
    }
  };
  const files = { cert: read('TLS_CERT', cert), key: read('TLS_KEY', key) };
  try {
    mustFit(files);
  } catch (error) {
    throw new BadSetting((error as Error).message);
  }
  return files;
}

/** How a device is told to trust a certificate of one's own. */
const TRUST = `Each device must trust it once:
  Android: copy it to the phone; Settings, Security, Encryption and credentials, Install a certificate, CA certificate.
  iPhone, iPad: send it to the device and install the profile; Settings, General, About, Certificate Trust Settings, switch it on.
  Windows: open it; Install certificate, Local machine, Trusted Root Certification Authorities.
  macOS: open it in Keychain Access, system keychain; Trust, Always trust.
  Linux: Chromium: Settings, Privacy and security, Security, Manage certificates, Authorities, Import.`;
/** Exit code of a server whose embedded database ended (EX_SOFTWARE of sysexits.h). */
const DATABASE_GONE = 70;
const POSTGRES = /^postgres(ql)?:\/\/./;
const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'];

function wholeNumber(env: NodeJS.ProcessEnv, name: string, otherwise: number, most: number): number {
  const value = Number(env[name] ?? otherwise);
  if (!Number.isInteger(value) || value < 0 || value > most)
    throw new BadSetting(`${name} must be a whole number from 0 to ${most}, received "${env[name]}".`);
  return value;
}

function onOff(env: NodeJS.ProcessEnv, name: string): boolean {
  const value = env[name] ?? 'off';
  if (value !== 'on' && value !== 'off') throw new BadSetting(`${name} must be on or off, received "${value}".`);
  return value === 'on';
}

/** A setting that cannot be; the message says which and what it must be. */
export class BadSetting extends OperatorError {}

/** Opens and listens, and closes cleanly on Ctrl-C or kill. Ends the process with 2 when it cannot start. */
export async function run(
  env: NodeJS.ProcessEnv,
  open: (options: ServerOptions) => Promise<Relay>,
  ready: (address: string) => void,
): Promise<void> {
  try {
    const { port, options, tls } = settings(env);
    const own =
      tls === null && process.argv.includes('--tls')
        ? await ownCertificate(('folder' in options.database && options.database.folder) || productFolder('.data'))
        : null;
    const certificate = tls ?? own;
    const folder = 'folder' in options.database ? options.database.folder : null;
    let relay: Relay;
    let closing = false;
    const start = async () => {
      relay = await open({
        ...options,
        // Without its database the server would look alive and answer nothing: whoever watches it starts it again.
        onDead: (error) => {
          console.error(`The database is gone: ${error.message}`);
          process.exit(DATABASE_GONE);
        },
        ...(folder ? { restore: (file) => void restart(file, folder) } : {}),
      });
      const server = await relay.listen(port, certificate ?? undefined).catch(async (error: NodeJS.ErrnoException) => {
        await relay.close();
        throw error.code === 'EADDRINUSE' ? new BadSetting(`Port ${port} is in use. Choose another with PORT.`) : error;
      });
      return server;
    };
    const close = async () => {
      closing = true;
      await relay.close();
    };
    /** Closes, puts the backup in place and comes back on the same address. */
    const restart = async (file: string, into: string) => {
      try {
        // A database that cannot tell any more is the reason for many a restore.
        const drawn = await drawnIn(relay.database).catch(() => []);
        await close();
        await restore(file, into, new Date(), drawn);
        await rm(dirname(file), { recursive: true, force: true });
        await start();
        closing = false;
      } catch (error) {
        console.error(error);
        process.exit(1);
      }
    };
    const server = await start();
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.on(signal, () => {
        if (closing) return;
        close().then(
          () => process.exit(0),
          (error: unknown) => {
            console.error(error);
            process.exit(1);
          },
        );
      });
    const address = server.address();
    const scheme = certificate ? 'https' : 'http';
    ready(`${scheme}://localhost:${typeof address === 'object' && address ? address.port : port}`);
    const token = await relay!.setupToken();
    if (token) console.log(`It has no site yet. Whoever makes it needs this setup token: ${token}`);
    if (own)
      console.log(`The certificate is this machine's own${own.made ? ', made just now' : ''}: ${own.file}. ${TRUST}`);
  } catch (error) {
    if (error instanceof OperatorError) {
      console.error(error.message);
      process.exit(2);
    }
    throw error;
  }
}
