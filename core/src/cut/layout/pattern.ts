import { randomInt, seededRandom, type Random } from '../../ground/index.js';
import { covers, keepBest, MOST_PIECES, Sets, stateCount } from './exact.js';
import { LEAST_CUT_PRICE, pieceCount, renameTypes } from './improve.js';
import {
  alignedDrop,
  columnOf,
  cutsOf,
  edgesFit,
  joinNeeds,
  leadOf,
  markFrom,
  mayLie,
  usedArea,
  type Bench,
  type EdgeNeed,
  type PackedColumn,
  type PieceType,
  type Repeat,
  type Source,
  type SourcedDrop,
  type Way,
} from './model.js';
import { packAtOnce } from './seed.js';

/**
 * Patterned film on the roll. A piece begins only where the roll shows its place of the repeat, so what lies before it decides how much is lost
 * there: with one drop beside nothing this is the wallpaper-cutting problem.
 *
 * What is cut early never hurts what is cut later (one can always throw film away and wait), so of all ways to cut a set of pieces only the one that
 * ends earliest matters. That makes it a dynamic programme over sets again, with the place on the roll as its value.
 * @source D. R. Fuller 1972, Optimal wallpaper cutting; R. S. Garfinkel 1977, Minimizing wallpaper waste, Operations Research 25(5) 741–751 (from memory)
 */

/** Columns of a drop with their rows in the order of the roll; lengths depend on where it begins. */
type Shape = readonly PackedColumn[];

interface Column {
  readonly across: number;
  readonly along: number;
  readonly need: EdgeNeed;
  readonly type: number;
  readonly way: Way | null;
  readonly before: Column | null;
}
interface DropFront {
  readonly across: number;
  readonly along: number;
  readonly needs: readonly EdgeNeed[];
  readonly column: Column | null;
  readonly rest: DropFront | null;
}

/** A whole job this small, and a part of one this small, is cut exactly. */
const WHOLE_JOB = { pieces: 9, states: 600 };
const WINDOW = { pieces: 8, states: 260 };

const repeatsOf = (types: readonly PieceType[]) => (type: number) => types[type]!.repeat;

/**
 * The earliest end of cutting these pieces from `from` on, proven.
 * @param types all of one repeat
 * @param from grains from a mark
 * @param latest place on the roll behind which nothing is looked for
 * @returns drops in the order of the roll, or null when nothing ends by `latest`
 */
function packPatterned(types: readonly PieceType[], counts: readonly number[], bench: Bench, from: number, latest: number): Shape[] | null {
  const sets = new Sets(types, counts);
  const all = sets.size - 1;
  const mayWaste = (latest - from) * bench.width - sets.area[all]! + 0.5;
  if (mayWaste < 0) return null;
  const starts = [...new Map(types.map((t) => [t.repeat!.start, t.repeat!] as const)).values()];
  const fronts = starts.map((s) => dropsFrom(types, sets, bench, s, mayWaste));
  const parts: number[] = [];
  for (let set = 1; set < sets.size; set++) if (fronts.some((f) => f[set])) parts.push(set);
  const end = new Float64Array(sets.size).fill(Infinity);
  const part = new Int32Array(sets.size);
  const by = new Int8Array(sets.size);
  end[0] = from;
  for (let set = 1; set < sets.size; set++) {
    const missing = ~sets.bits[set]!;
    for (const p of parts) {
      if (p > set) break;
      if ((sets.bits[p]! & missing) !== 0 || !(end[set - p]! < end[set]!)) continue;
      for (let k = 0; k < starts.length; k++) {
        const drop = fronts[k]![p];
        if (!drop) continue;
        const at = markFrom(end[set - p]!, starts[k]!) + drop.along;
        if (at < end[set]!) {
          end[set] = at;
          part[set] = p;
          by[set] = k;
        }
      }
    }
  }
  if (!(end[all]! <= latest)) return null;
  const out: Shape[] = [];
  for (let left = all; left > 0; left -= part[left]!) out.unshift(shapeOf(fronts[by[left]!]![part[left]!]!));
  return out;
}

