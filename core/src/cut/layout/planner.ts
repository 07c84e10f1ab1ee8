import type { DropColumn, CutSettings, Drop, Layout, Piece, PlacedPiece, RollEdges, RollLayout, Turn } from '@yellow-pane/contracts';
import { formatDifference, formatLong, grainsDown, grainsUp, mmFromGrains, told, type UnitSystem } from '../../ground/index.js';
import { boundLayout } from './bound.js';
import { fillSources, LayoutSearch } from './improve.js';
import { fillPatterned, PatternSearch } from './pattern.js';
import {
  benchFor,
  cutsOf,
  edgesFit,
  groupPieces,
  markFrom,
  mayLie,
  repeatOf,
  turnFor,
  type Bench,
  type PackedColumn,
  type PackedDrop,
  type PieceType,
  type Source,
  type SourcedDrop,
} from './model.js';

/** A roll or leftover as the layout sees it: what can be pulled from it, and drops that stay as they are. */
export interface RollToCut {
  readonly id: string;
  readonly widthMm: number;
  /** From the squared start, lead-in already taken off. */
  readonly availableMm: number;
  readonly pricePerM: number;
  /** Locked or already cut drops, in order from the start. */
  readonly fixedDrops: readonly Drop[];
  /** Edges that are still the roll's own; absent = both. */
  readonly edges?: RollEdges;
  /** Panes that meet come from one lot; absent = one lot for all. */
  readonly lot?: string;
}

export interface LayoutInput {
  readonly filmId: string;
  readonly rolls: readonly RollToCut[];
  /** All pieces in walking order, those in fixed drops included. */
  readonly pieces: readonly Piece[];
  readonly settings: CutSettings;
  readonly seed: number;
  /** What one knife cut costs in minutes, so that film and minutes are weighed together; absent = film alone. */
  readonly cutPrice?: number;
  /** What lengths are told in; mm when left out. */
  readonly units?: UnitSystem;
}

/** The repeat of a patterned film, grains; null where there is none. */
const patternOf = (pieces: readonly Piece[]): number | null => {
  const piece = pieces.find((p) => p.repeat);
  return piece ? repeatOf(piece)!.length : null;
};

/** The first place from `at` on, grains, where a drop that lay at `x` can lie with its pattern as it was. */
export const keptPlace = (at: number, x: number, pattern: number | null): number =>
  markFrom(at, pattern === null ? null : { length: pattern, start: x % pattern });

/** Where the locked and cut drops of a roll lie, and where the next one may begin, grains. */
function fixedPlaces(roll: RollToCut, settings: CutSettings, pattern: number | null): { places: number[]; end: number } {
  let end = 0;
  const places = roll.fixedDrops.map((d) => {
    const at = keptPlace(end, grainsUp(d.xMm), pattern);
    end = at + grainsUp(d.alongMm) + grainsUp(settings.crosscutAllowanceMm);
    return at;
  });
  return { places, end };
}

const sourceOf = (roll: RollToCut, settings: CutSettings, pattern: number | null): Source => {
  const { end } = fixedPlaces(roll, settings, pattern);
  return {
    bench: benchFor(roll.widthMm, settings, roll.edges ?? 'both'),
    pricePerGrain: roll.pricePerM / 1000 / 320,
    room: Math.max(0, grainsDown(roll.availableMm) - end),
    start: end,
    lot: roll.lot ?? '',
    isShort: false,
  };
};
/** Film that is not there costs so much more that it is used for nothing that fits elsewhere. */
const SHORT_FACTOR = 50;

