/**
 * JSON with keys in order and nothing between its signs, so that equal values give equal text, byte for byte. `undefined` fields do not count.
 * @source RFC 8785 (JSON Canonicalization Scheme): keys by UTF-16 code units, numbers and strings as ECMAScript writes them
 */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value !== null && typeof value === 'object') {
    const entries = Object.entries(value).filter(([, v]) => v !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
    return `{${entries.map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}
