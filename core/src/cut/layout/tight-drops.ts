import type { InPieces } from './exact.js';
import { columnOf, edgesFit, joinNeeds, type Bench, type EdgeNeed, type PackedColumn, type PackedDrop, type PackedPiece, type PieceType } from './model.js';

/** Rows of a column, pieces of a row and columns of a drop that are looked at. @source house rule: more are left to the re-cuts */
const MOST_ROWS = 6;
const MOST_IN_ROW = 4;
const MOST_COLUMNS = 5;
/** More columns or drops than these say that the share of waste allowed is too large to be searched through. @source measured; house figure */
const ENOUGH_COLUMNS = 6000;
const ENOUGH_DROPS = 4000;
/** Tries between two rests, and in all. @source measured; house figure */
const TRIES_IN_A_ROW = 40_000;
const MOST_TRIES = 4_000_000;

interface Part {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
  /** Film in it that is no piece, grains². */
  readonly waste: number;
  /** Its pieces, by type. */
  readonly types: readonly number[];
}
/** One piece, or with four stages several of one length side by side. */
interface Row extends Part {
  readonly pieces: readonly PackedPiece[];
}
interface Column extends Part {
  readonly rows: readonly Row[];
}

/** Takes the pieces of a part off those that are left, all of them or none. */
function take(left: number[], part: Part): boolean {
  let isThere = true;
  for (const t of part.types) if (--left[t]! < 0) isThere = false;
  if (!isThere) giveBack(left, part);
  return isThere;
}
function giveBack(left: number[], part: Part): void {
  for (const t of part.types) left[t]!++;
}

/** How much was tried: when a rest is due, and when it was enough. */
class Effort {
  private tries = 0;
  private restAt = 0;
  isDueToRest(): boolean {
    if (++this.tries <= this.restAt) return false;
    this.restAt = this.tries + TRIES_IN_A_ROW;
    return true;
  }
  get isSpent(): boolean {
    return this.tries > MOST_TRIES;
  }
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
  const effort = new Effort();
  const chosen: Column[] = [];
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
      if (effort.isDueToRest()) {
        if (effort.isSpent) return false;
        yield;
      }
      const c = columns![i]!;
      if (across + c.across > bench.width) continue;
      const wasted = c.waste + (length - c.along) * c.across;
      if (wasted > spare || !take(left, c)) continue;
      chosen.push(c);
      const goesOn = yield* more(i, last, across + c.across, spare - wasted);
      chosen.pop();
      giveBack(left, c);
      if (!goesOn) return false;
    }
    return true;
  }
  let last = 0;
  for (let i = 0; i < columns.length; i++) {
    const first = columns[i]!;
    const spare = mostWaste * bench.width * first.along + 0.5;
    if (first.waste > spare || !take(left, first)) continue;
    // a column is at least so wide, so much shorter it may be
    const shortest = first.along - spare / leastAcross;
    last = Math.max(last, i + 1);
    while (last < columns.length && columns[last]!.along >= shortest) last++;
    chosen.push(first);
    const goesOn = yield* more(i, last, first.across, spare - first.waste);
    chosen.pop();
    giveBack(left, first);
    if (!goesOn) return null;
  }
  return out;
}

const toPacked = (c: Column): PackedColumn => columnOf(c.rows.map(({ along, pieces }) => ({ along, pieces })));

