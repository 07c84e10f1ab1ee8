import type { Acceptance, LayEntry, SealCheck, Surface, SurfaceKind, SurfaceOf } from '@yellow-pane/contracts';
import { sha256Of, shelf, type Memo } from '../ground/index.js';
import { readingsInForce } from '../measure/index.js';
import type { LayRecords } from '../lay/index.js';

/** Counts up when what a seal is made over changes; an older seal is reckoned the old way. */
const SEAL_VERSION = 1;
/** Lines that say what became of the record, and are no part of it. */
const aboutTheRecord: ReadonlySet<LayEntry['kind']> = new Set(['accepted', 'called', 'erased']);

/** What of a line may have to be erased one day, as one sum that tells nothing of it. */
export const commitmentOf = (e: LayEntry): string =>
  e.erased?.commitment ?? sha256Of({ salt: e.salt ?? e.id, text: e.text.trim(), photo: e.photo, signature: e.signature });

/** A line never changes: it is summed up once. */
const lineSums = shelf<string>(Infinity);

/** Sum over a line: named fields, so that one that is new since changes no seal of before. When the bench wrote it down is not in it: the device does not know. */
const lineSum = (e: LayEntry): string =>
  sha256Of({
    id: e.id,
    surfaceId: e.surfaceId,
    personId: e.personId,
    occurredAt: e.occurredAt,
    stepSetId: e.stepSetId,
    kind: e.kind,
    stepKey: e.stepKey,
    reading: e.reading,
    found: e.found,
    problem: e.problem,
    roll: e.roll,
    correctsId: e.correctsId,
    look: e.look ?? null,
    pin: e.pin ?? null,
    news: e.news ?? null,
    // what came later stands in a sum only where it is said, so that seals of before still hold
    ...(e.zone ? { zone: e.zone } : {}),
    personal: commitmentOf(e),
  });

/** Sum over what no line of the log says of a pane: name, faces, film, every tape in force, every bow of curved glass. */
/** What of each kind of surface a seal is made over, besides what all have. */
const ownOfKind: { readonly [K in SurfaceKind]: (s: SurfaceOf<K>) => object } = {
  pane: (s) => ({ seenFrom: s.seenFrom, filmFace: s.filmFace, bows: s.curved?.bows.map((b) => [b.way, b.atMm, b.span, b.depthMm]) ?? null }),
  column: ({ kind, section, ends: { foot, head } }) => ({ kind, section, ...(foot === 'base' ? { foot } : {}), ...(head === 'capital' ? { head } : {}) }),
  // what came later stands in a seal only where something is said, so that seals of before still hold
  panel: ({ kind, what, faces, wraps, grain, grooves, recesses, corrugation, dome, corners, hardware, head, besideId }) => ({ kind, what, faces, wraps, grain, grooves, hardware, ...(head === 'any' ? {} : { head }), ...(besideId ? { besideId } : {}), ...(recesses.length ? { recesses: recesses.map(({ way, ...r }) => (way ? { ...r, way } : r)) } : {}), ...(corrugation ? { corrugation } : {}), ...(dome ? { dome } : {}), ...(corners ? { corners } : {}) }), // prettier-ignore
  wall: ({ kind, left, right, nextId, seam, hanging, lie, hardware, masonry, breaks }) => ({
    kind,
    left,
    right,
    nextId,
    seam,
    hardware,
    masonry,
    ...(breaks.length ? { breaks } : {}),
    ...(hanging === 'book' ? { hanging } : {}),
    ...(lie === 'level' ? { lie } : {}),
  }),
  sign: ({ kind, what, texture, lines, hardware }) => ({ kind, what, texture, lines, hardware }),
  counter: ({ kind, what, sides, round, grain, seam, hardware, besideId }) => ({
    kind,
    what,
    sides,
    round,
    grain,
    seam,
    hardware,
    ...(besideId ? { besideId } : {}),
  }),
};

function paneSum(surfaceId: string, records: LayRecords): string | null {
  const surface = records.surfaces.find((s) => s.id === surfaceId);
  if (!surface) return null;
  const film = records.films.find((f) => f.id === surface.filmId);
  const tapes = readingsInForce(surface, records.surfaces, records.readings).map((r) => [r.measure, r.lengthMm]);
  return sha256Of({
    id: surface.id,
    name: surface.name,
    film: film ? { id: film.id, name: film.name, version: film.version } : null,
    ...(ownOfKind[surface.kind] as (s: Surface) => object)(surface),
    tapes: tapes.sort(([a], [b]) => (a! < b! ? -1 : 1)),
  });
}

function sealOver(jobId: string, panes: Acceptance['panes'], lines: readonly LayEntry[], memo: Memo): string {
  const byId = <T>(list: readonly T[], id: (t: T) => string): T[] => [...list].sort((a, b) => (id(a) < id(b) ? -1 : 1));
  return sha256Of({
    version: SEAL_VERSION,
    jobId,
    panes: byId(panes, (p) => p.surfaceId),
    lines: byId(lines, (e) => e.id).map((e) => [e.id, memo.onceFor(lineSums, e, [], () => lineSum(e))]),
  });
}

