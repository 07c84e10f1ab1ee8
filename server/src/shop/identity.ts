import { createHash, X509Certificate } from 'node:crypto';

/** Private networks. @source RFC 1918, RFC 3927 (link-local), RFC 6890 (loopback) */
export const PRIVATE = [
  [10, 0, 0, 0, 8],
  [172, 16, 0, 0, 12],
  [192, 168, 0, 0, 16],
  [169, 254, 0, 0, 16],
  [127, 0, 0, 0, 8],
] as const;

/** Whether an IPv4 address belongs to a private network: nothing on the internet has it. */
export function isPrivate(address: string): boolean {
  const bits = (b: readonly number[]) => ((b[0]! << 24) | (b[1]! << 16) | (b[2]! << 8) | b[3]!) >>> 0;
  const own = bits(address.split('.').map(Number));
  return PRIVATE.some(([a, b, c, d, n]) => (own ^ bits([a, b, c, d])) >>> (32 - n) === 0);
}

/** SHA-256 of a certificate in pairs, as phones and browsers show it. */
export const fingerprintOf = (cert: string): string => new X509Certificate(cert).fingerprint256;
/** The certificate as devices install it. */
export const derOf = (cert: string): Buffer => new X509Certificate(cert).raw;
/** Names a script or style in a page’s own rules. @source Content Security Policy level 3, hash sources */
export const hashSource = (text: string): string => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
