import type { Film, LayEntry } from '@yellow-pane/contracts';
import { layProgress, linesInForce, sheetOfSurface, type LayRecords, type PaneProgress } from '../lay/index.js';
import { vec, type Polygon } from '../geometry/index.js';
import { coverOfColumn, formedAt, isDrySurface, surveyColumn, surveyCounter, surveyPanel, surveySign, surveyWall, type DrySurface } from '../measure/index.js';
import { wantedFor } from '../prepare/index.js';
import { visitsOf, type CheckState, type DueVisit, type Laid } from './check-job.js';
import { diagnose, type Diagnosis } from './diagnosis.js';
import { isOpen, pinsOf, type PinLine } from './pins.js';

const DAY_MS = 86_400_000;
/** Pressed too softly, film shows it a day later in the sun. @source common practice */
const FIRST_LOOK_DAYS = 1;
/** Hours for which film that was laid dry is still lifted without harm. @source house rule: its glue flows into the ground within the day */
const FRESH_HOURS = 24;

/** Until glue that nobody heated into its ground holds fully. @source common practice: wall vinyl about two weeks without heat */
const COLD_HOLD_DAYS = 14;
/** Steps in which all of the film is heated into its ground, not its edges alone. */
const HEATS_ALL: readonly string[] = ['wall-faces', 'sign-heat'];

/** A laid surface that film went on dry. No water in it, so no drying clock. */
export interface CheckDry extends Laid<DrySurface> {
  /** From when its glue holds fully: nothing is washed or rubbed before. Heated all over it holds once it has cooled. */
  readonly holdsAt: string;
}

const porous: ReadonlySet<DrySurface['ground']['material']> = new Set(['plasterboard', 'plaster', 'concrete', 'brick', 'wood', 'wood-board', 'unknown']);
const rough: ReadonlySet<DrySurface['ground']['material']> = new Set(['concrete', 'brick', 'tile', 'unknown']);

/** Whether all of its film was heated into the ground: by the log, or by its steps where it was tapped done at once. */
function wasHeatedAllOver(surface: DrySurface, lines: readonly LayEntry[], records: LayRecords): boolean {
  const heats = (sheetOfSurface(surface, records)?.steps ?? []).filter((s) => HEATS_ALL.includes(s.key));
  const ticked = lines.flatMap((e) => (e.kind === 'step-done' && e.stepKey ? [e.stepKey] : []));
  return heats.length > 0 && (ticked.length === 0 || heats.every((s) => ticked.includes(s.key)));
}

function factsOf(surface: DrySurface, film: Film, lines: readonly LayEntry[], records: LayRecords): string[] {
  const { ground } = surface;
  const steps = sheetOfSurface(surface, records)?.steps ?? [];
  const ticked = new Set(lines.flatMap((e) => (e.kind === 'step-done' && e.stepKey ? [e.stepKey] : [])));
  // tapped done at once, the log does not say which steps were done
  const leftOut = (tool: RegExp) => ticked.size > 0 && steps.some((s) => tool.test(s.key)) && !steps.some((s) => tool.test(s.key) && ticked.has(s.key));
  const isFlat = !Object.values(formedAt(surface)).some(Boolean);
  const canBeDamp = porous.has(ground.material);
  const said: readonly [string, boolean][] = [
    ['not-post-heated', leftOut(/post-heat/)],
    ['promoter-left-out', leftOut(/promoter/)],
    ['ground-loose', ground.state === 'chalking' || ground.state === 'peeling' || ground.isGreasy === true],
    ['ground-damp', ground.isDamp === true || (ground.isDamp === null && canBeDamp)],
    ['ground-dry', ground.isDamp === false || !canBeDamp],
    ['cold', ground.surfaceTempC !== null && ground.surfaceTempC < wantedFor(film, surface).leastC],
    ['smooth', !rough.has(ground.material)],
    ['flat', isFlat],
  ];
  return said.flatMap(([key, is]) => (is ? [key] : []));
}

