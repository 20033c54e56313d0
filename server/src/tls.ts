import { createPrivateKey, X509Certificate, type KeyObject } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';

/** A certificate and its private key, as PEM. */
export interface Certificate {
  cert: string;
  key: string;
}

/** Browsers and phones refuse certificates of servers that are valid for longer. */
const DAYS = 825;
/** A certificate that ends so soon is renewed at the next start. */
const RENEW_BEFORE_DAYS = 60;

/** Every name and address by which devices in the house reach this machine. */
function names(): { dns: string[]; ips: string[] } {
  const ips = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => i.address.split('%')[0]!));
  return { dns: ['localhost', hostname(), `${hostname()}.local`], ips };
}

/** What a file holds; null where there is none. */
function fileText(file: string): string | null {
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}

/** Whether a certificate may be used on: with its key, not soon over, and for every name and address of today. */
function isGood(
  { cert, key }: { cert: string | null; key: string | null },
  { dns, ips }: ReturnType<typeof names>,
  now: Date,
): boolean {
  if (cert === null || key === null) return false;
  try {
    mustFit({ cert, key });
  } catch {
    // Damaged, or of another certificate: a new pair is made.
    return false;
  }
  const { validTo, subjectAltName = '' } = new X509Certificate(cert);
  const covered = subjectAltName.split(', ');
  const plain = (ip: string) => (ip.includes(':') ? new URL(`http://[${ip}]`).hostname.slice(1, -1) : ip);
  const addresses = covered.flatMap((c) => (c.startsWith('IP Address:') ? plain(c.slice(11).toLowerCase()) : []));
  return (
    Date.parse(validTo) - now.getTime() > RENEW_BEFORE_DAYS * 86_400_000 &&
    dns.every((name) => covered.includes(`DNS:${name}`)) &&
    ips.every((ip) => addresses.includes(plain(ip.toLowerCase())))
  );
}

/**
 * Holds a certificate and its key together.
 *
 * @throws Error saying what does not fit
 */
export function mustFit({ cert, key }: Certificate): void {
  let certificate: X509Certificate;
  try {
    certificate = new X509Certificate(cert);
  } catch {
    throw new Error('TLS_CERT is no certificate in PEM form.');
  }
  let secret: KeyObject;
  try {
    secret = createPrivateKey(key);
  } catch {
    throw new Error('TLS_KEY is no private key in PEM form, or it has a passphrase.');
  }
  if (!certificate.checkPrivateKey(secret)) throw new Error('TLS_KEY is not the key of the certificate in TLS_CERT.');
}

/**
 * A certificate of this machine's own, kept in the data folder: camera, service worker and wake lock of a phone need a
 * secure address. A device trusts it when a person tells it to. It is renewed when it ends soon, or when the machine
 * has a name or an address that it does not cover; then devices must be told once more.
 */
export async function ownCertificate(
  folder: string,
  now = new Date(),
): Promise<Certificate & { file: string; made: boolean }> {
  const place = join(folder, 'tls');
  const [certFile, keyFile] = [join(place, 'certificate.pem'), join(place, 'key.pem')];
  const { dns, ips } = names();
  const made = !isGood({ cert: fileText(certFile), key: fileText(keyFile) }, { dns, ips }, now);
  if (made) {
    const notAfterDate = new Date(now.getTime() + DAYS * 86_400_000 - 60_000);
    const fresh = await generate([{ name: 'commonName', value: `Hand Relay on ${hostname()}` }], {
      keySize: 2048,
      algorithm: 'sha256',
      notAfterDate,
      extensions: [
        { name: 'basicConstraints', cA: true },
        { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, keyCertSign: true },
        { name: 'extKeyUsage', serverAuth: true },
        {
          name: 'subjectAltName',
          altNames: [
            ...dns.map((value) => ({ type: 2 as const, value })),
            ...ips.map((ip) => ({ type: 7 as const, ip })),
          ],
        },
      ],
    });
    mkdirSync(place, { recursive: true, mode: 0o700 });
    writeFileSync(certFile, fresh.cert);
    writeFileSync(keyFile, fresh.private, { mode: 0o600 });
  }
  return { cert: readFileSync(certFile, 'utf8'), key: readFileSync(keyFile, 'utf8'), file: certFile, made };
}
