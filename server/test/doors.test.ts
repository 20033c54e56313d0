import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import type { IncomingMessage } from 'node:http';
import { request } from 'node:https';
import { X509Certificate } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, gunzipSync } from 'node:zlib';
import supertest from 'supertest';
import { endpoints, problemSchema, type Endpoint, type EndpointName } from '@hand-relay/contract';
import { house } from '@hand-relay/demo';
import { BadSetting, openRelay, settings, type Relay } from '../src/index.ts';
import { generate } from 'selfsigned';
import { openLog } from '../src/platform/index.ts';
import { mustFit, ownCertificate } from '../src/tls.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';

describe('what the server says to whoever asks', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    // The embedded database: it has a heap of its own to tell of.
    relay = await openTest({}, { database: { folder: null, from: process.env['HOUSE_DUMP']! }, filled: true });
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());
  const get = (path: string) => supertest(relay.app).get(path);

  it('is up, and ready when its database answers', async () => {
    const up = await get('/health').expect(200);
    expect(up.body).toEqual({ status: 'up', version: expect.stringMatching(/^\d+\.\d+\.\d+$/) as string });
    await get('/ready').expect(200, { status: 'ready', freeMb: null });
  });

  it('tells this machine alone how it does, in the form that monitoring reads', async () => {
    await desk.get('me');
    const { text, headers } = await get('/metrics?collect').expect(200);
    expect(headers['content-type']).toContain('application/openmetrics-text');
    const value = (name: string) => Number(new RegExp(`^${name} (\\S+)$`, 'm').exec(text)?.[1]);
    expect(value('relay_request_seconds_count\\{status="2xx"\\}')).toBeGreaterThan(0);
    expect(value('relay_requests_waiting')).toBe(1);
    expect(value('relay_heap_bytes')).toBeGreaterThan(1e6);
    expect(value('relay_database_heap_bytes')).toBeGreaterThan(1e6);
    expect(text.endsWith('# EOF\n')).toBe(true);
    await get('/metrics').set('X-Forwarded-For', '10.0.0.9').expect(404);
  });

  it('describes every endpoint as OpenAPI 3.1, with all that its schemas say', async () => {
    const { body } = await get('/api/openapi.json').expect(200);
    const { openapi, paths } = body as {
      openapi: string;
      paths: Record<
        string,
        Record<string, { operationId: string; requestBody?: object; parameters: { name: string; in: string }[] }>
      >;
    };
    expect(openapi).toMatch(/^3\.1/);
    const described = Object.values(paths).flatMap((p) => Object.values(p).map((o) => o.operationId));
    expect(described.sort()).toEqual(Object.keys(endpoints).sort());
    for (const [name, endpoint] of Object.entries(endpoints) as [EndpointName, Endpoint][]) {
      const operation = paths[endpoint.path.replace(':id', '{id}')]![endpoint.method.toLowerCase()]!;
      const named = operation.parameters.map((p) => `${p.in} ${p.name}`);
      expect([name, named.includes('path id')]).toEqual([name, endpoint.path.includes(':id')]);
      expect([name, Boolean(operation.requestBody)]).toEqual([name, Boolean(endpoint.body)]);
      expect([name, named.includes('header Idempotency-Key')]).toEqual([
        name,
        endpoint.method === 'POST' && endpoint.needs !== 'public',
      ]);
    }
    // Nothing that the page of documents needs comes from elsewhere.
    const page = (await get('/api/docs/').expect(200)).text;
    expect(page).not.toMatch(/(src|href)="https?:/);
    await get('/api/docs/swagger-ui-bundle.js').expect(200);
    expect((await get('/api/docs/swagger-initializer.js')).text).toContain('/api/openapi.json');
  });

  it('gives every answer an id, and keeps the one a proxy gave', async () => {
    const first = (await get('/health')).headers['x-request-id'];
    expect(first).toMatch(/^[\w-]{8,64}$/);
    expect((await get('/health')).headers['x-request-id']).not.toBe(first);
    expect((await get('/health').set('X-Request-Id', 'proxy-4711-a')).headers['x-request-id']).toBe('proxy-4711-a');
    expect((await get('/health').set('X-Request-Id', 'not an id!')).headers['x-request-id']).not.toBe('not an id!');
    const refused = await get('/api/nowhere').set('X-Request-Id', 'proxy-4711-b');
    expect(refused.status).toBe(404);
    expect(refused.headers['content-type']).toMatch('application/problem+json');
    expect(problemSchema.parse(refused.body)).toMatchObject({ code: 'not-found', requestId: 'proxy-4711-b' });
  });

  it('lets no other page frame it and runs no script but its own', async () => {
    const { headers } = await get('/health');
    expect(headers['content-security-policy']).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
    expect((await get('/api/openapi.json')).headers['cache-control'] ?? '').not.toContain('public');
    expect((await desk.ask('orders')).headers['cache-control']).toContain('no-store');
  });

  it('refuses a change without a key, with a wrong body, or too large a one, and says where', async () => {
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'maren', password: house.PASSWORD });
    const keyless = await agent.post('/api/waves').send({ orders: ['x'] });
    expect(keyless.body).toMatchObject({ status: 400, code: 'key-missing', fields: [{ path: 'Idempotency-Key' }] });
    expect(await desk.refused('release', { body: { orders: [] } })).toMatchObject({
      code: 'malformed',
      fields: [{ path: 'orders' }],
    });
    expect(await desk.refused('orders', { query: { limit: 'many' } })).toMatchObject({ fields: [{ path: 'limit' }] });
    const large = await agent
      .post('/api/orders')
      .set('Idempotency-Key', 'large')
      .send({ mode: 'preview', csv: 'x'.repeat(38_000_000) });
    expect(large.body).toMatchObject({ status: 413, code: 'too-large' });
    // What takes no file takes a megabyte, and of who is not signed in nothing is read at all.
    const orders = ['x'.repeat(1_200_000)];
    expect((await agent.post('/api/waves').set('Idempotency-Key', 'much').send({ orders })).body).toMatchObject({
      status: 413,
    });
    const [cut, whole] = ['{"orders": ["cut', JSON.stringify({ orders })];
    for (const body of [cut, whole]) {
      const stranger = await supertest(relay.app).post('/api/waves').type('json').send(body);
      expect(stranger.body).toMatchObject({ status: 401, code: 'not-signed-in' });
    }
  });

  it('tells nothing of an error that nobody expected but the id of the request', async () => {
    await relay.query('alter table lot rename to lot_away');
    try {
      const { status, body } = await desk.ask('previewRelease', { body: { orders: ['order-la-20001'] } });
      expect(status).toBe(500);
      expect(JSON.stringify(body)).not.toContain('lot');
      expect(problemSchema.parse(body)).toMatchObject({ code: 'unexpected', facts: {} });
    } finally {
      await relay.query('alter table lot_away rename to lot');
    }
    // Afterwards all is as before: the connection, its plans and its ear for what others change.
    expect((await desk.ask('previewRelease', { body: { orders: ['order-la-20001'] } })).status).toBe(200);
    const heard: object[] = [];
    const stop = relay.platform.bus.subscribe(house.site.id, (event) => heard.push(event));
    await desk.get('cancelRest', { id: 'order-la-20012', body: { reason: 'after an error' } });
    for (let i = 0; i < 100 && heard.length === 0; i++) await new Promise((resolve) => setTimeout(resolve, 10));
    stop();
    expect(heard).toContainEqual({ topic: 'orders', ids: ['order-la-20012'] });
  });

  it('rests a device that tries to sign in too often', async () => {
    const strict = await openRelay({
      database: { folder: null, from: process.env['HOUSE_DUMP']! },
      logLevel: 'silent',
      signInsPerMinute: 3,
    });
    const signIn = async (password: string) =>
      (await supertest(strict.app).post('/api/session').send({ name: 'maren', password })).status;
    try {
      // A shift that signs in behind one address is no attack.
      for (let i = 0; i < 5; i++) expect(await signIn(house.PASSWORD)).toBe(200);
      const statuses: number[] = [];
      for (let i = 0; i < 5; i++) statuses.push(await signIn('b'));
      expect(statuses).toEqual([401, 401, 401, 429, 429]);
    } finally {
      await strict.close();
    }
  });
});

