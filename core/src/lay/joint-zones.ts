import type { BorderSchool, JointHands } from '@yellow-pane/contracts';
import { contentHash } from '../ground/index.js';
import { otherEnd, type JointGraph } from './joint-graph.js';
import { bandOf, planJoints, planPair, usualReach, type HandsReach, type JointPlan } from './joint-plan.js';
import { replayJoints, type CrossingRule, type JointStroke, type TrappedJoint } from './joint-replay.js';
import type { TexturedPanel } from './textured-wall.js';

/** Tools for a textured wall, and how fast they go. */
export interface TextureTools {
  readonly rollerMm: number;
  readonly overlapMm: number;
  /** Gun and roller together. */
  readonly faceMmPerS: number;
  readonly jointMmPerS: number;
  readonly gunW: number;
}
/** @source strokes overlap 2 in (50 mm), gun and roller at 2 in (51 mm) a second: common practice. A foam roller of 4 in (100 mm), a gun of 2 kW: from memory */
export const usualTools: TextureTools = { rollerMm: 100, overlapMm: 50, faceMmPerS: 51, jointMmPerS: 51, gunW: 2000 };
/** Setting a tool down at the head of a stroke, s. @source house figure */
const BETWEEN_STROKES_S = 2;

/** A stroke over faces, from the place where it begins to the open edge, or towards it. */
export interface FaceLane {
  readonly fromXMm: number;
  readonly fromYMm: number;
  readonly toXMm: number;
  readonly toYMm: number;
}

/** Everything that is done from one place before one steps on: faces, then joints, then the border over them. */
export interface WallZone {
  /** Number of its panel. */
  readonly panel: number;
  /** From the floor 0, then platform by platform. */
  readonly band: number;
  readonly fromMm: number;
  readonly toMm: number;
  readonly lowMm: number;
  readonly highMm: number;
  readonly lanes: readonly FaceLane[];
  readonly strokes: readonly JointStroke[];
  readonly minutes: number;
  readonly gunKwh: number;
  /** Of two people who work at one panel the one whose place it is; left out: one works alone. */
  readonly hand?: 'left' | 'right';
}

/** What was done at one place by the log: it stands for this graph and no other. */
export interface ZoneDone {
  readonly panel: number;
  /** Of the graph of its panel: with other joints it says nothing any more. */
  readonly graph: string;
  readonly strokes: readonly JointStroke[];
}

/** How a textured wall is asked for; what is left out is as usual. */
export interface ZonesAsked {
  readonly border?: BorderSchool;
  readonly rule?: CrossingRule;
  readonly reach?: HandsReach;
  readonly tools?: TextureTools;
  /** How many work at one panel. */
  readonly hands?: JointHands;
}

/** A panel with what is done of it, and what is left, place by place. */
export interface PanelZones {
  readonly panel: TexturedPanel;
  readonly graph: string;
  /** As it was planned before anything was done. */
  readonly plan: JointPlan;
  readonly done: readonly JointStroke[];
  readonly placesDone: number;
  readonly left: readonly WallZone[];
  /** What was done has shut these in. */
  readonly trapped: readonly TrappedJoint[];
  /** Where what is shut in is pierced. */
  readonly pierces: JointPlan['pierces'];
  /** Something was done out of its order: what is left is planned anew from there. */
  readonly isPlannedAnew: boolean;
}

/** Tells one graph from another: places and what meets where. */
const graphMark = ({ nodes, segments }: JointGraph): string => contentHash({ nodes, segments }).slice(0, 16);

/** Nearer to each other than this two ends of a lane are nothing, mm. */
const NOTHING_MM = 1;
/** What of a line is left beside obstacles. */
function beside(from: number, to: number, gaps: readonly { readonly from: number; readonly to: number }[]): { from: number; to: number }[] {
  const out: { from: number; to: number }[] = [];
  let at = from;
  for (const g of [...gaps].sort((a, b) => a.from - b.from)) {
    if (g.from > at + NOTHING_MM) out.push({ from: at, to: Math.min(g.from, to) });
    at = Math.max(at, g.to);
  }
  if (to > at + NOTHING_MM) out.push({ from: at, to });
  return out.filter((p) => p.to - p.from > NOTHING_MM);
}

