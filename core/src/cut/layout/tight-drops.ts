import type { InPieces } from './exact.js';
import { columnOf, edgesFit, joinNeeds, type Bench, type EdgeNeed, type PackedColumn, type PackedDrop, type PieceType, type Way } from './model.js';

/** Rows of a column and columns of a drop that are looked at. @source house rule: more are left to the re-cuts */
const MOST_ROWS = 6;
const MOST_COLUMNS = 5;
/** More columns or drops than these say that the share of waste allowed is too large to be searched through. @source measured; house figure */
const ENOUGH_COLUMNS = 6000;
const ENOUGH_DROPS = 4000;
/** Tries between two rests, and in all. @source measured; house figure */
const TRIES_IN_A_ROW = 40_000;
const MOST_TRIES = 4_000_000;

interface Column {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
  readonly rows: readonly { readonly type: number; readonly way: Way }[];
  /** Film in it that is no piece, grains². */
  readonly waste: number;
}

/**
 * Drops of which hardly anything is thrown away, found from the sizes alone: pieces as wide as each other make a column, columns as long as each other that fill
 * the roll make a drop. All there are, up to a share of waste, unless there are too many.
 * @param mostWaste share of a drop's film that may be no piece
 * @returns null: there are too many to be looked through
 */
export function* tightDrops(types: readonly PieceType[], counts: readonly number[], bench: Bench, mostWaste: number): InPieces<PackedDrop[] | null> {
  const columns = yield* tightColumns(types, counts, bench, mostWaste);
  if (!columns) return null;
  columns.sort((a, b) => b.along - a.along);
  const leastAcross = Math.min(...columns.map((c) => c.across));
  const out: PackedDrop[] = [];
  const left = [...counts];
  let tries = 0;
  let rested = 0;
  const chosen: Column[] = [];
  const fits = (c: Column): boolean => {
    let ok = true;
    for (const r of c.rows) if (--left[r.type]! < 0) ok = false;
    if (!ok) for (const r of c.rows) left[r.type]!++;
    return ok;
  };
  /** Adds columns no longer than the first, later in the list, until the roll is full. */
  function* more(from: number, last: number, across: number, spare: number): InPieces<boolean> {
    const length = chosen[0]!.along;
    if (spare >= (bench.width - across) * length) {
      const needs = chosen.flatMap((c) => (c.need === 'none' ? [] : [c.need]));
      if (edgesFit(needs, bench)) out.push({ along: length, columns: chosen.map(toPacked) });
      if (out.length > ENOUGH_DROPS) return false;
    }
    if (chosen.length === MOST_COLUMNS) return true;
    for (let i = from; i < last; i++) {
      if (++tries > rested) {
        rested = tries + TRIES_IN_A_ROW;
        if (tries > MOST_TRIES) return false;
        yield;
      }
      const c = columns![i]!;
      if (across + c.across > bench.width) continue;
      const wasted = c.waste + (length - c.along) * c.across;
      if (wasted > spare || !fits(c)) continue;
      chosen.push(c);
      const goesOn = yield* more(i, last, across + c.across, spare - wasted);
      chosen.pop();
      for (const r of c.rows) left[r.type]!++;
      if (!goesOn) return false;
    }
    return true;
  }
  let last = 0;
  for (let i = 0; i < columns.length; i++) {
    const first = columns[i]!;
    const spare = mostWaste * bench.width * first.along + 0.5;
    if (first.waste > spare || !fits(first)) continue;
    // a column is at least so wide, so much shorter it may be
    const shortest = first.along - spare / leastAcross;
    last = Math.max(last, i + 1);
    while (last < columns.length && columns[last]!.along >= shortest) last++;
    chosen.push(first);
    const goesOn = yield* more(i, last, first.across, spare - first.waste);
    chosen.pop();
    for (const r of first.rows) left[r.type]!++;
    if (!goesOn) return null;
  }
  return out;
}

const toPacked = (c: Column): PackedColumn => columnOf(c.rows.map(({ type, way }) => ({ along: way.along, pieces: [{ type, way }] })));

function* tightColumns(types: readonly PieceType[], counts: readonly number[], bench: Bench, mostWaste: number): InPieces<Column[] | null> {
  const ways = types
    .flatMap((t, type) => (counts[type]! > 0 ? t.ways.filter((w) => w.across <= bench.width && w.along <= bench.longest).map((way) => ({ type, way })) : []))
    .sort((a, b) => b.way.across - a.way.across || b.way.along - a.way.along);
  const leastAcross = Math.min(...ways.map(({ way }) => way.across));
  const leastAlong = Math.min(...ways.map(({ way }) => way.along));
  const out: Column[] = [];
  const left = [...counts];
  const rows: { type: number; way: Way }[] = [];
  let tries = 0;
  let rested = 0;
  function* more(from: number, across: number, along: number, waste: number, need: EdgeNeed): InPieces<boolean> {
    if (along > 0 && waste <= mostWaste * bench.width * along + 0.5) out.push({ across, along, need, rows: [...rows], waste });
    if (out.length > ENOUGH_COLUMNS) return false;
    // beside a column that fills the roll nothing lies: each of its rows is as good a drop of its own
    if (rows.length === MOST_ROWS || (rows.length > 0 && across > bench.width - leastAcross)) return true;
    // what is narrower than this wastes more than any drop may
    const spare = mostWaste * bench.width * bench.longest + 0.5;
    for (let i = from; i < ways.length; i++) {
      const { type, way } = ways[i]!;
      if (++tries > rested) {
        rested = tries + TRIES_IN_A_ROW;
        if (tries > MOST_TRIES) return false;
        yield;
      }
      const wider = rows.length ? across : way.across;
      const wasted = waste + (wider - way.across) * way.along;
      if (rows.length && (wider - way.across) * leastAlong > spare) break;
      const joint = joinNeeds(need, way.need);
      if (left[type]! === 0 || joint === null || along + way.along > bench.longest || wasted > spare) continue;
      left[type]!--;
      rows.push(ways[i]!);
      const goesOn = yield* more(i, wider, along + way.along, wasted, joint);
      rows.pop();
      left[type]!++;
      if (!goesOn) return false;
    }
    return true;
  }
  return (yield* more(0, 0, 0, 0, 'none')) ? out : null;
}
