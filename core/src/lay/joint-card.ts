import type { JointsAnswer, JointsInput } from '@yellow-pane/contracts';
import { stretchLimitOf } from '../form/index.js';
import { otherEnd, jointGraph, type JointGraph } from './joint-graph.js';
import { replayJoints, type JointStroke } from './joint-replay.js';
import { fitWords, pierceText, setFirstWords, strokePath, verdictWords, walkWords, zoneDoing } from './joint-words.js';
import { zonesOfPanel } from './joint-zones.js';
import { jointFit, type TexturedPanel } from './textured-wall.js';

/** More blocks than these beneath one panel are not planned at once: film is hung in panels. @source house figure: 30 × 4 m of bricks are 7 100 */
const MOST_UNITS = 9000;
/** A panel smaller than this has nothing to plan, mm. */
const LEAST_MM = 20;

/** Why these joints are not planned; null: they are. */
function doubtOf({ masonry: m, wall, panel: p }: JointsInput): string | null {
  if (m.jointMm >= Math.min(m.pitchAcrossMm, m.pitchUpMm)) return 'Joints are as wide as the blocks are long: tape pitch and joint again.';
  if (p.rightMm - p.leftMm < LEAST_MM || p.topMm - p.footMm < LEAST_MM) return 'The panel has no size: right has to lie right of left, top above foot.';
  if (p.leftMm < -1 || p.footMm < -1 || p.rightMm > wall.widthMm + 1 || p.topMm > wall.heightMm + 1)
    return 'The panel reaches past the wall: tape the wall again, or cut the panel to it.';
  if ((wall.widthMm / m.pitchAcrossMm + 1) * (wall.heightMm / m.pitchUpMm + 1) > MOST_UNITS)
    return `More than ${MOST_UNITS} blocks beneath one panel: ask for the panels one by one.`;
  return null;
}

/** Whether strokes name what is there, each segment at an end of which it begins. */
const isOfGraph = ({ nodes, segments }: JointGraph, strokes: readonly JointStroke[]): boolean =>
  strokes.every((s) => {
    if (s.does === 'seal') return s.exits.every((n) => nodes[n]?.is === 'exit');
    let at = s.from;
    return s.segments.every((i) => {
      const seg = segments[i];
      if (!seg || (seg.a !== at && seg.b !== at)) return false;
      at = otherEnd(seg, at);
      return true;
    });
  });

/** The plan for the joints beneath one panel by its figures alone, and what an order of one’s own would do, with the words of the screen. */
export function jointsCard(input: JointsInput): JointsAnswer {
  const { masonry, units, border, rule, hands, strokes } = input;
  const fit = jointFit(masonry, stretchLimitOf(input.film));
  const doubt = doubtOf(input);
  const nothing = { segments: [], nodes: [], lengthM: 0, zones: [], pierces: [], walkMm: 0, leastWalkMm: 0, walking: '', setFirst: '', verdict: null };
  const about = { is: fit.is, stretchPct: 100 * fit.stretchFrac, text: fitWords(fit, masonry, units) };
  if (doubt) return { doubt, fit: about, ...nothing };
  const graph = jointGraph(input);
  const panel: TexturedPanel = { number: 1, asked: input, graph, overSide: null };
  const { left: zones, plan } = zonesOfPanel(panel, [], { border, rule, hands });
  const isJudged = strokes.length > 0 && isOfGraph(graph, strokes);
  const verdict = isJudged ? replayJoints(graph, strokes, rule) : null;
  return {
    doubt:
      strokes.length > 0 && !isJudged
        ? 'These strokes name joints that are not there, or do not go on where the last one ended: ask for the joints anew.'
        : null,
    fit: about,
    segments: graph.segments.map(({ way, a, b, lengthMm }) => ({ way, a, b, lengthMm })),
    nodes: graph.nodes.map(({ xMm, yMm, is }) => ({ xMm, yMm, is })),
    lengthM: graph.segments.reduce((s, x) => s + x.lengthMm, 0) / 1000,
    zones: zones.map((z, i) => ({
      band: z.band,
      hand: z.hand ?? null,
      fromMm: z.fromMm,
      toMm: z.toMm,
      minutes: z.minutes,
      gunKwh: z.gunKwh,
      lanes: z.lanes.map((l) => ({ from: { xMm: l.fromXMm, yMm: l.fromYMm }, to: { xMm: l.toXMm, yMm: l.toYMm } })),
      strokes: z.strokes.map((s) => ({ stroke: plainStroke(s), path: strokePath(graph, s) })),
      doing: zoneDoing(z, panel, { fit, border, isFirst: i === 0, units }),
    })),
    pierces: plan.pierces.map((p) => ({ xMm: p.xMm, yMm: p.yMm, segments: [...p.segments], text: pierceText(p, units) })),
    walkMm: plan.walkMm,
    leastWalkMm: plan.leastWalkMm,
    walking: walkWords(plan, units),
    setFirst: setFirstWords(graph, units),
    verdict: verdict && { isClean: verdict.isClean, text: verdictWords(graph, verdict, units), trapped: verdict.trapped.map((t) => ({ ...t })) },
  };
}
/** A stroke as it is written down and sent. */
export const plainStroke = (s: JointStroke): JointsInput['strokes'][number] =>
  s.does === 'seal' ? { does: 'seal', exits: [...s.exits] } : { does: 'press', from: s.from, segments: [...s.segments] };