/**
 * Lanes over the faces of one place: a roller wide, overlapping, always towards an open edge: to the free side, from the middle of the panel to both, or, shut at both sides,
 * up or down. A strip no wider than the roller takes one lane along it: the free edge is beside it all the way.
 */
export function faceLanes(
  { asked: { panel, borders, obstacles } }: Pick<TexturedPanel, 'asked'>,
  box: Pick<WallZone, 'fromMm' | 'toMm' | 'lowMm' | 'highMm'>,
  tools: TextureTools,
): FaceLane[] {
  const middle = (panel.leftMm + panel.rightMm) / 2;
  const isStrip = panel.rightMm - panel.leftMm <= tools.rollerMm;
  const isSideFree = !isStrip && (borders.left === 'free' || borders.right === 'free');
  const [low, high] = isSideFree ? [box.lowMm, box.highMm] : [box.fromMm, box.toMm];
  const count = Math.max(1, Math.ceil((high - low - tools.overlapMm) / (tools.rollerMm - tools.overlapMm) - 1e-9));
  const wide = Math.min(tools.rollerMm, high - low);
  const at = (i: number) => (count === 1 ? (low + high) / 2 : low + wide / 2 + (i * (high - low - wide)) / (count - 1));
  return Array.from({ length: count }, (_, i) => at(count - 1 - i)).flatMap((line): FaceLane[] => {
    const over = obstacles.filter((o) => (isSideFree ? line > o.footMm && line < o.footMm + o.heightMm : line > o.leftMm && line < o.leftMm + o.widthMm));
    if (!isSideFree) {
      // sides shut: the lower half goes down, the upper one up; a shut foot or top sends all the other way
      const isDown = borders.foot === 'free' && (borders.top === 'closed' || (box.lowMm + box.highMm) / 2 < (panel.footMm + panel.topMm) / 2);
      return beside(box.lowMm, box.highMm, over.map((o) => ({ from: o.footMm, to: o.footMm + o.heightMm }))).map(({ from, to }) => ({ fromXMm: line, toXMm: line, fromYMm: isDown ? to : from, toYMm: isDown ? from : to })); // prettier-ignore
    }
    const split = borders.left === 'free' && borders.right === 'free' ? Math.min(box.toMm, Math.max(box.fromMm, middle)) : borders.right === 'free' ? box.fromMm : box.toMm; // prettier-ignore
    const gaps = over.map((o) => ({ from: o.leftMm, to: o.leftMm + o.widthMm }));
    return [
      ...beside(split, box.toMm, gaps).map(({ from, to }) => ({ fromXMm: from, toXMm: to, fromYMm: line, toYMm: line })),
      ...beside(box.fromMm, split, gaps).reverse().map(({ from, to }) => ({ fromXMm: to, toXMm: from, fromYMm: line, toYMm: line })),
    ]; // prettier-ignore
  });
}

/** Length of a stroke, mm: along its joints, or along the border over its exits. */
export function jointStrokeMm({ nodes, segments }: JointGraph, stroke: JointStroke): number {
  if (stroke.does === 'press') return stroke.segments.reduce((s, i) => s + segments[i]!.lengthMm, 0);
  const at = stroke.exits.map((n) => nodes[n]!);
  const [xs, ys] = [at.map((n) => n.xMm), at.map((n) => n.yMm)];
  return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}

