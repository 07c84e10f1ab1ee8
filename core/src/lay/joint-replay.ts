import { otherEnd, type JointGraph, type JointNode } from './joint-graph.js';

/** One stroke along a joint: segments one after the other, each from the end it is begun at; or a border that is sealed, where joints leave. */
export type JointStroke =
  { readonly does: 'press'; readonly from: number; readonly segments: readonly number[] } | { readonly does: 'seal'; readonly exits: readonly number[] };

/** Whether rolling straight through a crossing presses it shut. @source strict: what stack bond depends on (CHECKS.md); lenient for comparison */
export type CrossingRule = 'strict' | 'lenient';

/** A needle’s hole in the film over a segment, beside its end at a node. */
export interface JointHole {
  readonly segment: number;
  readonly node: number;
}

/** A segment whose air has no way out any more. */
export interface TrappedJoint {
  readonly segment: number;
  /** The stroke that shut it in; −1: it was so from the start. */
  readonly atStroke: number;
  /** Dead end: its own air was rolled against something shut. Cut off: others were pressed before it. Sealed: the border was closed over it. */
  readonly why: 'dead-end' | 'cut-off' | 'sealed' | 'from-start';
}
export interface JointVerdict {
  readonly isClean: boolean;
  readonly trapped: readonly TrappedJoint[];
  /** Segments that no stroke presses. */
  readonly left: readonly number[];
  /** Strokes that cannot be: a segment pressed twice, or one that does not go on where the last one ended. */
  readonly broken: readonly number[];
}

/** What happens in order, one segment or one seal at a time. */
type Event = { readonly is: 'press'; readonly segment: number; readonly from: number; readonly to: number; readonly stroke: number } | { readonly is: 'seal'; readonly node: number; readonly stroke: number }; // prettier-ignore

const eventsOf = ({ segments }: JointGraph, strokes: readonly JointStroke[]): { readonly events: Event[]; readonly broken: number[] } => {
  const events: Event[] = [];
  const broken: number[] = [];
  const pressed = new Set<number>();
  strokes.forEach((s, stroke) => {
    if (s.does === 'seal') return void events.push(...s.exits.map((node) => ({ is: 'seal' as const, node, stroke })));
    let at = s.from;
    for (const segment of s.segments) {
      const seg = segments[segment];
      if (!seg || pressed.has(segment) || (seg.a !== at && seg.b !== at)) return void broken.push(stroke);
      const to = otherEnd(seg, at);
      pressed.add(segment);
      events.push({ is: 'press', segment, from: at, to, stroke });
      at = to;
    }
  });
  return { events, broken };
};

const pairs = ({ at }: JointNode): readonly (readonly [number | null, number | null])[] => [
  [at.east, at.west],
  [at.north, at.south],
];

/**
 * What an order of strokes does with the air beneath the film. Reckoned backwards: taking strokes back only joins what they parted, so each place is looked at once
 * (disjoint sets with lists, near linear).
 */