describe('the app, served beside the API', () => {
  let folder: string;
  let relay: Relay;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'hand-relay-app-'));
    mkdirSync(join(folder, '_expo'));
    writeFileSync(join(folder, 'index.html'), '<title>Hand Relay</title>');
    writeFileSync(join(folder, '_expo', 'entry-1a2b.js'), 'plain');
    writeFileSync(join(folder, '_expo', 'entry-1a2b.js.br'), brotliCompressSync('squeezed'));
    relay = await openRelay({
      database: { folder: null, from: process.env['CLUSTER_DUMP']! },
      logLevel: 'silent',
      appFolder: folder,
      trustedProxies: 1,
    });
  });
  afterAll(async () => {
    await relay.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('answers every address of its own with the app, a missing file and a missing endpoint with 404', async () => {
    for (const path of ['/', '/desk/orders/order-la-20001', '/sign-in?to=%2Fdesk']) {
      const { status, text, headers } = await supertest(relay.app).get(path);
      expect([path, status, text]).toEqual([path, 200, '<title>Hand Relay</title>']);
      expect(headers['cache-control']).toBe('no-cache');
    }
    expect((await supertest(relay.app).get('/_expo/gone.js')).status).toBe(404);
    expect((await supertest(relay.app).get('/api/gone')).body).toMatchObject({ code: 'not-found' });
    expect((await supertest(relay.app).post('/desk')).status).toBe(404);
  });

  it('sends what was compressed beforehand, to be kept for ever', async () => {
    const { headers, text } = await supertest(relay.app).get('/_expo/entry-1a2b.js').set('Accept-Encoding', 'br');
    expect(text).toBe('squeezed');
    expect(headers).toMatchObject({
      'content-encoding': 'br',
      'cache-control': 'public, max-age=31536000, immutable',
    });
    const plain = await supertest(relay.app).get('/_expo/entry-1a2b.js').set('Accept-Encoding', 'identity');
    expect(plain.text).toBe('plain');
  });

  it('keeps the session cookie to TLS where a trusted proxy says that there is TLS', async () => {
    await relay.platform.db.execute(
      `insert into site (id, code, name, street, city, time_zone, currency, gs1_prefix, floor, start) values ('s', 's', 's', 's', 's', 'UTC', 'EUR', '9521234', '{}', '{}')`,
    );
    const { hashSecret } = await import('../src/index.ts');
    await relay.platform.db.execute(
      `insert into person (id, site_id, name, login, password_hash) values ('p', 's', 'P', 'p', '${await hashSecret('word')}')`,
    );
    await relay.platform.db.execute(`insert into membership (person_id, site_id, roles) values ('p', 's', '{picker}')`);
    const cookie = async (proto: string) =>
      (
        await supertest(relay.app)
          .post('/api/session')
          .set('X-Forwarded-Proto', proto)
          .send({ name: 'p', password: 'word' })
      ).headers['set-cookie']![0]!;
    expect(await cookie('https')).toContain('; Secure');
    expect(await cookie('http')).not.toContain('Secure');
  });
});