/**
 * Every surface that film was laid on dry, with what was seen on it and what is due: a look the day after, what was pinned, later visits of its steps.
 * @param at now, an instant
 */
export function checkDry(records: LayRecords, at: string): CheckDry[] {
  const progress = layProgress(records);
  const lines = linesInForce(records.layEntries);
  return records.surfaces.filter(isDrySurface).flatMap((surface): CheckDry[] => {
    const p = progress.get(surface.id);
    const film = records.films.find((f) => f.id === surface.filmId);
    if (p?.state !== 'done' || !p.doneAt || !film) return [];
    return [whole(surface, film, { ...p, doneAt: p.doneAt }, lines.filter((e) => e.surfaceId === surface.id), records, at)]; // prettier-ignore
  });
}

function whole(
  surface: DrySurface,
  film: Film,
  p: PaneProgress & { readonly doneAt: string },
  lines: readonly LayEntry[],
  records: LayRecords,
  at: string,
): CheckDry {
  const laidAt = p.doneAt;
  const pins = pinsOf(lines, laidAt);
  const looks = lines.filter((e) => e.kind === 'looked' && e.look && e.occurredAt > laidAt);
  const open = pins.filter(isOpen);
  const firstLook = new Date(Date.parse(laidAt) + FIRST_LOOK_DAYS * DAY_MS).toISOString();
  // before the day is over a look is worth little: what is pressed too softly shows later
  const wasSeen = looks.some((e) => e.occurredAt >= firstLook);
  const due: DueVisit[] = [
    ...visitsOf(p, open),
    ...(wasSeen ? [] : [{ key: 'look', kind: 'look' as const, title: 'Look for bubbles and edges that stand up', dueAt: firstLook }]),
  ].sort((a, b) => a.dueAt.localeCompare(b.dueAt));
  const isDue = due.some((d) => d.dueAt <= at);
  const state: CheckState = open.some((s) => s.state === 'open') ? 'seen' : isDue ? 'due' : wasSeen ? 'clear' : 'drying';
  const holdsAt = wasHeatedAllOver(surface, lines, records) ? laidAt : new Date(Date.parse(laidAt) + COLD_HOLD_DAYS * DAY_MS).toISOString();
  return { surface, film, laidAt, holdsAt, state, looks, pins, facts: factsOf(surface, film, lines, records), due };
}

type OutlineOf<S extends DrySurface> = (surface: S, records: LayRecords) => Polygon | null;
/** What pins are put on: a face as it stands before one; what goes round unrolled, its front in the middle, so that its seam is seen too. */
const outlineOfKind: { readonly [K in DrySurface['kind']]: OutlineOf<Extract<DrySurface, { kind: K }>> } = {
  column(surface, records) {
    const cover = coverOfColumn(surveyColumn(surface, records).survey);
    return cover && [vec(0, 0), vec(cover.girthMm, 0), vec(cover.girthMm, cover.heightMm), vec(0, cover.heightMm)];
  },
  panel: (surface, records) => surveyPanel(surface, records).survey.face.outline,
  wall: (surface, records) => surveyWall(surface, records).survey.body?.outline ?? null,
  counter: (surface, records) => surveyCounter(surface, records).survey.body?.outline ?? null,
  sign: (surface, records) => surveySign(surface, records).survey.ground,
};
/** The face of what film was laid on dry, mm; null: it has no size. */
export const dryOutline = (surface: DrySurface, records: LayRecords): Polygon | null =>
  (outlineOfKind[surface.kind] as OutlineOf<DrySurface>)(surface, records);

/** What is likely behind a pin on film that was laid dry, and what to ask. */
export function diagnoseDryPin(here: Pick<CheckDry, 'laidAt' | 'facts'>, line: Pick<PinLine, 'pin' | 'answers'>, at: string): Diagnosis {
  return diagnose({
    patient: 'dry',
    kind: line.pin.kind,
    spread: line.pin.spread,
    answers: line.answers,
    facts: here.facts,
    clearOdds: null,
    isFresh: Date.parse(at) - Date.parse(here.laidAt) < FRESH_HOURS * 3_600_000,
  });
}
