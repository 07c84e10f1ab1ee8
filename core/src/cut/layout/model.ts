import { grainsDown, grainsUp } from '../../ground/index.js';
import type { CutSettings, Edge, Piece, RollEdges, Turn } from '@yellow-pane/contracts';

/**
 * The layout problem in whole grains of 1/320 mm (1/64 in = 127 grains, so inches and mm are both exact).
 *
 * A drop is cut off the roll across its full width. Slits along the roll make columns, crosscuts in a column make rows,
 * and (four stages) slits in a row make pieces. A piece narrower than its row is trimmed at the end, which is a cut but no
 * stage. Frame: x along the roll from its squared start, y across from the near edge, drawn liner up.
 * Film lost at a cut is added to each piece (`along` + crosscut, `across` + slit) and once to roll width and longest pull;
 * with that the sums come out right for any number of pieces.
 */

/** Which roll edge a piece must touch. `either`: the film may be turned end for end. */
export type EdgeNeed = 'none' | 'either' | 'low' | 'high';

/** One way a piece may lie: grains, allowances included. */
export interface Way {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
}

/** Where in the repeat of a patterned film a piece starts, grains. */
export interface Repeat {
  readonly length: number;
  readonly start: number;
}

/** Pieces that are the same to the knife. */
export interface PieceType {
  readonly ways: readonly Way[];
  readonly area: number;
  /** Patterned film: it may begin only where the roll shows this place of the repeat; the squared start of the roll is a mark. */
  readonly repeat: Repeat | null;
  /** Lot they must come from because they meet others; null = any. */
  readonly lot: string | null;
  /** Pieces of this type in walking order. */
  readonly pieces: readonly Piece[];
}

/** What one width of roll and this bench allow, grains. */
export interface Bench {
  readonly width: number;
  readonly longest: number;
  readonly stages: 3 | 4;
  readonly crosscut: number;
  readonly slit: number;
  /** Whether the near and the far edge are still the roll's own straight edges. */
  readonly low: boolean;
  readonly high: boolean;
}

/** A roll or leftover as the search sees it. */
export interface Source {
  readonly bench: Bench;
  /** Money for one grain of its length. */
  readonly pricePerGrain: number;
  /** Grains that can be taken from it. */
  readonly room: number;
  /** Where the first new drop may begin, grains from the squared start: behind what is locked or cut. */
  readonly start: number;
  readonly lot: string;
  /** True: film that is not there. What lies on it is what must be ordered. */
  readonly isShort: boolean;
}

/** Whether pieces of a type may come from a source at all. */
export const mayLie = (type: PieceType, source: Source): boolean =>
  (type.lot === null || type.lot === source.lot) && type.ways.some((w) => fitsBench(w, source.bench));
const fitsBench = (way: Way, bench: Bench): boolean =>
  way.across <= bench.width && way.along <= bench.longest && (way.need === 'none' || edgesFit([way.need], bench));

export interface PackedPiece {
  readonly type: number;
  readonly way: Way;
}
/** Pieces side by side between two crosscuts of a column; one piece in the three-stage rule. */
export interface PackedRow {
  readonly along: number;
  readonly pieces: readonly PackedPiece[];
}
export interface PackedColumn {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
  readonly rows: readonly PackedRow[];
}
export interface PackedDrop {
  /** Film cut off before the drop because the pattern begins later; absent = none. */
  readonly gap?: number;
  readonly along: number;
  readonly columns: readonly PackedColumn[];
}
/** A drop and the source it is cut off. */
export interface SourcedDrop extends PackedDrop {
  readonly source: number;
}

/** Where a piece's edge comes to lie at a turn: at the near (low) or far (high) roll edge; null = across the roll. */
export function rollSideOf(edge: Edge, turn: Turn): 'low' | 'high' | null {
  const table: Record<Edge, Partial<Record<Turn, 'low' | 'high'>>> = {
    left: { 0: 'high', 180: 'low' },
    right: { 0: 'low', 180: 'high' },
    top: { 90: 'low', 270: 'high' },
    bottom: { 90: 'high', 270: 'low' },
  };
  return table[edge][turn] ?? null;
}

