import type {
  Blades,
  CurvedPane,
  Drop,
  FaceFound,
  Film,
  LayEntry,
  PaneTrait,
  Piece,
  Plan,
  Roll,
  ShrinkPlan,
  StepSet,
  Surface,
  SurfaceKind,
  SurfaceOf,
  Pane,
} from '@yellow-pane/contracts';
import { contentHash, Memo, shelf, toldAll } from '../ground/index.js';
import { defaultLay, usualBlades } from './default-lay.js';
import { columnFigures } from './column-sheet.js';
import { stepsOfDry, type DryFigures } from './dry-sheet.js';
import { stepsOfGround } from './ground-steps.js';
import type { DrySurface } from '../measure/index.js';
import type { LayRecords } from './lay-records.js';
import { counterFigures } from './counter-sheet.js';
import { panelFigures } from './panel-sheet.js';
import { signFigures } from './sign-sheet.js';
import { wallFigures } from './wall-sheet.js';
import { anticlockwise, boundingBox, cornerAngleDeg, flatten, mirrored, pathLength, signedArea, uprightSpanAt, vec, type Polygon } from '../geometry/index.js';
import { curvedOf, cutOutPath, isForDesigns, isLaterPlan, newestPlans, paneToPiece, piecesOfPane, resolveAllowances, uprightBendOf } from '../cut/index.js';
import { formRefusal, isArch, surveySurface, takesNoFullGun } from '../form/index.js';
import { boxOfFilm, pressingBladeFor, wantedFor } from '../prepare/index.js';
import { careOfFace, rulings } from '../choose/index.js';
import { darkens, isLaidDry, workClassOf } from '../films/index.js';
import { linesInForce, minutesTaken, paneProgress, type PaneProgress } from './progress.js';
import type { TimedPane } from './learn.js';
import { runSheetOf, sheetMinutes, stepSetOf, type LayPane, type Step } from './run-sheet.js';
import { planQuarters, planSqueegee, type QuartersRequest, type SqueegeeAnswer, type SqueegeeRequest } from './squeegee-plan.js';

/** Whether film on this pane is laid wet: the steps of glass. */
const isWetLaid = (film: Pick<Film, 'drying' | 'mounting'> | undefined): boolean => film !== undefined && !isLaidDry(film);

/** An opening as strokes go round it: its box, or twelve sides round a round one. */
function squared(box: { minX: number; minY: number; maxX: number; maxY: number }, isRound: boolean): Polygon {
  const { minX, minY, maxX, maxY } = box;
  if (!isRound) return [vec(minX, minY), vec(maxX, minY), vec(maxX, maxY), vec(minX, maxY)];
  const r = (maxX - minX) / 2 / Math.cos(Math.PI / 12);
  return Array.from({ length: 12 }, (_, i) => vec((minX + maxX) / 2 + r * Math.cos((i * Math.PI) / 6), (minY + maxY) / 2 + r * Math.sin((i * Math.PI) / 6)));
}

/** The same records give the same pane: worked out once, however many lines of the log come in. */
const layPanes = shelf<OutlinedPane | null>(Infinity);
type OutlinedPane = LayPane & { readonly outline: Polygon; readonly holes: readonly Polygon[] };

/** What is known of a pane for laying; null: it has no size or no wet-laid film yet. */
export function layPaneOf(surface: Pane, records: LayRecords): OutlinedPane | null {
  const from = [records.job, records.firm, records.surfaces, records.readings, records.films, records.rolls];
  return records.memo.onceFor(layPanes, surface, from, () => workOutPane(surface, records));
}

/** Under a bend or a slope a blade as high as the pane has nowhere to go: there it fills two thirds of it at most. @source house rule */
function bladeOf(outline: Polygon, bendPerMm: number | null | undefined, isThick: boolean, blades: Blades): number {
  const box = boundingBox(outline);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const k = signedArea(outline) / (w * h) > 0.93 ? 1 : 2 / 3;
  return pressingBladeFor({ widthMm: w * k, heightMm: h * k, bendPerMm }, isThick, blades);
}