export function replayJoints(
  graph: JointGraph,
  strokes: readonly JointStroke[],
  rule: CrossingRule = 'strict',
  holes: readonly JointHole[] = [],
): JointVerdict {
  const { nodes, segments } = graph;
  const { events, broken } = eventsOf(graph, strokes);

  // forwards: when each crossing is pressed shut, and each exit sealed
  const pressedAt = new Int32Array(segments.length).fill(-1);
  const sealedAt = new Map<number, number>();
  const shutBy = events.map<{ before: number[]; after: number[] }>(() => ({ before: [], after: [] }));
  const isShut = new Uint8Array(nodes.length);
  events.forEach((e, t) => {
    if (e.is === 'seal') return void (sealedAt.has(e.node) || sealedAt.set(e.node, t));
    pressedAt[e.segment] = t;
    if (rule === 'lenient') return;
    for (const n of [e.from, e.to]) {
      if (isShut[n] || !pairs(nodes[n]!).some(([p, q]) => p !== null && q !== null && pressedAt[p]! >= 0 && pressedAt[q]! >= 0)) continue;
      isShut[n] = 1;
      // rolled through it is shut as the wheel goes on; ended at, when it arrives
      (n === e.from ? shutBy[t]!.before : shutBy[t]!.after).push(n);
    }
  });

  // sets of ports (two for each segment) and of places; of each set its segments that wait for their reason
  const [ports, size] = [2 * segments.length, 2 * segments.length + nodes.length];
  const parent = Int32Array.from({ length: size }, (_, i) => i);
  const hasExit = new Uint8Array(size);
  const head = new Int32Array(size).fill(-1);
  const tail = new Int32Array(size).fill(-1);
  const next = new Int32Array(segments.length).fill(-1);
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]!]!;
    return i;
  };
  const reasons = new Map<number, TrappedJoint>();
  const assign = (root: number, atStroke: number, why: TrappedJoint['why']) => {
    for (let s = head[root]!; s >= 0; s = next[s]!) reasons.set(s, { segment: s, atStroke, why });
    head[root] = tail[root] = -1;
  };
  const unite = (p: number, q: number, atStroke: number, why: TrappedJoint['why']) => {
    const [i, j] = [find(p), find(q)];
    if (i === j) return;
    if (hasExit[i] !== hasExit[j]) assign(hasExit[i] ? j : i, atStroke, why);
    parent[j] = i;
    hasExit[i] = hasExit[i]! | hasExit[j]!;
    if (head[j]! >= 0) {
      if (head[i]! < 0) head[i] = head[j]!;
      else next[tail[i]!] = head[j]!;
      tail[i] = tail[j]!;
    }
  };
  const put = (segment: number) => {
    const root = find(2 * segment);
    if (hasExit[root]) return;
    if (head[root]! < 0) head[root] = segment;
    else next[tail[root]!] = segment;
    tail[root] = segment;
  };
  const port = (segment: number, node: number): number => 2 * segment + (segments[segment]!.a === node ? 0 : 1);
  const open = (node: number, atStroke: number, why: TrappedJoint['why']) => {
    const { east, west, north, south } = nodes[node]!.at;
    for (const s of [east, west, north, south])
      if (s !== null) for (const end of [0, 1]) if ((end === 0 ? segments[s]!.a : segments[s]!.b) === node) unite(ports + node, 2 * s + end, atStroke, why);
  };
  for (const { segment, node } of holes) hasExit[port(segment, node)] = 1;
  nodes.forEach((n, i) => {
    if (n.is === 'exit' && !sealedAt.has(i)) hasExit[ports + i] = 1;
    if (!isShut[i]) open(i, -1, 'from-start');
  });
  const left: number[] = [];
  segments.forEach((_s, i) => {
    if (pressedAt[i]! >= 0) return;
    left.push(i);
    unite(2 * i, 2 * i + 1, -1, 'from-start');
  });
  left.forEach(put);

  for (let t = events.length - 1; t >= 0; t--) {
    const e = events[t]!;
    if (e.is === 'seal') {
      if (sealedAt.get(e.node) !== t || nodes[e.node]!.is !== 'exit') continue;
      const root = find(ports + e.node);
      if (!hasExit[root]) assign(root, e.stroke, 'sealed');
      hasExit[root] = 1;
      continue;
    }
    for (const n of shutBy[t]!.after) open(n, e.stroke, 'cut-off');
    // its own air goes ahead of the wheel
    const isOut = hasExit[find(port(e.segment, e.to))] === 1;
    for (const n of shutBy[t]!.before) open(n, e.stroke, 'cut-off');
    unite(2 * e.segment, 2 * e.segment + 1, e.stroke, 'cut-off');
    if (!isOut && hasExit[find(2 * e.segment)]) reasons.set(e.segment, { segment: e.segment, atStroke: e.stroke, why: 'dead-end' });
    else if (!isOut) put(e.segment);
  }
  for (let i = 0; i < segments.length; i++) {
    const root = find(2 * i);
    if (!hasExit[root]) assign(root, -1, 'from-start');
  }
  const trapped = [...reasons.values()].sort((a, b) => a.atStroke - b.atStroke || a.segment - b.segment);
  return { isClean: trapped.length === 0 && broken.length === 0, trapped, left, broken };
}
