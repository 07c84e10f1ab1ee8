import { randomInt, seededRandom, type Random } from '../../ground/index.js';
import { MOST_PIECES, packExactly, stateCount } from './exact.js';
import { packAtOnce } from './seed.js';
import { cutsOf, totalAlong, type Bench, type PackedDrop, type PieceType } from './model.js';

/** How many sets of pieces one exact re-cut may look at: between these, drawn anew each time. */
const FEWEST_STATES = 200;
const MOST_STATES = 9_000;
/** After long without success larger sets are tried, up to this. */
const LAST_STATES = 60_000;
const PATIENCE = 150;
/** Plans within 0.2 % count as equally long: then the fewest cuts decide. */
const COUNTS_AS_EQUAL = 1.002;
/** A whole job this small is cut exactly at once. */
const WHOLE_JOB_STATES = 3_000;

/**
 * Improves a layout step by step: takes a few drops apart and cuts their pieces anew, provably best for those pieces.
 * A plan is fixed by input, seed and number of steps; time only decides how many steps are run.
 */
export class LayoutSearch {
  readonly types: readonly PieceType[];
  steps = 0;
  /** The plan to cut: of all seen within 0.2 % of the shortest, the one with the fewest cuts. */
  best: PackedDrop[];
  private shortest: number;
  private bestCuts: number;
  private current: PackedDrop[];
  private readonly random: Random;
  private sinceBetter = 0;

  /** @param counts pieces of each type, as in `types`; @throws when the pieces do not all fit a drop (check before) */
  constructor(
    types: readonly PieceType[],
    counts: readonly number[],
    private readonly bench: Bench,
    seed: number,
  ) {
    this.types = types;
    this.random = seededRandom(seed);
    const first = packAtOnce(types, counts, bench);
    if (!first) throw new RangeError('Some piece is larger than the roll or the bench.');
    this.current = first;
    this.best = first;
    if (stateCount(counts) <= WHOLE_JOB_STATES && pieceCount(counts) <= MOST_PIECES)
      this.best = this.current = packExactly(types, counts, bench, totalAlong(first)) ?? first;
    this.shortest = totalAlong(this.best);
    this.bestCuts = this.best.reduce((sum, d) => sum + cutsOf(d, bench), 0);
  }

  /** Takes the current plan as best when it is shorter by more than counts as equal, or equal with fewer cuts. */
  private keepIfBetter(): boolean {
    const along = totalAlong(this.current);
    const cuts = this.current.reduce((sum, d) => sum + cutsOf(d, this.bench), 0);
    this.shortest = Math.min(this.shortest, along);
    const isTooLong = totalAlong(this.best) > this.shortest * COUNTS_AS_EQUAL;
    const isBetter = isTooLong || cuts < this.bestCuts || (cuts === this.bestCuts && along < totalAlong(this.best));
    if (!isBetter) return false;
    this.best = this.current;
    this.bestCuts = cuts;
    return true;
  }

  get along(): number {
    return totalAlong(this.best);
  }

  /** One re-cut. @returns true when the best plan got better */
  step(): boolean {
    this.steps++;
    const drops = this.current;
    if (drops.length < 2) return false;
    const most = Math.min(LAST_STATES, MOST_STATES * (1 + this.sinceBetter / PATIENCE));
    const chosen = this.choose(FEWEST_STATES * (most / FEWEST_STATES) ** this.random());
    this.sinceBetter++;
    if (chosen.length === 0) return false;
    const counts = this.countsOf(chosen);
    const before = chosen.reduce((s, i) => s + drops[i]!.along, 0);
    const order = this.shuffled(counts.map((n, t) => (n > 0 ? t : -1)).filter((t) => t >= 0));
    const packed = packExactly(
      order.map((t) => this.types[t]!),
      order.map((t) => counts[t]!),
      this.bench,
      before,
    );
    if (!packed) return false;
    const renamed = packed.map((d) => renameTypes(d, order));
    const after = totalAlong(renamed);
    this.current = [...drops.filter((_, i) => !chosen.includes(i)), ...renamed];
    if (after < before) this.sinceBetter = 0;
    return this.keepIfBetter();
  }

  /** Some drops to take apart: wasteful ones first, more until the exact re-cut gets too large. */
  private choose(limit: number): number[] {
    const drops = this.current;
    const waste = drops.map((d) => d.along * this.bench.width - usedArea(d));
    const chosen: number[] = [];
    const counts = new Array<number>(this.types.length).fill(0);
    for (let tries = 0; tries < 12 && chosen.length < drops.length; tries++) {
      const a = randomInt(this.random, drops.length);
      const b = randomInt(this.random, drops.length);
      const pick = this.random() < 0.7 && waste[b]! > waste[a]! ? b : a;
      if (chosen.includes(pick)) continue;
      const more = this.countsOf([pick]);
      const joined = counts.map((n, t) => n + more[t]!);
      if (pieceCount(joined) > MOST_PIECES) continue;
      if (chosen.length >= 1 && stateCount(joined) > (chosen.length === 1 ? Math.max(limit, MOST_STATES) : limit)) continue;
      joined.forEach((n, t) => (counts[t] = n));
      chosen.push(pick);
    }
    return chosen;
  }

  private countsOf(indexes: readonly number[]): number[] {
    const counts = new Array<number>(this.types.length).fill(0);
    for (const i of indexes) for (const c of this.current[i]!.columns) for (const r of c.rows) for (const p of r.pieces) counts[p.type]!++;
    return counts;
  }

  private shuffled(list: number[]): number[] {
    for (let i = list.length - 1; i > 0; i--) {
      const j = randomInt(this.random, i + 1);
      [list[i], list[j]] = [list[j]!, list[i]!];
    }
    return list;
  }
}

const pieceCount = (counts: readonly number[]): number => counts.reduce((s, n) => s + n, 0);

const usedArea = (drop: PackedDrop): number => {
  let area = 0;
  for (const c of drop.columns) for (const r of c.rows) for (const p of r.pieces) area += p.way.across * p.way.along;
  return area;
};

const renameTypes = (drop: PackedDrop, order: readonly number[]): PackedDrop => ({
  along: drop.along,
  columns: drop.columns.map((c) => ({ ...c, rows: c.rows.map((r) => ({ ...r, pieces: r.pieces.map((p) => ({ ...p, type: order[p.type]! })) })) })),
});
