import { randomInt, seededRandom, type Random } from '../../ground/index.js';
import { DropPool } from './drop-pool.js';
import { MOST_PIECES, packExactly, packInPieces, packOverSources, stateCount, type InPieces } from './exact.js';
import { cutsOf, mayLie, usedArea, type PackedDrop, type PieceType, type Source, type SourcedDrop } from './model.js';
import { packAtOnce } from './seed.js';
import { tightDrops } from './tight-drops.js';

/** How many sets of pieces one exact re-cut may look at: between these, drawn anew each time. */
const FEWEST_STATES = 200;
const MOST_STATES = 9_000;
/** After long without success larger sets are tried, up to this. */
const LAST_STATES = 60_000;
/** Over several sources each set is split in all ways: smaller ones are taken apart. */
const MOST_STATES_OVER_SOURCES = 500;
const PATIENCE = 150;
/** A whole job this small is cut exactly at once. */
const WHOLE_JOB_STATES = 3_000;
const WHOLE_JOB_STATES_OVER_SOURCES = 600;
/** Shares of waste at which tight drops are looked for, one after the other, until there are too many; and how often the search goes on with that. @source measured; house figures */
const TIGHT = [1e-7, 5e-4, 2e-3, 5e-3, 1e-2, 2e-2, 3e-2, 5e-2];
const HUNT_EVERY = 2;
const COVERS_AFTER_HUNT = 12;
/** So many re-cuts between two covers out of drops seen. @source measured; house figure */
const COVER_EVERY = 20;
/** Most sources that one re-cut looks at. */
const SOURCES_AT_ONCE = 4;

interface Recut {
  readonly work: InPieces<PackedDrop[] | null>;
  readonly source: number;
  /** Types as the re-cut numbers them. */
  readonly order: readonly number[];
  /** What stays as it is, and what the others cost before. */
  readonly rest: readonly SourcedDrop[];
  readonly before: number;
}

/**
 * Improves a layout step by step: takes a few drops apart, of one roll or of several, and cuts their pieces anew, provably cheapest
 * for those pieces. A plan is fixed by input, seed and number of steps; time only decides how many steps are run.
 */
export class LayoutSearch {
  steps = 0;
  /** The plan to cut: of all seen the one whose film and cuts together cost least. */
  best: SourcedDrop[];
  private bestMoney: number;
  private current: SourcedDrop[];
  private readonly random: Random;
  private sinceBetter = 0;
  /** The look for tight drops, until it is over; and the covers that are to be tried with what it has found. */
  private hunt: InPieces<void> | null;
  private found: { readonly mostWaste: number; covers: number } | null = null;
  /** A large re-cut that was begun. */
  private underWay: Recut | null = null;
  /** Within one roll: drops seen. */
  private readonly pool: DropPool | null;

  /**
   * @param counts pieces of each type, as in `types`
   * @param first a plan to start from: every piece in it, no source over its room
   * @param cutPrice what one cut costs in minutes, so that film and minutes are weighed together
   */
  constructor(
    readonly types: readonly PieceType[],
    counts: readonly number[],
    private readonly sources: readonly Source[],
    first: readonly SourcedDrop[],
    seed: number,
    private readonly cutPrice: number,
  ) {
    this.random = seededRandom(seed);
    this.current = [...first];
    const isOne = sources.length === 1;
    this.hunt = isOne ? this.huntFor(counts) : null;
    this.pool = isOne ? new DropPool(sources[0]!.bench.width) : null;
    const states = stateCount(counts);
    if (pieceCount(counts) <= MOST_PIECES && pieceCount(counts) > 0 && states <= (isOne ? WHOLE_JOB_STATES : WHOLE_JOB_STATES_OVER_SOURCES)) {
      const all = sources.map((source, index) => ({ index, source, room: source.room }));
      const whole = isOne
        ? packExactly(types, counts, sources[0]!.bench, this.film(first) / sources[0]!.pricePerGrain)?.map((d) => ({ ...d, source: 0 }))
        : packOverSources(types, counts, all, this.film(first));
      if (whole && this.fits(whole)) this.current = whole;
    }
    this.best = this.current;
    this.bestMoney = this.money(this.best);
    const kept = [...first];
    if (this.money(kept) < this.bestMoney) [this.best, this.bestMoney] = [kept, this.money(kept)];
  }

  /** Price of the film alone. */
  private film(drops: readonly SourcedDrop[]): number {
    return drops.reduce((s, d) => s + d.along * this.sources[d.source]!.pricePerGrain, 0);
  }
  /** Price of the film and of the minutes for all cuts; of equally cheap plans the one with fewer cuts. */
  private money(drops: readonly SourcedDrop[]): number {
    const cuts = drops.reduce((s, d) => s + cutsOf(d, this.sources[d.source]!.bench), 0);
    return this.film(drops) + cuts * Math.max(this.cutPrice, LEAST_CUT_PRICE);
  }
  private used(drops: readonly SourcedDrop[], source: number): number {
    return drops.reduce((s, d) => s + (d.source === source ? d.along : 0), 0);
  }
  private fits(drops: readonly SourcedDrop[]): boolean {
    return this.sources.every((s, i) => this.used(drops, i) <= s.room);
  }

