import {
  edgesFit,
  joinNeeds,
  type Bench,
  type EdgeNeed,
  type PackedColumn,
  type PackedDrop,
  type PackedPiece,
  type PackedRow,
  type PieceType,
} from './model.js';

/**
 * The best cut of a handful of pieces, proven: dynamic programming over how many of each type are already cut.
 * Level by level – row, column, drop, roll – it keeps only what nothing else beats in width, length and need of a roll edge.
 * Work grows with the number of pairs (set, part of it), so the caller keeps `pairCount` small.
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

/** Pairs (set, part) that the dynamic programme visits for these counts. */
export const pairCount = (counts: readonly number[]): number => counts.reduce((s, d) => s * (((d + 1) * (d + 2)) / 2), 1);

const covers = (a: readonly EdgeNeed[], b: readonly EdgeNeed[]): boolean => a.length === 0 || (a.length <= b.length && a.every((n) => b.includes(n)));

/** Adds `entry` to a front unless it is beaten, and drops what it beats. */
function keepBest<T extends { readonly across: number; readonly along: number }>(front: T[], entry: T, sameOrLess: (a: T, b: T) => boolean): void {
  for (const f of front) if (f.across <= entry.across && f.along <= entry.along && sameOrLess(f, entry)) return;
  for (let i = front.length - 1; i >= 0; i--) {
    const f = front[i]!;
    if (entry.across <= f.across && entry.along <= f.along && sameOrLess(entry, f)) front.splice(i, 1);
  }
  front.push(entry);
}

const needLess = (a: { need: EdgeNeed }, b: { need: EdgeNeed }): boolean => a.need === 'none' || a.need === b.need;

/** Walks all parts of the set `digits` that hold at least one of its lowest type; calls back with the part's index. */
function forEachPart(digits: readonly number[], strides: readonly number[], visit: (part: number) => void): void {
  const present = digits.map((d, i) => (d > 0 ? i : -1)).filter((i) => i >= 0);
  const lowest = present[0];
  if (lowest === undefined) return;
  const walk = (k: number, part: number): void => {
    if (k === present.length) return visit(part);
    const type = present[k]!;
    for (let n = k === 0 ? 1 : 0; n <= digits[type]!; n++) walk(k + 1, part + n * strides[type]!);
  };
  walk(0, 0);
}

/**
 * @param types piece types, `counts[i]` of type i to cut
 * @returns drops of least total length, or null when some piece fits no drop
 */
export function packExactly(types: readonly PieceType[], counts: readonly number[], bench: Bench): PackedDrop[] | null {
  const strides: number[] = [];
  let size = 1;
  for (const d of counts) {
    strides.push(size);
    size *= d + 1;
  }
  const digitsOf = Array.from({ length: size }, (_, index) => counts.map((d, i) => Math.floor(index / strides[i]!) % (d + 1)));
  const columns = columnFronts(types, digitsOf, strides, bench);
  const drops: DropEntry[][] = [[{ across: 0, along: 0, needs: [], column: null, rest: null }]];
  const bestOf: (DropEntry | null)[] = [null];
  const total: number[] = [0];
  const choice: number[] = [0];
  for (let set = 1; set < size; set++) {
    const front: DropEntry[] = [];
    forEachPart(digitsOf[set]!, strides, (part) => {
      const others = drops[set - part]!;
      if (others.length === 0) return;
      for (const column of columns[part]!)
        for (const rest of others) {
          const across = column.across + rest.across;
          if (across > bench.width) continue;
          const needs = column.need === 'none' ? rest.needs : [...rest.needs, column.need];
          if (column.need !== 'none' && !edgesFit(needs)) continue;
          keepBest(front, { across, along: Math.max(column.along, rest.along), needs, column, rest }, (a, b) => covers(a.needs, b.needs));
        }
    });
    drops.push(front);
    bestOf.push(front.reduce<DropEntry | null>((a, b) => (!a || b.along < a.along ? b : a), null));
    let least = Infinity;
    let by = 0;
    forEachPart(digitsOf[set]!, strides, (part) => {
      const drop = bestOf[part];
      if (drop && drop.along + total[set - part]! < least) {
        least = drop.along + total[set - part]!;
        by = part;
      }
    });
    total.push(least);
    choice.push(by);
  }
  if (!Number.isFinite(total[size - 1]!)) return null;
  const out: PackedDrop[] = [];
  for (let set = size - 1; set > 0; set -= choice[set]!) out.push(unfold(bestOf[choice[set]!]!));
  return out;
}

function columnFronts(types: readonly PieceType[], digitsOf: readonly (readonly number[])[], strides: readonly number[], bench: Bench): ColumnEntry[][] {
  const rows = rowFronts(types, digitsOf, strides, bench);
  const fronts: ColumnEntry[][] = [[{ across: 0, along: 0, need: 'none', row: null, rest: null }]];
  for (let set = 1; set < digitsOf.length; set++) {
    const front: ColumnEntry[] = [];
    const stack = (part: number) => {
      for (const row of rows[part]!)
        for (const rest of fronts[set - part]!) {
          const need = joinNeeds(row.need, rest.need);
          const along = row.along + rest.along;
          if (need === null || along > bench.longest) continue;
          keepBest(front, { across: Math.max(row.across, rest.across), along, need, row, rest }, needLess);
        }
    };
    if (bench.stages === 4) forEachPart(digitsOf[set]!, strides, stack);
    else stack(strides[digitsOf[set]!.findIndex((d) => d > 0)]!);
    fronts.push(front);
  }
  return fronts;
}

/** Rows: single pieces in the three-stage rule; with four stages also plain pieces side by side. */
function rowFronts(types: readonly PieceType[], digitsOf: readonly (readonly number[])[], strides: readonly number[], bench: Bench): RowEntry[][] {
  const fronts: RowEntry[][] = [];
  digitsOf.forEach((digits, set) => {
    const front: RowEntry[] = [];
    const pieces = digits.reduce((s, d) => s + d, 0);
    const lowest = digits.findIndex((d) => d > 0);
    if (pieces === 1)
      for (const way of types[lowest]!.ways)
        if (way.across <= bench.width && way.along <= bench.longest) keepBest(front, { ...way, pieces: [{ type: lowest, way }] }, needLess);
    if (pieces > 1 && bench.stages === 4) {
      const step = strides[lowest]!;
      for (const way of types[lowest]!.ways.filter((w) => w.need === 'none'))
        for (const rest of fronts[set - step]!) {
          const across = way.across + rest.across;
          if (rest.need !== 'none' || across > bench.width) continue;
          keepBest(front, { across, along: Math.max(way.along, rest.along), need: 'none', pieces: [{ type: lowest, way }, ...rest.pieces] }, needLess);
        }
    }
    fronts.push(front);
  });
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