/** What forbids this film on this glass, and who has to be asked first: the rules of Choose that need no sum, and those of forming. */
function forbidden(surface: Pane, film: Film, curved: CurvedPane | null, isAnchored: boolean): Pick<LayPane, 'refusal' | 'ask'> {
  const { glazing, filmFace, exposure } = surface;
  const rules = glazing ? rulings(film, glazing, filmFace, exposure?.isIndoors ?? false, isAnchored) : [];
  const said = (grade: 'do-not' | 'ask') => rules.flatMap((r) => (r.grade === grade ? [r.reason] : [])).join(' ') || null;
  const forming = curved && formRefusal({ curved, isLookout: glazing?.isLookout ?? false, film: { darkens: darkens(film) } });
  return { refusal: forming ?? said('do-not'), ask: said('ask') };
}

/** What gun a curved pane takes, by its stamp and its make-up. */
function gunFor(surface: Pane, curved: CurvedPane): NonNullable<LayPane['gun']> {
  if (curved.stamp === 'plastic') return 'never';
  if (takesNoFullGun({ curved, isLaminated: surface.glazing?.panes.some((p) => p.kind === 'laminated') ?? false })) return 'low';
  return curved.stamp === 'tempered' ? 'full' : 'unproven';
}

function workOutPane(surface: Pane, records: LayRecords): OutlinedPane | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveySurface(surface, records);
  if (!film || !isWetLaid(film) || !survey.outline) return null;
  const lay = records.job.lay ?? defaultLay;
  const allowances = resolveAllowances(records, surface, film);
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
    edgeGapMm: allowances.edgeGapMm,
    overhangMm: allowances.overhangMm,
    bladeMm: lay.bladeMm ?? bladeOf(survey.outline, uprightBendOf(surface, records), workClassOf(film) === 'security', records.firm.blades ?? usualBlades),
    filmName: film.name,
    has: surface.curved ? [] : traitsOf(surface, survey.outline, cut),
    ...(curved
      ? { gun: gunFor(surface, curved), anchor: isArch(curved) ? 'arch' : curved.anchor.kind === 'through' || curved.anchor.kind === 'forced' ? 'own' : 'h' }
      : {}),
    ...forbidden(surface, film, curved, lay.edge === 'anchored'),
    ...careOf(surface),
    units: records.job.units,
    holes: surface.cutOuts.map((c) => seen(squared(boundingBox(flatten(anticlockwise(cutOutPath(c, survey.outline!, 0)))), c.isRound))),
    // one works on the face that gets the film: seen from the other side than it was taped from, it is mirrored
    outline: seen(survey.outline),
  };
}

/** A corner flatter than this is a bend of a curve. @source as the strokes take it */
const CORNER_DEG = 150;

/** What of a flat pane and its pieces asks for steps of its own. */
function traitsOf(surface: Pane, outline: Polygon, cut: ReturnType<typeof paneToPiece>): PaneTrait[] {
  const made = piecesOfPane(cut);
  const pieces = 'pieces' in made ? made.pieces : [];
  const hasCorners = outline.some((_, i) => cornerAngleDeg(outline, i) <= CORNER_DEG);
  const isDesigned = surface.design !== null && isForDesigns(cut.film);
  return [
    hasCorners ? 'corners' : 'round',
    ...(surface.seam && !isDesigned && pieces.length > 1 ? [`seam-${surface.seam.kind}` as const] : []),
    ...(isDesigned && pieces.length > 1 ? ['bands' as const] : []),
    ...(pieces.some((p) => p.isPlotted) ? ['plotted' as const] : []),
    ...(surface.cutOuts.length ? ['cut-outs' as const] : []),
  ];
}

const careOf = (surface: Pane, found?: FaceFound): Pick<LayPane, 'care' | 'careWhy'> => {
  const { care, why } = careOfFace(surface, found);
  return { care, careWhy: why };
};

/** What is read off a log once for all panes. */
interface LogReading {
  readonly set: StepSet;
  /** What somebody felt the face of a pane to be, by the newest line in force. */
  readonly found: ReadonlyMap<string, FaceFound>;
}
const readings = shelf<LogReading>(Infinity);
const readingOf = ({ job, stepSets, layEntries, memo }: LayRecords): LogReading =>
  memo.onceFor(readings, layEntries, [job.firmId, stepSets], () => {
    const found = new Map<string, FaceFound>();
    if (layEntries.some((e) => e.kind === 'found'))
      for (const e of linesInForce(layEntries)) if (e.kind === 'found' && e.surfaceId && e.found) found.set(e.surfaceId, e.found);
    return { set: stepSetOf(job.firmId, stepSets, layEntries), found };
  });