/** Width across and length along the roll at a turn, mm. */
const sizeAtTurn = (piece: Piece, turn: Turn): { acrossMm: number; alongMm: number } =>
  turn === 0 || turn === 180 ? { acrossMm: piece.widthMm, alongMm: piece.heightMm } : { acrossMm: piece.heightMm, alongMm: piece.widthMm };

/** The ways a piece may lie, one per distinct size and edge. */
export function waysOf(piece: Piece, settings: CutSettings): Way[] {
  const found = new Map<string, Way>();
  for (const turn of piece.turns) {
    const side = piece.factoryEdge ? rollSideOf(piece.factoryEdge, turn) : null;
    if (piece.factoryEdge && !side) continue;
    const { acrossMm, alongMm } = sizeAtTurn(piece, turn);
    const across = grainsUp(acrossMm) + grainsUp(settings.slitAllowanceMm);
    const along = grainsUp(alongMm) + grainsUp(settings.crosscutAllowanceMm);
    const key = `${across}/${along}`;
    const before = found.get(key);
    const need: EdgeNeed = side ? (before && before.need !== side ? 'either' : side) : 'none';
    found.set(key, { across, along, need });
  }
  return [...found.values()];
}

/** Where a piece of patterned film starts in its repeat; null for film that has none. */
export const repeatOf = (piece: Pick<Piece, 'repeat'>): Repeat | null =>
  piece.repeat ? { length: grainsUp(piece.repeat.repeatMm), start: grainsUp(piece.repeat.startMm) } : null;

/** The first place from `at` on, grains from a mark, where a piece that starts there in its repeat may begin. */
export const markFrom = (at: number, repeat: Repeat | null): number =>
  repeat ? at + ((((repeat.start - at) % repeat.length) + repeat.length) % repeat.length) : at;

/** A drop that begins at `x`: each row waits for its place in the pattern, and is as long as that makes it. */
export function alignedDrop(columns: readonly PackedColumn[], x: number, repeat: (type: number) => Repeat | null): PackedDrop {
  const aligned = columns.map((c): PackedColumn => {
    let at = x;
    const rows = c.rows.map((r): PackedRow => {
      let end = at;
      for (const p of r.pieces) end = Math.max(end, markFrom(at, repeat(p.type)) + p.way.along);
      const along = end - at;
      at = end;
      return { ...r, along };
    });
    return { ...c, rows, along: at - x };
  });
  return { along: aligned.reduce((most, c) => Math.max(most, c.along), 0), columns: aligned };
}

/** What is cut off before a drop that could begin at `x`, because none of its columns begins there yet. */
export function leadOf(columns: readonly PackedColumn[], x: number, repeat: (type: number) => Repeat | null): number {
  let lead = Infinity;
  for (const c of columns) for (const p of c.rows[0]?.pieces ?? []) lead = Math.min(lead, markFrom(x, repeat(p.type)) - x);
  return Number.isFinite(lead) ? lead : 0;
}

/** Limits of one roll width in grains; the heaviest sheet shortens the longest pull. */
export function benchFor(rollWidthMm: number, settings: CutSettings, edges: RollEdges = 'both'): Bench {
  const byWeight = settings.largestSheetM2 === null ? Infinity : (settings.largestSheetM2 * 1e6) / rollWidthMm;
  const crosscut = grainsUp(settings.crosscutAllowanceMm);
  const slit = grainsUp(settings.slitAllowanceMm);
  return {
    width: grainsDown(rollWidthMm) + slit,
    longest: grainsDown(Math.min(settings.longestPullMm, byWeight)) + crosscut,
    stages: settings.stages,
    crosscut,
    slit,
    low: edges === 'both' || edges === 'near',
    high: edges === 'both' || edges === 'far',
  };
}

