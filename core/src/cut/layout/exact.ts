import {
  edgesFit,
  joinNeeds,
  mayLie,
  type Bench,
  type EdgeNeed,
  type PackedColumn,
  type PackedDrop,
  type PackedPiece,
  type PackedRow,
  type PieceType,
  type Source,
  type SourcedDrop,
} from './model.js';

/**
 * The best cut of a handful of pieces, proven: dynamic programming over how many of each type are already cut.
 *
 * Level by level – row, column, drop, roll – it keeps only what nothing else beats in width, length and need of a roll edge.
 * Looking only for what is no longer than a known plan makes it fast: width × length − area, the film that is no piece, can
 * only grow when pieces are added to a column or columns to a drop, so whatever wastes more than the known plan is dropped
 * at once, and few sets of pieces make a column or a drop at all.
 */

interface RowEntry {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
  readonly pieces: readonly PackedPiece[];
}
interface ColumnEntry {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
  readonly row: RowEntry | null;
  readonly rest: ColumnEntry | null;
}
interface DropEntry {
  readonly across: number;
  readonly along: number;
  readonly needs: readonly EdgeNeed[];
  readonly column: ColumnEntry | null;
  readonly rest: DropEntry | null;
}

/** Sets of pieces that the dynamic programme visits for these counts. */
export const stateCount = (counts: readonly number[]): number => counts.reduce((s, d) => s * (d + 1), 1);

/** Pieces are told apart by the bits of one 32-bit number. */
export const MOST_PIECES = 31;

/** All sets of pieces as numbers in mixed radix, with what is asked of them often. */
export class Sets {
  readonly size: number;
  readonly strides: number[] = [];
  /** One bit for each piece: a set holds a part when it has all its bits. */
  readonly bits: Int32Array;
  readonly lowest: Int16Array;
  readonly area: Float64Array;

  constructor(
    types: readonly PieceType[],
    readonly counts: readonly number[],
  ) {
    let size = 1;
    for (const d of counts) {
      this.strides.push(size);
      size *= d + 1;
    }
    this.size = size;
    if (counts.reduce((a, b) => a + b, 0) > MOST_PIECES) throw new RangeError(`Not more than ${MOST_PIECES} pieces at a time.`);
    const firstBit = counts.map((_, i) => counts.slice(0, i).reduce((a, b) => a + b, 0));
    this.bits = new Int32Array(size);
    this.lowest = new Int16Array(size).fill(-1);
    this.area = new Float64Array(size);
    // each set is one with a piece of its lowest type less, and that piece
    const digits = counts.map(() => 0);
    for (let set = 1; set < size; set++) {
      let i = 0;
      while (digits[i] === counts[i]) digits[i++] = 0;
      digits[i]!++;
      let low = 0;
      while (digits[low] === 0) low++;
      const less = set - this.strides[low]!;
      this.lowest[set] = low;
      this.bits[set] = this.bits[less]! | (1 << (firstBit[low]! + digits[low]! - 1));
      this.area[set] = this.area[less]! + types[low]!.area;
    }
  }

  /** Sorts non-empty fronts by the lowest type in their set, so that a set is always begun with its lowest piece. */
  byLowest(fronts: readonly (readonly unknown[])[]): Int32Array[] {
    const groups: number[][] = this.counts.map(() => []);
    for (let set = 1; set < this.size; set++) if (fronts[set]!.length > 0) groups[this.lowest[set]!]!.push(set);
    return groups.map((g) => Int32Array.from(g));
  }
}

/** Whether a front entry asks for no edge that another does not. */
export const covers = (a: readonly EdgeNeed[], b: readonly EdgeNeed[]): boolean => a.length === 0 || (a.length <= b.length && a.every((n) => b.includes(n)));
const needLess = (a: { need: EdgeNeed }, b: { need: EdgeNeed }): boolean => a.need === 'none' || a.need === b.need;
const needsLess = (a: DropEntry, b: DropEntry): boolean => covers(a.needs, b.needs);

