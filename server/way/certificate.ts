import { createPrivateKey, X509Certificate } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export interface Pair {
  key: string;
  cert: string;
}

export interface Certificates {
  /** What a tablet is told to trust, once; PEM. */
  root: string;
  leaf: Pair;
}

const DAY_MS = 86_400_000;
const ROOT_DAYS = 3650;
/** Some tablets take no leaf that lives longer than 398 days. */
const LEAF_DAYS = 397;
const RENEW_DAYS = 30;
/** A tablet's clock may be behind. */
const EARLIER_DAYS = 2;

/** Keys lie outside `live/`, so that no backup holds them, and for nobody else's eyes. */
function keep(path: string, text: string): void {
  writeFileSync(`${path}.part`, text, { mode: 0o600, flush: true });
  chmodSync(`${path}.part`, 0o600);
  renameSync(`${path}.part`, path);
}

function kept(folder: string, name: string): Pair | undefined {
  const [key, cert] = [join(folder, `${name}.key`), join(folder, `${name}.crt`)];
  if (!existsSync(key) || !existsSync(cert)) return undefined;
  const pair = { key: readFileSync(key, 'utf8'), cert: readFileSync(cert, 'utf8') };
  return belongs(pair) ? pair : undefined;
}

/** A power cut between the two files leaves a key and a certificate of another: such a pair serves nobody. */
function belongs({ key, cert }: Pair): boolean {
  try {
    return new X509Certificate(cert).checkPrivateKey(createPrivateKey(key));
  } catch {
    // Torn or edited: made anew like one that is not there.
    return false;
  }
}

function put(folder: string, name: string, { key, cert }: Pair): Pair {
  keep(join(folder, `${name}.key`), key);
  keep(join(folder, `${name}.crt`), cert);
  return { key, cert };
}

const daysLeft = ({ cert }: Pair, now: Date) =>
  (Date.parse(new X509Certificate(cert).validTo) - now.getTime()) / DAY_MS;

const isIp = (name: string) => /^[\d.]+$/.test(name);

function serves({ cert }: Pair, names: string[]): boolean {
  const read = new X509Certificate(cert);
  return names.every((name) => (isIp(name) ? read.checkIP(name) : read.checkHost(name)) !== undefined);
}

/**
 * The workshop's own root, made once, and a leaf for the names it goes by now: issued anew when one of them is not in it,
 * when it runs out, or when it is not of this root.
 * @param folder where the keys lie.
 * @param names host names and IPv4 addresses.
 */
export async function certificates(folder: string, names: string[], now: Date): Promise<Certificates> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const { generate } = (await import('selfsigned')).default;
  const made = async (name: string, days: number, more: Parameters<typeof generate>[1]): Promise<Pair> => {
    const pem = await generate([{ name: 'commonName', value: name }], {
      keyType: 'ec',
      curve: 'P-256',
      algorithm: 'sha256',
      notBeforeDate: new Date(now.getTime() - EARLIER_DAYS * DAY_MS),
      notAfterDate: new Date(now.getTime() + days * DAY_MS),
      ...more,
    });
    return { key: pem.private, cert: pem.cert };
  };
  let root = kept(folder, 'root');
  if (!root || daysLeft(root, now) < RENEW_DAYS) {
    root = put(
      folder,
      'root',
      await made('Blunko workshop root', ROOT_DAYS, {
        extensions: [
          { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
          { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
        ],
      }),
    );
  }
  const leaf = kept(folder, 'leaf');
  const ofRoot = leaf && new X509Certificate(leaf.cert).verify(new X509Certificate(root.cert).publicKey);
  if (leaf && ofRoot && daysLeft(leaf, now) > RENEW_DAYS && serves(leaf, names)) return { root: root.cert, leaf };
  const issued = await made('Blunko', Math.min(LEAF_DAYS, Math.floor(daysLeft(root, now))), {
    ca: root,
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: names.map((name) =>
          isIp(name) ? { type: 7 as const, ip: name } : { type: 2 as const, value: name },
        ),
      },
    ],
  });
  return { root: root.cert, leaf: put(folder, 'leaf', issued) };
}