/** The turn that brings a piece into this way, at this roll edge. @throws when the piece has no such turn: a bug in the layout */
export function turnFor(piece: Piece, way: Way, atEdge: 'low' | 'high' | null, settings: CutSettings): Turn {
  for (const turn of piece.turns) {
    const { acrossMm, alongMm } = sizeAtTurn(piece, turn);
    const along = grainsUp(alongMm) + grainsUp(settings.crosscutAllowanceMm);
    if (grainsUp(acrossMm) + grainsUp(settings.slitAllowanceMm) !== way.across || along !== way.along) continue;
    if (!piece.factoryEdge || rollSideOf(piece.factoryEdge, turn) === atEdge) return turn;
  }
  throw new Error(`Piece ${piece.id} cannot lie that way.`);
}

/** Sorts pieces into types; `types[k].pieces` keep the order they came in. @param lotOf lot that a piece is bound to */
export function groupPieces(pieces: readonly Piece[], settings: CutSettings, lotOf: (piece: Piece) => string | null = () => null): PieceType[] {
  const groups = new Map<string, { ways: Way[]; lot: string | null; repeat: Repeat | null; pieces: Piece[] }>();
  for (const piece of pieces) {
    const ways = waysOf(piece, settings);
    const lot = lotOf(piece);
    const key = `${ways.map((w) => `${w.across}x${w.along}${w.need}`).join('|')}/${piece.repeat?.startMm ?? ''}/${lot ?? ''}`;
    const group = groups.get(key) ?? { ways, lot, repeat: repeatOf(piece), pieces: [] };
    group.pieces.push(piece);
    groups.set(key, group);
  }
  return [...groups.values()].map((g) => ({ ...g, area: g.ways[0] ? g.ways[0].across * g.ways[0].along : 0 }));
}

/** A column made of rows: as wide as its widest row, as long as all together. */
export function columnOf(rows: readonly PackedRow[]): PackedColumn {
  let need: EdgeNeed = 'none';
  for (const r of rows) for (const p of r.pieces) need = joinNeeds(need, p.way.need) ?? need;
  return { across: Math.max(...rows.map((r) => r.pieces.reduce((s, p) => s + p.way.across, 0))), along: rows.reduce((s, r) => s + r.along, 0), need, rows };
}

/** What a column needs that holds both; null when one column cannot serve both. */
export function joinNeeds(a: EdgeNeed, b: EdgeNeed): EdgeNeed | null {
  if (a === 'none' || a === b) return b;
  if (b === 'none') return a;
  if (a === 'either') return b;
  if (b === 'either') return a;
  return null;
}

/** True when these columns can share a drop: one at the near edge, one at the far edge where those are straight, the others between. */
export function edgesFit(needs: readonly EdgeNeed[], bench: Pick<Bench, 'low' | 'high'>): boolean {
  const count = (n: EdgeNeed) => needs.filter((x) => x === n).length;
  const [low, high] = [Number(bench.low), Number(bench.high)];
  return count('low') <= low && count('high') <= high && count('low') + count('high') + count('either') <= low + high;
}

/** Cuts a knife makes for a drop: crosscut, slits, crosscuts in columns, slits in rows, trims. */
export function cutsOf(drop: PackedDrop, bench: Bench): number {
  let cuts = 1;
  let across = 0;
  for (const c of drop.columns) {
    across += c.across;
    cuts += across < bench.width ? 1 : 0;
    let along = 0;
    for (const r of c.rows) {
      along += r.along;
      cuts += along < drop.along ? 1 : 0;
      let used = 0;
      for (const p of r.pieces) {
        used += p.way.across;
        cuts += (used < c.across ? 1 : 0) + (p.way.along < r.along ? 1 : 0);
      }
    }
  }
  return cuts;
}

/** Film of a drop that is pieces, grains². */
export const usedArea = (drop: PackedDrop): number => {
  let area = 0;
  for (const c of drop.columns) for (const r of c.rows) for (const p of r.pieces) area += p.way.across * p.way.along;
  return area;
};
