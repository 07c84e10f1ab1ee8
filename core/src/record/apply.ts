import type { BenchDocument, JobDocument, Patch, RecordKind, SeatInBench, SeatInJob } from '@yellow-pane/contracts';

/**
 * What a patch makes of records: the one place where an edit becomes a state, at the bench as on every page.
 */
type AnyRecord = { readonly id: string; readonly deletedAt?: string | null };

/**
 * A record after a patch.
 * @param old before; null: there is none
 * @returns null where a field of a record is set that is not there
 */
export function patchedRecord(old: Readonly<Record<string, unknown>> | null, patch: Patch): Readonly<Record<string, unknown>> | null {
  if (patch.op === 'add') return patch.value;
  return old && { ...old, [patch.field]: patch.value };
}

/** A list of records after a patch: what is new comes last, what comes again is the same record as the bench tells it, what is deleted leaves. */
function patchedList<T extends AnyRecord>(list: readonly T[], patch: Patch): readonly T[] {
  const isThere = list.some((r) => r.id === patch.id);
  if (!isThere) return patch.op === 'add' ? kept([...list, patch.value as unknown as T]) : list;
  return kept(list.map((r) => (r.id === patch.id ? (patchedRecord(r as unknown as Record<string, unknown>, patch) as unknown as T) : r)));
}
const kept = <T extends AnyRecord>(list: readonly T[]): readonly T[] => list.filter((r) => !r.deletedAt);

type Lists = Readonly<Record<string, readonly AnyRecord[]>>;

/** A document after a patch. @param seat where records of its kind stand in it; null: in another one */
function patchedDocument<D extends { readonly firm: unknown; readonly stock: unknown }>(doc: D, patch: Patch, seat: SeatInJob | SeatInBench): D {
  if (seat === null) return doc;
  if (seat === 'the job itself' || seat === 'the firm itself') {
    const name = seat === 'the job itself' ? 'job' : 'firm';
    const own = (doc as Readonly<Record<string, unknown>>)[name] as Readonly<Record<string, unknown>> | undefined;
    // a document is of one job and one firm: another one does not come in
    return patch.op === 'set' && own?.['id'] === patch.id ? { ...doc, [name]: patchedRecord(own, patch) } : doc;
  }
  const [first, second] = seat.split('.') as [string, string | undefined];
  if (second === undefined) return { ...doc, [first]: patchedList((doc as unknown as Lists)[first]!, patch) };
  const part = (doc as unknown as Readonly<Record<string, Lists>>)[first]!;
  return { ...doc, [first]: { ...part, [second]: patchedList(part[second]!, patch) } };
}

/** A job as it is walked: rooms in their order, panes in theirs within their room; equal ones stay as they come. */
export function inWalkingOrder(doc: JobDocument): JobDocument {
  const placeOrder = new Map(doc.places.map((p) => [p.id, p.order]));
  const places = inOrder(doc.places, (a, b) => a.order - b.order);
  const surfaces = inOrder(doc.surfaces, (a, b) => (placeOrder.get(a.placeId) ?? 0) - (placeOrder.get(b.placeId) ?? 0) || a.order - b.order);
  return places === doc.places && surfaces === doc.surfaces ? doc : { ...doc, places, surfaces };
}
/** A list in its order; the very same one where it is: what was worked out of it still holds. */
function inOrder<T>(list: T[], compare: (a: T, b: T) => number): T[] {
  const sorted = [...list].sort(compare);
  return sorted.every((x, i) => x === list[i]) ? list : sorted;
}

/** The open job after a change, in walking order. @param seatOf where records of a kind stand in it */
export const patchedJob = (doc: JobDocument, patches: readonly Patch[], seatOf: (kind: RecordKind) => SeatInJob): JobDocument =>
  inWalkingOrder(patches.reduce((d, patch) => patchedDocument(d, patch, seatOf(patch.kind)), doc));

/** The firm's own records after a change. @param seatOf where records of a kind stand among them */
export const patchedBench = (doc: BenchDocument, patches: readonly Patch[], seatOf: (kind: RecordKind) => SeatInBench): BenchDocument =>
  patches.reduce((d, patch) => patchedDocument(d, patch, seatOf(patch.kind)), doc);

/** True when these patches bring back something that is not in the document any more: then it has to be asked for anew. */
export function bringsBack(doc: JobDocument, patches: readonly Patch[], seatOf: (kind: RecordKind) => SeatInJob): boolean {
  const isMissing = (seat: SeatInJob, id: string): boolean => {
    if (seat === null || seat === 'the job itself' || seat === 'the firm itself') return false;
    const list = seat.split('.').reduce<unknown>((part, name) => (part as Readonly<Record<string, unknown>>)[name], doc) as readonly AnyRecord[];
    return !list.some((r) => r.id === id);
  };
  return patches.some((p) => p.op === 'set' && p.field === 'deletedAt' && p.value === null && isMissing(seatOf(p.kind), p.id));
}