/** Shortest drop of each set of pieces that begins at a place of the repeat; null where there is none. */
function dropsFrom(types: readonly PieceType[], sets: Sets, bench: Bench, start: Repeat, mayWaste: number): (DropFront | null)[] {
  const columns = columnsFrom(types, sets, bench, start, mayWaste);
  const begun = sets.byLowest(columns);
  const fronts: DropFront[][] = [[{ across: 0, along: 0, needs: [], column: null, rest: null }]];
  for (let set = 1; set < sets.size; set++) {
    const front: DropFront[] = [];
    fronts.push(front);
    const missing = ~sets.bits[set]!;
    for (const part of begun[sets.lowest[set]!]!) {
      if (part > set) break;
      if ((sets.bits[part]! & missing) !== 0) continue;
      for (const column of columns[part]!)
        for (const rest of fronts[set - part]!) {
          const across = column.across + rest.across;
          const along = Math.max(column.along, rest.along);
          if (across > bench.width || across * along - sets.area[set]! > mayWaste) continue;
          const needs = column.need === 'none' ? rest.needs : [...rest.needs, column.need];
          if (column.need !== 'none' && !edgesFit(needs, bench)) continue;
          keepBest(front, { across, along, needs, column, rest }, (a, b) => covers(a.needs, b.needs));
        }
    }
  }
  return fronts.map((front, set) => (set === 0 ? null : front.reduce<DropFront | null>((a, b) => (!a || b.along < a.along ? b : a), null)));
}

/** Strips of each set of pieces that begin with the drop: which piece lies last is tried in all ways, since the order decides what is lost. */
function columnsFrom(types: readonly PieceType[], sets: Sets, bench: Bench, start: Repeat, mayWaste: number): Column[][] {
  const fronts: Column[][] = [[{ across: 0, along: 0, need: 'none', type: -1, way: null, before: null }]];
  for (let set = 1; set < sets.size; set++) {
    const front: Column[] = [];
    fronts.push(front);
    for (let type = 0; type < types.length; type++) {
      const stride = sets.strides[type]!;
      if (Math.floor(set / stride) % (sets.counts[type]! + 1) === 0) continue;
      for (const before of fronts[set - stride]!)
        for (const way of types[type]!.ways) {
          const need = joinNeeds(way.need, before.need);
          const along = markFrom(start.start + before.along, types[type]!.repeat) + way.along - start.start;
          const across = Math.max(way.across, before.across);
          if (need === null || across > bench.width || along > bench.longest || across * along - sets.area[set]! > mayWaste) continue;
          keepBest(front, { across, along, need, type, way, before }, (a, b) => a.need === 'none' || a.need === b.need);
        }
    }
  }
  return fronts;
}

function shapeOf(drop: DropFront): Shape {
  const columns: PackedColumn[] = [];
  for (let d: DropFront | null = drop; d?.column; d = d.rest) {
    const rows = [];
    for (let c: Column | null = d.column; c?.way; c = c.before) rows.unshift({ along: c.way.along, pieces: [{ type: c.type, way: c.way }] });
    columns.push(columnOf(rows));
  }
  return columns;
}

/** How long a drop gets that begins at `x`. */
function lengthAt(shape: Shape, x: number, repeat: (type: number) => Repeat | null): number {
  let longest = 0;
  for (const c of shape) {
    let at = x;
    for (const r of c.rows) {
      let end = at;
      for (const p of r.pieces) end = Math.max(end, markFrom(at, repeat(p.type)) + p.way.along);
      at = end;
    }
    if (at - x > longest) longest = at - x;
  }
  return longest;
}

/** The earliest place from `x` on where a drop begins and is no longer than a pull: what is cut off before it, and its length; null where there is none. */
function placeOf(shape: Shape, x: number, bench: Bench, repeat: (type: number) => Repeat | null): { readonly lead: number; readonly along: number } | null {
  const first = leadOf(shape, x, repeat);
  const along = lengthAt(shape, x + first, repeat);
  if (along <= bench.longest) return { lead: first, along };
  const later = shape.flatMap((c) => (c.rows[0]?.pieces ?? []).map((p) => markFrom(x, repeat(p.type)) - x)).sort((a, b) => a - b);
  for (const lead of later) {
    const length = lengthAt(shape, x + lead, repeat);
    if (length <= bench.longest) return { lead, along: length };
  }
  return null;
}

/** Where drops end that are cut one after the other, each as early as the pattern lets it; Infinity when one is longer than a pull. */
function endOf(shapes: readonly Shape[], from: number, bench: Bench, repeat: (type: number) => Repeat | null): number {
  let x = from;
  for (const shape of shapes) {
    const place = placeOf(shape, x, bench, repeat);
    if (!place) return Infinity;
    x += place.lead + place.along;
  }
  return x;
}

