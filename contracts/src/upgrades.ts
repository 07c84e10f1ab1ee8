import type { Patch } from './changes.js';
import type { RecordKind } from './record-kinds.js';

/** One change of shape that records went through, by its name: how a record of before is read today. */
interface Upgrade {
  readonly name: string;
  /** The first version of the job file that has it. */
  readonly fileVersion: number;
  readonly kind: RecordKind;
  /** @param record of the version before @returns the same record where it is not of the version before */
  readonly upgrade: (record: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>;
}

/** In the order they came. What only grew a field needs none: the schemas fill in what was not yet known. The tables of a bench are moved by the migration of the same name. */
export const upgrades: readonly Upgrade[] = [
  {
    name: 'kinds-of-surface',
    fileVersion: 9,
    kind: 'surface',
    // every surface was a pane of glass, whatever its curve
    upgrade: (r) => (r['kind'] === 'flat-pane' ? { ...r, kind: 'pane' } : r),
  },
];

/** A record as an earlier version wrote it, in today's shape; anything else comes back as it is. */
export function upgradedRecord(kind: RecordKind, raw: unknown): unknown {
  if (typeof raw !== 'object' || raw === null) return raw;
  return upgrades.reduce<unknown>((r, u) => (u.kind === kind ? u.upgrade(r as Readonly<Record<string, unknown>>) : r), raw);
}

/** A patch of before in today's shape. */
export const upgradedPatch = (patch: Patch): Patch =>
  patch.op === 'add' ? { ...patch, value: upgradedRecord(patch.kind, patch.value) as Record<string, unknown> } : patch;

/** A job file of any version with its records in today's shape; what is no job file comes back as it is. */
export function upgradedJobFile(raw: unknown): unknown {
  if (typeof raw !== 'object' || raw === null || !('surfaces' in raw) || !Array.isArray(raw.surfaces)) return raw;
  return { ...raw, surfaces: raw.surfaces.map((s) => upgradedRecord('surface', s)) };
}
