import type { CurvedPane, Drop, Film, Job, LayEntry, LearnedMinutes, Piece, Plan, Roll, StepSet, Surface } from '@yellow-pane/contracts';
import { contentHash } from '../ground/index.js';
import { defaultLay } from './default-lay.js';
import { anticlockwise, boundingBox, flatten, mirrored, pathLength, signedArea, vec, type Polygon } from '../geometry/index.js';
import { curvedOf, cutOutPath, paneToPiece, resolveAllowances, surveySurface, uprightBendOf, type JobRecords } from '../cut/index.js';
import { formRefusal, takesNoFullGun } from '../form/index.js';
import { bladeFor } from '../prepare/index.js';
import { rulings } from '../choose/index.js';
import { darkens, workClassOf } from '../films/index.js';
import { linesInForce, minutesTaken, paneProgress, type PaneProgress } from './progress.js';
import { learnMinutes, type PaneRates, type TimedPane } from './learn.js';
import { edgeGapFor, runSheetOf, sheetMinutes, stepSetOf, type LayPane, type Step } from './run-sheet.js';
import { planQuarters, planSqueegee, type QuartersRequest, type SqueegeeAnswer } from './squeegee-plan.js';

/** The records that laying looks at. */
export interface LayRecords extends JobRecords {
  readonly job: JobRecords['job'] & Pick<Job, 'lay' | 'firmId'>;
  readonly stepSets: readonly StepSet[];
  readonly layEntries: readonly LayEntry[];
}

/** Whether film on this pane is laid wet on flat glass: the steps of this stage. */
export const isWetLaid = (film: Pick<Film, 'drying' | 'mounting'> | undefined): boolean =>
  film !== undefined && film.drying !== 'dry-applied' && film.mounting !== 'not-on-glass';

/** An opening as strokes go round it: its box, or twelve sides round a round one. */
function squared(box: { minX: number; minY: number; maxX: number; maxY: number }, isRound: boolean): Polygon {
  const { minX, minY, maxX, maxY } = box;
  if (!isRound) return [vec(minX, minY), vec(maxX, minY), vec(maxX, maxY), vec(minX, maxY)];
  const r = (maxX - minX) / 2 / Math.cos(Math.PI / 12);
  return Array.from({ length: 12 }, (_, i) => vec((minX + maxX) / 2 + r * Math.cos((i * Math.PI) / 6), (minY + maxY) / 2 + r * Math.sin((i * Math.PI) / 6)));
}

/** The same records give the same pane: worked out once, however many lines of the log come in. */
const known = new WeakMap<Surface, { readonly from: readonly unknown[]; readonly pane: OutlinedPane | null }>();
type OutlinedPane = LayPane & { readonly outline: Polygon; readonly holes: readonly Polygon[] };

/** What is known of a pane for laying; null: it has no size or no wet-laid film yet. */
export function layPaneOf(surface: Surface, records: LayRecords): OutlinedPane | null {
  const from = [records.job, records.firm, records.surfaces, records.readings, records.films, records.rolls];
  const before = known.get(surface);
  if (before && before.from.every((x, i) => x === from[i])) return before.pane;
  const pane = workOutPane(surface, records);
  known.set(surface, { from, pane });
  return pane;
}

/** Under a bend or a slope a blade as high as the pane has nowhere to go: there it fills two thirds of it at most. @source house rule */
function bladeOf(outline: Polygon, bendPerMm: number | null | undefined): number {
  const box = boundingBox(outline);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const k = signedArea(outline) / (w * h) > 0.93 ? 1 : 2 / 3;
  return bladeFor({ widthMm: w * k, heightMm: h * k, bendPerMm });
}