/** Zones of a plan with their lanes, minutes and what the gun draws: lanes at the first visit of a place that was not worked yet. */
function zonesOf(panel: TexturedPanel, plan: JointPlan, seen: Set<string>, reach: HandsReach, tools: TextureTools): WallZone[] {
  const { asked, graph, number } = panel;
  return plan.zones.map(({ band, fromMm, toMm, strokes }): WallZone => {
    const box = {
      fromMm,
      toMm,
      lowMm: Math.max(asked.panel.footMm, band === 0 ? -Infinity : reach.bandTopsMm[band - 1]!),
      highMm: Math.min(asked.panel.topMm, reach.bandTopsMm[band] ?? Infinity),
    };
    const place = placeKey(band, fromMm);
    const lanes = seen.has(place) ? [] : faceLanes(panel, box, tools);
    seen.add(place);
    const facesS = lanes.reduce((s, l) => s + Math.hypot(l.toXMm - l.fromXMm, l.toYMm - l.fromYMm), 0) / tools.faceMmPerS;
    const jointsS = strokes.reduce((s, x) => s + jointStrokeMm(graph, x), 0) / tools.jointMmPerS;
    // the faces of glazed blocks are pressed cold
    const hotS = jointsS + (asked.masonry.texture === 'glazed' ? 0 : facesS);
    return {
      panel: number,
      band,
      ...box,
      lanes,
      strokes,
      minutes: (facesS + jointsS + BETWEEN_STROKES_S * (lanes.length + strokes.length)) / 60,
      gunKwh: (tools.gunW * hotS) / 3.6e6,
    };
  });
}
const placeKey = (band: number, fromMm: number): string => `${band}/${Math.round(fromMm)}`;

/** A panel with no joint beneath it: its faces alone, place by place from its left. */
function bareZones(panel: TexturedPanel, reach: HandsReach): JointPlan {
  const { panel: p } = panel.asked;
  const count = Math.max(1, Math.ceil((p.rightMm - p.leftMm) / reach.acrossMm - 1e-9));
  const wide = (p.rightMm - p.leftMm) / count;
  const top = bandOf(reach, p.topMm);
  const bands = Array.from({ length: top - bandOf(reach, p.footMm) + 1 }, (_, i) => bandOf(reach, p.footMm) + i);
  const zones = bands.flatMap((band, i) =>
    Array.from({ length: count }, (_, z) => (i % 2 ? count - 1 - z : z)).map((z) => ({ band, fromMm: p.leftMm + z * wide, toMm: p.leftMm + (z + 1) * wide, strokes: [] })),
  ); // prettier-ignore
  const walkMm = bands.length * (count - 1) * wide;
  return { zones, strokes: [], shutIn: [], pierces: [], walkMm, leastWalkMm: walkMm, climbs: bands.length - 1 };
}

/** A place that both stand at is parted between them: faces as joints are. */
const asFarAs = (plan: JointPlan, hand: 'left' | 'right', splitMm: number): JointPlan => ({
  ...plan,
  zones: plan.zones.map((z) => {
    const [fromMm, toMm] = hand === 'left' ? [z.fromMm, Math.min(z.toMm, splitMm)] : [Math.max(z.fromMm, splitMm), z.toMm];
    return toMm - fromMm > NOTHING_MM ? { ...z, fromMm, toMm } : z;
  }),
});

/** Places of two people in the order in which they come to be begun, where both start now and go as they are reckoned. */
function inTime(queues: readonly (readonly WallZone[])[]): WallZone[] {
  const [first = [], second = []] = queues;
  const out: WallZone[] = [];
  const at = [0, 0];
  const minutes = [0, 0];
  while (at[0]! < first.length || at[1]! < second.length) {
    const who = at[1]! >= second.length || (at[0]! < first.length && minutes[0]! <= minutes[1]!) ? 0 : 1;
    const zone = (who === 0 ? first : second)[at[who]!++]!;
    minutes[who]! += zone.minutes;
    out.push(zone);
  }
  return out;
}

/** How long a panel takes: of two people whoever is longer at it. */
export const minutesOfPlaces = (zones: readonly WallZone[]): number => {
  const of = (hand: WallZone['hand']) => zones.reduce((s, z) => s + (z.hand === hand ? z.minutes : 0), 0);
  return of(undefined) + Math.max(of('left'), of('right'));
};

