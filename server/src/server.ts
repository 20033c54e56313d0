import compression from 'compression';
import express, { type Express } from 'express';
import { rateLimit } from 'express-rate-limit';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { sql } from 'drizzle-orm';
import { SERVER_TIME } from '@hand-relay/contract';
import { absolutePath as swaggerFolder } from 'swagger-ui-dist';
import { floorRoutes } from './floor/index.ts';
import { backupOf, Backups, keepRoutes, type BackupPlan } from './keep/index.ts';
import { deskRoutes } from './desk/index.ts';
import { holdRoutes } from './holds/index.ts';
import { loadRoutes } from './loads/index.ts';
import { orderRoutes } from './orders/index.ts';
import { surplusRoutes } from './surplus/index.ts';
import { packingRoutes } from './packing/index.ts';
import { actors, peopleRoutes } from './people/index.ts';
import {
  appBuild,
  Bus,
  fromElsewhere,
  migrateUp,
  openComputation,
  openDatabase,
  openLog,
  problems,
  productVersion,
  randomId,
  Refusal,
  requestLog,
  serveKept,
  watchDisk,
  type Database,
  type DatabaseOptions,
  type Doors,
  type Platform,
  type LogFile,
} from './platform/index.ts';
import { eventRoutes } from './platform/events.ts';
import { isLocal, Metrics } from './platform/metrics.ts';
import { openApi } from './platform/openapi.ts';
import { printingRoutes } from './printing/index.ts';
import { quickRoutes } from './quick/index.ts';
import { countRoutes } from './counts/index.ts';
import { activityRoutes } from './activities/index.ts';
import { lookUpRoutes } from './lookUp/index.ts';
import { putBackRoutes } from './putBack/index.ts';
import { runRoutes } from './runs/index.ts';
import { shippingRoutes } from './shipping/index.ts';
import { setupRoutes, setupToken } from './setup/index.ts';
import { HostStreams, hostRoutes } from './standins/index.ts';
import type { Certificate } from './tls.ts';
import { resumeWavePlans, runTimetable, waveRoutes } from './waves/index.ts';
import { wayRoutes } from './ways/index.ts';

export interface ServerOptions {
  database: DatabaseOptions;
  /** Folder of the built app; without it the server answers the API alone. */
  appFolder?: string | null;
  /** pino's level. */
  logLevel?: string;
  /** Where the log goes in place of the standard output. */
  logFile?: LogFile;
  clock?: () => Date;
  /** Whether answers are held against their schemas too. */
  checkAnswers?: boolean;
  signInsPerMinute?: number;
  /** What the first run must name; made up without it. */
  setupToken?: string;
  /** Whether stand-ins for a host system and for carriers answer: for demos and trials. */
  standins?: boolean;
  /** How many proxies stand before this server, whose word on TLS and addresses counts. */
  trustedProxies?: number;
  /** Called when the embedded database is gone for good: the process should end and be started again. */
  onDead?: (error: Error) => void;
  /** Free bytes of the data folder's disk; asked of the system without it. */
  freeBytes?: (folder: string) => number | null;
  /** Backups made by themselves beside the embedded database; none without it. */
  backups?: BackupPlan;
  /** Puts a backup in place of everything and starts again; without it no page restores. */
  restore?: (file: string) => void;
}

export interface Relay {
  app: Express;
  /** A copy of everything as one file, made while others work; null where a PostgreSQL server keeps the data. */
  backup(): Promise<Uint8Array | null>;
  /** What the first run must name, to be shown to whoever runs the server; null where there is a site. */
  setupToken(): Promise<string | null>;
  platform: Platform;
  database: Database;
  /** Listens on a port, by TLS where a certificate is given; 0 takes any free one. */
  listen(port: number, certificate?: Certificate): Promise<Server>;
  close(): Promise<void>;
}

/** Opens database, computation and doors of one server. */
export async function openRelay(options: ServerOptions): Promise<Relay> {
  const { logger: log, close: closeLog } = openLog(options.logLevel ?? 'info', options.logFile);
  let dead: Error | null = null;
  const database = await openDatabase({
    onLost: (error) => log.warn({ err: error }, 'connection to the database lost'),
    onDead: (error) => {
      dead = error;
      log.fatal({ err: error }, 'the database is gone');
      options.onDead?.(error);
    },
    ...options.database,
  }).catch(async (error: unknown) => {
    await closeLog();
    throw error;
  });
  try {
    await database.alone('migrate', () => migrateUp(database.db), { wait: true });
  } catch (error) {
    await database.close();
    await closeLog();
    throw error;
  }
  const bus = new Bus();
  await database.listen(
    (payload) => bus.hear(payload),
    () => bus.gap(),
  );
  const platform: Platform = {
    db: database.db,
    alone: database.alone,
    clock: options.clock ?? (() => new Date()),
    newId: randomId,
    log,
    bus,
    compute: openComputation(),
    standins: options.standins ?? false,
    version: { product: productVersion(), app: appBuild(options.appFolder) },
    disk: watchDisk(options.database.folder ?? null, options.freeBytes),
  };
  const streams = new HostStreams(platform);
  // Plans that a restart interrupted are computed again in the background.
  const resumed = resumeWavePlans(platform);
  const { folder } = options.database;
  const backups =
    options.backups && folder ? new Backups(platform, () => backupOf(database), folder, options.backups) : undefined;
  const app = openDoors(platform, database, streams, { ...options, isDead: () => dead !== null }, backups);
  let server: Server | undefined;
  let endTimetable: (() => Promise<void>) | undefined;
  return {
    app,
    platform,
    database,
    backup: () => backupOf(database),
    setupToken: () => setupToken(database.db, options.setupToken),
    listen: (port, certificate) =>
      new Promise((resolve, reject) => {
        // A server that nobody can reach lets nothing happen by itself: tests turn the timetable themselves.
        endTimetable ??= runTimetable(platform);
        server = certificate ? createSecureServer(certificate, app) : createServer(app);
        server.keepAliveTimeout = 65_000;
        server.once('error', reject);
        server.listen(port, () => resolve(server!));
      }),
    async close() {
      backups?.close();
      streams.close();
      await endTimetable?.();
      if (server) {
        const closed = new Promise((resolve) => server!.close(resolve));
        server.closeAllConnections();
        await closed;
      }
      await platform.compute.close();
      await resumed.catch(() => undefined);
      await database.close();
      await closeLog();
    },
  };
}