/** Why a piece can lie on none of the rolls; null when one takes it. */
function misfit(piece: Piece, rolls: readonly RollToCut[], settings: CutSettings, units: UnitSystem): string | null {
  if (rolls.length === 0) return 'There is no roll of this film.';
  const f = (mm: number) => formatDifference(Math.round(mm), units);
  if (Math.min(piece.widthMm, piece.heightMm) < settings.smallestStripMm)
    return `It is narrower than the smallest strip this bench handles (${f(settings.smallestStripMm)}).`;
  const fits = (p: Piece, s: CutSettings): boolean => {
    const [type] = groupPieces([p], s);
    return rolls.some((r) => mayLie(type!, sourceOf(r, s, null)));
  };
  if (fits(piece, settings)) return null;
  const widest = Math.max(...rolls.map((r) => r.widthMm));
  const short = Math.min(piece.widthMm, piece.heightMm);
  if (short > widest) return `It is ${f(short)} at its narrowest and the widest roll is ${f(widest)}: it needs a seam.`;
  // what keeps it off the roll is the setting without which it would lie on it
  const turned = { ...piece, turns: [0, 90, 180, 270] as Turn[] };
  const way = piece.why.includes(ONE_WAY_ROUND)
    ? 'It would fit turned, and all pieces of this film lie one way round: let them lie any way round, or piece it together with a seam.'
    : 'It would fit turned, and this film may lie one way only: a wider roll, or a seam.';
  if (piece.turns.length < 4 && fits(turned, settings)) return way;
  if (fits(piece, { ...settings, largestSheetM2: null }))
    return told(`It is too heavy a sheet for one person: ${settings.largestSheetM2} m² is the heaviest that this bench allows (“Heaviest sheet”).`, units);
  if (fits(piece, { ...settings, longestPullMm: Infinity })) return `It is longer than the longest pull of this bench, ${f(settings.longestPullMm)} (“Pull”).`;
  if (piece.factoryEdge && fits({ ...piece, factoryEdge: null }, settings))
    return 'Its side needs a roll’s own edge, and no roll that is wide enough has one there: another method, or another roll.';
  return 'It fits no roll of this film: several of pull, heaviest sheet and direction stand in its way at once. A wider roll, or a seam.';
}

/** Said of pieces that lie as they do because all of their film lies one way round. */
export const ONE_WAY_ROUND = 'All pieces of this film lie one way round on the roll, so that they look alike: a setting of the job.';

/**
 * The running layout of one film: an instant answer, made better step by step, the same for the same input, seed and steps.
 */
export class LayoutPlanner {
  private readonly unplaced: { pieceId: string; reason: string }[] = [];
  private readonly free: readonly Piece[];
  private readonly sources: Source[];
  private readonly types: readonly PieceType[];
  private readonly search: LayoutSearch | PatternSearch | null;
  private readonly pattern: number | null;
  private boundCost: number | null = null;