/** What of strokes is new: a segment that is pressed already is not pressed again, nor an exit sealed twice. */
function freshOf({ segments }: JointGraph, strokes: readonly JointStroke[], done: readonly JointStroke[]): JointStroke[] {
  const pressed = new Set(done.flatMap((s) => (s.does === 'press' ? s.segments : [])));
  const sealed = new Set(done.flatMap((s) => (s.does === 'seal' ? s.exits : [])));
  return strokes.flatMap((s): JointStroke[] => {
    if (s.does === 'seal') {
      const exits = s.exits.filter((n) => !sealed.has(n));
      return exits.length ? [{ does: 'seal', exits }] : [];
    }
    const runs: { does: 'press'; from: number; segments: number[] }[] = [];
    let [at, isOn] = [s.from, false];
    for (const i of s.segments) {
      const seg = segments[i]!;
      if (pressed.has(i)) isOn = false;
      else if (isOn) runs.at(-1)!.segments.push(i);
      else {
        runs.push({ does: 'press', from: at, segments: [i] });
        isOn = true;
      }
      at = otherEnd(seg, at);
    }
    return runs;
  });
}

/** What the log says of one panel, and what is left of it. Lines that were written for other joints than these are not looked at. */
export function zonesOfPanel(
  panel: TexturedPanel,
  logged: readonly ZoneDone[],
  { border = 'left-open', rule = 'strict', reach = usualReach, tools = usualTools, hands = 'one' }: ZonesAsked = {},
): PanelZones {
  const { graph } = panel;
  const mark = graphMark(graph);
  const planFrom = (done: readonly JointStroke[]): JointPlan =>
    graph.segments.length ? planJoints(graph, { border, rule, reach, done }) : bareZones(panel, reach);
  const plan = planFrom([]);
  /** Places of one person, or of each of two; and where is pierced what has no way out. */
  const queuesFrom = (before: readonly JointStroke[], worked: ReadonlySet<string>): { queues: WallZone[][]; pierces: JointPlan['pierces'] } => {
    const seen = new Set(worked);
    // round an arris there is room for one
    const pair = hands === 'two' && !panel.round ? planPair(graph, { border, rule, reach, done: before }) : null;
    if (!pair) {
      const alone = before.length ? planFrom(before) : plan;
      return { queues: [zonesOf(panel, alone, seen, reach, tools)], pierces: alone.pierces };
    }
    const of = (hand: 'left' | 'right') => zonesOf(panel, asFarAs(pair[hand], hand, pair.splitMm), seen, reach, tools).map((z): WallZone => ({ ...z, hand }));
    return { queues: [of('left'), of('right')], pierces: [] };
  };
  let { queues, pierces } = queuesFrom([], new Set());
  let isPlannedAnew = false;
  const done: JointStroke[] = [];
  const worked = new Set<string>();
  const lines = logged.filter((l) => l.panel === panel.number && l.graph === mark);
  let counted = 0;
  for (const line of lines) {
    const isLine = (z: WallZone | undefined) => z !== undefined && JSON.stringify(z.strokes) === JSON.stringify(line.strokes);
    const queue = queues.find((q) => isLine(q[0]));
    const next = queue?.shift();
    if (next) {
      done.push(...line.strokes);
      worked.add(placeKey(next.band, next.fromMm));
      counted++;
      continue;
    }
    const fresh = freshOf(graph, line.strokes, done);
    // tapped twice, or on two phones: the second says nothing
    if (line.strokes.length > 0 && fresh.length === 0) continue;
    counted++;
    const other = queues.flat().find(isLine);
    if (other) worked.add(placeKey(other.band, other.fromMm));
    done.push(...fresh);
    isPlannedAnew = true;
    ({ queues, pierces } = queuesFrom(done, worked));
  }
  return { panel, graph: mark, plan, done, placesDone: counted, left: inTime(queues), trapped: done.length ? replayJoints(graph, done, rule).trapped : [], pierces, isPlannedAnew }; // prettier-ignore
}

/** What setting all of the border first shuts in on this wall, and in how many places it would have to be pierced; nothing where it has no way out anyhow. */
export function setFirstCosts(graph: JointGraph): { readonly shutIn: number; readonly pierces: JointPlan['pierces'] } {
  const plan = planJoints(graph, { border: 'set-first' });
  return { shutIn: plan.shutIn.length, pierces: plan.pierces };
}
