import type { DropColumn, CutMethod, CutSettings, Drop, Film, Layout, LogEntry, Piece, Plan, Roll, Row, Surface } from '@yellow-pane/contracts';
import { contentHash, shelf, type Memo } from '../ground/index.js';
import { availableForJobMm, type StockBook } from '../stock/index.js';
import { isPane } from '../measure/index.js';
import { cutsForFilm } from './cut-of-kind.js';
import type { JobRecords, SurfaceCut } from './job-pieces.js';
import { CORE_VERSION } from './core-version.js';
import { doneSteps } from './knife-log.js';
import { knifeOrder } from './knife-order.js';
import { layPiecesOnRolls, ONE_WAY_ROUND, type LayoutInput, type RollToCut } from './layout/index.js';
import { minutesPer, trimCount, workMinutes } from './minutes.js';
import { pairKind, pairUp } from './pairs.js';
import { matchPattern } from './repeat.js';

const PLAN_SEED = 20;

export interface FilmPlanInput {
  readonly layout: LayoutInput;
  /** As laid: shaped pieces may be joined two by two. */
  readonly pieces: readonly Piece[];
  readonly cuts: readonly SurfaceCut[];
  readonly hash: string;
}

/** Price of a metre as a number; contracts keep it as an exact decimal string. */
const pricePerMetre = (roll: Pick<Roll, 'pricePerM'>): number => Number(roll.pricePerM);

const toCut = (roll: Roll, book: StockBook, jobId: string, fixedDrops: readonly Drop[]): RollToCut => ({
  id: roll.id,
  widthMm: roll.widthMm,
  availableMm: availableForJobMm(roll, book, jobId),
  pricePerM: pricePerMetre(roll),
  fixedDrops,
  edges: roll.edges,
  lot: roll.lot,
});
const noStock: StockBook = { entries: [], reservations: [] };

/** Which face of a roll lies up on the bench: the roll's own word before the film's. */
export const isFilmUpOn = (roll: Pick<Roll, 'wound'> | undefined, film: Pick<Film, 'wound'>): boolean => (roll?.wound ?? film.wound) === 'liner-in';

/** Drops of the last plan that a re-plan must leave alone: a piece in them is locked, or the knife has been at them. */
export function fixedDropsOf(plan: Plan | undefined, entries: readonly LogEntry[], rolls: readonly Roll[], pieces: readonly Piece[]): Map<string, Drop[]> {
  const out = new Map<string, Drop[]>();
  if (!plan) return out;
  const done = doneSteps(entries);
  const cut = new Set<string>();
  for (const step of knifeOrder(plan.layout, plan.pieces, (id) => rolls.find((r) => r.id === id)?.widthMm ?? 0, 'mm'))
    if (done.has(step.key)) cut.add(`${step.rollId}/${step.dropIndex}`);
  for (const roll of plan.layout.rolls) {
    const kept = roll.drops.flatMap((d, i) => {
      if (cut.has(`${roll.rollId}/${i}`)) return [d];
      const held = withoutMisfits(d, (id) => stillFits(id, d, pieces), pieces.some((p) => p.repeat)); // prettier-ignore
      return placedIds(held).some((id) => plan.lockedPieceIds.includes(id)) ? [held] : [];
    });
    if (kept.length) out.set(roll.rollId, kept);
  }
  return out;
}

const placedIds = (d: Drop): string[] => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)));

/**
 * The drop without pieces that changed size since: what lay behind them in their strip moves up, so that the knife order stays simple. Patterned film
 * cannot move: its row begins where the one before it ends, and the start is trimmed.
 */
function withoutMisfits(drop: Drop, fits: (pieceId: string) => boolean, isPatterned: boolean): Drop {
  const columns = drop.columns.flatMap((column): DropColumn[] => {
    let goneMm = 0;
    const rows = column.rows.flatMap((r, i): Row[] => {
      const by = goneMm;
      if (!r.pieces.every((p) => fits(p.pieceId))) {
        goneMm += (column.rows[i + 1]?.xMm ?? r.xMm + r.alongMm) - r.xMm;
        return [];
      }
      if (!isPatterned) return [{ ...r, xMm: r.xMm - by, pieces: r.pieces.map((p) => ({ ...p, xMm: p.xMm - by })) }];
      goneMm = 0;
      return [{ ...r, xMm: r.xMm - by, alongMm: r.alongMm + by }];
    });
    return rows.length ? [{ ...column, rows }] : [];
  });
  return { ...drop, columns };
}