describe('a secure address', () => {
  it('is served by a certificate of the machine itself, made once, and the cookie stays on it', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'hand-relay-tls-'));
    const certificate = await ownCertificate(folder);
    expect(certificate.made).toBe(true);
    expect(await ownCertificate(folder)).toEqual({ ...certificate, made: false });
    const { subjectAltName, ca, validFrom, validTo, keyUsage } = new X509Certificate(certificate.cert);
    expect((Date.parse(validTo) - Date.parse(validFrom)) / 86_400_000).toBeLessThanOrEqual(825);
    // For server authentication (RFC 5280, 4.2.1.12).
    expect(keyUsage).toEqual(['1.3.6.1.5.5.7.3.1']);
    // Near its end it is renewed, and so it is where it covers none of today's addresses.
    const later = await ownCertificate(folder, new Date(Date.now() + 800 * 86_400_000));
    expect(later.made).toBe(true);
    const other = await generate([{ name: 'commonName', value: 'other' }]);
    // Another's, half written, or without its key: it is made again, not an error at the start.
    for (const spoil of [
      () => writeFileSync(later.file, other.cert),
      () => writeFileSync(later.file, later.cert.slice(0, 200)),
      () => rmSync(join(folder, 'tls', 'key.pem')),
    ]) {
      spoil();
      expect((await ownCertificate(folder)).made).toBe(true);
    }
    expect(() => mustFit({ cert: other.cert, key: certificate.key })).toThrow('not the key');
    expect(() => mustFit({ cert: 'x', key: certificate.key })).toThrow('no certificate');
    expect(() => mustFit({ cert: other.cert, key: 'x' })).toThrow('no private key');
    expect(subjectAltName).toContain('DNS:localhost');
    expect(subjectAltName).toContain('IP Address:127.0.0.1');
    expect(ca).toBe(true);
    const relay = await openTest();
    try {
      const server = await relay.listen(0, certificate);
      const { port } = server.address() as AddressInfo;
      const answer = await new Promise<IncomingMessage>((resolve, reject) => {
        const body = JSON.stringify({ name: 'maren', password: house.PASSWORD });
        request(
          {
            port,
            host: 'localhost',
            path: '/api/session',
            method: 'POST',
            ca: certificate.cert,
            headers: { 'Content-Type': 'application/json', 'Content-Length': body.length },
          },
          resolve,
        )
          .on('error', reject)
          .end(body);
      });
      expect(answer.statusCode).toBe(200);
      expect(answer.headers['set-cookie']![0]).toContain('; Secure');
      answer.destroy();
    } finally {
      await relay.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });

  it("needs both files of a certificate of one's own", () => {
    expect(() => settings({ TLS_CERT: '/a' })).toThrow('belong together');
  });
});