  /** One re-cut, or a part of a large one. @returns true when the best plan got better */
  step(): boolean {
    this.steps++;
    if (this.underWay) return this.goOn(this.underWay);
    if (this.isSettled) return false;
    if (this.hunt && this.steps % HUNT_EVERY === 0) return this.huntOn(this.hunt);
    if (this.pool && this.steps % COVER_EVERY === 0 && this.coverAnew()) return true;
    const drops = this.current;
    const isOne = this.sources.length === 1;
    const most = Math.min(LAST_STATES, MOST_STATES * (1 + this.sinceBetter / PATIENCE));
    // within one roll larger sets can be cut anew than over several
    const isWithinOne = isOne || this.random() < 0.5;
    const largest = isWithinOne ? most : MOST_STATES_OVER_SOURCES;
    const within = isWithinOne && !isOne ? this.current[randomInt(this.random, this.current.length)]!.source : null;
    const chosen = this.choose(FEWEST_STATES * Math.max(1, largest / FEWEST_STATES) ** this.random(), within);
    this.sinceBetter++;
    if (chosen.length === 0) return false;
    const counts = this.countsOf(chosen);
    const order = this.shuffled(counts.map((n, t) => (n > 0 ? t : -1)).filter((t) => t >= 0));
    const types = order.map((t) => this.types[t]!);
    const own = order.map((t) => counts[t]!);
    const out = chosen.map((i) => drops[i]!);
    const before = this.film(out);
    const involved = isWithinOne ? [out[0]!.source] : this.involved(out, types);
    const rest = drops.filter((_, i) => !chosen.includes(i));
    if (involved.length === 1) {
      const source = involved[0]!;
      const length = out.reduce((s, d) => s + d.along, 0);
      return this.goOn({ work: packInPieces(types, own, this.sources[source]!.bench, length), source, order, rest, before });
    }
    if (stateCount(own) > MOST_STATES_OVER_SOURCES) return false;
    const packed = packOverSources(
      types,
      own,
      involved.map((index) => ({ index, source: this.sources[index]!, room: this.sources[index]!.room - this.used(rest, index) })),
      before,
    );
    return packed !== null && this.take(packed, order, rest, before);
  }

  /** The next part of a large re-cut. */
  private goOn(recut: Recut): boolean {
    const { done, value } = recut.work.next();
    this.underWay = done ? null : recut;
    return (
      !!value &&
      this.take(
        value.map((d) => ({ ...d, source: recut.source })),
        recut.order,
        recut.rest,
        recut.before,
      )
    );
  }

  /** A re-cut takes the place of what it was made of. */
  private take(packed: readonly SourcedDrop[], order: readonly number[], rest: readonly SourcedDrop[], before: number): boolean {
    const renamed = packed.map((d) => renameTypes(d, order));
    if (this.pool) for (const d of renamed) this.pool.add(d);
    this.current = [...rest, ...renamed];
    if (this.film(renamed) < before * (1 - 1e-9)) this.sinceBetter = 0;
    return this.isBest(this.current);
  }

  /** Kept when it is cheaper than all before. */
  private isBest(plan: SourcedDrop[]): boolean {
    const money = this.money(plan);
    if (money >= this.bestMoney - 1e-9) return false;
    this.best = plan;
    this.bestMoney = money;
    return true;
  }

  /** Goes on looking for drops of which hardly anything is thrown away; what was found is tried in covers, one a step. */
  private huntOn(hunt: InPieces<void>): boolean {
    if (this.found && this.found.covers-- > 0) return this.coverAnew(this.found.mostWaste);
    this.found = null;
    if (hunt.next().done) this.hunt = null;
    return false;
  }

  private *huntFor(counts: readonly number[]): InPieces<void> {
    for (const mostWaste of TIGHT) {
      const drops = yield* tightDrops(this.types, counts, this.sources[0]!.bench, mostWaste);
      if (!drops) return;
      for (const d of drops) this.pool!.add(d);
      if (drops.length > 0) this.found = { mostWaste, covers: COVERS_AFTER_HUNT };
      yield;
    }
  }

  /** A plan put together from drops that were seen, the rest laid at once. @returns true when the best plan got better */
  private coverAnew(mostWaste = 0.002 * 60 ** this.random()): boolean {
    const source = this.sources[0]!;
    const left = this.countsOf(this.current.map((_, i) => i));
    const taken = this.pool!.cover(left, mostWaste, this.random);
    const now = this.film(this.current);
    const most = now * (1 + (this.sinceBetter > PATIENCE ? 0.01 : 0));
    const least = taken.reduce((s, d) => s + d.along, 0) + left.reduce((s, n, t) => s + n * this.types[t]!.area, 0) / source.bench.width;
    if (least * source.pricePerGrain > most) return false;
    const rest = left.some((n) => n > 0) ? packAtOnce(this.types, left, source.bench) : [];
    if (!rest) return false;
    const plan = [...taken, ...rest].map((d): SourcedDrop => ({ ...d, source: 0 }));
    const then = this.film(plan);
    if (!this.fits(plan) || then > most) return false;
    this.current = plan;
    if (then < now * (1 - 1e-9)) this.sinceBetter = 0;
    return this.isBest(plan);
  }