/** Adds `entry` to a front unless it is beaten, and drops what it beats. */
export function keepBest<T extends { readonly across: number; readonly along: number }>(front: T[], entry: T, sameOrLess: (a: T, b: T) => boolean): void {
  for (const f of front) if (f.across <= entry.across && f.along <= entry.along && sameOrLess(f, entry)) return;
  for (let i = front.length - 1; i >= 0; i--) {
    const f = front[i]!;
    if (entry.across <= f.across && entry.along <= f.along && sameOrLess(entry, f)) front.splice(i, 1);
  }
  front.push(entry);
}

/** Shortest lengths of one roll that hold each set of pieces, and how. */
interface Shortest {
  readonly total: Float64Array;
  readonly choice: Int32Array;
  readonly drops: readonly (DropEntry | null)[];
}

/** Sets and pairs looked at between two rests: 10 to 20 ms. @source measured; house figure */
const PAIRS_IN_A_ROW = 400_000;

/** To try two parts of a drop or column together costs as much as so many looks at whether one set holds another. @source measured */
const PAIR_OF_FRONTS = 5;

/** Of so many sets on a rest is made before and after each level. @source measured */
const RESTED_SETS = 10_000;

/** Work in pieces: whoever does it may rest in between, or leave it. */
export type InPieces<T> = Generator<undefined, T>;

