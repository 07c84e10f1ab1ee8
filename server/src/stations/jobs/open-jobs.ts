import { kindOf, type Change, type JobDocument, type Patch, type RecordKind } from '@yellow-pane/contracts';
import { bringsBack, inWalkingOrder, patchedJob } from '@yellow-pane/core';

/** Jobs that are kept as they stand. @source house rule: what a crew has open, the office and the papers */
const MOST_KEPT = 24;
/** A change of more is an import: reading the job anew is sooner done than following it. @source house rule */
const FOLLOWED_PATCHES = 60;

type Lists = Readonly<Record<string, readonly { readonly id: string }[]>>;
const inJob = (kind: RecordKind) => kindOf(kind).inJob;

/** Kinds of which every job shows all, whoever changes them. */
const isShared = (kind: RecordKind): boolean => kind !== 'job' && kindOf(kind).of !== 'job' && inJob(kind) !== null;

/** What of a change a document of a job shows. */
export const shownIn = (jobId: string, change: Pick<Change, 'jobId' | 'patches'>): Patch[] =>
  change.jobId === jobId ? change.patches : change.patches.filter((p) => isShared(p.kind));

/** Names of jobs that hold film stand in the stock, and movements only on rolls that are there: no patch tells how these change. */
const movesNames = (doc: JobDocument, p: Patch): boolean =>
  (p.kind === 'job' && p.op === 'set' && (p.field === 'name' || p.field === 'deletedAt')) ||
  (p.kind === 'roll' && p.op === 'set' && p.field === 'deletedAt') ||
  ((p.kind === 'stockEntry' || p.kind === 'reservation') &&
    (p.op === 'set' || (typeof p.value['jobId'] === 'string' && doc.stock.jobNames[p.value['jobId']] === undefined)));

const byId = <T extends { readonly id: string }>(list: readonly T[]): T[] => [...list].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));

/** Lists that patches touch, in the order in which the database gives them. */
function inOrder(doc: JobDocument, patches: readonly Patch[]): JobDocument {
  let next: JobDocument = doc;
  for (const seat of new Set(patches.filter((p) => p.op === 'add' || p.kind === 'surface' || p.kind === 'place').map((p) => inJob(p.kind)))) {
    if (seat === null || seat === 'the job itself' || seat === 'the firm itself') continue;
    const [first, second] = seat.split('.') as [keyof JobDocument, string | undefined];
    if (second === undefined) next = { ...next, [first]: byId((next as unknown as Lists)[first]!) };
    else next = { ...next, [first]: { ...(next[first] as object), [second]: byId((next[first] as unknown as Lists)[second]!) } };
  }
  return next === doc ? doc : { ...next, stepSets: [...next.stepSets].sort((a, b) => a.version - b.version) };
}

/**
 * Jobs as they stand, brought along by every change, so that opening one asks the database nothing. Whoever is handed one does not write into it. What a
 * change does to a document is core's to say, as on every page; where it says too little, the job is read anew.
 */
export class OpenJobs {
  /** The one asked for longest ago first. */
  private readonly docs = new Map<string, JobDocument>();
  private lastHeard = 0;

  get(jobId: string): JobDocument | undefined {
    const doc = this.docs.get(jobId);
    if (doc) this.put(jobId, doc);
    return doc;
  }

  /** One that was read just now; while it was, something may have changed. */
  keep(doc: JobDocument): void {
    if (doc.revision >= this.lastHeard) this.put(doc.job.id, doc);
  }

  hear(change: Change): void {
    this.lastHeard = Math.max(this.lastHeard, change.revision);
    for (const [jobId, doc] of this.docs) {
      const patches = shownIn(jobId, change);
      // one that it has already, or one that comes after another that nobody told of
      const isOutOfTurn = change.revision !== doc.revision + 1;
      const mayNotFollow =
        isOutOfTurn || change.patches.length > FOLLOWED_PATCHES || change.patches.some((p) => movesNames(doc, p)) || bringsBack(doc, patches, inJob);
      if (mayNotFollow) this.docs.delete(jobId);
      else if (patches.length === 0) this.docs.set(jobId, { ...doc, revision: change.revision });
      // rooms and panes are put in walking order, equal ones as the database gives them
      else this.docs.set(jobId, { ...inWalkingOrder(inOrder(patchedJob(doc, patches, inJob), patches)), revision: change.revision });
    }
  }

  /** All are read anew. */
  forget(): void {
    this.docs.clear();
  }

  private put(jobId: string, doc: JobDocument): void {
    this.docs.delete(jobId);
    this.docs.set(jobId, doc);
    for (const oldest of this.docs.keys()) if (this.docs.size > MOST_KEPT) this.docs.delete(oldest);
  }
}

/** Texts of records and lists as they were written last; none of them ever changes, an edit puts another in its place. */
const texts = new WeakMap<object, string>();
function textOf(value: unknown): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const known = texts.get(value);
  if (known !== undefined) return known;
  const text = Array.isArray(value) ? `[${value.map(textOf).join()}]` : JSON.stringify(value);
  texts.set(value, text);
  return text;
}

/** An open job as JSON: what no edit has touched since it was written last is not written anew. */
export const documentAsJson = (doc: object): string =>
  `{${Object.entries(doc)
    .map(([name, value]) => `${JSON.stringify(name)}:${textOf(value)}`)
    .join()}}`;