  /** Nothing can be exchanged: one drop, one source. */
  get isSettled(): boolean {
    return this.current.length === 0 || (this.sources.length === 1 && this.current.length < 2);
  }

  /** The sources of the drops taken apart, and one or two more that may serve them cheaper. */
  private involved(out: readonly SourcedDrop[], types: readonly PieceType[]): number[] {
    const own = [...new Set(out.map((d) => d.source))];
    if (own.some((i) => this.sources[i]!.isShort)) return this.withRoom(own, types);
    const dearest = Math.max(...own.map((i) => this.sources[i]!.pricePerGrain / this.sources[i]!.bench.width));
    const others = this.shuffled(
      this.sources
        .map((s, i) => ({ s, i }))
        .filter(({ s, i }) => !own.includes(i) && !s.isShort && s.pricePerGrain / s.bench.width <= dearest * 1.6 && types.some((t) => mayLie(t, s)))
        // another roll of the same film and width changes nothing
        .filter(({ s }) => !own.some((i) => isLike(s, this.sources[i]!)))
        .map(({ i }) => i),
    );
    return [...own, ...others.slice(0, 1)];
  }

  /** What lies on film that is not there: every roll with room may serve. */
  private withRoom(own: readonly number[], types: readonly PieceType[]): number[] {
    const others = this.sources.map((s, i) => ({ s, i })).filter(({ s, i }) => !own.includes(i) && s.room - this.used(this.current, i) > 0 && types.some((t) => mayLie(t, s))); // prettier-ignore
    return [...own, ...this.shuffled(others.map(({ i }) => i))].slice(0, Math.max(own.length, SOURCES_AT_ONCE));
  }

  /** Some drops to take apart: wasteful ones first, more until the exact re-cut gets too large. @param within of this source only; null = of any */
  private choose(limit: number, within: number | null): number[] {
    const drops = this.current;
    const waste = drops.map((d) => (d.along * this.sources[d.source]!.bench.width - usedArea(d)) * (this.sources[d.source]!.isShort ? 100 : 1));
    const chosen: number[] = [];
    const counts = new Array<number>(this.types.length).fill(0);
    for (let tries = 0; tries < 12 && chosen.length < drops.length; tries++) {
      const a = randomInt(this.random, drops.length);
      const b = randomInt(this.random, drops.length);
      const pick = this.random() < 0.7 && waste[b]! > waste[a]! ? b : a;
      if (chosen.includes(pick) || (within !== null && drops[pick]!.source !== within)) continue;
      const more = this.countsOf([pick]);
      const joined = counts.map((n, t) => n + more[t]!);
      if (pieceCount(joined) > MOST_PIECES) continue;
      if (
        chosen.length >= 1 &&
        stateCount(joined) > (chosen.length === 1 ? Math.max(limit, within !== null || this.sources.length === 1 ? MOST_STATES : limit) : limit)
      )
        continue;
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

const isLike = (a: Source, b: Source): boolean =>
  a.bench.width === b.bench.width && a.bench.low === b.bench.low && a.bench.high === b.bench.high && Math.abs(a.pricePerGrain - b.pricePerGrain) < 1e-12 && a.lot === b.lot; // prettier-ignore

/** Cuts count at least this much, so that of equally long plans the one with fewer cuts is kept. */
export const LEAST_CUT_PRICE = 1e-7;

export const pieceCount = (counts: readonly number[]): number => counts.reduce((s, n) => s + n, 0);

export const renameTypes = (drop: SourcedDrop, order: readonly number[]): SourcedDrop => ({
  ...drop,
  columns: drop.columns.map((c) => ({ ...c, rows: c.rows.map((r) => ({ ...r, pieces: r.pieces.map((p) => ({ ...p, type: order[p.type]! })) })) })),
});

/**
 * A first plan over all sources, at once: source after source in the order given, each filled with the longest drops of what is left.
 * @returns the plan, and the pieces of each type that found no room
 */
export function fillSources(
  types: readonly PieceType[],
  counts: readonly number[],
  sources: readonly Source[],
  order: readonly number[],
): { drops: SourcedDrop[]; left: number[] } {
  const left = [...counts];
  const drops: SourcedDrop[] = [];
  for (const at of order) {
    const source = sources[at]!;
    const mine = left.map((n, t) => (n > 0 && mayLie(types[t]!, source) ? n : 0));
    if (!mine.some((n) => n > 0)) continue;
    const packed = packAtOnce(types, mine, source.bench);
    if (!packed) continue;
    let room = source.room;
    // fullest and longest first, so that a short roll gives what it can
    const sorted = packed.reduce((s, d) => s + d.along, 0) <= room ? packed : [...packed].sort((a, b) => usedArea(b) - usedArea(a));
    for (const drop of sorted) {
      if (drop.along > room) continue;
      room -= drop.along;
      drops.push({ ...drop, source: at });
      for (const c of drop.columns) for (const r of c.rows) for (const p of r.pieces) left[p.type]!--;
    }
  }
  return { drops, left };
}
