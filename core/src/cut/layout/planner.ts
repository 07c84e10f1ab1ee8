import type { Column, CutSettings, Drop, Layout, Piece, PlacedPiece, RollLayout } from '@yellow-pane/contracts';
import { grainsDown, grainsUp, mmFromGrains } from '../../ground/index.js';
import { boundLayout } from './bound.js';
import { LayoutSearch } from './improve.js';
import { benchFor, cutsOf, groupPieces, totalAlong, turnFor, type Bench, type PackedColumn, type PackedDrop, type PieceType } from './model.js';

/** A roll as the layout sees it: what can be pulled from it, and drops that stay as they are. */
export interface RollToCut {
  readonly id: string;
  readonly widthMm: number;
  /** From the squared start, lead-in already taken off. */
  readonly availableMm: number;
  readonly pricePerM: number;
  /** Locked or already cut drops, in order from the start. */
  readonly fixedDrops: readonly Drop[];
}

export interface LayoutInput {
  readonly filmId: string;
  readonly rolls: readonly RollToCut[];
  /** All pieces in walking order, those in fixed drops included. */
  readonly pieces: readonly Piece[];
  readonly settings: CutSettings;
  readonly seed: number;
}

/** One roll's share of the plan while it is searched. */
interface Share {
  readonly roll: RollToCut;
  readonly bench: Bench;
  readonly search: LayoutSearch | null;
  /** Set when the roll is full: these drops only, the rest goes on. */
  readonly drops: readonly PackedDrop[] | null;
}

const fixedAlong = (roll: RollToCut, settings: CutSettings): number =>
  roll.fixedDrops.reduce((s, d) => s + grainsUp(d.alongMm) + grainsUp(settings.crosscutAllowanceMm), 0);

/** Why a piece can lie on none of the rolls; null when one takes it. */
function misfit(piece: Piece, rolls: readonly RollToCut[], settings: CutSettings): string | null {
  if (rolls.length === 0) return 'There is no roll of this film.';
  if (Math.min(piece.widthMm, piece.heightMm) < settings.smallestStripMm)
    return `It is narrower than the smallest strip this bench handles (${Math.round(settings.smallestStripMm)} mm).`;
  const [type] = groupPieces([piece], settings);
  const fits = rolls.some((r) => {
    const bench = benchFor(r.widthMm, settings);
    return type!.ways.some((w) => w.across <= bench.width && w.along <= bench.longest);
  });
  if (fits) return null;
  const widest = Math.max(...rolls.map((r) => r.widthMm));
  const short = Math.min(piece.widthMm, piece.heightMm);
  if (short > widest) return `It is ${Math.round(short)} mm at its narrowest and the widest roll is ${Math.round(widest)} mm: it needs a seam.`;
  if (piece.turns.length < 4) return 'It does not fit the roll the only way round that it may lie.';
  return 'It is longer than the longest pull of this bench, or too heavy a sheet for one person.';
}

/**
 * The running layout of one film: an instant answer, made better step by step, the same for the same input, seed and steps.
 */
export class LayoutPlanner {
  private shares: Share[];
  private readonly unplaced: { pieceId: string; reason: string }[] = [];
  private readonly free: readonly Piece[];
  private boundCost: number | null = null;
  private turn = 0;