  constructor(private readonly input: LayoutInput) {
    const { rolls, settings } = input;
    const fixed = new Map(
      rolls.flatMap((r) =>
        r.fixedDrops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces.map((p) => [p.pieceId, r.lot ?? ''] as const)))),
      ),
    );
    const free: Piece[] = [];
    for (const piece of input.pieces) {
      if (fixed.has(piece.id)) continue;
      const reason = misfit(piece, rolls, settings, input.units ?? 'mm');
      if (reason) this.unplaced.push({ pieceId: piece.id, reason });
      else free.push(piece);
    }
    this.free = free;
    this.pattern = patternOf(input.pieces);
    this.sources = rolls.map((r) => sourceOf(r, settings, this.pattern));
    // what meets a piece already cut comes from the same lot
    const bound = new Map<string, string>();
    for (const p of input.pieces) if (p.meets && fixed.has(p.id) && !bound.has(p.meets)) bound.set(p.meets, fixed.get(p.id)!);
    const plan = this.firstPlan(bound);
    this.types = plan?.types ?? [];
    const Search = this.isPatterned ? PatternSearch : LayoutSearch;
    this.search = plan ? new Search(plan.types, plan.types.map((t) => t.pieces.length), this.sources, plan.drops, input.seed, input.cutPrice ?? 0) : null; // prettier-ignore
  }

  /** Whether what is still to be laid waits for its place in a pattern. */
  private get isPatterned(): boolean {
    return this.free.some((p) => p.repeat);
  }
  private fill(types: readonly PieceType[], counts: readonly number[], order: readonly number[]) {
    return (this.isPatterned ? fillPatterned : fillSources)(types, counts, this.sources, order);
  }

  get steps(): number {
    return this.search?.steps ?? 0;
  }

  /** One step of improvement. @returns true when the plan got cheaper */
  step(): boolean {
    return this.search?.step() ?? false;
  }

  /** Nothing left to search. */
  get isDone(): boolean {
    return this.search === null || this.search.isSettled;
  }

  /** Film and cuts of a first plan, for choosing between some. */
  private price(drops: readonly SourcedDrop[]): number {
    return drops.reduce((s, d) => s + (d.along + (d.gap ?? 0)) * this.sources[d.source]!.pricePerGrain, 0);
  }

  /** The cheapest of a few instant plans: lots chosen for pieces that meet, each roll tried as the first; what finds no room lies on film to be ordered. */
  private firstPlan(bound: ReadonlyMap<string, string>): { types: PieceType[]; drops: SourcedDrop[] } | null {
    const { settings, rolls } = this.input;
    if (this.free.length === 0 || rolls.length === 0) return null;
    const own = this.sources.length;
    const lots = [...new Set(this.sources.map((s) => s.lot))];
    const groups = [...new Set(this.free.flatMap((p) => (p.meets ? [p.meets] : [])))];
    const isBinding = lots.length > 1 && settings.mixLots === false && groups.length > 0;
    const assignments: ReadonlyMap<string, string>[] = !isBinding ? [new Map()] : [...lots.map((lot) => new Map(groups.map((g) => [g, bound.get(g) ?? lot]))), this.lotsByRoom(groups, bound)]; // prettier-ignore
    let best: { types: PieceType[]; drops: SourcedDrop[]; left: number[]; cost: number } | null = null;
    for (const lotOf of assignments) {
      const types = groupPieces(this.free, settings, (p) => (isBinding && p.meets ? (lotOf.get(p.meets) ?? null) : null));
      const counts = types.map((t) => t.pieces.length);
      for (const order of this.orders()) {
        const { drops, left } = this.fill(types, counts, order);
        const missing = left.reduce((s, n, t) => s + n * types[t]!.area, 0);
        const cost = this.price(drops) + missing;
        if (!best || cost < best.cost) best = { types, drops, left, cost };
      }
    }
    if (!best) return null;
    const { types, drops, left } = best;
    left.forEach((n, t) => {
      if (n === 0) return;
      let at = this.sources.findIndex((s) => s.isShort && mayLie(types[t]!, s));
      if (at < 0) {
        const like = this.sources.slice(0, own).filter((s) => mayLie({ ...types[t]!, lot: null }, s)).sort((a, b) => b.bench.width - a.bench.width)[0]!; // prettier-ignore
        const lot = types[t]!.lot ?? like.lot;
        this.sources.push({ ...like, lot, room: Infinity, start: 0, pricePerGrain: like.pricePerGrain * SHORT_FACTOR, isShort: true });
        at = this.sources.length - 1;
      }
      const more = this.fill(types, left.map((m, k) => (k === t ? m : 0)), [at]); // prettier-ignore
      drops.push(...more.drops);
    });
    return { types, drops };
  }

  /** Largest groups first, each to the lot with most room left for it. */
  private lotsByRoom(groups: readonly string[], bound: ReadonlyMap<string, string>): ReadonlyMap<string, string> {
    const room = new Map<string, number>();
    for (const s of this.sources) room.set(s.lot, (room.get(s.lot) ?? 0) + (s.room / 320) * (s.bench.width / 320));
    const areaOf = (g: string) => this.free.reduce((s, p) => s + (p.meets === g ? p.widthMm * p.heightMm : 0), 0);
    const out = new Map<string, string>();
    for (const g of [...groups].sort((a, b) => areaOf(b) - areaOf(a))) {
      const lot = bound.get(g) ?? [...room].sort((a, b) => b[1] - a[1])[0]![0];
      room.set(lot, room.get(lot)! - areaOf(g));
      out.set(g, lot);
    }
    return out;
  }

  /** Orders in which sources are filled: cheapest film first, then each as the first. */
  private orders(): number[][] {
    const all = this.sources.map((_, i) => i);
    const perArea = (i: number) => this.sources[i]!.pricePerGrain / this.sources[i]!.bench.width;
    const cheap = [...all].sort((a, b) => perArea(a) - perArea(b) || this.sources[a]!.room - this.sources[b]!.room);
    const large = [...all].sort((a, b) => this.sources[b]!.room * this.sources[b]!.bench.width - this.sources[a]!.room * this.sources[a]!.bench.width);
    const firsts = (all.length > 6 ? large.slice(0, 4) : all).map((first) => [first, ...all.filter((i) => i !== first)]);
    return [cheap, ...firsts];
  }

  /** Computes the bound on cost (once). @param rounds more is closer, and slower */
  computeBound(rounds: number): number | null {
    if (this.boundCost !== null || this.free.length === 0 || this.input.rolls.length === 0) return this.boundCost;
    const { settings, rolls } = this.input;
    const types = groupPieces(this.free, settings);
    const short = this.sources.filter((s) => s.isShort);
    if (short.length > 0) return null;
    const bound = boundLayout(
      types,
      types.map((t) => t.pieces.length),
      this.sources.map((s) => ({ bench: s.bench, costPerGrain: s.pricePerGrain, room: s.room })),
      rounds,
    );
    const fixedCost = rolls.reduce((s, r) => s + (mmFromGrains(fixedPlaces(r, settings, this.pattern).end) / 1000) * r.pricePerM, 0);
    this.boundCost = bound.cost + fixedCost;
    return this.boundCost;
  }

  /** The plan as it stands. */
  result(): Layout {
    const { input } = this;
    const { settings } = input;
    const order = new Map(input.pieces.map((p, i) => [p.id, i]));
    const drops = this.search?.best ?? [];
    const named = assign(drops, this.types);
    const walk = named.map((pieces) => Math.min(...pieces.map((p) => order.get(p.id)!)));
    // a pattern fixes the order on the roll; without one drops lie in the order of the walk
    const sequence = drops.map((_, i) => i).sort((a, b) => (this.isPatterned ? a - b : walk[a]! - walk[b]!));
    let cuts = 0;
    const rolls = input.rolls.map((roll, at): RollLayout => {
      const { bench } = this.sources[at]!;
      const { places, end } = fixedPlaces(roll, settings, this.pattern);
      const laid: Drop[] = roll.fixedDrops.map((d, i) => {
        cuts += knifeCuts(d, roll.widthMm);
        return { ...shifted(d, mmFromGrains(places[i]!) - d.xMm), locked: true };
      });
      let x = end;
      for (const i of sequence.filter((k) => drops[k]!.source === at)) {
        const gap = drops[i]!.gap ?? 0;
        laid.push(drawDrop(drops[i]!, named[i]!, x + gap, bench, settings));
        x += gap + drops[i]!.along;
        cuts += cutsOf(drops[i]!, bench) + (gap > 0 ? 1 : 0);
      }
      return { rollId: roll.id, usedMm: mmFromGrains(x), drops: laid };
    });
    const short = drops.map((d, i) => ({ d, pieces: named[i]! })).filter(({ d }) => this.sources[d.source]!.isShort);
    const shortMm = mmFromGrains(short.reduce((s, { d }) => s + d.along + (d.gap ?? 0), 0));
    const shortWidthMm = short.length
      ? mmFromGrains(Math.max(...short.map(({ d }) => this.sources[d.source]!.bench.width - this.sources[d.source]!.bench.slit)))
      : null;
    const reason = `The film that is there is used up before it: ${this.input.units === 'in' ? formatLong(shortMm, 'in') : `${(shortMm / 1000).toFixed(1)} m`} more of ${formatDifference(Math.round(shortWidthMm ?? 0), this.input.units ?? 'mm')} would do for all that is left over.`;
    const byRoll = new Map(input.rolls.map((r) => [r.id, r]));
    return {
      filmId: input.filmId,
      rolls,
      unplaced: [...this.unplaced, ...short.flatMap(({ pieces }) => pieces.map((p) => ({ pieceId: p.id, reason })))],
      usedMm: rolls.reduce((s, r) => s + r.usedMm, 0),
      cost: rolls.reduce((s, r) => s + (r.usedMm / 1000) * byRoll.get(r.rollId)!.pricePerM, 0),
      boundCost: this.boundCost,
      cutCount: cuts,
      shortMm,
      shortWidthMm,
      seed: input.seed,
      steps: this.steps,
    };
  }
}

