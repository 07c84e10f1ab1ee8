import { otherEnd, type JointGraph } from './joint-graph.js';
import type { CrossingRule, JointStroke } from './joint-replay.js';

/**
 * The shortest way that the air ahead of a stroke takes to an exit, along joints that are not pressed yet.
 * @param at the stroke in hand; those before it are done
 * @returns places from the end of the stroke to the exit; one place: it leaves there; null: it has none, or the stroke drives no air
 */
export function airWay(
  graph: JointGraph,
  strokes: readonly JointStroke[],
  at: number,
  rule: CrossingRule = 'strict',
): { readonly xMm: number; readonly yMm: number }[] | null {
  const { nodes, segments } = graph;
  const stroke = strokes[at];
  if (stroke?.does !== 'press') return null;
  const pressed = new Set<number>();
  const sealed = new Set<number>();
  for (const s of strokes.slice(0, at)) for (const x of s.does === 'press' ? s.segments : s.exits) (s.does === 'press' ? pressed : sealed).add(x);
  // up to its last piece: there its air is
  const last = stroke.segments.at(-1)!;
  for (const s of stroke.segments.slice(0, -1)) pressed.add(s);
  const end = stroke.segments.reduce((n, s) => otherEnd(segments[s]!, n), stroke.from);
  const isShut = (n: number): boolean => {
    const { east, west, north, south } = nodes[n]!.at;
    // where it was begun a crossing is shut as the wheel goes on; where it ends, when it has arrived
    const isDone = (s: number) => pressed.has(s) || (s === last && n !== end);
    const isPair = (p: number | null, q: number | null) => p !== null && q !== null && isDone(p) && isDone(q);
    return rule === 'strict' && (isPair(east, west) || isPair(north, south));
  };
  const from = new Map<number, number | null>([[end, null]]);
  for (const n of from.keys()) {
    if (nodes[n]!.is === 'exit' && !sealed.has(n)) {
      const way: number[] = [];
      for (let m: number | null = n; m !== null; m = from.get(m)!) way.push(m);
      return way.reverse().map((m) => ({ xMm: nodes[m]!.xMm, yMm: nodes[m]!.yMm }));
    }
    if (isShut(n)) continue;
    for (const s of Object.values(nodes[n]!.at)) {
      if (s === null || s === last || pressed.has(s)) continue;
      const m = otherEnd(segments[s]!, n);
      if (!from.has(m)) from.set(m, n);
    }
  }
  return null;
}
