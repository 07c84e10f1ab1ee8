import type { BenchDocument, JobDocument, Patch, RecordKind, StockView } from '@yellow-pane/contracts';

const listOf: Partial<
  Record<RecordKind, 'places' | 'surfaces' | 'readings' | 'films' | 'rolls' | 'plans' | 'entries' | 'plotRuns' | 'persons' | 'layEntries' | 'stepSets'>
> = {
  person: 'persons',
  place: 'places',
  surface: 'surfaces',
  reading: 'readings',
  film: 'films',
  roll: 'rolls',
  plan: 'plans',
  logEntry: 'entries',
  plotRun: 'plotRuns',
  layEntry: 'layEntries',
  stepSet: 'stepSets',
};

type AnyRecord = { id: string; deletedAt?: string | null };

/** A list of records after one patch: what is deleted leaves it. */
const patched = <T extends AnyRecord>(list: readonly T[], patch: Patch): T[] =>
  (patch.op === 'add' ? [...list, patch.value as unknown as T] : list.map((r) => (r.id === patch.id ? { ...r, [patch.field]: patch.value } : r))).filter((r) => !r.deletedAt); // prettier-ignore

/** The stock's book after one patch; null when the patch is about something else. */
function patchedStock(stock: StockView, patch: Patch): StockView | null {
  if (patch.kind === 'stockEntry') return { ...stock, entries: patched(stock.entries, patch) };
  if (patch.kind === 'reservation') return { ...stock, reservations: patched(stock.reservations, patch) };
  return null;
}

/** The document after one patch. Deleted records leave it; a record set alive again comes back only by reloading. */
function applyPatch(doc: JobDocument, patch: Patch): JobDocument {
  if (patch.kind === 'job') return patch.op === 'set' ? { ...doc, job: { ...doc.job, [patch.field]: patch.value } } : doc;
  if (patch.kind === 'firm') return patch.op === 'set' ? { ...doc, firm: { ...doc.firm, [patch.field]: patch.value } } : doc;
  const stock = patchedStock(doc.stock, patch);
  if (stock) return { ...doc, stock };
  const key = listOf[patch.kind];
  if (!key) return doc;
  const list = doc[key] as unknown as AnyRecord[];
  const next =
    patch.op === 'add'
      ? // what comes back from the bench is the same record with what the bench added
        list.some((r) => r.id === patch.id)
        ? list.map((r) => (r.id === patch.id ? (patch.value as unknown as AnyRecord) : r))
        : [...list, patch.value as unknown as AnyRecord]
      : list.map((r) => (r.id === patch.id ? { ...r, [patch.field]: patch.value } : r));
  return { ...doc, [key]: next.filter((r) => !r.deletedAt) };
}

/** The document after a change, in walking order. */
export function applyPatches(doc: JobDocument, patches: readonly Patch[]): JobDocument {
  const next = patches.reduce(applyPatch, doc);
  const placeOrder = new Map(next.places.map((p) => [p.id, p.order]));
  return {
    ...next,
    places: [...next.places].sort((a, b) => a.order - b.order),
    surfaces: [...next.surfaces].sort((a, b) => (placeOrder.get(a.placeId) ?? 0) - (placeOrder.get(b.placeId) ?? 0) || a.order - b.order),
  };
}

/** True when these patches bring back something that is not in the document any more: then it must be loaded again. */
export const needsReload = (doc: JobDocument, patches: readonly Patch[]): boolean =>
  patches.some(
    (p) =>
      p.op === 'set' &&
      p.field === 'deletedAt' &&
      p.value === null &&
      !(listOf[p.kind] && (doc[listOf[p.kind]!] as unknown as AnyRecord[]).some((r) => r.id === p.id)),
  );

const benchLists: Partial<Record<RecordKind, 'persons' | 'films' | 'rolls' | 'rates' | 'quotes' | 'stepSets'>> = {
  person: 'persons',
  film: 'films',
  roll: 'rolls',
  rates: 'rates',
  quote: 'quotes',
  stepSet: 'stepSets',
};

/** The firm's own records after a change. */
export function applyBenchPatches(doc: BenchDocument, patches: readonly Patch[]): BenchDocument {
  return patches.reduce((d, patch): BenchDocument => {
    if (patch.kind === 'firm') return patch.op === 'set' ? { ...d, firm: { ...d.firm, [patch.field]: patch.value } } : d;
    const stock = patchedStock(d.stock, patch);
    if (stock) return { ...d, stock };
    const key = benchLists[patch.kind] ?? null;
    if (!key) return d;
    const list = d[key] as unknown as AnyRecord[];
    const next =
      patch.op === 'add' ? [...list, patch.value as unknown as AnyRecord] : list.map((r) => (r.id === patch.id ? { ...r, [patch.field]: patch.value } : r));
    return { ...d, [key]: next.filter((r) => !r.deletedAt) };
  }, doc);
}