/** A locked piece keeps its place only while its size is still the one drawn. */
function stillFits(id: string, drop: Drop, pieces: readonly Piece[]): boolean {
  const piece = pieces.find((p) => p.id === id);
  const placed = drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces)).find((p) => p.pieceId === id);
  if (!piece || !placed) return false;
  const [across, along] = placed.turn % 180 === 0 ? [piece.widthMm, piece.heightMm] : [piece.heightMm, piece.widthMm];
  return Math.abs(across - placed.acrossMm) < 0.01 && Math.abs(along - placed.alongMm) < 0.01;
}

/** Everything that one film's plan depends on, resolved, with its hash. Locks and ticks are no part of the hash: they do not make a plan stale. @param plan the last plan, for locks and cut drops */
export function filmPlanInput(
  records: JobRecords & { readonly entries: readonly LogEntry[] },
  settings: CutSettings,
  filmId: string,
  plan: Plan | undefined,
  method?: CutMethod,
): FilmPlanInput {
  const cuts = cutsForFilm(records, filmId, method);
  const film = records.films.find((f) => f.id === filmId);
  const book = records.stock ?? noStock;
  const done = doneSteps(records.entries);
  const rolls = records.rolls.filter((r) => r.filmId === filmId && !r.deletedAt && isThere(r, records.job.id, done));
  const cutPrice = (Number(records.firm.hourRate) / 60) * minutesPer.knifeCut;
  const on = { filmId, rolls: rolls.map((r) => toCut(r, book, records.job.id, [])), settings, seed: PLAN_SEED, cutPrice, units: records.job.units };
  const wanted = film ? sameWayRound(patterned(cuts, film), film, on, records.memo) : [];
  // joined pieces of the last plan stay joined while both are what they were
  const joined = (plan?.pieces ?? []).filter((p) => p.parts.length > 0 && p.parts.every((part) => wanted.some((w) => w.id === part.id && isSameSize(w, part))));
  const fixed = method ? new Map<string, Drop[]>() : fixedDropsOf(plan, records.entries, rolls, [...wanted, ...joined]);
  // a piece already cut keeps the size it was cut to, whatever the tapes say now
  const fixedIds = new Set([...fixed.values()].flat().flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)))));
  const asCut = new Map((plan?.pieces ?? []).filter((p) => fixedIds.has(p.id)).map((p) => [p.id, p]));
  const inJoined = new Set([...asCut.values()].flatMap((p) => p.parts.map((part) => part.id)));
  const kinds = pairsWorthMaking(wanted, on, records.memo);
  const widest = Math.max(0, ...rolls.map((r) => r.widthMm));
  const open = pairUp(wanted.filter((p) => !inJoined.has(p.id) && !asCut.has(p.id)), widest, settings.longestPullMm, records.memo, (kind) => kinds.has(kind)); // prettier-ignore
  const laid = [...open, ...asCut.values()];
  // in walking order, whatever has been cut: a tick must not make another plan of it
  const order = new Map(wanted.map((p, i) => [p.id, i]));
  const placeOf = (p: Piece) => order.get(p.parts[0]?.id ?? p.id) ?? wanted.length;
  const pieces = laid.sort((a, b) => placeOf(a) - placeOf(b));
  const layout: LayoutInput = { ...on, rolls: rolls.map((r) => toCut(r, book, records.job.id, fixed.get(r.id) ?? [])), pieces };
  const sizes = pieces.map(({ why: _why, fallback: _fallback, label: _label, ...rest }) => rest);
  return {
    layout,
    pieces,
    cuts,
    hash: contentHash({ version: CORE_VERSION, rolls: layout.rolls.map((r) => rollInHash(r, pieces, settings)), settings, sizes, cutPrice }),
  };
}

/** A leftover of this job's own plan is there once the knife has been at its drop; before that it is still part of the roll. */
function isThere(roll: Roll, jobId: string, done: ReadonlySet<string>): boolean {
  if (!roll.fromDrop?.startsWith(`${jobId}:`)) return true;
  const drop = roll.fromDrop.slice(jobId.length + 1, roll.fromDrop.lastIndexOf(':'));
  return [...done].some((key) => key.startsWith(`${drop}/`));
}

/** What of a roll decides a plan: more film than could ever be needed is simply plenty, so that another job's cut makes no plan stale. */
function rollInHash({ fixedDrops: _fixed, ...roll }: RollToCut, pieces: readonly Piece[], settings: CutSettings): object {
  const area = pieces.reduce((s, p) => s + p.widthMm * p.heightMm, 0);
  const plenty = Math.ceil((2 * area) / roll.widthMm) + settings.longestPullMm;
  return { ...roll, availableMm: Math.min(Math.round(roll.availableMm), plenty) };
}