  constructor(private readonly input: LayoutInput) {
    const fixed = new Set(
      input.rolls.flatMap((r) => r.fixedDrops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces.map((p) => p.pieceId))))),
    );
    const free: Piece[] = [];
    for (const piece of input.pieces) {
      if (fixed.has(piece.id)) continue;
      const reason = misfit(piece, input.rolls, input.settings);
      if (reason) this.unplaced.push({ pieceId: piece.id, reason });
      else free.push(piece);
    }
    this.free = free;
    this.shares = this.bestShares();
  }

  get steps(): number {
    return this.shares.reduce((s, x) => s + (x.search?.steps ?? 0), 0);
  }

  /** One step of improvement. @returns true when the plan got shorter */
  step(): boolean {
    const live = this.shares.filter((s) => s.search && !s.drops);
    if (live.length === 0) return false;
    return live[this.turn++ % live.length]!.search!.step();
  }

  /** Nothing left to search: no two drops to exchange pieces between. */
  get isDone(): boolean {
    return this.shares.every((s) => !s.search || s.drops || s.search.best.length < 2);
  }

  /** Computes the bound on cost (once). @param rounds more is closer, and slower */
  computeBound(rounds: number): number | null {
    if (this.boundCost !== null || this.free.length === 0 || this.input.rolls.length === 0) return this.boundCost;
    const { settings, rolls, pieces } = this.input;
    const placeable = pieces.filter((p) => !this.unplaced.some((u) => u.pieceId === p.id) && this.free.includes(p));
    const types = groupPieces(placeable, settings);
    const bound = boundLayout(
      types,
      types.map((t) => t.pieces.length),
      rolls.map((r) => ({ bench: benchFor(r.widthMm, settings), costPerGrain: r.pricePerM / 1000 / 320 })),
      rounds,
    );
    const fixedCost = rolls.reduce((s, r) => s + (mmFromGrains(fixedAlong(r, settings)) / 1000) * r.pricePerM, 0);
    this.boundCost = bound.cost + fixedCost;
    return this.boundCost;
  }

  /** Tries each roll as the first to cut from; the cheapest split is searched further. */
  private bestShares(): Share[] {
    const { rolls } = this.input;
    let best: { shares: Share[]; left: number; cost: number } | null = null;
    for (const first of rolls) {
      const order = [first, ...rolls.filter((r) => r !== first)];
      const split = this.split(order);
      if (!best || split.left < best.left || (split.left === best.left && split.cost < best.cost)) best = split;
    }
    if (best)
      for (const piece of this.leftover(best.shares))
        this.unplaced.push({ pieceId: piece.id, reason: 'The rolls of this film are used up before it. Order more, or add a roll.' });
    return best?.shares ?? [];
  }

  private leftover(shares: readonly Share[]): Piece[] {
    const placed = new Set(shares.flatMap((s) => this.piecesOn(s).map((p) => p.id)));
    return this.free.filter((p) => !placed.has(p.id));
  }

  private readonly typesOf = new Map<Share, { types: PieceType[]; pieces: Piece[] }>();
  private piecesOn(share: Share): Piece[] {
    const entry = this.typesOf.get(share);
    if (!entry) return [];
    return share.drops ? assign(share.drops, entry.types).flat() : entry.pieces;
  }

  private split(order: readonly RollToCut[]): { shares: Share[]; left: number; cost: number } {
    const { settings, seed } = this.input;
    let rest = [...this.free];
    let cost = 0;
    const shares: Share[] = [];
    for (const roll of order) {
      const bench = benchFor(roll.widthMm, settings);
      const mine = rest.filter((p) => groupPieces([p], settings)[0]!.ways.some((w) => w.across <= bench.width && w.along <= bench.longest));
      const types = groupPieces(mine, settings);
      const room = grainsDown(roll.availableMm) - fixedAlong(roll, settings);
      if (mine.length === 0) {
        shares.push({ roll, bench, search: null, drops: null });
        continue;
      }
      const search = new LayoutSearch(
        types,
        types.map((t) => t.pieces.length),
        bench,
        seed,
      );
      for (let i = 0; i < 20 && search.along > room; i++) search.step();
      const isFull = search.along > room;
      const drops = isFull ? fillRoom(search.best, room) : null;
      const share: Share = { roll, bench, search, drops };
      this.typesOf.set(share, { types, pieces: mine });
      shares.push(share);
      const placed = new Set(this.piecesOn(share).map((p) => p.id));
      rest = rest.filter((p) => !placed.has(p.id));
      cost += (mmFromGrains(totalAlong(drops ?? search.best)) / 1000) * roll.pricePerM;
    }
    return { shares, left: rest.length, cost };
  }

  /** The plan as it stands. */
  result(): Layout {
    const { settings, input } = { settings: this.input.settings, input: this.input };
    const order = new Map(input.pieces.map((p, i) => [p.id, i]));
    let cuts = 0;
    const rolls: RollLayout[] = this.shares.map((share) => {
      const entry = this.typesOf.get(share);
      const packed = share.drops ?? share.search?.best ?? [];
      const named = entry ? assign(packed, entry.types) : [];
      const walk = packed.map((_, i) => Math.min(...named[i]!.map((p) => order.get(p.id)!)));
      const sequence = packed.map((_, i) => i).sort((a, b) => walk[a]! - walk[b]!);
      let x = 0;
      const drops: Drop[] = share.roll.fixedDrops.map((d) => {
        const moved = shifted(d, mmFromGrains(x) - d.xMm);
        x += grainsUp(d.alongMm) + share.bench.crosscut;
        cuts += knifeCuts(d, share.roll.widthMm);
        return { ...moved, locked: true };
      });
      for (const i of sequence) {
        drops.push(dropAt(packed[i]!, named[i]!, x, share, settings));
        x += packed[i]!.along;
        cuts += cutsOf(packed[i]!, share.bench);
      }
      return { rollId: share.roll.id, usedMm: mmFromGrains(x), drops };
    });
    const byRoll = new Map(input.rolls.map((r) => [r.id, r]));
    return {
      filmId: input.filmId,
      rolls: input.rolls.map((r) => rolls.find((x) => x.rollId === r.id) ?? { rollId: r.id, usedMm: 0, drops: [] }),
      unplaced: this.unplaced,
      usedMm: rolls.reduce((s, r) => s + r.usedMm, 0),
      cost: rolls.reduce((s, r) => s + (r.usedMm / 1000) * byRoll.get(r.rollId)!.pricePerM, 0),
      boundCost: this.boundCost,
      cutCount: cuts,
      seed: input.seed,
      steps: this.steps,
    };
  }
}