/** What forbids this film on this glass, and who has to be asked first: the rules of Choose that need no sum, and those of forming. */
function forbidden(surface: Surface, film: Film, curved: CurvedPane | null): Pick<LayPane, 'refusal' | 'ask'> {
  const { glazing, filmFace, exposure } = surface;
  const rules = glazing ? rulings(film, glazing, filmFace, exposure?.isIndoors ?? false) : [];
  const said = (grade: 'do-not' | 'ask') => rules.flatMap((r) => (r.grade === grade ? [r.reason] : [])).join(' ') || null;
  const forming = curved && formRefusal({ curved, isLookout: glazing?.isLookout ?? false, film: { darkens: darkens(film) } });
  return { refusal: forming ?? said('do-not'), ask: said('ask') };
}

/** What gun a curved pane takes, by its stamp and its make-up. */
function gunFor(surface: Surface, curved: CurvedPane): NonNullable<LayPane['gun']> {
  if (curved.stamp === 'plastic') return 'never';
  if (takesNoFullGun({ curved, isLaminated: surface.glazing?.panes.some((p) => p.kind === 'laminated') ?? false })) return 'low';
  return curved.stamp === 'tempered' ? 'full' : 'unproven';
}

function workOutPane(surface: Surface, records: LayRecords): OutlinedPane | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveySurface(surface, records);
  if (!film || !isWetLaid(film) || !survey.outline) return null;
  const lay = records.job.lay ?? defaultLay;
  const allowances = resolveAllowances(records, surface);
  const cut = paneToPiece(surface, records, film);
  const curved = curvedOf(surface, records, (s) => surveySurface(s, records).survey);
  const seen = (ring: Polygon): Polygon => (surface.filmFace === surface.seenFrom ? ring : mirrored(ring));
  return {
    work: workClassOf(film),
    glass: !surface.curved ? 'flat' : film.mounting === 'outside' ? 'curved-outside' : 'curved',
    frame: surface.frame,
    method: 'piece' in cut.answer ? cut.answer.piece.method : cut.used,
    areaM2: signedArea(survey.outline) / 1e6,
    edgeM: (survey.path ? pathLength(survey.path) : 0) / 1000,
    edgeGapMm: edgeGapFor(film, allowances.edgeGapMm),
    overhangMm: allowances.overhangMm,
    bladeMm: lay.bladeMm ?? bladeOf(survey.outline, uprightBendOf(surface, records)),
    filmName: film.name,
    ...(curved ? { gun: gunFor(surface, curved) } : {}),
    ...forbidden(surface, film, curved),
    units: records.job.units,
    holes: surface.cutOuts.map((c) => seen(squared(boundingBox(flatten(anticlockwise(cutOutPath(c, survey.outline!, 0)))), c.isRound))),
    // one works on the face that gets the film: seen from the other side than it was taped from, it is mirrored
    outline: seen(survey.outline),
  };
}

/** The steps of a pane by the version that its job is worked by. */
export function sheetOfSurface(surface: Surface, records: LayRecords): { readonly set: StepSet; readonly steps: Step[]; readonly minutes: number } | null {
  const pane = layPaneOf(surface, records);
  if (!pane) return null;
  const set = stepSetOf(records.job.firmId, records.stepSets, records.layEntries);
  const steps = runSheetOf(set, pane, records.job.lay ?? defaultLay);
  return { set, steps, minutes: sheetMinutes(steps) };
}

/** What laying has to know of the shrink plan of a curved pane: the film's edge where it will lie, and the line, in the plane that bows were read in. */
export type FormedFilm = { readonly finished: Polygon; readonly anchor: { readonly line: Polygon } };

/**
 * Strokes of a pane, seen from the face that is worked on. Null: nothing to lay yet.
 * @param formed of curved glass, where its plan is known
 */
