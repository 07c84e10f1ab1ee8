/** Records of a job as they are handed to a worker: lists of records with an id, and records that stand alone. */
export type Mirrored = Readonly<Record<string, unknown>>;

interface WithId {
  readonly id: string;
}
/** A list told anew: the order of all, and those that are others than before. */
interface ToldList {
  readonly ids: readonly string[];
  readonly others: readonly WithId[];
}
/** What has changed of the records since they were told last: a tape in a tower is one reading, not two thousand. */
export interface Told {
  readonly lists: Readonly<Record<string, ToldList>>;
  readonly alone: Readonly<Record<string, unknown>>;
}

const isList = (value: unknown): value is readonly WithId[] =>
  Array.isArray(value) && value.every((r) => typeof (r as Partial<WithId> | null)?.id === 'string');

/** Records are never changed in place, so that the very same object says the very same thing. @param before as last told; null: nothing was */
export function toldSince(before: Mirrored | null, now: Mirrored): Told {
  const lists: Record<string, ToldList> = {};
  const alone: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(now)) {
    const old = before?.[name];
    if (before && old === value) continue;
    if (!isList(value)) alone[name] = value;
    else {
      const known = new Set(isList(old) ? old : []);
      lists[name] = { ids: value.map((r) => r.id), others: value.filter((r) => !known.has(r)) };
    }
  }
  return { lists, alone };
}

/** The records after what was told. What was not told anew is the same object as before. */
export function heard(before: Mirrored | null, { lists, alone }: Told): Mirrored {
  const out: Record<string, unknown> = { ...before, ...alone };
  for (const [name, { ids, others }] of Object.entries(lists)) {
    const old = before?.[name];
    const byId = new Map([...(isList(old) ? old : []), ...others].map((r) => [r.id, r]));
    out[name] = ids.map((id) => byId.get(id)!);
  }
  return out;
}