/** Pieces of patterned film with the place in the repeat where each must start. */
function patterned(cuts: readonly SurfaceCut[], film: Film): Piece[] {
  if (film.patternRepeatMm === null) return cuts.flatMap((c) => c.pieces);
  const counts = new Map<string, number>();
  const listed = cuts.flatMap(({ surface, pieces, headDropMm, runsOn: level }) => {
    const row = rowOf(surface, pieces);
    // one more of a piece goes where that one was to go; what an opening parts hangs in one place
    const likes = new Map(surface.extraPieces.map((e) => [e.id, pieces[e.part ?? 0]?.id]));
    const places = new Map<string, number>();
    return pieces.map((piece) => {
      const like = pieces.find((p) => p.id === likes.get(piece.id)) ?? piece;
      const runsOn = level?.get(like.id);
      if (runsOn) return { piece, row: runsOn.row, place: runsOn.place, runsOn };
      const drop = like.label.replace(/ (above|below)$/, '');
      const place = row === null ? 0 : (places.get(drop) ?? counts.get(row) ?? 0);
      if (row !== null && !places.has(drop)) counts.set(row, place + 1);
      places.set(drop, place);
      return { piece, row, place, headDropMm: headDropMm?.get(like.id) ?? 0 };
    });
  });
  return matchPattern(listed, film);
}

/** What a pattern runs on over: the panes of one row between glazing bars, or the pieces of one surface. */
function rowOf(surface: Surface, pieces: readonly Piece[]): string | null {
  // drops of a run of walls go on round its corners
  if (surface.kind === 'wall') return pieces[0]?.meets ?? null;
  // leaves side by side, their heads at one height
  if (surface.kind === 'panel' && surface.grain === 'upright' && pieces[0]?.meets) return pieces[0].meets;
  if (!isPane(surface)) return pieces.length > 1 ? surface.id : null;
  return surface.grid ? `${surface.grid.groupId}/${surface.grid.row}` : surface.seam ? surface.id : null;
}

/** Pieces that may still be turned a quarter, kept to the upright or to the lying ways. */
const only = (pieces: readonly Piece[], rest: 0 | 90): Piece[] =>
  pieces.map((p) => {
    const turns = p.turns.filter((t) => t % 180 === rest);
    return turns.length ? { ...p, turns } : p;
  });

/** Metallised and embossed films look another shade when they are turned: all pieces lie the same way round, the cheaper of the two. */
function sameWayRound(pieces: readonly Piece[], film: Film, on: Omit<LayoutInput, 'pieces'>, memo: Memo): Piece[] {
  const shows = film.construction === 'metallised' || film.construction === 'embossed-vinyl';
  if (!shows || on.settings.oneDirection === false || film.direction !== 'none' || on.rolls.length === 0 || pieces.length < 2) return [...pieces];
  const key = contentHash([pieces.map(({ why: _why, ...p }) => p), on]);
  const price = (list: readonly Piece[]) => {
    const layout = layPiecesOnRolls({ ...on, pieces: list }, 0);
    return layout.cost + layout.usedMm / 1e6 + layout.unplaced.length * 1e6;
  };
  const isOther = (p: Piece, rest: number) => p.turns.every((t) => t % 180 !== rest);
  const way = memo.once(waysRound, key, () => (price(only(pieces, 90)) < price(only(pieces, 0)) ? 90 : 0));
  const why =
    'It lies the other way round on the roll than the rest of this film, which its factory edge or its width needs: beside others it may look another shade.';
  return only(pieces, way).map((p) => ({ ...p, why: [...p.why, isOther(p, way) ? why : ONE_WAY_ROUND] }));
}
const waysRound = shelf<0 | 90>(40);

/** What matching the pattern costs in length, mm: the instant layout with and without it. */
export function repeatLossMm(input: LayoutInput): number {
  if (!input.pieces.some((p) => p.repeat)) return 0;
  const used = (pieces: readonly Piece[]) => layPiecesOnRolls({ ...input, pieces }, 0).usedMm;
  return Math.max(0, used(input.pieces) - used(input.pieces.map((p) => ({ ...p, repeat: null }))));
}

/** What handy sizes do to a film: more or less of it, by the instant layout with and without them, and how many different sizes there are. */
export interface HandyFigures {
  /** Negative: they save film, since fewer different sizes lie better. */
  readonly moreMm: number;
  readonly sizes: number;
  readonly sizesWithout: number;
}