export function squeegeeOfSurface(surface: Surface, records: LayRecords, formed: FormedFilm | null = null): SqueegeeAnswer | null {
  const pane = layPaneOf(surface, records);
  if (!pane) return null;
  const lay = records.job.lay ?? defaultLay;
  const { outline, holes, bladeMm, edgeGapMm } = pane;
  if (surface.curved)
    return formed
      ? quartersOf(surface, formed, { bladeMm, overlapMm: lay.overlapMm, isThick: pane.work === 'security' })
      : { ok: false, why: 'Its strokes go out from the line of its shrink plan, and there is none yet: see Forming in Choose.' };
  const request = { outline, holes, bladeMm, overlapMm: lay.overlapMm, lock: lay.lock, edgeGapMm, isThick: pane.work === 'security' };
  const hash = contentHash(request);
  const answer = planned.get(hash) ?? planSqueegee(request);
  if (planned.size > 500) planned.clear();
  planned.set(hash, answer);
  return answer;
}

function quartersOf(surface: Surface, { finished, anchor }: FormedFilm, how: Pick<QuartersRequest, 'bladeMm' | 'overlapMm' | 'isThick'>): SqueegeeAnswer {
  const isSame = surface.filmFace === surface.seenFrom;
  const [first, last] = [anchor.line[0]!, anchor.line.at(-1)!];
  const line: QuartersRequest['line'] = isSame ? [first, last] : [vec(-last.x, last.y), vec(-first.x, first.y)];
  const request: QuartersRequest = { ...how, outline: isSame ? finished : mirrored(finished), line };
  const hash = contentHash(request);
  const answer = planned.get(hash) ?? planQuarters(request);
  if (planned.size > 500) planned.clear();
  planned.set(hash, answer);
  return answer;
}

/** The same pane by the same school has the same strokes: planned once. */
const planned = new Map<string, SqueegeeAnswer>();

/** The roll that a pane's piece lies on in its newest plan; null: none, or a piece of each of several. */
export function rollOfPane(surfaceId: string, records: { readonly plans: readonly Plan[]; readonly rolls: readonly Roll[] }): Roll | null {
  const plan = records.plans.filter((p) => p.pieces.some((q) => isOf(q, surfaceId))).sort((a, b) => b.updatedAt.localeCompare(a.updatedAt))[0];
  if (!plan) return null;
  const own = new Set(plan.pieces.filter((q) => isOf(q, surfaceId)).map((q) => q.id));
  const lies = (drop: Drop) => drop.columns.some((c) => c.rows.some((r) => r.pieces.some((p) => own.has(p.pieceId))));
  const rollIds = plan.layout.rolls.filter((r) => r.drops.some(lies)).map((r) => r.rollId);
  return rollIds.length === 1 ? (records.rolls.find((r) => r.id === rollIds[0]) ?? null) : null;
}
const isOf = (piece: Piece, surfaceId: string): boolean => piece.surfaceId === surfaceId || piece.parts.some((p) => p.surfaceId === surfaceId);

/** How far each pane has come, by its id; panes that nobody can lay yet are left out. */
export function layProgress(records: LayRecords): ReadonlyMap<string, PaneProgress> {
  const byPane = new Map<string, LayEntry[]>();
  for (const e of records.layEntries) if (e.surfaceId) byPane.set(e.surfaceId, [...(byPane.get(e.surfaceId) ?? []), e]);
  return new Map(
    records.surfaces.flatMap((s) => {
      const entries = byPane.get(s.id) ?? [];
      const sheet = sheetOfSurface(s, records);
      return sheet || entries.length ? [[s.id, paneProgress(entries, sheet?.steps ?? [])] as const] : [];
    }),
  );
}

/** Panes of a job whose taps tell how long they took. */
export function timedPanes(records: LayRecords): TimedPane[] {
  const lines = linesInForce(records.layEntries);
  return records.surfaces.flatMap((s) => {
    const minutes = minutesTaken(s.id, lines);
    const pane = minutes === null ? null : layPaneOf(s, records);
    return pane && minutes !== null ? [{ work: pane.work, jobId: records.job.id, minutes, areaM2: pane.areaM2 }] : [];
  });
}

/** What all jobs of the firm have taught. */
export const learnedFrom = (jobs: readonly LayRecords[], rates: PaneRates): LearnedMinutes => learnMinutes(jobs.flatMap(timedPanes), rates);