describe('the log', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'hand-relay-log-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('begins a new file when one is full, packs it, keeps as many as told, and loses no line', async () => {
    const path = join(folder, 'relay.log');
    const line = 'x'.repeat(1000);
    for (let start = 0; start < 2; start++) {
      const { logger, close } = openLog('info', { path, megabytes: 1, keep: 3 });
      for (let n = 0; n < 2500; n++) {
        logger.info({ n: 2500 * start + n, line }, 'request');
        // As requests come: a stream that is flooded in one breath would hold it all in memory.
        if (n % 100 === 99) await new Promise((resolve) => setImmediate(resolve));
      }
      await close();
    }
    const files = readdirSync(folder).filter((f) => f.endsWith('.log.gz'));
    expect(files.length).toBeGreaterThan(1);
    expect(files.length).toBeLessThanOrEqual(3);
    const read = (name: string) => {
      const bytes = readFileSync(join(folder, name));
      return (name.endsWith('.gz') ? gunzipSync(bytes) : bytes).toString('utf8').trim().split('\n');
    };
    const numbers = [...files, 'relay.log'].flatMap(read).map((l) => (JSON.parse(l) as { n: number }).n);
    numbers.sort((a, b) => a - b);
    expect(numbers.at(-1)).toBe(4999);
    expect(numbers).toEqual(Array.from({ length: numbers.length }, (_, i) => numbers[0]! + i));
  });

  it('refuses a folder that is not there, by name', () => {
    const path = join(folder, 'gone', 'relay.log');
    expect(() => openLog('info', { path, megabytes: 1, keep: 3 })).toThrow(path);
  });
});

describe('settings', () => {
  it('are what a site expects without any', () => {
    const { port, options } = settings({});
    expect([port, options.backups]).toEqual([4600, { keep: 7 }]);
    expect(options).toMatchObject({ logLevel: 'info', trustedProxies: 0 });
    expect(options.database).toMatchObject({ folder: expect.stringMatching(/\.data$/) as string });
    const url = 'postgres://a/b';
    const usual = { pool: 10, connectMs: 10_000, lockMs: 20_000, statementMs: 120_000, pooler: false };
    const databaseOf = (env: object) => settings({ DATABASE_URL: url, DATA_DIR: 'x', ...env }).options.database;
    expect(databaseOf({})).toEqual({ url, server: usual });
    const past = { DATABASE_POOLER: 'on', DATABASE_LISTEN_URL: 'postgres://c/b', DATABASE_POOL: '30' };
    expect(databaseOf(past)).toEqual({
      url,
      server: { ...usual, pool: 30, pooler: true, listenUrl: 'postgres://c/b' },
    });
    expect(() => databaseOf({ DATABASE_POOLER: 'on' })).toThrow('needs DATABASE_LISTEN_URL');
  });

  it.each([
    ['PORT', '70000'],
    ['PORT', 'door'],
    ['TRUST_PROXY', 'yes'],
    ['TRUST_PROXY', '-1'],
    ['BACKUPS', 'many'],
    ['BACKUPS_COPY', 'beside'],
    ['TLS_CERT', '/no/such/file'],
    ['LOG_LEVEL', 'loud'],
    ['LOG_FILE', 'beside.log'],
    ['DATABASE_URL', 'not an address'],
  ])('refuse %s=%s by name, with what was received', (name, value) => {
    const refused = () => settings({ [name]: value, ...(name === 'TLS_CERT' ? { TLS_KEY: '/no/such/key' } : {}) });
    expect(refused).toThrow(BadSetting);
    expect(refused).toThrow(name);
    expect(refused).toThrow(`"${value}"`);
  });
});
