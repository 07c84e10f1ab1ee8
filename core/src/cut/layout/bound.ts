import { invertSquare } from '../../geometry/index.js';
import { GRAINS_PER_MM } from '../../ground/index.js';
import type { Bench, PieceType } from './model.js';

/**
 * What no cut plan under these rules can undercut.
 *
 * Column generation over drops (Gilmore & Gomory 1963): a linear programme chooses how often to cut each drop pattern; the
 * pricing step finds the best pattern for given piece values exactly (a knapsack of columns over a knapsack of pieces, by
 * dynamic programming on a grid that rounds lengths down). At every round, piece values divided by the best pattern's value
 * per cost are a feasible dual, so Σ count · value is a proven bound even when the programme is not finished.
 */
export interface BoundRoll {
  readonly bench: Bench;
  /** Cost of one grain of roll; 1 bounds the length. */
  readonly costPerGrain: number;
  /** Grains that there are of it; absent = as many as are needed. */
  readonly room?: number;
}

export interface LayoutBound {
  readonly cost: number;
  /** Rounds done, and whether the programme was solved to its end. */
  readonly rounds: number;
  readonly isTight: boolean;
}

/** Area of the pieces out of the cheapest film there is, as far as it goes: always true, rarely close. */
function areaBound(types: readonly PieceType[], counts: readonly number[], rolls: readonly BoundRoll[]): number {
  let area = types.reduce((s, t, i) => s + t.area * counts[i]!, 0);
  let cost = 0;
  const byPrice = [...rolls].sort((a, b) => a.costPerGrain / a.bench.width - b.costPerGrain / b.bench.width);
  for (const r of byPrice) {
    const taken = Math.min(area, (r.room ?? Infinity) * r.bench.width);
    cost += (taken / r.bench.width) * r.costPerGrain;
    area -= taken;
  }
  return cost;
}

/** One way to cut a drop: pieces of each type, then, for each roll of limited length, the length taken from it (negative, in `LENGTH_UNIT`). */
interface Pattern {
  readonly counts: readonly number[];
  readonly cost: number;
}
/** Lengths in the programme are told in about a metre, so that its numbers are of one size. */
const LENGTH_UNIT = 320_000;

/** Greatest common divisor of all lengths, or 1 mm rounded down when they share none coarse enough. */
function gridOf(types: readonly PieceType[]): number {
  const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);
  const g = types.flatMap((t) => t.ways.map((w) => w.along)).reduce(gcd, 0);
  return Math.max(g, GRAINS_PER_MM);
}

/** Exact pricing for one roll: prepared once, asked each round. */
class Pricing {
  private readonly grid: number;
  private readonly length: number;
  private readonly widths: number[];
  private readonly fits: { type: number; across: number; along: number }[];
  private readonly mixes: number[][];

  constructor(
    types: readonly PieceType[],
    private readonly roll: BoundRoll,
    /** Rows of the programme, and the one that limits this roll; -1 = none. */
    private readonly rows: number,
    private readonly limitRow: number,
  ) {
    const { bench } = roll;
    this.grid = gridOf(types);
    this.length = Math.floor(bench.longest / this.grid);
    this.fits = types.flatMap((t, type) =>
      t.ways
        .filter((w) => w.across <= bench.width && w.along <= bench.longest)
        .map((w) => ({ type, across: w.across, along: Math.max(1, Math.floor(w.along / this.grid)) })),
    );
    this.widths = [...new Set(this.fits.map((f) => f.across))].sort((a, b) => a - b);
    this.mixes = fullMixes(this.widths, bench.width);
  }

  get hasPieces(): boolean {
    return this.fits.length > 0;
  }

  get isManageable(): boolean {
    return this.mixes.length > 0 && this.length * (this.mixes.length + this.fits.length * this.widths.length) < 4e8;
  }