/** Longest and fullest drops first into the room there is. */
function fillRoom(drops: readonly PackedDrop[], room: number): PackedDrop[] {
  let left = room;
  return [...drops].sort((a, b) => b.along - a.along).filter((d) => d.along <= left && ((left -= d.along), true));
}

/** Gives each drop its pieces by name: types hand them out in walking order. */
function assign(drops: readonly PackedDrop[], types: readonly PieceType[]): Piece[][] {
  const next = types.map(() => 0);
  return drops.map((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => types[p.type]!.pieces[next[p.type]!++]!))));
}

const shifted = (d: Drop, by: number): Drop => ({
  ...d,
  xMm: d.xMm + by,
  columns: d.columns.map((c) => ({ ...c, rows: c.rows.map((r) => ({ ...r, xMm: r.xMm + by, pieces: r.pieces.map((p) => ({ ...p, xMm: p.xMm + by })) })) })),
});

function knifeCuts(d: Drop, rollWidthMm: number): number {
  let cuts = 1;
  for (const c of d.columns) {
    cuts += c.yMm + c.acrossMm < rollWidthMm - 0.01 ? 1 : 0;
    for (const r of c.rows) {
      cuts += r.xMm + r.alongMm < d.xMm + d.alongMm - 0.01 ? 1 : 0;
      for (const p of r.pieces) cuts += (p.acrossMm < c.acrossMm - 0.01 ? 1 : 0) + (p.alongMm < r.alongMm - 0.01 ? 1 : 0);
    }
  }
  return cuts;
}

/** Puts a packed drop at its place: a column for the near roll edge first, one for the far edge last, widest between. */
function dropAt(packed: PackedDrop, pieces: readonly Piece[], x: number, share: Share, settings: CutSettings): Drop {
  const { bench } = share;
  let k = 0;
  const named = packed.columns.map((column) => ({ column, rows: column.rows.map((r) => r.pieces.map((p) => ({ ...p, piece: pieces[k++]! }))) }));
  const isEdge = (c: PackedColumn, n: string) => c.need === n;
  let low = named.find((c) => isEdge(c.column, 'low'));
  let high = named.find((c) => isEdge(c.column, 'high'));
  for (const c of named.filter((n) => isEdge(n.column, 'either'))) {
    if (!low) low = c;
    else high = c;
  }
  const between = named.filter((c) => c !== low && c !== high).sort((a, b) => b.column.across - a.column.across);
  const ordered = [...(low ? [low] : []), ...between, ...(high ? [high] : [])];
  let y = 0;
  const columns = ordered.map(({ column, rows }): Column => {
    const isHigh = high !== undefined && column === high.column;
    const isLow = low !== undefined && column === low.column;
    const at = isHigh ? bench.width - column.across : y;
    y += column.across;
    let rowX = x;
    const placedRows = column.rows
      .map((r, i) => ({ r, names: rows[i]! }))
      .sort((a, b) => b.r.pieces.reduce((s, p) => s + p.way.across, 0) - a.r.pieces.reduce((s, p) => s + p.way.across, 0))
      .map(({ r, names }) => {
        const startX = rowX;
        rowX += r.along;
        const width = r.pieces.reduce((s, p) => s + p.way.across, 0);
        let pieceY = isHigh ? at + column.across - width : at;
        const placed = names.map((n): PlacedPiece => {
          const own = pieceY;
          pieceY += n.way.across;
          const edge = n.piece.factoryEdge ? (isHigh ? 'high' : isLow ? 'low' : null) : null;
          return {
            pieceId: n.piece.id,
            turn: turnFor(n.piece, n.way, edge, settings),
            xMm: mmFromGrains(startX),
            yMm: mmFromGrains(own),
            alongMm: mmFromGrains(n.way.along - bench.crosscut),
            acrossMm: mmFromGrains(n.way.across - bench.slit),
          };
        });
        return { xMm: mmFromGrains(startX), alongMm: mmFromGrains(r.along - bench.crosscut), pieces: placed };
      });
    return { yMm: mmFromGrains(at), acrossMm: mmFromGrains(column.across - bench.slit), rows: placedRows };
  });
  return { xMm: mmFromGrains(x), alongMm: mmFromGrains(packed.along - bench.crosscut), columns, locked: false };
}

/**
 * Lays the pieces of one film on its rolls: an instant answer and then `steps` steps of improvement.
 * Deterministic: input, seed and steps fix the plan.
 * @param boundRounds rounds of column generation for the bound; 0 leaves it out
 */
export function layPiecesOnRolls(input: LayoutInput, steps: number, boundRounds = 0): Layout {
  const planner = new LayoutPlanner(input);
  for (let i = 0; i < steps && !planner.isDone; i++) planner.step();
  if (boundRounds > 0) planner.computeBound(boundRounds);
  return planner.result();
}