/** @returns null where handy sizes change nothing */
export function handyFigures(records: JobRecords & { readonly entries: readonly LogEntry[] }, settings: CutSettings, filmId: string): HandyFigures | null {
  const off = { sizeStep: 'none' as const };
  const exact = {
    ...records,
    firm: { ...records.firm, allowances: { ...records.firm.allowances, ...off } },
    job: { ...records.job, allowances: { ...records.job.allowances, ...off } },
    surfaces: records.surfaces.map((s) => (isPane(s) && s.allowances?.sizeStep ? { ...s, allowances: { ...s.allowances, ...off } } : s)),
  };
  const [handy, marked] = [records, exact].map((r) => filmPlanInput(r, settings, filmId, undefined)) as [FilmPlanInput, FilmPlanInput];
  const sizesOf = (input: FilmPlanInput) => new Set(input.pieces.map((p) => `${p.widthMm.toFixed(2)}×${p.heightMm.toFixed(2)}`)).size;
  if (handy.pieces.every((p, i) => marked.pieces[i] && isSameSize(p, marked.pieces[i]))) return null;
  const used = (input: FilmPlanInput) => layPiecesOnRolls(input.layout, 0).usedMm;
  return { moreMm: used(handy) - used(marked), sizes: sizesOf(handy), sizesWithout: sizesOf(marked) };
}

/**
 * Kinds of pairs by which the whole plan gets cheaper: a smaller rectangle is no gain when it lies worse on the roll. They are tried one
 * after the other on the instant layout.
 */
function pairsWorthMaking(pieces: readonly Piece[], on: Omit<LayoutInput, 'pieces'>, memo: Memo): ReadonlySet<string> {
  if (on.rolls.length === 0 || !pieces.some((p) => p.path !== null)) return noPairs;
  const key = contentHash([pieces.map(({ why: _why, ...p }) => p), on]);
  return memo.once(pairsMade, key, () => pairsThatPay(pieces, on, memo));
}
const noPairs: ReadonlySet<string> = new Set();
/** The same pieces on the same rolls pair the same way. */
const pairsMade = shelf<ReadonlySet<string>>(40);

function pairsThatPay(pieces: readonly Piece[], on: Omit<LayoutInput, 'pieces'>, memo: Memo): ReadonlySet<string> {
  const widest = Math.max(...on.rolls.map((r) => r.widthMm));
  const joinedBy = (kinds: ReadonlySet<string>) => pairUp(pieces, widest, on.settings.longestPullMm, memo, (kind) => kinds.has(kind));
  const price = (list: readonly Piece[]) => {
    const layout = layPiecesOnRolls({ ...on, pieces: list }, 0);
    return layout.cost + layout.usedMm / 1e6 + layout.unplaced.length * 1e6;
  };
  const all = pairUp(pieces, widest, on.settings.longestPullMm, memo).flatMap((p) => (p.parts.length ? [pairKind(p.parts[0]!, p.parts[1]!)] : []));
  let best = { kinds: noPairs, cost: price(pieces) };
  for (const kind of new Set(all)) {
    const kinds = new Set([...best.kinds, kind]);
    const cost = price(joinedBy(kinds));
    if (cost < best.cost) best = { kinds, cost };
  }
  return best.kinds;
}

const isSameSize = (a: { widthMm: number; heightMm: number }, b: { widthMm: number; heightMm: number }): boolean =>
  Math.abs(a.widthMm - b.widthMm) < 0.01 && Math.abs(a.heightMm - b.heightMm) < 0.01;

/** One method for the whole film, in figures a person can weigh. */
export interface MethodFigures {
  readonly method: CutMethod;
  readonly usedM: number;
  readonly cost: number;
  readonly trims: number;
  readonly minutes: number;
  /** Those minutes at the firm's hour rate. */
  readonly workCost: number;
  readonly fallbackCount: number;
  readonly blockedCount: number;
  readonly unplacedCount: number;
}

/** Lays the whole film out by one method and adds up metres, money, trims and minutes. @param steps search steps: enough to compare */
export function methodFigures(
  records: JobRecords & { readonly entries: readonly LogEntry[] },
  settings: CutSettings,
  filmId: string,
  method: CutMethod,
  steps = 40,
): MethodFigures {
  const input = filmPlanInput(records, settings, filmId, undefined, method);
  const layout: Layout = layPiecesOnRolls(input.layout, steps);
  const minutes = workMinutes(input.pieces, layout.cutCount);
  return {
    method,
    usedM: layout.usedMm / 1000,
    cost: layout.cost,
    trims: trimCount(input.pieces),
    minutes,
    workCost: (minutes / 60) * Number(records.firm.hourRate),
    fallbackCount: input.pieces.filter((p) => p.fallback !== null).length,
    blockedCount: input.cuts.filter((c) => 'blocked' in c.answer).length,
    unplacedCount: layout.unplaced.length,
  };
}
