import 'reflect-metadata';
import { randomBytes, webcrypto, X509Certificate as NodeCertificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as x509 from '@peculiar/x509';
import { keep } from './keep.js';
import { PRIVATE } from './identity.js';

x509.cryptoProvider.set(webcrypto as Crypto);

const DAY_MS = 86_400_000;
/** @source house rule: as long as a bench may live */
const ROOT_DAYS = 3650;
/** @source common practice: browsers refuse server certificates that run longer than 398 days (825 for roots a user installed) */
const SERVER_DAYS = 397;
/** A new one is made when less is left. @source house rule */
const RENEW_DAYS = 60;
/** Clocks of phones are not exact. @source house rule */
const BACKDATE_DAYS = 2;

const EC = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };
const SERVER_AUTH = '1.3.6.1.5.5.7.3.1';
const NAME_CONSTRAINTS = '2.5.29.30';

/** One value in DER; short ones only. */
function der(tag: number, ...parts: readonly (Uint8Array | readonly number[])[]): Uint8Array<ArrayBuffer> {
  const body = parts.flatMap((p) => [...p]);
  if (body.length > 127) throw new RangeError('too long for a one-byte length');
  return Uint8Array.from([tag, body.length, ...body]);
}

/**
 * The root that phones install may sign for addresses of private networks and for no name at all: whoever stole its key could not
 * pose as any site of the internet. @source RFC 5280, 4.2.1.10; the reserved name of RFC 6761 shuts out every real one
 */
function onlyPrivateAddresses(): x509.Extension {
  const addresses = PRIVATE.map(([a, b, c, d, n]) => {
    const mask = (0xffffffff << (32 - n)) >>> 0;
    return der(0x30, der(0x87, [a, b, c, d, mask >>> 24, (mask >>> 16) & 255, (mask >>> 8) & 255, mask & 255]));
  });
  const noName = der(0x30, der(0x82, Buffer.from('bench.invalid')));
  return new x509.Extension(NAME_CONSTRAINTS, true, der(0x30, der(0xa0, ...addresses, noName)));
}

const serial = () => Buffer.concat([Buffer.from([0x01]), randomBytes(15)]).toString('hex');
const pemOf = async (key: CryptoKey): Promise<string> => x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
const keyOf = (pem: string): Promise<CryptoKey> => webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(pem), EC, true, ['sign']);

/** A certificate with its private key, both as PEM. */
export interface Pair {
  readonly cert: string;
  readonly key: string;
}

async function makeRoot(now: Date): Promise<Pair> {
  const keys = await webcrypto.subtle.generateKey(EC, true, ['sign', 'verify']);
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Yellow Pane bench ${randomBytes(3).toString('hex')}`,
    keys,
    notBefore: new Date(now.getTime() - BACKDATE_DAYS * DAY_MS),
    notAfter: new Date(now.getTime() + ROOT_DAYS * DAY_MS),
    signingAlgorithm: EC,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      onlyPrivateAddresses(),
    ],
  });
  return { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) };
}

/** A server certificate signed by the root. @param name an address, or (in tests) a name that the root must not vouch for */
export async function signFor(root: Pair, name: { readonly type: 'ip' | 'dns'; readonly value: string }, now: Date): Promise<Pair> {
  const issuer = new x509.X509Certificate(root.cert);
  const keys = await webcrypto.subtle.generateKey(EC, true, ['sign', 'verify']);
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=Yellow Pane at ${name.value}`,
    issuer: issuer.subject,
    notBefore: new Date(now.getTime() - BACKDATE_DAYS * DAY_MS),
    notAfter: new Date(now.getTime() + (SERVER_DAYS - BACKDATE_DAYS) * DAY_MS),
    signingAlgorithm: EC,
    publicKey: keys.publicKey,
    signingKey: await keyOf(root.key),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([SERVER_AUTH]),
      new x509.SubjectAlternativeNameExtension([name]),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
    ],
  });
  return { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) };
}

/** Whether a server certificate is for this address, from this root, and lasts. */
function serves(pair: Pair, root: Pair, address: string, now: Date): boolean {
  const cert = new NodeCertificate(pair.cert);
  const leftMs = Date.parse(cert.validTo) - now.getTime();
  return cert.checkIP(address) !== undefined && cert.verify(new NodeCertificate(root.cert).publicKey) && leftMs > RENEW_DAYS * DAY_MS;
}

/** The root and the server certificate in their folder; made when they are missing, for another address, or about to end. */
export class Certificates {
  constructor(
    private readonly dir: string,
    private readonly now: () => Date,
  ) {}

  private async pair(name: string, isGood: (pair: Pair) => boolean, make: () => Promise<Pair>): Promise<Pair> {
    mkdirSync(this.dir, { recursive: true, mode: 0o700 });
    const file = join(this.dir, `${name}.json`);
    if (existsSync(file)) {
      const there = JSON.parse(readFileSync(file, 'utf8')) as Pair;
      if (isGood(there)) return there;
    }
    const made = await make();
    keep(file, JSON.stringify(made));
    return made;
  }

  root(): Promise<Pair> {
    const lasts = (p: Pair) => Date.parse(new NodeCertificate(p.cert).validTo) - this.now().getTime() > SERVER_DAYS * DAY_MS;
    return this.pair('root', lasts, () => makeRoot(this.now()));
  }

  async server(address: string): Promise<Pair> {
    const root = await this.root();
    return this.pair(
      'server',
      (p) => serves(p, root, address, this.now()),
      () => signFor(root, { type: 'ip', value: address }, this.now()),
    );
  }
}
