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
import { floorRoutes } from './floor/plan/index.ts';
import { backupOf, Backups, backupRoutes, runRetention, type BackupPlan } from './setup/backup/index.ts';
import { deskRoutes } from './desk/view/index.ts';
import { holdRoutes } from './desk/holds/index.ts';
import { searchRoutes } from './desk/search/index.ts';
import { dayRoutes } from './desk/day/index.ts';
import { traceRoutes } from './desk/trace/index.ts';
import { loadRoutes, runLoads } from './desk/loads/index.ts';
import { intakeRoutes, runOrderFolder } from './desk/intake/index.ts';
import { orderRoutes } from './desk/orders/index.ts';
import { surplusRoutes } from './desk/surplus/index.ts';
import { packingRoutes } from './bench/packing/index.ts';
import { packagingRoutes, runPackaging } from './bench/packaging/index.ts';
import { palletRoutes } from './dock/pallets/index.ts';
import { weighingRoutes } from './bench/weighing/index.ts';
import { actors, peopleRoutes } from './setup/people/index.ts';
import {
  appBuild,
  Bus,
  fromElsewhere,
  Jobs,
  migrateUp,
  openComputation,
  openDatabase,
  openLog,
  problems,
  productVersion,
  randomId,
  Refusal,
  requestLog,
  mountOutbox,
  watchDisk,
  type Database,
  type DatabaseOptions,
  type Routes,
  type Platform,
  type LogFile,
} from './platform/index.ts';
import { eventRoutes } from './platform/events.ts';
import { isLocal, Metrics } from './platform/metrics.ts';
import { openApi } from './platform/openapi.ts';
import { printingRoutes } from './setup/printing/index.ts';
import { quickRoutes } from './desk/quick/index.ts';
import { countRoutes } from './floor/counts/index.ts';
import { activityRoutes } from './floor/activities/index.ts';
import { lookUpRoutes } from './floor/lookUp/index.ts';
import { putAwayRoutes } from './floor/putAway/index.ts';
import { runRoutes } from './floor/runs/index.ts';
import { shippingRoutes } from './dock/shipping/index.ts';
import { setupRoutes, setupToken } from './setup/sheets/index.ts';
import { hostRoutes, standinScaleRoutes, standInCarrier } from './standins/index.ts';
import type { Certificate } from './tls.ts';
import { runTimetable, waveRoutes } from './desk/waves/index.ts';
import { settingsRoutes } from './setup/settings/index.ts';

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
  /** Days for which print jobs and jobs are kept; 90 without it. */
  retentionDays?: number;
  /** A folder in which order files are put, in a folder for each site. */
  orderFolder?: string;
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

/** Opens database, computation and routes of one server. */
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
    (payload) => bus.receive(payload),
    () => bus.gap(),
  );
  const known = { db: database.db, newId: randomId, log };
  const platform: Platform = {
    ...known,
    alone: database.alone,
    clock: options.clock ?? (() => new Date()),
    jobs: new Jobs(known),
    bus,
    compute: openComputation(),
    standins: options.standins ?? false,
    carrier: options.standins ? standInCarrier : null,
    version: { product: productVersion(), app: appBuild(options.appFolder) },
    disk: watchDisk(options.database.folder ?? null, options.freeBytes),
  };
  const { folder } = options.database;
  const backups =
    options.backups && folder ? new Backups(platform, () => backupOf(database), folder, options.backups) : undefined;
  const app = mountRoutes(platform, database, { ...options, isDead: () => dead !== null }, backups);
  // What a server was at when it ended goes on, on this one or another.
  await platform.jobs.start(options.database.url === undefined);
  let server: Server | undefined;
  let endRetention: (() => void) | undefined;
  /** Each ends something that happens by itself. */
  let turns: (() => Promise<void>)[] = [];
  return {
    app,
    platform,
    database,
    backup: () => backupOf(database),
    setupToken: () => setupToken(database.db, options.setupToken),
    listen: (port, certificate) =>
      new Promise((resolve, reject) => {
        // A server that nobody can reach lets nothing happen by itself: tests turn the timetable themselves.
        if (turns.length === 0)
          turns = [
            runTimetable(platform),
            runLoads(platform),
            runPackaging(platform),
            ...(options.orderFolder ? [runOrderFolder(platform, options.orderFolder)] : []),
          ];
        endRetention ??= runRetention(platform, options.retentionDays ?? 90);
        server = certificate ? createSecureServer(certificate, app) : createServer(app);
        server.keepAliveTimeout = 65_000;
        server.once('error', reject);
        server.listen(port, () => resolve(server!));
      }),
    async close() {
      backups?.close();
      endRetention?.();
      await Promise.all(turns.map((end) => end()));
      if (server) {
        const closed = new Promise((resolve) => server!.close(resolve));
        server.closeAllConnections();
        await closed;
      }
      await platform.jobs.close();
      await platform.compute.close();
      await database.close();
      await closeLog();
    },
  };
}

type RouteOptions = ServerOptions & { isDead: () => boolean };

function mountRoutes(
  platform: Platform,
  database: Database,
  options: RouteOptions,
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
    if (!isLocal(req)) return next(new Refusal('not-found', { what: 'address', id: req.originalUrl }));
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
      handler: (_req, _res, next) => next(new Refusal('too-many', { minutes: 1 })),
    }),
  );
  app.use('/api', (req, _res, next) => next(fromElsewhere(req) ? new Refusal('cross-site') : undefined));
  app.use('/api', compression());
  app.use('/api', (_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    // By it a device learns how wrong its own clock is.
    res.setHeader(SERVER_TIME, String(platform.clock().getTime()));
    next();
  });

  const { sessions, actorOf } = actors(platform);
  const routes: Routes = { app, platform, actorOf, checkAnswers: options.checkAnswers ?? false, handlers: new Map() };
  peopleRoutes(routes, sessions, options.signInsPerMinute ?? 30);
  eventRoutes(routes, (id, hear) => sessions.onForgotten(id, hear));
  deskRoutes(routes);
  holdRoutes(routes);
  searchRoutes(routes);
  traceRoutes(routes);
  dayRoutes(routes);
  loadRoutes(routes);
  quickRoutes(routes);
  // Before an order by its id: their paths begin alike.
  intakeRoutes(routes, options.orderFolder ?? null);
  orderRoutes(routes);
  surplusRoutes(routes);
  waveRoutes(routes);
  floorRoutes(routes);
  runRoutes(routes);
  mountOutbox(routes);
  countRoutes(routes);
  putAwayRoutes(routes);
  lookUpRoutes(routes);
  activityRoutes(routes);
  packingRoutes(routes);
  weighingRoutes(routes);
  palletRoutes(routes);
  packagingRoutes(routes);
  shippingRoutes(routes);
  setupRoutes(routes);
  settingsRoutes(routes);
  printingRoutes(routes);
  hostRoutes(routes);
  standinScaleRoutes(routes);
  backupRoutes(routes, database, backups, options.restore);
  app.use('/api', (req, _res, next) => next(new Refusal('not-found', { what: 'address', id: req.originalUrl })));

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
