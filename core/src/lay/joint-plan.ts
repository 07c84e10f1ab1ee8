import type { BorderSchool } from '@yellow-pane/contracts';
import { otherEnd, type JointGraph, type PanelBorder } from './joint-graph.js';
import { replayJoints, type CrossingRule, type JointHole, type JointStroke } from './joint-replay.js';

/** How far hands reach without a step, and up to where from the floor and from each platform, mm. */
export interface HandsReach {
  readonly acrossMm: number;
  /** Tops of the bands that are worked from one height, from the floor up; above the last all is one band. */
  readonly bandTopsMm: readonly number[];
}
/** @source house figures: from a stand both hands reach about 1.6 m across, up to 2 m from the floor; a platform and a tower each lift that by 1 m */
export const usualReach: HandsReach = { acrossMm: 1600, bandTopsMm: [2000, 3000, 4000, 5000] };

/** Strokes that are done from one place. */
export interface JointZone {
  /** From the floor 0, then platform by platform. */
  readonly band: number;
  readonly fromMm: number;
  readonly toMm: number;
  readonly strokes: readonly JointStroke[];
}
export interface JointPlan {
  readonly zones: readonly JointZone[];
  readonly strokes: readonly JointStroke[];
  /** Segments that no order can let breathe, or that what was done has shut in: they are pierced. */
  readonly shutIn: readonly number[];
  /** Where, at the low end of what is shut in; the fewest that do. */
  readonly pierces: readonly (JointHole & { readonly xMm: number; readonly yMm: number; readonly segments: readonly number[] })[];
  readonly walkMm: number;
  /** Nobody walks less and comes to every place. */
  readonly leastWalkMm: number;
  readonly climbs: number;
}

type Sweep = 'right' | 'left' | 'outwards';
const middleOf = (graph: JointGraph, s: number): { x: number; y: number } => {
  const { a, b, way, lengthMm } = graph.segments[s]!;
  const [p, q] = [graph.nodes[a]!, graph.nodes[b]!];
  // a bed that goes over the place where a column's film meets itself has its left end at the right
  return way === 'bed' ? { x: p.xMm + lengthMm / 2, y: p.yMm } : { x: p.xMm, y: (p.yMm + q.yMm) / 2 };
};

/** What is done to a joint, or to the border over an exit. */
type Deed = { readonly is: 'press'; readonly segment: number; readonly to: number } | { readonly is: 'seal'; readonly node: number };

/** A queue that gives the largest key first. */
class Largest {
  private readonly heap: { key: number; deed: Deed }[] = [];
  get size(): number {
    return this.heap.length;
  }
  push(item: { key: number; deed: Deed }): void {
    const { heap } = this;
    heap.push(item);
    let i = heap.length - 1;
    for (let up = (i - 1) >> 1; i > 0 && heap[up]!.key < heap[i]!.key; i = up, up = (i - 1) >> 1) [heap[up], heap[i]] = [heap[i]!, heap[up]!];
  }
  pop(): Deed {
    const { heap } = this;
    const top = heap[0]!;
    const last = heap.pop()!;
    if (heap.length) {
      heap[0] = last;
      for (let i = 0; ;) {
        let big = i;
        for (const c of [2 * i + 1, 2 * i + 2]) if (c < heap.length && heap[c]!.key > heap[big]!.key) big = c;
        if (big === i) break;
        [heap[big], heap[i]] = [heap[i]!, heap[big]!];
        i = big;
      }
    }
    return top.deed;
  }
}

/** What an order is looked for with. */
export interface BreathingAsked {
  readonly rule: CrossingRule;
  /** Ways out that stay open to the end. */
  readonly open: readonly number[];
  /** Exits that are sealed by hand, each with when one would like to: it has its place among the ranks. */
  readonly seals?: readonly { readonly node: number; readonly rank: number }[];
  /** Segments that were pierced: each is a way out for itself, and for all as long as it is not pressed. */
  readonly holes?: readonly JointHole[];
  /** What is pressed already. */
  readonly pressed?: ReadonlySet<number>;
  /** What is pressed earlier has less. */
  readonly rank: (segment: number, to: number) => number;
}