/** All of it at once. */
function throughout<T>(work: InPieces<T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

function* shortest(types: readonly PieceType[], sets: Sets, bench: Bench, mayWaste: number): InPieces<Shortest> {
  const isLarge = sets.size > RESTED_SETS;
  if (isLarge) yield;
  const columns = yield* columnFronts(types, sets, bench, mayWaste);
  if (isLarge) yield;
  const drops = (yield* dropFronts(sets, columns, bench, mayWaste)).map((front) =>
    front.reduce<DropEntry | null>((a, b) => (!a || b.along < a.along ? b : a), null),
  );
  const usable: DropEntry[][] = drops.map((d, set) => (d && d.column && bench.width * d.along - sets.area[set]! <= mayWaste ? [d] : []));
  const starts = sets.byLowest(usable);
  const total = new Float64Array(sets.size).fill(Infinity);
  const choice = new Int32Array(sets.size);
  total[0] = 0;
  const { bits } = sets;
  let pairs = 0;
  for (let set = 1; set < sets.size; set++) {
    const missing = ~bits[set]!;
    const parts = starts[sets.lowest[set]!]!;
    if ((pairs += parts.length) > PAIRS_IN_A_ROW) {
      pairs = 0;
      yield;
    }
    for (const part of parts) {
      if (part > set) break;
      if ((bits[part]! & missing) !== 0) continue;
      const length = drops[part]!.along + total[set - part]!;
      if (length < total[set]!) {
        total[set] = length;
        choice[set] = part;
      }
    }
  }
  return { total, choice, drops };
}

function dropsOf({ choice, drops }: Shortest, set: number): PackedDrop[] {
  const out: PackedDrop[] = [];
  for (let left = set; left > 0; left -= choice[left]!) out.push(unfold(drops[choice[left]!]!));
  return out;
}

/**
 * @param types piece types, `counts[i]` of type i to cut
 * @param known total length of a plan for these pieces, grains: nothing longer is looked for
 * @returns drops of least total length, or null when nothing of at most `known` exists
 */
export const packExactly = (types: readonly PieceType[], counts: readonly number[], bench: Bench, known: number): PackedDrop[] | null =>
  throughout(packInPieces(types, counts, bench, known));

/** The same, with rests. */
export function* packInPieces(types: readonly PieceType[], counts: readonly number[], bench: Bench, known: number): InPieces<PackedDrop[] | null> {
  const sets = new Sets(types, counts);
  const all = sets.size - 1;
  const best = yield* shortest(types, sets, bench, known * bench.width - sets.area[all]! + 0.5);
  if (!(best.total[all]! <= known)) return null;
  return dropsOf(best, all);
}

/**
 * The cheapest cut of these pieces out of several rolls and leftovers, each with the room that it has: source by source, every set of
 * pieces is either cut without it or in part from it.
 * @param known cost of a plan for these pieces: nothing dearer is looked for
 * @returns drops with their source, or null when nothing of at most `known` exists
 */
export function packOverSources(
  types: readonly PieceType[],
  counts: readonly number[],
  sources: readonly { readonly index: number; readonly source: Source; readonly room: number }[],
  known: number,
): SourcedDrop[] | null {
  const sets = new Sets(types, counts);
  const all = sets.size - 1;
  const perArea = sources.map(({ source }) => source.pricePerGrain / source.bench.width);
  // the pieces out of the cheapest film as far as it goes cost at least this; only the rest may be wasted
  let area = sets.area[all]!;
  let least = 0;
  for (const k of perArea.map((_, i) => i).sort((a, b) => perArea[a]! - perArea[b]!)) {
    const taken = Math.min(area, sources[k]!.room * sources[k]!.source.bench.width);
    least += taken * perArea[k]!;
    area -= taken;
  }
  const spare = known - least;
  if (spare < -1e-6 * known) return null;
  const layers: { from: Shortest; part: Int32Array; index: number }[] = [];
  let cost = new Float64Array(sets.size).fill(Infinity);
  cost[0] = 0;
  sources.forEach(({ index, source, room }, k) => {
    const own = types.map((t) => (mayLie(t, source) ? t : { ...t, ways: [] }));
    const from = throughout(shortest(own, sets, source.bench, spare / perArea[k]! + 0.5));
    const parts: number[] = [];
    for (let set = 1; set < sets.size; set++) if (from.total[set]! <= room) parts.push(set);
    const next = Float64Array.from(cost);
    const part = new Int32Array(sets.size);
    for (let set = 1; set < sets.size; set++) {
      const missing = ~sets.bits[set]!;
      for (const p of parts) {
        if (p > set) break;
        if ((sets.bits[p]! & missing) !== 0) continue;
        const c = from.total[p]! * source.pricePerGrain + cost[set - p]!;
        if (c < next[set]! - 1e-9) {
          next[set] = c;
          part[set] = p;
        }
      }
    }
    layers.push({ from, part, index });
    cost = next;
  });
  if (!(cost[all]! <= known * (1 + 1e-12) + 1e-9)) return null;
  const out: SourcedDrop[] = [];
  let left = all;
  for (const { from, part, index } of [...layers].reverse()) {
    const taken = part[left]!;
    if (taken === 0) continue;
    out.push(...dropsOf(from, taken).map((d) => ({ ...d, source: index })));
    left -= taken;
  }
  return out;
}

function* dropFronts(sets: Sets, columns: readonly (readonly ColumnEntry[])[], bench: Bench, mayWaste: number): InPieces<DropEntry[][]> {
  const starts = sets.byLowest(columns);
  const largest = bench.width * bench.longest;
  const fronts: DropEntry[][] = [[{ across: 0, along: 0, needs: [], column: null, rest: null }]];
  let pairs = 0;
  for (let set = 1; set < sets.size; set++) {
    const front: DropEntry[] = [];
    fronts.push(front);
    if (sets.area[set]! > largest) continue;
    const missing = ~sets.bits[set]!;
    const parts = starts[sets.lowest[set]!]!;
    if ((pairs += parts.length) > PAIRS_IN_A_ROW) {
      pairs = 0;
      yield;
    }
    for (const part of parts) {
      if (part > set) break;
      if ((sets.bits[part]! & missing) !== 0) continue;
      const others = fronts[set - part]!;
      if (others.length === 0) continue;
      pairs += PAIR_OF_FRONTS * columns[part]!.length * others.length;
      for (const column of columns[part]!)
        for (const rest of others) {
          const across = column.across + rest.across;
          const along = Math.max(column.along, rest.along);
          if (across > bench.width || across * along - sets.area[set]! > mayWaste) continue;
          const needs = column.need === 'none' ? rest.needs : [...rest.needs, column.need];
          if (column.need !== 'none' && !edgesFit(needs, bench)) continue;
          keepBest(front, { across, along, needs, column, rest }, needsLess);
        }
    }
  }
  return fronts;
}

function* columnFronts(types: readonly PieceType[], sets: Sets, bench: Bench, mayWaste: number): InPieces<ColumnEntry[][]> {
  const rows = rowFronts(types, sets, bench, mayWaste);
  const starts = sets.byLowest(rows);
  const largest = bench.width * bench.longest;
  const fronts: ColumnEntry[][] = [[{ across: 0, along: 0, need: 'none', row: null, rest: null }]];
  let pairs = 0;
  for (let set = 1; set < sets.size; set++) {
    const front: ColumnEntry[] = [];
    fronts.push(front);
    if (sets.area[set]! > largest) continue;
    if (pairs > PAIRS_IN_A_ROW) {
      pairs = 0;
      yield;
    }
    const stack = (part: number) => {
      pairs += PAIR_OF_FRONTS * rows[part]!.length * fronts[set - part]!.length;
      for (const row of rows[part]!)
        for (const rest of fronts[set - part]!) {
          const need = joinNeeds(row.need, rest.need);
          const along = row.along + rest.along;
          const across = Math.max(row.across, rest.across);
          if (need === null || along > bench.longest || across * along - sets.area[set]! > mayWaste) continue;
          keepBest(front, { across, along, need, row, rest }, needLess);
        }
    };
    const low = sets.lowest[set]!;
    pairs += PAIR_OF_FRONTS + (bench.stages === 3 ? 1 : starts[low]!.length);
    if (bench.stages === 3) stack(sets.strides[low]!);
    else
      for (const part of starts[low]!) {
        if (part > set) break;
        if ((sets.bits[part]! & ~sets.bits[set]!) === 0) stack(part);
      }
  }
  return fronts;
}

/** Rows: single pieces in the three-stage rule; with four stages also plain pieces side by side. */
function rowFronts(types: readonly PieceType[], sets: Sets, bench: Bench, mayWaste: number): RowEntry[][] {
  const fronts: RowEntry[][] = [[]];
  const isSingle = new Set(sets.strides);
  for (let set = 1; set < sets.size; set++) {
    const front: RowEntry[] = [];
    const low = sets.lowest[set]!;
    const step = sets.strides[low]!;
    if (isSingle.has(set)) {
      for (const way of types[low]!.ways)
        if (way.across <= bench.width && way.along <= bench.longest) keepBest(front, { ...way, pieces: [{ type: low, way }] }, needLess);
    } else if (bench.stages === 4) {
      for (const way of types[low]!.ways)
        for (const rest of fronts[set - step]!) {
          const across = way.across + rest.across;
          const along = Math.max(way.along, rest.along);
          if (way.need !== 'none' || rest.need !== 'none' || across > bench.width || across * along - sets.area[set]! > mayWaste) continue;
          keepBest(front, { across, along, need: 'none', pieces: [{ type: low, way }, ...rest.pieces] }, needLess);
        }
    }
    fronts.push(front);
  }
  return fronts;
}

function unfold(entry: DropEntry): PackedDrop {
  const columns: PackedColumn[] = [];
  for (let d: DropEntry | null = entry; d?.column; d = d.rest) {
    const rows: PackedRow[] = [];
    for (let c: ColumnEntry | null = d.column; c?.row; c = c.rest) rows.push({ along: c.row.along, pieces: c.row.pieces });
    columns.push({ across: d.column.across, along: d.column.along, need: d.column.need, rows });
  }
  return { along: entry.along, columns };
}