/** The drops as they are cut: what is lost before a drop is left on the one before it where a pull reaches, and cut off first where not. */
function dropsOf(shapes: readonly Shape[], source: number, from: number, bench: Bench, repeat: (type: number) => Repeat | null): SourcedDrop[] {
  const out: SourcedDrop[] = [];
  let x = from;
  for (const shape of shapes) {
    const { lead, along } = placeOf(shape, x, bench, repeat)!;
    const last = out.at(-1);
    const isLeft = last !== undefined && last.along + lead <= bench.longest;
    if (isLeft) out[out.length - 1] = { ...last, along: last.along + lead };
    out.push({ ...alignedDrop(shape, x + lead, repeat), ...(!isLeft && lead > 0 ? { gap: lead } : {}), source });
    x += lead + along;
  }
  return out;
}

/** Each drop next that loses least where the one before it ends. */
function inGoodOrder(shapes: readonly Shape[], from: number, bench: Bench, repeat: (type: number) => Repeat | null): Shape[] {
  const own = shapes.map((shape) => {
    const marks = [...new Set(shape.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => markFrom(0, repeat(p.type))))))];
    return { shape, least: Math.min(...marks.map((m) => endOf([shape], m, bench, repeat) - m)) };
  });
  const out: Shape[] = [];
  let x = from;
  while (own.length) {
    let best = 0;
    let loss = Infinity;
    own.forEach(({ shape, least }, i) => {
      const lost = endOf([shape], x, bench, repeat) - x - least;
      if (lost < loss - 0.5) [best, loss] = [i, lost];
    });
    const [taken] = own.splice(best, 1);
    out.push(taken!.shape);
    x = endOf([taken!.shape], x, bench, repeat);
  }
  return out;
}

/** Longest first, side by side as long as the roll is wide enough: a plain shelf plan, with or without an eye on where in the repeat pieces start. */
function shelves(types: readonly PieceType[], counts: readonly number[], bench: Bench, byStart: boolean): PackedColumn[][] {
  const queue = types.flatMap((t, type) => {
    const way = t.ways.find((w) => w.across <= bench.width && w.along <= bench.longest && edgesFit([w.need], bench));
    return way ? Array.from({ length: counts[type]! }, () => ({ type, way, start: t.repeat?.start ?? 0 })) : [];
  });
  queue.sort((a, b) => (byStart ? a.start - b.start : 0) || b.way.along - a.way.along || b.way.across - a.way.across);
  const out: { columns: PackedColumn[]; start: number }[] = [];
  for (const { type, way, start } of queue) {
    const column = columnOf([{ along: way.along, pieces: [{ type, way }] }]);
    const shelf = out.find(
      (s) =>
        (!byStart || s.start === start) &&
        s.columns.reduce((sum, c) => sum + c.across, 0) + way.across <= bench.width &&
        edgesFit([...s.columns, column].map((c) => c.need), bench), // prettier-ignore
    );
    if (shelf) shelf.columns.push(column);
    else out.push({ columns: [column], start });
  }
  return out.map((s) => s.columns);
}

/** As if every piece took whole repeats: each then begins at its place whatever lies before it. */
function wholeRepeats(types: readonly PieceType[], counts: readonly number[], bench: Bench): Shape[] {
  const own = new Map<Way, Way>();
  const longer = types.map((t) => ({
    ...t,
    ways: t.ways.map((w) => {
      const { start, length } = t.repeat ?? { start: 0, length: 1 };
      const whole = { ...w, along: Math.min(bench.longest, Math.ceil((start + w.along) / length) * length) };
      own.set(whole, w);
      return whole;
    }),
  }));
  const drops = packAtOnce(longer, counts, bench) ?? [];
  return drops.map((d) => d.columns.map((c) => ({ ...c, rows: c.rows.map((r) => ({ ...r, pieces: r.pieces.map((p) => ({ ...p, way: own.get(p.way)! })) })) })));
}

/** A drop that a pull does not reach with its pattern is cut apart. */
const apart = (shape: Shape, bench: Bench, repeat: (type: number) => Repeat | null): Shape[] =>
  placeOf(shape, 0, bench, repeat)
    ? [shape]
    : shape.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => [columnOf([{ along: p.way.along, pieces: [p] }])])));

/**
 * A first plan over all sources, at once: source after source in the order given; of several instant plans (shelves, best fit, whole repeats) the one that
 * ends first.
 * @returns the plan, and the pieces of each type that found no room
 */