/**
 * An order that never shuts air in, found from its end: from the exits inwards segments are given back that keep a way out, those that one wants to press last first; to give an
 * exit back is to open it. What can be given back only grows with what has been (a crossing that has more open joints is never more shut), so nothing that can breathe is missed
 * (an antimatroid; docs/models/joints.md).
 * @returns segments in the order they are pressed, each with the end it is rolled to, and where exits are sealed between them
 */
export function breathingOrder(graph: JointGraph, { rule, open, seals = [], holes = [], pressed = new Set(), rank }: BreathingAsked): Deed[] {
  const { nodes, segments } = graph;
  const isOpen = new Uint8Array(segments.length);
  const isExit = new Uint8Array(nodes.length);
  for (const n of open) isExit[n] = 1;
  const queue = new Largest();
  const at = nodes.map(({ at: { east, west, north, south } }) => [...new Set([east, west, north, south].filter((s) => s !== null))]);
  const isShutWith = (node: number, segment: number): boolean => {
    if (rule === 'lenient') return false;
    const { east, west, north, south } = nodes[node]!.at;
    const isPressed = (s: number) => s !== segment && !isOpen[s];
    return (east !== null && west !== null && isPressed(east) && isPressed(west)) || (north !== null && south !== null && isPressed(north) && isPressed(south));
  };
  /** Whether air of a segment gets out at one of its ends. */
  const leaves = (segment: number, node: number): boolean =>
    isExit[node] === 1 || (!isShutWith(node, segment) && at[node]!.some((s) => s !== segment && isOpen[s]));
  const offer = (node: number) => {
    for (const segment of at[node]!)
      if (!isOpen[segment] && !pressed.has(segment) && leaves(segment, node))
        queue.push({ key: rank(segment, node), deed: { is: 'press', segment, to: node } });
  };
  for (const n of open) offer(n);
  for (const { segment, node } of holes) if (!pressed.has(segment)) queue.push({ key: rank(segment, node), deed: { is: 'press', segment, to: node } });
  for (const { node, rank: key } of seals) queue.push({ key, deed: { is: 'seal', node } });
  const order: Deed[] = [];
  while (queue.size) {
    const deed = queue.pop();
    if (deed.is === 'seal') {
      isExit[deed.node] = 1;
      order.push(deed);
      offer(deed.node);
      continue;
    }
    const { segment, to } = deed;
    if (isOpen[segment]) continue;
    isOpen[segment] = 1;
    order.push(deed);
    offer(to);
    offer(otherEnd(segments[segment]!, to));
  }
  return order.reverse();
}

/** Where a joint is worked from. */
interface Place {
  readonly band: number;
  readonly zone: number;
}
/** Which band a height is worked from. */
export const bandOf = (reach: HandsReach, y: number): number => {
  const i = reach.bandTopsMm.findIndex((top) => y <= top);
  return i < 0 ? reach.bandTopsMm.length : i;
};

/** Strokes of an order: what goes straight on in one place is one; of a border, what is sealed of one side in one place. */
function strokesOf(
  graph: JointGraph,
  order: readonly Deed[],
  placeOf: { readonly segment: (s: number) => Place; readonly node: (n: number) => Place },
): { readonly stroke: JointStroke; readonly place: Place }[] {
  type Run = { place: Place } & ({ does: 'press'; from: number; segments: number[]; to: number; way: string; sign: number } | { does: 'seal'; exits: number[]; side: string | null }); // prettier-ignore
  const out: Run[] = [];
  const isSame = (p: Place, q: Place) => p.band === q.band && p.zone === q.zone;
  for (const deed of order) {
    const last = out.at(-1);
    if (deed.is === 'seal') {
      const [place, side] = [placeOf.node(deed.node), graph.nodes[deed.node]!.side];
      if (last?.does === 'seal' && last.side === side && isSame(last.place, place)) last.exits.push(deed.node);
      else out.push({ does: 'seal', exits: [deed.node], side, place });
      continue;
    }
    const { segment, to } = deed;
    const seg = graph.segments[segment]!;
    const from = otherEnd(seg, to);
    const [place, sign] = [placeOf.segment(segment), to === seg.b ? 1 : -1];
    if (last?.does === 'press' && last.to === from && last.way === seg.way && last.sign === sign && isSame(last.place, place)) {
      last.segments.push(segment);
      last.to = to;
    } else out.push({ does: 'press', from, segments: [segment], to, place, way: seg.way, sign });
  }
  return out.map((r) => ({
    stroke: r.does === 'seal' ? { does: 'seal', exits: r.exits } : { does: 'press', from: r.from, segments: r.segments },
    place: r.place,
  }));
}