/** Pieces, and with four stages what of them makes a row: as long as each other, side by side, none at a roll edge. Null: too many. */
function* tightRows(types: readonly PieceType[], counts: readonly number[], bench: Bench, mostWaste: number): InPieces<Row[] | null> {
  const single = types.flatMap((t, type) =>
    (counts[type]! > 0 ? t.ways.filter((w) => w.across <= bench.width && w.along <= bench.longest) : []).map((way): Row => ({
      ...way,
      waste: 0,
      types: [type],
      pieces: [{ type, way }],
    })),
  );
  if (bench.stages === 3) return single;
  const out = [...single];
  const loose = single.filter((r) => r.need === 'none').sort((a, b) => b.along - a.along);
  const leastAcross = Math.min(...loose.map((r) => r.across));
  const left = [...counts];
  const effort = new Effort();
  function* more(from: number, row: Row): InPieces<boolean> {
    if (row.pieces.length > 1 && row.waste <= mostWaste * bench.width * row.along + 0.5) out.push(row);
    if (out.length > ENOUGH_COLUMNS) return false;
    if (row.pieces.length === MOST_IN_ROW) return true;
    const spare = mostWaste * bench.width * row.along + 0.5;
    for (let i = from; i < loose.length; i++) {
      const next = loose[i]!;
      const [type] = next.types;
      if (effort.isDueToRest()) {
        if (effort.isSpent) return false;
        yield;
      }
      if ((row.along - next.along) * leastAcross > spare) break;
      const waste = row.waste + (row.along - next.along) * next.across;
      // a row that fills the roll is a drop of its own, of columns of one piece
      if (left[type!] === 0 || waste > spare || row.across + next.across > bench.width - leastAcross) continue;
      left[type!]!--;
      const joined: Row = { ...row, across: row.across + next.across, waste, types: [...row.types, type!], pieces: [...row.pieces, ...next.pieces] };
      const goesOn = yield* more(i, joined);
      left[type!]!++;
      if (!goesOn) return false;
    }
    return true;
  }
  for (const [i, row] of loose.entries()) {
    left[row.types[0]!]!--;
    const goesOn = yield* more(i, row);
    left[row.types[0]!]!++;
    if (!goesOn) return null;
  }
  return out;
}

function* tightColumns(types: readonly PieceType[], counts: readonly number[], bench: Bench, mostWaste: number): InPieces<Column[] | null> {
  const all = yield* tightRows(types, counts, bench, mostWaste);
  if (!all) return null;
  const units = all.sort((a, b) => b.across - a.across || b.along - a.along);
  const leastAcross = Math.min(...units.map((u) => u.across));
  const leastAlong = Math.min(...units.map((u) => u.along));
  const out: Column[] = [];
  const left = [...counts];
  const rows: Row[] = [];
  const effort = new Effort();
  function* more(from: number, across: number, along: number, waste: number, need: EdgeNeed): InPieces<boolean> {
    // a column of one row of several pieces is as many columns of one piece
    const isOwn = rows.length > 1 || rows[0]?.pieces.length === 1;
    if (isOwn && waste <= mostWaste * bench.width * along + 0.5) out.push({ across, along, need, waste, rows: [...rows], types: rows.flatMap((r) => r.types) });
    if (out.length > ENOUGH_COLUMNS) return false;
    // beside a column that fills the roll nothing lies: each of its rows is as good a drop of its own
    if (rows.length === MOST_ROWS || (rows.length > 0 && across > bench.width - leastAcross)) return true;
    const spare = mostWaste * bench.width * bench.longest + 0.5;
    for (let i = from; i < units.length; i++) {
      const unit = units[i]!;
      if (effort.isDueToRest()) {
        if (effort.isSpent) return false;
        yield;
      }
      const wider = rows.length ? across : unit.across;
      const wasted = waste + unit.waste + (wider - unit.across) * unit.along;
      // what is narrower than this wastes more than any drop may
      if ((wider - unit.across) * leastAlong > spare) break;
      const joint = joinNeeds(need, unit.need);
      if (joint === null || along + unit.along > bench.longest || wasted > spare || !take(left, unit)) continue;
      rows.push(unit);
      const goesOn = yield* more(i, wider, along + unit.along, wasted, joint);
      rows.pop();
      giveBack(left, unit);
      if (!goesOn) return false;
    }
    return true;
  }
  return (yield* more(0, 0, 0, 0, 'none')) ? out : null;
}