  /** Best patterns for these piece values: the greatest value per cost, and the most promising patterns to add. What the roll's scarcity is worth is part of the cost. */
  best(values: readonly number[], most: number): { ratio: number; patterns: Pattern[] } {
    const n = this.length;
    const costPerGrain = this.roll.costPerGrain + (this.limitRow < 0 ? 0 : Math.max(0, values[this.limitRow]!) / LENGTH_UNIT);
    const best = this.widths.map(() => new Float64Array(n + 1));
    const from = this.widths.map(() => new Int16Array(n + 1).fill(-1));
    this.widths.forEach((width, c) => {
      const value = best[c]!;
      const source = from[c]!;
      const inside = this.fits.map((f, i) => ({ f, i })).filter(({ f }) => f.across <= width && values[f.type]! > 0);
      for (let l = 1; l <= n; l++) {
        let top = value[l - 1]!;
        let by = -1;
        for (const { f, i } of inside) {
          if (f.along > l) continue;
          const v = value[l - f.along]! + values[f.type]!;
          if (v > top + 1e-12) [top, by] = [v, i];
        }
        value[l] = top;
        source[l] = by;
      }
    });
    const found: { gain: number; l: number; mix: number }[] = [];
    let ratio = 0;
    for (let l = 1; l <= n; l++) {
      if (!from.some((f) => f[l]! >= 0)) continue;
      let top = 0;
      let by = -1;
      this.mixes.forEach((mix, m) => {
        let v = 0;
        for (const c of mix) v += best[c]![l]!;
        if (v > top) [top, by] = [v, m];
      });
      const cost = l * this.grid * costPerGrain;
      ratio = Math.max(ratio, top / cost);
      if (top > cost * (1 + 1e-9)) found.push({ gain: top / cost, l, mix: by });
    }
    found.sort((a, b) => b.gain - a.gain);
    return { ratio, patterns: found.slice(0, most).map((f) => this.pattern(f.l, f.mix, best, from)) };
  }

  private pattern(l: number, mix: number, best: Float64Array[], from: Int16Array[]): Pattern {
    const counts = new Array<number>(this.rows).fill(0);
    let longest = 0;
    for (const c of this.mixes[mix]!) {
      let at = l;
      let used = 0;
      while (at > 0) {
        const by = from[c]![at]!;
        if (by < 0) {
          at--;
          continue;
        }
        counts[this.fits[by]!.type]!++;
        used += this.fits[by]!.along;
        at -= this.fits[by]!.along;
      }
      longest = Math.max(longest, used);
    }
    if (this.limitRow >= 0) counts[this.limitRow] = (-longest * this.grid) / LENGTH_UNIT;
    return { counts, cost: longest * this.grid * this.roll.costPerGrain };
  }
}

/** All ways to fill the roll width with column widths so that no further one fits (indexes into `widths`, ascending). */
function fullMixes(widths: readonly number[], room: number): number[][] {
  const out: number[][] = [];
  const walk = (from: number, left: number, mix: number[]): void => {
    if (out.length > 60_000) return;
    let grew = false;
    for (let c = widths.length - 1; c >= 0; c--) {
      if (widths[c]! > left) continue;
      grew = true;
      if (c <= from) walk(c, left - widths[c]!, [...mix, c]);
    }
    if (!grew && mix.length) out.push(mix);
  };
  walk(widths.length - 1, room, []);
  return out.length > 60_000 ? [] : out;
}

/**
 * Bound on the cost of cutting these pieces from these rolls and leftovers; a roll of limited length is a row of the programme.
 * Roll edges, and how many of a piece there are, are left out of the patterns: both can only make a plan dearer.
 * @param rounds most rounds of column generation; fewer gives a weaker bound that still holds
 */