/** Gives each drop its pieces by name: types hand them out in walking order. */
function assign(drops: readonly PackedDrop[], types: readonly PieceType[]): Piece[][] {
  const next = types.map(() => 0);
  return drops.map((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => types[p.type]!.pieces[next[p.type]!++]!))));
}

/** A drop moved along its roll. */
export const shifted = (d: Drop, by: number): Drop => ({
  ...d,
  xMm: d.xMm + by,
  columns: d.columns.map((c) => ({ ...c, rows: c.rows.map((r) => ({ ...r, xMm: r.xMm + by, pieces: r.pieces.map((p) => ({ ...p, xMm: p.xMm + by })) })) })),
});

/** Cuts that a drawn drop needs. */
export function knifeCuts(d: Drop, rollWidthMm: number): number {
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
export function drawDrop(packed: PackedDrop, pieces: readonly Piece[], x: number, bench: Bench, settings: CutSettings): Drop {
  let k = 0;
  const named = packed.columns.map((column) => ({ column, rows: column.rows.map((r) => r.pieces.map((p) => ({ ...p, piece: pieces[k++]! }))) }));
  const isEdge = (c: PackedColumn, n: string) => c.need === n;
  const hasPattern = pieces.some((p) => p.repeat);
  let low = named.find((c) => isEdge(c.column, 'low'));
  let high = named.find((c) => isEdge(c.column, 'high'));
  for (const c of named.filter((n) => isEdge(n.column, 'either'))) {
    if (!low && edgesFit(['low'], bench)) low = c;
    else high = c;
  }
  const between = named.filter((c) => c !== low && c !== high).sort((a, b) => b.column.across - a.column.across);
  const ordered = [...(low ? [low] : []), ...between, ...(high ? [high] : [])];
  let y = 0;
  const columns = ordered.map(({ column, rows }): DropColumn => {
    const isHigh = high !== undefined && column === high.column;
    const isLow = low !== undefined && column === low.column;
    const at = isHigh ? bench.width - column.across : y;
    y += column.across;
    let rowX = x;
    const placedRows = column.rows
      .map((r, i) => ({ r, names: rows[i]! }))
      // widest first, except where a pattern has fixed the order
      .sort((a, b) => (hasPattern ? 0 : b.r.pieces.reduce((s, p) => s + p.way.across, 0) - a.r.pieces.reduce((s, p) => s + p.way.across, 0)))
      .map(({ r, names }) => {
        const startX = rowX;
        rowX += r.along;
        const width = r.pieces.reduce((s, p) => s + p.way.across, 0);
        let pieceY = isHigh ? at + column.across - width : at;
        const placed = names.map((n): PlacedPiece => {
          const own = pieceY;
          pieceY += n.way.across;
          const edge = n.piece.factoryEdge ? (isHigh ? 'high' : isLow ? 'low' : null) : null;
          const turn = turnFor(n.piece, n.way, edge, settings);
          return {
            pieceId: n.piece.id,
            turn,
            xMm: mmFromGrains(markFrom(startX, repeatOf(n.piece))),
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
