import { canonicalJson } from './canonical-json.js';

/** Two 32-bit FNV-1a sums with different starts, as 16 hex digits: tells whether an input changed; not for secrets. */
export function contentHash(value: unknown): string {
  const text = canonicalJson(value);
  const sum = (start: number) => {
    let h = start >>> 0;
    for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193) >>> 0;
    return h.toString(16).padStart(8, '0');
  };
  return sum(0x811c9dc5) + sum(0x9747b28c);
}