/** How a plan is asked for; what is left out is as usual. */
export interface JointsAsked {
  readonly reach?: HandsReach;
  readonly rule?: CrossingRule;
  /** Joints left open across it until their course is done; or all of it first, which shuts every joint in. */
  readonly border?: BorderSchool;
  /** What was done already, in its order: the rest is planned from there. */
  readonly done?: readonly JointStroke[];
  /** What somebody else presses and seals, at any time: reckoned with as if it were done already, and no part of the plan. */
  readonly elsewhere?: { readonly segments: readonly number[]; readonly exits: readonly number[] };
}

/**
 * An order and direction of all strokes that never shuts air in, walked as little as may be: in each band a sweep from one place to the next, heads of a course before the bed
 * above them, the border last in each place; whichever way each band is swept, and from the middle outwards, the one with least climbing and walking is taken.
 */
export function planJoints(
  graph: JointGraph,
  { reach = usualReach, rule = 'strict', border = 'left-open', done = [], elsewhere }: JointsAsked = {},
): JointPlan {
  const { nodes, segments } = graph;
  const pressed = new Set([...done.flatMap((s) => (s.does === 'press' ? s.segments : [])), ...(elsewhere?.segments ?? [])]);
  const sealed = new Set([...done.flatMap((s) => (s.does === 'seal' ? s.exits : [])), ...(elsewhere?.exits ?? [])]);
  const lefts = nodes.map((n) => n.xMm);
  const [leftMm, rightMm] = [Math.min(...lefts), Math.max(...lefts)];
  const wide = Math.max(1, rightMm - leftMm);
  const count = Math.max(1, Math.ceil(wide / reach.acrossMm - 1e-9));
  const placeAt = (x: number, y: number): Place => ({
    band: bandOf(reach, y),
    zone: Math.min(count - 1, Math.max(0, Math.floor(((x - leftMm) / wide) * count))),
  });
  const middles = segments.map((_s, i) => middleOf(graph, i));
  const places = middles.map(({ x, y }) => placeAt(x, y));
  const nodePlaces = nodes.map(({ xMm, yMm }) => placeAt(xMm, yMm));
  const rest = segments.flatMap((_s, i) => (pressed.has(i) ? [] : [i]));
  const bands = [...new Set(rest.map((s) => places[s]!.band))].sort((a, b) => a - b);

  const exits = nodes.flatMap((n, i) => (n.is === 'exit' && !sealed.has(i) && Object.values(n.at).some((s) => s !== null) ? [i] : []));
  const outlets = exits.filter((n) => nodes[n]!.side === 'hole');
  const atBorder = exits.filter((n) => nodes[n]!.side !== 'hole');
  const borders = border === 'set-first' ? [] : atBorder;
  const breathing = [...outlets, ...borders];
  const pierces: JointPlan['pierces'][number][] = [];
  const plain = () =>
    new Set(breathingOrder(graph, { rule, open: breathing, holes: pierces, pressed, rank: () => 0 }).flatMap((d) => (d.is === 'press' ? [d.segment] : [])));
  const shutIn = new Set<number>();
  const pierceAt = (group: ReadonlySet<number>) => {
    const ends = [...group].flatMap((segment) => [segments[segment]!.a, segments[segment]!.b].map((node) => ({ segment, node })));
    const low = ends.reduce((a, b) => (nodes[b.node]!.yMm < nodes[a.node]!.yMm ? b : a));
    pierces.push({ ...low, xMm: nodes[low.node]!.xMm, yMm: nodes[low.node]!.yMm, segments: [...group] });
  };
  const groupOf = (first: number, isIn: (s: number) => boolean): Set<number> => {
    const group = new Set([first]);
    for (const s of group)
      for (const n of [segments[s]!.a, segments[s]!.b]) for (const o of Object.values(nodes[n]!.at)) if (o !== null && isIn(o)) group.add(o);
    return group;
  };
  for (let reached = plain(); reached.size < rest.length; reached = plain()) {
    // one group of what is shut in, pierced at its lowest place
    const group = groupOf(
      rest.find((s) => !reached.has(s))!,
      (s) => !reached.has(s) && !pressed.has(s),
    );
    for (const s of group) shutIn.add(s);
    pierceAt(group);
  }
  // what was shut in beneath film that is pressed already
  const stuck = new Set(done.length ? replayJoints(graph, done, rule).trapped.flatMap((t) => (pressed.has(t.segment) ? [t.segment] : [])) : []);
  for (const s of stuck) {
    if (shutIn.has(s)) continue;
    const group = groupOf(s, (o) => stuck.has(o));
    for (const o of group) shutIn.add(o);
    pierceAt(group);
  }

  const keyOf =
    (sweeps: ReadonlyMap<number, Sweep>) =>
    ({ band, zone }: Place, x: number): { readonly turn: number; readonly along: number; readonly isRight: boolean } => {
      const sweep = sweeps.get(band) ?? 'right';
      const isRight = sweep === 'right' || (sweep === 'outwards' && x >= wide / 2);
      const step = isRight ? zone : count - 1 - zone;
      // from the middle outwards: first one half, then the other
      const turn = sweep === 'outwards' && isRight ? count : 0;
      return { turn: band * 4 * count + turn + step, along: isRight ? x : wide - x, isRight };
    };
  const rankOf =
    (sweeps: ReadonlyMap<number, Sweep>) =>
    (segment: number, to: number): number => {
      const { way, level, b } = segments[segment]!;
      const { turn, along, isRight } = keyOf(sweeps)(places[segment]!, middles[segment]!.x - leftMm);
      const wanted = way === 'head' ? to === b : (to === b) === isRight;
      return (turn * 10_000 + 2 * level + (way === 'bed' ? 1 : 0)) * 1e3 + (along / wide) * 900 + (wanted ? 0.5 : 0);
    };
  /** An exit is sealed when its place is done, side by side. */
  const sealsOf = (sweeps: ReadonlyMap<number, Sweep>) =>
    borders.map((node) => {
      const { turn } = keyOf(sweeps)(nodePlaces[node]!, nodes[node]!.xMm - leftMm);
      return { node, rank: (turn * 10_000 + 9_990 + borderTurn[nodes[node]!.side as PanelBorder]) * 1e3 };
    });
  /** All of the border before anything else, place by place. */
  const setFirst = (sweeps: ReadonlyMap<number, Sweep>): Deed[] => {
    const turnOf = (n: number) => keyOf(sweeps)(nodePlaces[n]!, nodes[n]!.xMm - leftMm).turn * 10 + borderTurn[nodes[n]!.side as PanelBorder];
    return [...atBorder].sort((a, b) => turnOf(a) - turnOf(b)).map((node) => ({ is: 'seal', node }));
  };
  const walked = (order: ReturnType<typeof strokesOf>): { walkMm: number; climbs: number } => {
    let [walkMm, climbs] = [0, 0];
    order.slice(1).forEach(({ place }, i) => {
      const before = order[i]!.place;
      walkMm += (Math.abs(place.zone - before.zone) * wide) / count;
      if (place.band !== before.band) climbs++;
    });
    return { walkMm, climbs };
  };
  const ways: Sweep[][] = bands.reduce<Sweep[][]>((all) => all.flatMap((w) => (['right', 'left', 'outwards'] as const).map((s) => [...w, s])), [[]]);
  const placeOf = { segment: (s: number) => places[s]!, node: (n: number) => nodePlaces[n]! };
  const tried = ways.map((way) => {
    const sweeps = new Map(bands.map((b, i) => [b, way[i]!]));
    const asked = { rule, open: outlets, holes: pierces, seals: sealsOf(sweeps), pressed, rank: rankOf(sweeps) };
    const order = strokesOf(graph, [...(border === 'set-first' ? setFirst(sweeps) : []), ...breathingOrder(graph, asked)], placeOf);
    return { order, ...walked(order) };
  });
  const best = tried.reduce((a, b) =>
    b.climbs < a.climbs || (b.climbs === a.climbs && (b.walkMm < a.walkMm - 1e-6 || (b.walkMm < a.walkMm + 1e-6 && b.order.length < a.order.length))) ? b : a,
  );

  const zones: { band: number; zone: number; strokes: JointStroke[] }[] = [];
  for (const { stroke, place } of best.order) {
    const last = zones.at(-1);
    if (last && last.band === place.band && last.zone === place.zone) last.strokes.push(stroke);
    else zones.push({ ...place, strokes: [stroke] });
  }
  const spans = bands.map((b) => rest.flatMap((s) => (places[s]!.band === b ? [places[s]!.zone] : []))).map((z) => Math.max(...z) - Math.min(...z));
  return {
    zones: zones.map((z) => ({ band: z.band, fromMm: leftMm + (z.zone * wide) / count, toMm: leftMm + ((z.zone + 1) * wide) / count, strokes: z.strokes })),
    strokes: best.order.map((o) => o.stroke),
    shutIn: [...shutIn],
    pierces,
    walkMm: best.walkMm,
    leastWalkMm: spans.reduce((s, x) => s + (x * wide) / count, 0),
    climbs: best.climbs,
  };
}