export function boundLayout(types: readonly PieceType[], counts: readonly number[], rolls: readonly BoundRoll[], rounds = 60): LayoutBound {
  const area = areaBound(types, counts, rolls);
  if (types.length === 0) return { cost: 0, rounds: 0, isTight: true };
  const m = types.length;
  const needed = types.reduce((s, t, i) => s + t.area * counts[i]!, 0);
  // a roll that could hold everything several times over limits nothing
  const limited = rolls.map((r) => r.room !== undefined && r.room * r.bench.width < LIMITS_NOTHING * needed);
  let rows = m;
  const limitRow = limited.map((is) => (is ? rows++ : -1));
  const demand = [...counts, ...rolls.flatMap((r, i) => (limited[i] ? [-r.room! / LENGTH_UNIT] : []))];
  const pricings = rolls.map((r, i) => new Pricing(types, r, rows, limitRow[i]!));
  if (rolls.some((r) => r.bench.stages === 4)) return { cost: area, rounds: 0, isTight: false };
  const usable = pricings.filter((p) => p.hasPieces);
  if (usable.length === 0 || usable.some((p) => !p.isManageable)) return { cost: area, rounds: 0, isTight: false };
  const dearest = 10 * (needed / Math.min(...rolls.map((r) => r.bench.width))) * Math.max(...rolls.map((r) => r.costPerGrain)) + 10 * Math.max(...rolls.map((r) => r.bench.longest * r.costPerGrain)); // prettier-ignore
  // to begin with: each piece by a made-up dear drop, each limited roll left as it is
  let basis: Pattern[] = demand.map((_, i) => ({ counts: demand.map((__, j) => (i !== j ? 0 : i < m ? 1 : -1)), cost: i < m ? dearest : 0 }));
  const pool: Pattern[] = [];
  let best = area;
  for (let round = 1; round <= rounds; round++) {
    const { values, basis: next } = solveMaster(basis, pool, demand, rows);
    basis = next;
    let ratio = 0;
    let added = 0;
    for (const pricing of usable) {
      const answer = pricing.best(values, 25);
      ratio = Math.max(ratio, answer.ratio);
      added += answer.patterns.length;
      pool.push(...answer.patterns);
    }
    const worth = values.reduce((s, v, i) => s + (i < m ? (Math.max(0, v) * counts[i]!) / Math.max(ratio, 1e-300) : Math.max(0, v) * demand[i]!), 0);
    best = Math.max(best, worth);
    if (added === 0 || ratio <= 1 + 1e-6) return { cost: best, rounds: round, isTight: true };
  }
  return { cost: best, rounds, isTight: false };
}

/** A roll counts as limited when it is shorter than this many times the area of all pieces. */
const LIMITS_NOTHING = 1.6;

/** Simplex over the pool from a feasible basis: least Σ cost with every count covered. Returns piece values (duals). */
function solveMaster(start: Pattern[], pool: readonly Pattern[], counts: readonly number[], m: number): { values: number[]; basis: Pattern[] } {
  const slack: Pattern[] = counts.map((_, i) => ({ counts: counts.map((__, j) => (i === j ? -1 : 0)), cost: 0 }));
  const columns = [...pool, ...slack];
  const basis = [...start];
  let inverse = invertSquare(basis.map((_, r) => basis.map((p) => p.counts[r]!)));
  for (let pivot = 0; pivot < 400; pivot++) {
    const values = Array.from({ length: m }, (_, j) => basis.reduce((s, p, i) => s + p.cost * inverse[i]![j]!, 0));
    let enter: Pattern | null = null;
    let gain = 1e-9;
    for (const p of columns) {
      let worth = -p.cost;
      for (let j = 0; j < m; j++) worth += values[j]! * p.counts[j]!;
      if (worth > gain * Math.max(1, p.cost)) [gain, enter] = [worth / Math.max(1, p.cost), p];
    }
    if (!enter) return { values, basis };
    const direction = inverse.map((row) => row.reduce((s, v, j) => s + v * enter!.counts[j]!, 0));
    const amount = inverse.map((row) => row.reduce((s, v, j) => s + v * counts[j]!, 0));
    let leave = -1;
    let least = Infinity;
    direction.forEach((d, i) => {
      if (d > 1e-9 && amount[i]! / d < least) [least, leave] = [amount[i]! / d, i];
    });
    if (leave < 0) return { values, basis };
    basis[leave] = enter;
    const pivotRow = inverse[leave]!.map((v) => v / direction[leave]!);
    inverse = inverse.map((row, i) => (i === leave ? pivotRow : row.map((v, j) => v - direction[i]! * pivotRow[j]!)));
    if (pivot % 50 === 49) inverse = invertSquare(basis.map((_, r) => basis.map((p) => p.counts[r]!)));
  }
  const values = Array.from({ length: m }, (_, j) => basis.reduce((s, p, i) => s + p.cost * inverse[i]![j]!, 0));
  return { values, basis };
}