export function fillPatterned(types: readonly PieceType[], counts: readonly number[], sources: readonly Source[], order: readonly number[]) {
  const left = [...counts];
  const drops: SourcedDrop[] = [];
  const repeat = repeatsOf(types);
  for (const at of order) {
    const { bench, start, room } = sources[at]!;
    const mine = left.map((n, t) => (n > 0 && mayLie(types[t]!, sources[at]!) ? n : 0));
    if (!mine.some((n) => n > 0)) continue;
    const known = drops.filter((d) => d.source === at).map((d) => d.columns);
    const from = endOf(known, start, bench, repeat);
    const plans =
      [shelves(types, mine, bench, true), shelves(types, mine, bench, false), (packAtOnce(types, mine, bench) ?? []).map((d) => d.columns), wholeRepeats(types, mine, bench)] // prettier-ignore
        .map((shapes) =>
          inGoodOrder(
            shapes.flatMap((s) => apart(s, bench, repeat)),
            from,
            bench,
            repeat,
          ),
        ) // prettier-ignore
        .map((shapes) => {
          const kept: Shape[] = [];
          let x = from;
          for (const s of shapes) {
            const end = endOf([s], x, bench, repeat);
            if (!(end - start <= Math.min(room, Number.MAX_VALUE))) continue;
            kept.push(s);
            x = end;
          }
          return { kept, end: x, area: kept.reduce((sum, s) => sum + usedArea({ along: 0, columns: s }), 0) };
        })
        .sort((a, b) => b.area - a.area || a.end - b.end);
    const best = plans[0]!;
    drops.push(...dropsOf(best.kept, at, from, bench, repeat));
    for (const s of best.kept) for (const c of s) for (const r of c.rows) for (const p of r.pieces) left[p.type]!--;
  }
  return { drops, left };
}

/** How much longer than the best a plan may get on the way to a better one. @source house rule */
const DETOUR = 1.004;

/** Improves a layout of patterned film step by step, as `LayoutSearch` does without a pattern: a plan is fixed by input, seed and number of steps. */
export class PatternSearch {
  steps = 0;
  /** In the order of each roll. */
  best: SourcedDrop[];
  private readonly isProven: boolean;
  private readonly random: Random;
  private readonly repeat: (type: number) => Repeat | null;
  private current: Shape[][];
  private film: number;
  private bestFilm: number;
  private bestMoney: number;

  constructor(
    readonly types: readonly PieceType[],
    counts: readonly number[],
    private readonly sources: readonly Source[],
    first: readonly SourcedDrop[],
    seed: number,
    private readonly cutPrice: number,
  ) {
    this.random = seededRandom(seed);
    this.repeat = repeatsOf(types);
    this.current = sources.map((_, i) => first.filter((d) => d.source === i).map((d) => d.columns));
    const isSmall = sources.length === 1 && pieceCount(counts) > 0 && pieceCount(counts) <= WHOLE_JOB.pieces && stateCount(counts) <= WHOLE_JOB.states;
    const [one] = sources;
    const exact = isSmall ? packPatterned(types, counts, one!.bench, one!.start, endOf(this.current[0]!, one!.start, one!.bench, this.repeat)) : null;
    this.isProven = exact !== null;
    if (exact) this.current = [exact];
    this.film = this.filmOf(this.current);
    this.best = this.drawn(this.current);
    this.bestFilm = this.film;
    this.bestMoney = this.money(this.best);
  }

  /** Nothing can be exchanged: one drop, or proven. */
  get isSettled(): boolean {
    return this.isProven || this.current.every((list) => list.length === 0) || (this.sources.length === 1 && this.current[0]!.length < 2);
  }

  /** Infinity where a roll is too short or a pull too long. */
  private filmOf(lists: readonly (readonly Shape[])[]): number {
    let money = 0;
    for (let i = 0; i < lists.length; i++) {
      const { bench, start, room, pricePerGrain } = this.sources[i]!;
      if (lists[i]!.length === 0) continue;
      const used = endOf(lists[i]!, start, bench, this.repeat) - start;
      if (used > room) return Infinity;
      money += used * pricePerGrain;
    }
    return money;
  }
  private drawn(lists: readonly (readonly Shape[])[]): SourcedDrop[] {
    return lists.flatMap((list, i) => dropsOf(list, i, this.sources[i]!.start, this.sources[i]!.bench, this.repeat));
  }
  private money(drops: readonly SourcedDrop[]): number {
    const cuts = drops.reduce((s, d) => s + cutsOf(d, this.sources[d.source]!.bench) + (d.gap ? 1 : 0), 0);
    const film = drops.reduce((s, d) => s + (d.along + (d.gap ?? 0)) * this.sources[d.source]!.pricePerGrain, 0);
    return film + cuts * Math.max(this.cutPrice, LEAST_CUT_PRICE);
  }