interface PaneSheet {
  readonly set: StepSet;
  readonly steps: Step[];
  readonly minutes: number;
}
const sheets = shelf<PaneSheet>(Infinity);

/** What each kind of surface needs for laying: whether it can be laid yet, its steps, and how large it is. */
interface LayOf<S extends Surface> {
  readonly canBeLaid: (surface: S, records: LayRecords) => boolean;
  readonly sheet: (surface: S, records: LayRecords) => PaneSheet | null;
  /** What its time is learnt by; null: it cannot be laid yet. */
  readonly sizedWork: (surface: S, records: LayRecords) => Pick<TimedPane, 'work' | 'areaM2'> | null;
}
const layOfKind: { readonly [K in SurfaceKind]: LayOf<SurfaceOf<K>> } = {
  pane: {
    canBeLaid: (s, records) => isWetLaid(records.films.find((f) => f.id === s.filmId)) && surveySurface(s, records).survey.outline !== null,
    sheet(s, records) {
      const known = layPaneOf(s, records);
      return known && sheetOf(known, s, records);
    },
    sizedWork: layPaneOf,
  },
  column: dry(columnFigures),
  panel: dry(panelFigures),
  wall: dry(wallFigures),
  counter: dry(counterFigures),
  sign: dry(signFigures),
};
const layOf = (surface: Surface): LayOf<Surface> => layOfKind[surface.kind] as LayOf<Surface>;

/** How a kind is laid that film goes on dry, by its figures (null: it cannot be laid yet). The firm’s rates know the minutes of glass only. */
function dry<S extends DrySurface>(figuresOf: (surface: S, records: LayRecords) => DryFigures | null): LayOf<S> {
  const sheet = (surface: S, records: LayRecords): PaneSheet | null => {
    const known = figuresOf(surface, records);
    if (!known) return null;
    const { set } = readingOf(records);
    const film = records.films.find((f) => f.id === surface.filmId);
    const ground = stepsOfGround(surface.ground, known.areaM2, records.job.prepare, film ? boxOfFilm(film, records.rolls) : null, wantedFor(film, surface));
    const steps = toldAll(stepsOfDry(set, surface.kind, known, ground, (records.job.lay ?? defaultLay).postHeat), records.job.units);
    return { set, steps, minutes: sheetMinutes(steps) };
  };
  return { sheet, canBeLaid: (surface, records) => figuresOf(surface, records) !== null, sizedWork: () => null };
}

/** The steps of a surface by the version that its job is worked by; null: it has no size or no film that is laid on it. */
export const sheetOfSurface = (surface: Surface, records: LayRecords): PaneSheet | null => layOf(surface).sheet(surface, records);
/** Written once for what is known of the pane (which is known anew with every change of its job), by this set of steps and what somebody felt the face to be. */
function sheetOf(known: OutlinedPane, surface: Pane, records: LayRecords): PaneSheet {
  const { set, found: all } = readingOf(records);
  const found = all.get(surface.id) ?? null;
  return records.memo.onceFor(sheets, known, [set.id, records.stepSets, found], () => {
    const pane = { ...known, ...careOf(surface, found ?? undefined) };
    const steps = toldAll(runSheetOf(set, pane, records.job.lay ?? defaultLay), records.job.units);
    return { set, steps, minutes: sheetMinutes(steps) };
  });
}

/** What laying has to know of the shrink plan of a curved pane: the film's edge where it will lie, and the line, in the plane that bows were read in. */
export type FormedFilm = { readonly finished: Polygon; readonly anchor: { readonly kind?: ShrinkPlan['anchor']['kind']; readonly line: Polygon } };

/** Shares of the width at which an upper edge has its shoulders: rounded corners lie farther out. @source house rule */
const SHOULDERS = [0.1, 0.9];
/** The lower one of the two shoulders of an upper edge. */
function shoulderOf(outline: Polygon): number {
  const { minX, maxX, maxY } = boundingBox(outline);
  return Math.min(...SHOULDERS.map((k) => uprightSpanAt(outline, minX + k * (maxX - minX))?.[1] ?? maxY));
}

