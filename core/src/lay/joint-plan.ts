import { otherEnd, type JointGraph } from './joint-graph.js';
import type { CrossingRule, JointStroke } from './joint-replay.js';

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
  /** Segments that no order can let breathe: they are pierced. */
  readonly shutIn: readonly number[];
  /** Where, at the low end of what is shut in; the fewest that do. */
  readonly pierces: readonly { readonly xMm: number; readonly yMm: number; readonly segments: readonly number[] }[];
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

/** A queue that gives the largest key first. */
class Largest {
  private readonly heap: { key: number; segment: number; node: number }[] = [];
  get size(): number {
    return this.heap.length;
  }
  push(item: { key: number; segment: number; node: number }): void {
    const { heap } = this;
    heap.push(item);
    let i = heap.length - 1;
    for (let up = (i - 1) >> 1; i > 0 && heap[up]!.key < heap[i]!.key; i = up, up = (i - 1) >> 1) [heap[up], heap[i]] = [heap[i]!, heap[up]!];
  }
  pop(): { key: number; segment: number; node: number } {
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
    return top;
  }
}

/**
 * An order that never shuts air in, found from its end: from the exits inwards segments are given back that keep a way out, those that one wants to press last first. What can
 * be given back only grows with what has been (a crossing that has more open joints is never more shut), so nothing that can breathe is missed (an antimatroid; docs/models/joints.md).
 * @param rank what is pressed earlier has less
 * @returns segments in the order they are pressed, each with the end it is rolled to
 */
export function breathingOrder(
  graph: JointGraph,
  rule: CrossingRule,
  exits: readonly number[],
  rank: (segment: number, to: number) => number,
): { readonly segment: number; readonly to: number }[] {
  const { nodes, segments } = graph;
  const isOpen = new Uint8Array(segments.length);
  const isExit = new Uint8Array(nodes.length);
  for (const n of exits) isExit[n] = 1;
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
    for (const s of at[node]!) if (!isOpen[s] && leaves(s, node)) queue.push({ key: rank(s, node), segment: s, node });
  };
  for (const n of exits) offer(n);
  const order: { segment: number; to: number }[] = [];
  while (queue.size) {
    const { segment, node } = queue.pop();
    if (isOpen[segment]) continue;
    isOpen[segment] = 1;
    order.push({ segment, to: node });
    offer(node);
    offer(otherEnd(segments[segment]!, node));
  }
  return order.reverse();
}

/** Where a joint is worked from. */
interface Place {
  readonly band: number;
  readonly zone: number;
}
const bandOf = (reach: HandsReach, y: number): number => {
  const i = reach.bandTopsMm.findIndex((top) => y <= top);
  return i < 0 ? reach.bandTopsMm.length : i;
};

/** Strokes of an order: what goes straight on in one place is one. */
function strokesOf(
  graph: JointGraph,
  order: readonly { readonly segment: number; readonly to: number }[],
  placeOf: (segment: number) => Place,
): { readonly stroke: JointStroke; readonly place: Place }[] {
  const out: { from: number; segments: number[]; to: number; place: Place; way: string; sign: number }[] = [];
  for (const { segment, to } of order) {
    const seg = graph.segments[segment]!;
    const from = otherEnd(seg, to);
    const [last, place, sign] = [out.at(-1), placeOf(segment), to === seg.b ? 1 : -1];
    if (last && last.to === from && last.way === seg.way && last.sign === sign && last.place.band === place.band && last.place.zone === place.zone) {
      last.segments.push(segment);
      last.to = to;
    } else out.push({ from, segments: [segment], to, place, way: seg.way, sign });
  }
  return out.map(({ from, segments, place }) => ({ stroke: { does: 'press', from, segments }, place }));
}

/**
 * An order and direction of all strokes that never shuts air in, walked as little as may be: in each band a sweep from one place to the next, heads of a course before the bed
 * above them; whichever way each band is swept, and from the middle outwards, the one with least climbing and walking is taken.
 */
export function planJoints(graph: JointGraph, reach: HandsReach = usualReach, rule: CrossingRule = 'strict'): JointPlan {
  const { nodes, segments } = graph;
  const lefts = nodes.map((n) => n.xMm);
  const [leftMm, rightMm] = [Math.min(...lefts), Math.max(...lefts)];
  const wide = Math.max(1, rightMm - leftMm);
  const count = Math.max(1, Math.ceil(wide / reach.acrossMm - 1e-9));
  const middles = segments.map((_s, i) => middleOf(graph, i));
  const places = middles.map(({ x, y }): Place => ({
    band: bandOf(reach, y),
    zone: Math.min(count - 1, Math.max(0, Math.floor(((x - leftMm) / wide) * count))),
  }));
  const bands = [...new Set(places.map((p) => p.band))].sort((a, b) => a - b);

  const exits = nodes.flatMap((n, i) => (n.is === 'exit' && Object.values(n.at).some((s) => s !== null) ? [i] : []));
  const plain = (more: readonly number[]) => breathingOrder(graph, rule, [...exits, ...more], () => 0);
  const pierced: number[] = [];
  const pierces: { xMm: number; yMm: number; segments: number[] }[] = [];
  const shutIn = new Set<number>();
  for (let reached = plain([]); reached.length < segments.length; reached = plain(pierced)) {
    const isReached = new Set(reached.map((o) => o.segment));
    // one group of what is shut in, pierced at its lowest place
    const first = segments.findIndex((_s, i) => !isReached.has(i));
    const group = new Set([first]);
    for (const s of group)
      for (const n of [segments[s]!.a, segments[s]!.b]) for (const o of Object.values(nodes[n]!.at)) if (o !== null && !isReached.has(o)) group.add(o);
    const ends = [...group].flatMap((s) => [segments[s]!.a, segments[s]!.b]).filter((n) => !pierced.includes(n));
    const low = ends.reduce((a, b) => (nodes[b]!.yMm < nodes[a]!.yMm ? b : a));
    pierced.push(low);
    for (const s of group) shutIn.add(s);
    pierces.push({ xMm: nodes[low]!.xMm, yMm: nodes[low]!.yMm, segments: [...group] });
  }

  const rankOf =
    (sweeps: ReadonlyMap<number, Sweep>) =>
    (segment: number, to: number): number => {
      const { band, zone } = places[segment]!;
      const sweep = sweeps.get(band)!;
      const { way, level, b } = segments[segment]!;
      const x = middles[segment]!.x - leftMm;
      const isRight = sweep === 'right' || (sweep === 'outwards' && x >= wide / 2);
      const along = isRight ? x : wide - x;
      const step = isRight ? zone : count - 1 - zone;
      // from the middle outwards: first one half, then the other
      const turn = sweep === 'outwards' && isRight ? count : 0;
      const wanted = way === 'head' ? to === b : (to === b) === isRight;
      return ((band * 4 * count + turn + step) * 10_000 + 2 * level + (way === 'bed' ? 1 : 0)) * 1e3 + (along / wide) * 900 + (wanted ? 0.5 : 0);
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
  const tried = ways.map((way) => {
    const sweeps = new Map(bands.map((b, i) => [b, way[i]!]));
    const order = strokesOf(graph, breathingOrder(graph, rule, [...exits, ...pierced], rankOf(sweeps)), (s) => places[s]!);
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
  const spans = bands.map((b) => places.filter((p) => p.band === b).map((p) => p.zone)).map((z) => Math.max(...z) - Math.min(...z));
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
