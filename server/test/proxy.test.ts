import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { request, type RequestOptions } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { house } from '@hand-relay/demo';
import { productFolder } from '../src/index.ts';
import { ownCertificate } from '../src/tls.ts';
import { freePort } from './postgres.ts';
import { openTest, type TestRelay } from './relay.ts';
import { takeIn } from './steps.ts';

/** Debian's nginx. */
const NGINX = '/usr/sbin/nginx';

/** nginx of Debian's packages with the example of the operation guide, its addresses and files apart. */
describe('behind the reverse proxy of the examples', () => {
  let folder: string;
  let relay: TestRelay;
  let proxy: ChildProcess;
  let port: number;
  let ca: string;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'hand-relay-proxy-'));
    relay = await openTest({}, { trustedProxies: 1 });
    const { port: own } = (await relay.listen(0)).address() as AddressInfo;
    const { cert, key } = await ownCertificate(folder);
    ca = cert;
    writeFileSync(join(folder, 'cert.pem'), cert);
    writeFileSync(join(folder, 'key.pem'), key);
    port = await freePort();
    const plain = await freePort();
    const site = readFileSync(productFolder('docs', 'examples', 'hand-relay.nginx.conf'), 'utf8')
      .replaceAll('/etc/ssl/hand-relay/fullchain.pem', join(folder, 'cert.pem'))
      .replaceAll('/etc/ssl/hand-relay/key.pem', join(folder, 'key.pem'))
      .replaceAll('127.0.0.1:4600', `127.0.0.1:${own}`)
      .replaceAll(/listen \[::\].*\n/g, '\n')
      .replaceAll('listen 443', `listen 127.0.0.1:${port}`)
      .replaceAll('listen 80', `listen 127.0.0.1:${plain}`)
      .replaceAll('relay.example.org', 'localhost');
    mkdirSync(join(folder, 'body'));
    const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((n) => `${n}_temp_path ${folder}/body;`);
    writeFileSync(
      join(folder, 'nginx.conf'),
      `pid ${folder}/nginx.pid; error_log stderr; daemon off; master_process off; events {}
       http { access_log off; ${temporary.join(' ')} ${site} }`,
    );
    const tried = spawnSync(NGINX, ['-t', '-c', join(folder, 'nginx.conf')], { encoding: 'utf8' });
    if (tried.status !== 0) throw new Error(tried.error?.message ?? tried.stderr);
    proxy = spawn(NGINX, ['-c', join(folder, 'nginx.conf')], { stdio: 'ignore' });
    for (let tries = 0; tries < 50 && !(await ask('/health').catch(() => null)); tries++)
      await new Promise((resolve) => setTimeout(resolve, 100));
  });
  afterAll(async () => {
    proxy?.kill('SIGKILL');
    await relay.close();
    rmSync(folder, { recursive: true, force: true });
  });

  interface Answer {
    status: number;
    headers: Record<string, string | string[] | undefined>;
    body: string;
  }
  const ask = (path: string, { body, ...more }: RequestOptions & { body?: string } = {}) =>
    new Promise<Answer>((resolve, reject) => {
      const sent = request({ host: 'localhost', port, path, ca, ...more }, (res) => {
        let text = '';
        res.on('data', (bytes: Buffer) => (text += String(bytes)));
        res.on('end', () => resolve({ status: res.statusCode!, headers: res.headers, body: text }));
      });
      sent.on('error', reject).end(body);
    });
  const post = (path: string, body: object, headers: Record<string, string> = {}) =>
    ask(path, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': String(Math.random()), ...headers },
    });
  const signIn = async () => {
    const answer = await post('/api/session', { name: 'maren', password: house.PASSWORD });
    return { answer, cookie: (answer.headers['set-cookie'] as string[])[0]!.split(';')[0]! };
  };

  it('signs in by a cookie for TLS alone, takes changes from its own pages and large files, and tells nobody its metrics', async () => {
    const { answer, cookie } = await signIn();
    expect(answer.headers['set-cookie']![0]).toContain('; Secure');
    expect(answer.headers['x-request-id']).toMatch(/^[0-9a-f]{32}$/);
    // A page of this address may change things, one of another may not.
    const order = (origin: string, bytes: number) =>
      post('/api/orders', { mode: 'preview', csv: 'x'.repeat(bytes) }, { Cookie: cookie, Origin: origin });
    expect((await order(`https://localhost:${port}`, 20_000_000)).status).toBe(200);
    // A small one: what is refused before all of a large one was sent, the proxy may tell as its own 502.
    expect((await order('https://elsewhere.example', 10)).status).toBe(403);
    expect((await ask('/metrics')).status).toBe(404);
    expect((await ask('/ready')).status).toBe(200);
  });

  it('passes live events on as they happen', async () => {
    const { cookie } = await signIn();
    const desk = await relay.as('maren');
    const heard = new Promise<void>((resolve, reject) => {
      const stream = request(
        { host: 'localhost', port, path: '/api/events', ca, headers: { Cookie: cookie } },
        (res) => {
          res.on('data', (bytes: Buffer) => {
            if (!String(bytes).includes('"topic":"orders"')) return;
            stream.destroy();
            resolve();
          });
          void takeIn(desk, { number: 'THROUGH-THE-PROXY', lines: [['HT-001', 1]] }).catch(reject);
        },
      );
      stream.on('error', (error: NodeJS.ErrnoException) => (error.code === 'ECONNRESET' ? undefined : reject(error)));
      stream.end();
    });
    // A proxy that gathers answers would hold a small event until many more have come.
    await heard;
  });

  it('is told from other devices by the address that the proxy names: tries of one do not lock another', async () => {
    const wrong = () => post('/api/session', { name: 'ines', password: 'wrong' });
    for (let i = 0; i < 6; i++) await wrong();
    expect((await wrong()).status).toBe(429);
    // What a device claims of its own address is overwritten.
    expect(
      (await post('/api/session', { name: 'ines', password: 'x' }, { 'X-Forwarded-For': '192.0.2.7' })).status,
    ).toBe(429);
    const [found] = await relay.query<{ n: number }>(`select count(*)::int as n from sign_in_try`);
    // The account from this address, all strangers at it, one who signed in before, and the address itself.
    expect(found!.n).toBeLessThanOrEqual(4);
  });
});