/** What the strokes of a pane are planned from: plain data, so that a worker can do it. */
export type StrokesAsked = { readonly way: 'flat'; readonly request: SqueegeeRequest } | { readonly way: 'quarters'; readonly request: QuartersRequest };

/**
 * What is asked for the strokes of a pane, seen from the face that is worked on. Null: nothing to lay yet.
 * @param formed of curved glass, where its plan is known; without it there is a sentence instead
 */
export function strokesAskedOf(surface: Pane, records: LayRecords, formed: FormedFilm | null = null): StrokesAsked | { readonly none: string } | null {
  const pane = layPaneOf(surface, records);
  if (!pane) return null;
  const { overlapMm, lock } = records.job.lay ?? defaultLay;
  const { outline, holes, bladeMm, edgeGapMm } = pane;
  const isThick = pane.work === 'security';
  if (!surface.curved) return { way: 'flat', request: { outline, holes, bladeMm, overlapMm, lock, edgeGapMm, isThick } };
  if (!formed) return { none: 'Its strokes go out from the line of its shrink plan, and there is none yet: see Forming in Choose.' };
  const { finished, anchor } = formed;
  const isSame = surface.filmFace === surface.seenFrom;
  const [first, last] = [anchor.line[0]!, anchor.line.at(-1)!];
  // an arch runs along the upper edge and down both sides: the first whole lane lies under its shoulders, what stands over them is done with it
  const shoulderMm = anchor.kind === 'arch' ? shoulderOf(finished) : null;
  const [a, b] = [vec(first.x, shoulderMm ?? first.y), vec(last.x, shoulderMm ?? last.y)];
  const line: QuartersRequest['line'] = isSame ? [a, b] : [vec(-b.x, b.y), vec(-a.x, a.y)];
  return { way: 'quarters', request: { bladeMm, overlapMm, isThick, outline: isSame ? finished : mirrored(finished), line } };
}

/** The same pane by the same school has the same strokes: planned once. */
const strokes = shelf<SqueegeeAnswer>(500);

/** Strokes as they were asked for. */
export const planStrokes = (asked: StrokesAsked, memo = new Memo()): SqueegeeAnswer =>
  memo.once(strokes, contentHash(asked), () => (asked.way === 'flat' ? planSqueegee(asked.request) : planQuarters(asked.request)));

/** Strokes of a pane, seen from the face that is worked on. Null: nothing to lay yet. @param formed of curved glass, where its plan is known */
export function squeegeeOfSurface(surface: Pane, records: LayRecords, formed: FormedFilm | null = null): SqueegeeAnswer | null {
  const asked = strokesAskedOf(surface, records, formed);
  return asked && ('none' in asked ? { ok: false, why: asked.none } : planStrokes(asked, records.memo));
}

/** The roll that a pane's piece lies on in its newest plan; null: none, or a piece of each of several. */
export function rollOfPane(surfaceId: string, records: { readonly plans: readonly Plan[]; readonly rolls: readonly Roll[] }): Roll | null {
  const plans = [...newestPlans(records.plans).values()].filter((p) => p.pieces.some((q) => isOf(q, surfaceId)));
  const plan = plans.reduce<Plan | null>((a, b) => (a && isLaterPlan(a, b) ? a : b), null);
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
    records.surfaces.flatMap((s): [string, PaneProgress][] => {
      const entries = byPane.get(s.id) ?? [];
      // of a pane that nobody has touched its steps say nothing
      if (entries.length === 0) return layOf(s).canBeLaid(s, records) ? [[s.id, paneProgress([], [])]] : [];
      return [[s.id, paneProgress(entries, sheetOfSurface(s, records)?.steps ?? [])]];
    }),
  );
}

/** Panes of a job whose taps tell how long they took. */
export function timedPanes(records: LayRecords): TimedPane[] {
  const lines = linesInForce(records.layEntries);
  return records.surfaces.flatMap((s) => {
    const minutes = minutesTaken(s.id, lines);
    const known = minutes === null ? null : layOf(s).sizedWork(s, records);
    return known && minutes !== null ? [{ work: known.work, jobId: records.job.id, minutes, areaM2: known.areaM2 }] : [];
  });
}