  /** One change. @returns true when the best plan got better */
  step(): boolean {
    this.steps++;
    if (this.isSettled) return false;
    const lists = this.random() < 0.6 ? this.cutAnew() : this.moved();
    if (!lists) return false;
    const film = this.filmOf(lists);
    if (!(film <= Math.max(this.film, this.bestFilm * DETOUR))) return false;
    [this.current, this.film] = [lists, film];
    if (film > this.bestFilm * (1 + 1e-9) && this.cutPrice === 0) return false;
    const drawn = this.drawn(lists);
    const money = this.money(drawn);
    if (money >= this.bestMoney - 1e-9) return false;
    [this.best, this.bestMoney, this.bestFilm] = [drawn, money, Math.min(film, this.bestFilm)];
    return true;
  }

  /** Some drops of one roll, taken apart and cut again where the first of them lay, as early as can be. */
  private cutAnew(): Shape[][] | null {
    const at = this.some();
    const list = this.current[at]!;
    const { bench, start } = this.sources[at]!;
    const chosen = new Set<number>();
    const counts = new Array<number>(this.types.length).fill(0);
    const first = randomInt(this.random, list.length);
    const isTogether = this.random() < 0.5;
    for (let tries = 0; tries < 6; tries++) {
      const i = tries === 0 ? first : isTogether ? first + tries : randomInt(this.random, list.length);
      if (i >= list.length || chosen.has(i)) continue;
      const joined = [...counts];
      for (const c of list[i]!) for (const r of c.rows) for (const p of r.pieces) joined[p.type]!++;
      if (pieceCount(joined) > Math.min(MOST_PIECES, WINDOW.pieces) || stateCount(joined) > WINDOW.states) continue;
      joined.forEach((n, t) => (counts[t] = n));
      chosen.add(i);
    }
    if (chosen.size === 0) return null;
    const order = counts.flatMap((n, t) => (n > 0 ? [t] : []));
    const where = Math.min(...chosen);
    const before = list.slice(0, where);
    const from = endOf(before, start, bench, this.repeat);
    const out = [...chosen].sort((a, b) => a - b).map((i) => list[i]!);
    const packed = packPatterned(order.map((t) => this.types[t]!), order.map((t) => counts[t]!), bench, from, endOf(out, from, bench, this.repeat)); // prettier-ignore
    if (!packed) return null;
    const anew = packed.map((columns) => renameTypes({ along: 0, columns, source: at }, order).columns);
    const rest = list.filter((_, i) => i > where && !chosen.has(i));
    return this.current.map((l, i) => (i === at ? [...before, ...anew, ...rest] : l));
  }

  /** One drop where it costs least, on any roll. */
  private moved(): Shape[][] | null {
    const at = this.some();
    const i = randomInt(this.random, this.current[at]!.length);
    const drop = this.current[at]![i]!;
    const without = this.current.map((l, k) => (k === at ? l.filter((_, j) => j !== i) : l));
    let best: Shape[][] | null = null;
    let least = Infinity;
    for (let k = 0; k < without.length; k++) {
      if (!drop.every((c) => c.rows.every((r) => r.pieces.every((p) => mayLie(this.types[p.type]!, this.sources[k]!) && p.way.along <= this.sources[k]!.bench.longest)))) continue; // prettier-ignore
      const { bench } = this.sources[k]!;
      if (drop.reduce((s, c) => s + c.across, 0) > bench.width || !edgesFit(drop.map((c) => c.need), bench)) continue; // prettier-ignore
      const places = without[k]!.length + 1;
      const step = Math.max(1, Math.ceil(places / MOST_PLACES));
      for (let j = step > 1 ? randomInt(this.random, step) : 0; j < places; j += step) {
        if (k === at && j === i) continue;
        const lists = without.map((l, n) => (n === k ? [...l.slice(0, j), drop, ...l.slice(j)] : l));
        const film = this.filmOf(lists);
        if (film < least) [best, least] = [lists, film];
      }
    }
    return best;
  }

  /** A roll that has drops, by how many. */
  private some(): number {
    let n = randomInt(this.random, this.current.reduce((s, l) => s + l.length, 0)); // prettier-ignore
    return this.current.findIndex((l) => (n -= l.length) < 0);
  }
}

/** Places that are tried for a drop at most. */
const MOST_PLACES = 24;