/** The border of a place, side by side. */
const borderTurn: Readonly<Record<PanelBorder, number>> = { foot: 0, left: 1, right: 2, top: 3 };

/** Two people at one panel. */
export interface PairPlan {
  /** Joints whose middle lies left of this are the left one's. */
  readonly splitMm: number;
  readonly left: JointPlan;
  readonly right: JointPlan;
}
/** Off the middle of the panel a split is looked for in so many steps to both sides, each so much of its width. @source house figure */
const SPLITS = { steps: 6, stepFrac: 0.04 } as const;

/**
 * A plan for two people who start at any time and go at any speed, so that neither ever shuts the other's air in. Each part is planned as if the other one were pressed and sealed already: what
 * breathes then breathes all the more while some of the other part is still open (a crossing with more open joints is never more shut), so every interleaving of both is clean.
 * @returns null: no split near the middle leaves both parts a way out, or nothing is left to press
 * @source docs/models/joints.md §6
 */
export function planPair(graph: JointGraph, asked: Omit<JointsAsked, 'elsewhere'> = {}): PairPlan | null {
  const { nodes, segments } = graph;
  if (segments.length === 0 || asked.border === 'set-first') return null;
  const { rule = 'strict', done: before = [] } = asked;
  const done = new Set(before.flatMap((s) => (s.does === 'press' ? s.segments : [])));
  const sealed = new Set(before.flatMap((s) => (s.does === 'seal' ? s.exits : [])));
  /** Whether all that is left has a way out with so much pressed and sealed elsewhere: looked at before anything is planned. */
  const breathes = (elsewhere: { readonly segments: readonly number[]; readonly exits: readonly number[] }): boolean => {
    const pressed = new Set([...done, ...elsewhere.segments]);
    const shut = new Set([...sealed, ...elsewhere.exits]);
    const open = nodes.flatMap((n, i) => (n.is === 'exit' && !shut.has(i) ? [i] : []));
    return breathingOrder(graph, { rule, open, pressed, rank: () => 0 }).length === segments.length - pressed.size;
  };
  if (!breathes({ segments: [], exits: [] })) return null;
  const xs = nodes.map((n) => n.xMm);
  const [leftMm, rightMm] = [Math.min(...xs), Math.max(...xs)];
  const middle = (leftMm + rightMm) / 2;
  const offsets = [0, ...Array.from({ length: SPLITS.steps }, (_, i) => [(i + 1) * SPLITS.stepFrac, -(i + 1) * SPLITS.stepFrac]).flat()];
  for (const off of offsets) {
    const splitMm = middle + off * (rightMm - leftMm);
    const isLeft = segments.map((_s, i) => middleOf(graph, i).x < splitMm);
    const part = (ofLeft: boolean) => ({ segments: isLeft.flatMap((is, i) => (is === ofLeft ? [i] : [])), exits: nodes.flatMap((n, i) => (n.is === 'exit' && n.side !== 'hole' && n.xMm < splitMm === ofLeft ? [i] : [])) }); // prettier-ignore
    const [own, others] = [part(true), part(false)];
    const isLeftOver = (p: typeof own) => p.segments.some((i) => !done.has(i));
    if (!isLeftOver(own) || !isLeftOver(others)) continue;
    if (!breathes(others) || !breathes(own)) continue;
    const [left, right] = [planJoints(graph, { ...asked, elsewhere: others }), planJoints(graph, { ...asked, elsewhere: own })];
    if (left.shutIn.length + right.shutIn.length === 0) return { splitMm, left, right };
  }
  return null;
}