/** Lines of panes and of the whole job; what takes a line about the record back is about the record too. */
function linesOf(surfaceIds: ReadonlySet<string>, entries: readonly LayEntry[]): LayEntry[] {
  const about = new Set(entries.flatMap((e) => (aboutTheRecord.has(e.kind) ? [e.id] : [])));
  return entries.filter((e) => !about.has(e.id) && !about.has(e.correctsId ?? '') && (e.surfaceId === null || surfaceIds.has(e.surfaceId)));
}

/**
 * The seal over panes as their record stands now: SHA-256 over the canonical text of what is known of each and of every line of their log.
 * Names of the customer are not in it; words, photos and signatures are, as sums of their own, so that they can be erased without breaking it.
 * @param withoutIds lines whose photo is still on its way to the bench, which names it: they come later
 */
export function sealPanes(
  surfaceIds: readonly string[],
  records: LayRecords & { readonly job: { readonly id: string } },
  withoutIds: ReadonlySet<string> = new Set(),
): Acceptance {
  const panes = [...surfaceIds].sort().flatMap((surfaceId) => {
    const sha256 = paneSum(surfaceId, records);
    return sha256 ? [{ surfaceId, sha256 }] : [];
  });
  const lines = linesOf(new Set(surfaceIds), records.layEntries).filter((e) => !withoutIds.has(e.id));
  return { seal: sealOver(records.job.id, panes, lines, records.memo), panes, lineIds: lines.map((e) => e.id).sort() };
}

const count = (n: number, one: string, many: string): string => (n === 1 ? `1 ${one}` : `${n} ${many}`);

/** How a seal stands now: reckoned anew over the lines and panes that it was made over. @param entry a line of kind `accepted` */
export function checkSeal(
  entry: LayEntry,
  records: LayRecords & { readonly job: { readonly id: string }; readonly persons: readonly { readonly id: string; readonly name: string }[] },
): SealCheck | null {
  const made = entry.acceptance;
  if (!made) return null;
  const ids = new Set(made.panes.map((p) => p.surfaceId));
  const known = new Set(made.lineIds);
  const all = linesOf(ids, records.layEntries);
  const lines = all.filter((e) => known.has(e.id));
  const later = all.filter((e) => !known.has(e.id));
  const nameOf = (id: string) => records.surfaces.find((s) => s.id === id)?.name ?? 'a pane that is gone';
  const says: string[] = [];
  const moved = made.panes.filter((p) => paneSum(p.surfaceId, records) !== p.sha256);
  if (moved.length) says.push(`Not as it was signed: ${moved.map((p) => nameOf(p.surfaceId)).join(', ')} (name, faces, film, tapes or bows).`);
  const missing = made.lineIds.length - lines.length;
  if (missing > 0) says.push(`${count(missing, 'line', 'lines')} of the log that it was made over ${missing === 1 ? 'is' : 'are'} gone.`);
  // with the panes as they were then: what is left to differ is a line
  if (missing <= 0 && sealOver(records.job.id, made.panes, lines, records.memo) !== made.seal)
    says.push('A line of the log, or the seal itself, is not as it was signed.');
  const isChanged = says.length > 0;
  const erased = lines.filter((e) => e.erased);
  if (erased.length) says.push(`${count(erased.length, 'line has', 'lines have')} had something personal erased since; the rest is proven as it was.`);
  const onTheWay = later.filter((e) => e.occurredAt <= entry.occurredAt);
  if (onTheWay.length) says.push(`${count(onTheWay.length, 'line was', 'lines were')} on the way from another device, or with a photo, when it was signed.`);
  const added = later.filter((e) => e.occurredAt > entry.occurredAt);
  if (added.length) {
    const last = added.reduce((a, b) => (a.occurredAt > b.occurredAt ? a : b));
    const who = records.persons.find((p) => p.id === last.personId)?.name ?? 'somebody';
    const where = last.surfaceId ? nameOf(last.surfaceId) : 'the job';
    says.push(`${count(added.length, 'line', 'lines')} came later, the last by ${who} on ${where} at ${last.occurredAt.slice(0, 16).replace('T', ' ')} UTC.`);
  }
  if (!says.length) says.push('Unchanged since it was signed.');
  return {
    entryId: entry.id,
    signedBy: entry.signature?.name ?? (entry.erased ? 'erased' : 'nobody'),
    signedAt: entry.occurredAt,
    seal: made.seal,
    verdict: isChanged ? 'changed' : erased.length ? 'erased' : later.length ? 'added' : 'unchanged',
    says,
  };
}

/** Sums as people compare them: in groups of four. */
export const groupedSeal = (seal: string): string => seal.match(/.{1,4}/g)!.join(' ');
