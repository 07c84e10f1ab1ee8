import { readFileSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { demoPersons, lanternStreet, launchAndShuttle, ternInterior, ternPoint, ternAnnex } from '../../demo/src/index.js';
import { API_VERSION } from './api-version.js';
import type { RecordKind } from './record-kinds.js';
import { recordSchemas } from './record-schemas.js';
import { referencesOf } from './references.js';
import { routes, type RouteDefinition } from './routes.js';

/** What a program that writes to the bench may rely on: bounds, words to choose from, what may be left out, what it is filled up with. */
const KEYWORDS = ['minimum', 'maximum', 'exclusiveMinimum', 'exclusiveMaximum', 'minLength', 'maxLength', 'minItems', 'maxItems', 'pattern', 'format', 'enum', 'const', 'default', 'required', 'unit'] as const; // prettier-ignore
type Node = Readonly<Record<string, unknown>>;

/** A schema as one line for each bound, in the order of its fields. */
function boundsOf(name: string, node: Node): string[] {
  const own = KEYWORDS.flatMap((k) => (node[k] === undefined || (k === 'maximum' && node[k] === Number.MAX_SAFE_INTEGER) || (k === 'minimum' && node[k] === Number.MIN_SAFE_INTEGER) ? [] : [`${name} ${k} ${JSON.stringify(node[k])}`])); // prettier-ignore
  const within = (part: unknown, as: string): string[] => (part && typeof part === 'object' ? boundsOf(as, part as Node) : []);
  return [
    ...own,
    ...Object.entries((node['properties'] ?? {}) as Node).flatMap(([k, v]) => within(v, `${name}.${k}`)),
    ...within(node['items'], `${name}[]`),
    ...within(node['additionalProperties'], `${name}{}`),
    ...((node['prefixItems'] ?? []) as Node[]).flatMap((v, i) => within(v, `${name}[${i}]`)),
    ...(['anyOf', 'oneOf', 'allOf'] as const).flatMap((k) => ((node[k] ?? []) as Node[]).flatMap((v, i) => within(v, `${name}|${nameOf(v) ?? i}`))),
  ];
}
/** A kind among several is called by its own word where it has one, so that a new one moves no other line. */
const nameOf = (node: Node): string | null => {
  const kind = ((node['properties'] ?? {}) as Record<string, Node>)['kind']?.['const'];
  return typeof kind === 'string' ? kind : null;
};
const published = (name: string, schema: z.ZodType): string[] =>
  boundsOf(name, z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any', reused: 'inline' }) as Node);

/** Everything that is written: each kind of record, and what a call takes that is no record. */
const today = (): string[] => [
  ...Object.entries(recordSchemas).flatMap(([kind, schema]) => published(kind, schema)),
  ...(Object.entries(routes) as [string, RouteDefinition][]).flatMap(([name, r]) => [
    ...(r.params ? published(`${name}(params)`, r.params) : []),
    ...(r.query ? published(`${name}(query)`, r.query) : []),
    // what is only worked out, and kept nowhere
    ...(r.body && r.path.startsWith('/api/compute') ? published(`${name}(body)`, r.body) : []),
  ]),
];

describe('what other programs write by', () => {
  const file = new URL(`./fixtures/bounds-of-api-${API_VERSION}.txt`, import.meta.url);
  if (process.env['YELLOW_PANE_PUBLISH'] === '1') writeFileSync(file, `${today().join('\n')}\n`);

  test('stands in the list of this version of the API: whoever moves a bound writes it there (YELLOW_PANE_PUBLISH=1), and counts the version up where old data or an old page no longer fits', () => {
    const told = new Set(readFileSync(file, 'utf8').trimEnd().split('\n'));
    const now = new Set(today());
    expect({ gone: [...told].filter((l) => !now.has(l)), new: [...now].filter((l) => !told.has(l)) }).toEqual({ gone: [], new: [] });
  });
});

describe('what a record names', () => {
  /** Every field that ends in Id or Ids and holds something, by its path. */
  const named = (value: unknown, path = ''): string[] =>
    value === null || typeof value !== 'object'
      ? []
      : Object.entries(value).flatMap(([key, v]) => {
          const at = path ? `${path}.${key}` : key;
          if (/[a-z]Id$/.test(key) && typeof v === 'string') return [at];
          if (/[a-z]Ids$/.test(key) && Array.isArray(v)) return v.map((_, i) => `${at}.${i}`);
          return named(v, at);
        });
  const files = [ternPoint(), ternAnnex('2026-11-20T09:00:00.000Z'), lanternStreet(), launchAndShuttle(), ternInterior()];
  const kinds: readonly [RecordKind, readonly object[]][] = [
    ['job', files.map((f) => f.job)],
    ['person', demoPersons],
    ['place', files.flatMap((f) => f.places)],
    ['surface', files.flatMap((f) => f.surfaces)],
    ['reading', files.flatMap((f) => f.readings)],
    ['roll', files.flatMap((f) => f.rolls)],
    ['layEntry', files.flatMap((f) => f.layEntries)],
  ];
  /** Names of no record: of a piece within its plan, of a device, of lights of one grid, of a place that may be gone from a day’s choice. */
  const NO_RECORD = /(^|\.)(pieceId|deviceId|groupId|placeIds\.\d+)$/;

  test('a line of the log names the panes that are taken over, the pin it goes on about, and what was erased', () => {
    const { layEntries, surfaces } = ternAnnex('2026-11-20T09:00:00.000Z');
    const line = {
      ...layEntries[0]!,
      acceptance: { seal: 'a'.repeat(64), panes: surfaces.slice(0, 2).map((s) => ({ surfaceId: s.id, sha256: 'b'.repeat(64) })), lineIds: [] },
    };
    expect(referencesOf('layEntry', line).filter((x) => x.path.startsWith('acceptance'))).toEqual(
      surfaces.slice(0, 2).map((s, i) => expect.objectContaining({ path: `acceptance.panes.${i}.surfaceId`, kind: 'surface', id: s.id })),
    );
    expect(referencesOf('layEntry', layEntries[0]!).some((x) => x.path.startsWith('acceptance'))).toBe(false);
  });
  test.each(kinds)('of a %s is asked for before it is taken: no name may point at nothing', (kind, records) => {
    for (const r of records) {
      const paths = new Set(referencesOf(kind, r as never).map((x) => x.path));
      expect(named(r).filter((p) => !paths.has(p) && !NO_RECORD.test(p))).toEqual([]);
    }
  });
});