type DoorOptions = ServerOptions & { isDead: () => boolean };

function openDoors(
  platform: Platform,
  database: Database,
  streams: HostStreams,
  options: DoorOptions,
  backups: Backups | undefined,
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.set('trust proxy', options.trustedProxies ?? 0);
  app.use(requestLog(platform));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      // Sites without a certificate of their own run on plain HTTP in their own network.
      strictTransportSecurity: false,
      crossOriginOpenerPolicy: false,
      originAgentCluster: false,
    }),
  );
  const metrics = new Metrics(platform, database);
  app.use(metrics.count);
  app.get('/metrics', (req, res, next) => {
    if (!isLocal(req)) return next(new Refusal(404, 'not-found', { what: 'address', id: req.originalUrl }));
    metrics
      .text(req.query['collect'] !== undefined)
      .then((text) => res.type(metrics.contentType).send(text))
      .catch(next);
  });
  app.get('/health', (_req, res) => {
    res.json({ status: 'up', version: platform.version.product });
  });
  app.get('/ready', (_req, res) => {
    readiness(platform, options.isDead)
      .then((status) => res.status(status === 'ready' ? 200 : 503).json({ status, freeMb: platform.disk.freeMb() }))
      .catch(() => res.status(503).json({ status: 'database-gone' }));
  });
  const description = openApi();
  app.get('/api/openapi.json', (_req, res) => {
    res.json(description);
  });
  app.get('/api/docs/swagger-initializer.js', (_req, res) => {
    res
      .type('js')
      .send("window.ui = SwaggerUIBundle({ url: '/api/openapi.json', dom_id: '#swagger-ui', validatorUrl: null });");
  });
  app.use('/api/docs', express.static(swaggerFolder()));
  app.use(
    '/api',
    rateLimit({
      windowMs: 60_000,
      limit: 20_000,
      standardHeaders: 'draft-7',
      legacyHeaders: false,
      handler: (_req, _res, next) => next(new Refusal(429, 'too-many', { minutes: 1 })),
    }),
  );
  app.use('/api', (req, _res, next) => next(fromElsewhere(req) ? new Refusal(403, 'cross-site') : undefined));
  app.use('/api', compression());
  app.use('/api', express.json({ limit: '36mb' }));
  app.use('/api', (_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    // By it a device learns how wrong its own clock is.
    res.setHeader(SERVER_TIME, String(platform.clock().getTime()));
    next();
  });

  const { sessions, actorOf } = actors(platform);
  const doors: Doors = { app, platform, actorOf, checkAnswers: options.checkAnswers ?? false, handlers: new Map() };
  peopleRoutes(doors, sessions, options.signInsPerMinute ?? 30);
  eventRoutes(doors, (id, hear) => sessions.onForgotten(id, hear));
  deskRoutes(doors);
  holdRoutes(doors);
  loadRoutes(doors);
  quickRoutes(doors);
  orderRoutes(doors);
  surplusRoutes(doors);
  waveRoutes(doors);
  floorRoutes(doors);
  runRoutes(doors);
  serveKept(doors);
  countRoutes(doors);
  putBackRoutes(doors);
  lookUpRoutes(doors);
  activityRoutes(doors);
  packingRoutes(doors);
  shippingRoutes(doors);
  setupRoutes(doors);
  wayRoutes(doors);
  printingRoutes(doors);
  hostRoutes(doors, streams);
  keepRoutes(doors, database, backups, options.restore);
  app.use('/api', (req, _res, next) => next(new Refusal(404, 'not-found', { what: 'address', id: req.originalUrl })));

  if (options.appFolder && existsSync(options.appFolder)) serveApp(app, options.appFolder);
  app.use(problems(platform));
  return app;
}

/** Serves the built app, compressed beforehand; every address that is no file opens it. */
function serveApp(app: Express, folder: string): void {
  const files = expressStaticGzip(folder, {
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    serveStatic: {
      setHeaders: (res, path) => {
        const forever = path.includes('/_expo/') || path.includes('/assets/');
        res.setHeader('Cache-Control', forever ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    },
  });
  app.use(files);
  app.use((req, res, next) => {
    if (req.method !== 'GET' || req.path.includes('.')) return next();
    req.url = '/index.html';
    files(req, res, next);
  });
}

/** How long the database may take to answer before the server counts as not ready. */
const READY_WITHIN_MS = 5_000;

/** What the server can do now, for whoever sends people to it. */
async function readiness(
  platform: Platform,
  isDead: () => boolean,
): Promise<'ready' | 'database-gone' | 'database-slow' | 'disk-full'> {
  if (isDead()) return 'database-gone';
  if (platform.disk.full()) return 'disk-full';
  let timer: ReturnType<typeof setTimeout>;
  const late = new Promise<'database-slow'>((resolve) => {
    timer = setTimeout(() => resolve('database-slow'), READY_WITHIN_MS);
  });
  try {
    return await Promise.race([platform.db.execute(sql`select 1`).then(() => 'ready' as const), late]);
  } finally {
    clearTimeout(timer!);
  }
}
