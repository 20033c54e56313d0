import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';

/** A certificate and its private key, as PEM. */
export interface Certificate {
  cert: string;
  key: string;
}

const YEARS = 5;

/** Every name and address by which devices in the house reach this machine. */
function names(): { dns: string[]; ips: string[] } {
  const ips = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => i.address.split('%')[0]!));
  return { dns: ['localhost', hostname(), `${hostname()}.local`], ips };
}

/**
 * A certificate of this machine's own, made once and kept in the data folder: camera, service worker and wake lock
 * of a phone need a secure address. A device trusts it when a person tells it to.
 */
export async function ownCertificate(folder: string): Promise<Certificate & { file: string }> {
  const place = join(folder, 'tls');
  const [certFile, keyFile] = [join(place, 'certificate.pem'), join(place, 'key.pem')];
  if (!existsSync(certFile)) {
    const { dns, ips } = names();
    const notAfterDate = new Date();
    notAfterDate.setFullYear(notAfterDate.getFullYear() + YEARS);
    const made = await generate([{ name: 'commonName', value: `Hand Relay on ${hostname()}` }], {
      keySize: 2048,
      algorithm: 'sha256',
      notAfterDate,
      extensions: [
        { name: 'basicConstraints', cA: true },
        {
          name: 'subjectAltName',
          altNames: [
            ...dns.map((value) => ({ type: 2 as const, value })),
            ...ips.map((ip) => ({ type: 7 as const, ip })),
          ],
        },
      ],
    });
    mkdirSync(place, { recursive: true });
    writeFileSync(certFile, made.cert);
    writeFileSync(keyFile, made.private, { mode: 0o600 });
  }
  return { cert: readFileSync(certFile, 'utf8'), key: readFileSync(keyFile, 'utf8'), file: certFile };
}
