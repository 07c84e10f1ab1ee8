import type { BorderSchool, Masonry } from '@yellow-pane/contracts';
import { stretchPct } from '../form/index.js';
import { capital, formatRough, type UnitSystem } from '../ground/index.js';
import type { WallSide } from '../measure/index.js';
import type { JointedPanel, JointGraph } from './joint-graph.js';
import type { JointPlan } from './joint-plan.js';
import type { JointStroke, JointVerdict, TrappedJoint } from './joint-replay.js';
import { setFirstCosts, type PanelZones, type WallZone } from './joint-zones.js';
import type { JointFit, RoundArris, TexturedPanel } from './textured-wall.js';

const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** A joint as one finds it on the wall: which, and how far from the left end. */
export function jointName({ nodes, segments }: JointGraph, segment: number, units: UnitSystem): string {
  const { way, level, a, b } = segments[segment]!;
  const [p, q] = [nodes[a]!, nodes[b]!];
  return way === 'head'
    ? `the upright joint of course ${level + 1}, ${formatRough(p.xMm, units)} from the left`
    : `level joint ${level + 1} from ${formatRough(Math.min(p.xMm, q.xMm), units)} to ${formatRough(Math.max(p.xMm, q.xMm), units)}`;
}

const because: Readonly<Record<TrappedJoint['why'], string>> = {
  'dead-end': 'its air was rolled against something shut',
  'cut-off': 'what its air would have gone through was pressed before it',
  sealed: 'the border was closed over its way out',
  'from-start': 'it has no way out from the start',
};

/** What an order of strokes does, in words: what it shuts in first, at which stroke and why. */
export function verdictWords(graph: JointGraph, { trapped, left, broken }: JointVerdict, units: UnitSystem): string {
  const first = trapped[0];
  if (broken.length) return `Stroke ${broken[0]! + 1} does not go on where the last one ended, or goes over what is pressed already.`;
  if (!first)
    return left.length
      ? `Nothing is shut in; ${count(left.length, 'piece of joint', 'pieces of joint')} to go, each with a way out.`
      : 'All pressed, and nothing was shut in.';
  const same = trapped.filter((t) => t.atStroke === first.atStroke && t.why === first.why).length;
  const more = same > 1 ? ` and ${same - 1} more` : '';
  const when = first.atStroke < 0 ? '' : `Stroke ${first.atStroke + 1} shuts in `;
  const what = `${jointName(graph, first.segment, units)}${more}: ${because[first.why]}.`;
  return first.atStroke < 0 ? `${what[0]!.toUpperCase()}${what.slice(1)}` : when + what;
}

/** Where what is shut in is pierced. */
export const pierceText = ({ xMm, yMm, segments }: JointPlan['pierces'][number], units: UnitSystem): string =>
  `Pierce ${formatRough(xMm, units)} from the left, ${yMm < 1 ? 'at the foot' : `${formatRough(yMm, units)} up`}: ${segments.length === 1 ? 'a piece of joint lets its' : `${segments.length} pieces of joint let their`} air out there.`;

/** Whether film goes into the joints of a wall, as one says it. */
export function fitWords(
  { is, stretchFrac, limitFrac }: JointFit,
  { jointMm, jointDepthMm, texture }: Pick<Masonry, 'jointMm' | 'jointDepthMm' | 'texture'>,
  units: UnitSystem,
): string {
  const size = `${formatRough(jointMm, units)} wide, ${formatRough(jointDepthMm, units)} deep`;
  const pct = stretchPct(stretchFrac);
  const words: Readonly<Record<JointFit['is'], string>> = {
    lies: `Joints ${size}: so shallow that the face roller takes the film down; no wheel.`,
    goes: `Joints ${size}: film goes in, ${pct} of the ${stretchPct(limitFrac ?? 0)} it stands.`,
    bridges: `Joints ${size}: in to the bottom it would stretch ${pct}, and this film stands ${stretchPct(limitFrac ?? 0)}. It bridges them; wheel it only as far as it goes by itself.`,
    unknown: `Joints ${size}: in to the bottom it stretches ${pct}; how much this film stands is not in the library. Try one joint where nobody sees it.`,
  };
  return `${words[is]}${texture === 'glazed' ? ' Glazed faces: pressed cold with the squeegee, heat in the joints only.' : ''}`;
}

/** From where a band is worked. */
const bandName = (band: number): string => (band === 0 ? 'from the floor' : band === 1 ? 'from the platform' : `from platform ${band}`);

/** What a panel of a wall is called: it hangs, or lies along the wall over the one below it. */
const panelNoun = (panels: readonly Pick<TexturedPanel, 'overSide'>[]): 'drop' | 'length' => (panels.some((p) => p.overSide === 'foot') ? 'length' : 'drop');

/** A panel as one says it: by its number, or by the arris that film goes round. */
export function panelName(panels: readonly Named[], number: number): string {
  const round = panels.find((p) => p.number === number)?.round;
  if (!round) return `${capital(panelNoun(panels))} ${number}`;
  return `${capital(round.side)} arris${isOnly(panels, round) ? '' : ` of ${panelNoun(panels)} ${round.panel}`}`;
}
/** The same on a button. */
export function panelShort(panels: readonly Named[], number: number): string {
  const round = panels.find((p) => p.number === number)?.round;
  if (!round) return `${number}`;
  const isBothEnds = new Set(panels.flatMap((p) => (p.round ? [p.round.side] : []))).size > 1;
  return `${isBothEnds ? `${capital(round.side)} arris` : 'Arris'}${isOnly(panels, round) ? '' : ` ${round.panel}`}`;
}
const isOnly = (panels: readonly Named[], { side }: RoundArris): boolean => panels.filter((p) => p.round?.side === side).length === 1;
type Named = Pick<TexturedPanel, 'overSide' | 'number' | 'round'>;

/** A place of a wall as one says it: panel, from where, from what to what. */
export function zoneName(z: Pick<WallZone, 'panel' | 'band' | 'fromMm' | 'toMm' | 'hand'>, panels: readonly Named[], units: UnitSystem): string {
  const round = panels.find((p) => p.number === z.panel)?.round;
  const across = round
    ? `${formatRough(round.acrossMm, units)} on ${round.on}`
    : `${formatRough(z.fromMm, units)} to ${formatRough(z.toMm, units)} from the left`;
  return [panels.length > 1 ? panelName(panels, z.panel) : '', bandName(z.band), across, z.hand ? `${z.hand} person` : ''].filter(Boolean).join(', ');
}

/** What comes before the first place of a panel: it is laid over the one before it, or turned round its arris. Null: nothing does. */
export function beforePanelWords(panels: readonly Named[], number: number, units: UnitSystem): string | null {
  const panel = panels.find((p) => p.number === number);
  const noun = panelNoun(panels);
  if (panel?.round)
    return `First turn ${panels.length > 2 ? `${noun} ${panel.round.panel}` : 'it'} round the ${panel.round.side} arris, ${formatRough(panel.round.acrossMm, units)} on to ${panel.round.on}: film warm, no fold. At the arris no air gets out, at its edge it does.`;
  return panel?.overSide
    ? `First ${noun === 'drop' ? 'hang' : 'lay'} ${noun} ${number}: promoter on the lap of ${noun} ${number - 1}, its edge set on it. There no air gets out.`
    : null;
}

/** What is known of a place besides its strokes. */
export interface PlaceKnown {
  readonly fit: JointFit;
  readonly border: BorderSchool;
  /** Nothing of its panel is pressed yet: its border is tacked first. */
  readonly isFirst: boolean;
  readonly units: UnitSystem;
}

/** What hands do at a place, in their order: border tacked, faces, what stands out, joints, border sealed. */
export function zoneDoing(
  z: WallZone,
  { asked, graph, round }: Pick<TexturedPanel, 'asked' | 'graph' | 'round'>,
  { fit, border, isFirst, units }: PlaceKnown,
): string[] {
  const isCold = asked.masonry.texture === 'glazed';
  const of = (way: 'bed' | 'head') => z.strokes.filter((s) => s.does === 'press' && graph.segments[s.segments[0]!]!.way === way).length;
  const sides = [...new Set(z.strokes.flatMap((s) => (s.does === 'seal' ? [graph.nodes[s.exits[0]!]!.side] : [])))];
  const wheel = fit.is === 'lies' ? 'the face roller' : 'the joint wheel';
  const gone = (o: JointedPanel['obstacles'][number]) => o.isOpen || o.leftMm >= z.toMm || o.leftMm + o.widthMm <= z.fromMm || o.footMm >= z.highMm || o.footMm + o.heightMm <= z.lowMm; // prettier-ignore
  const standing = [...new Set(asked.obstacles.filter((o) => !gone(o)).map((o) => o.what ?? 'what stands here'))];
  const tacked = border === 'left-open' ? 'its faces only, so that it hangs; every joint stays open where it crosses the edge' : 'all of it, joints as well';
  const seal = `${sides.join(', ')}; gun pointing away from what is done.`;
  return [
    isFirst && !round
      ? `Tack its border first, top and foot, then the sides: ${tacked}. Gun ${formatRough(150, units)} to ${formatRough(250, units)} away, pointing away from the film.`
      : '',
    z.lanes.length
      ? `Faces: ${count(z.lanes.length, 'lane')} with the ${isCold ? 'squeegee, cold' : 'roller'}, ${z.lanes.length > 1 ? 'each ' : ''}towards its arrow.`
      : '',
    standing.length ? `Round ${standing.join(', ')}: with the hand pad, at once after heating.` : '',
    of('head') + of('bed')
      ? `Joints with ${wheel}: ${[of('head') ? count(of('head'), 'short upright stroke') : '', of('bed') ? count(of('bed'), of('head') ? 'level one' : 'level stroke') : ''].filter(Boolean).join(', ')}, by their numbers.`
      : '',
    sides.length ? (border === 'set-first' ? `The border here is set before its joints: ${seal}` : `Then seal the border here, ${seal}`) : '',
  ].filter(Boolean);
}

/** Walking of a plan, and how far it is from the least there can be. */
export function walkWords({ walkMm, leastWalkMm, climbs }: Pick<JointPlan, 'walkMm' | 'leastWalkMm' | 'climbs'>, units: UnitSystem): string {
  const less = walkMm - leastWalkMm;
  const walk =
    walkMm < 1
      ? 'All of it from one place across'
      : `${formatRough(walkMm, units)} to walk, ${less > 1 ? `at best ${formatRough(less, units)} less` : 'and nobody walks less'}`;
  return `${walk}; up or down ${climbs === 1 ? 'once' : `${climbs} times`}.`;
}

/** What of a panel has to be minded: what is shut in, what setting the border first would do. */
export function mindsOfPanel({ trapped, pierces, panel }: Pick<PanelZones, 'trapped' | 'pierces' | 'panel'>, units: UnitSystem): string[] {
  const first = trapped[0];
  return [
    first
      ? verdictWords(panel.graph, { isClean: false, trapped, left: [], broken: [] }, units).replace(/^Stroke \d+ shuts in /, 'What was done has shut in ')
      : '',
    ...pierces.map((p) => pierceText(p, units)),
  ].filter(Boolean);
}

/**
 * Where hung from its other end a wall would be pierced in fewer places: laps lie elsewhere then, and what ends at a lap on one side and at something cut round on the other has no way out.
 * @param here how it is hung, @param other hung from the other end
 * @returns null: nothing is won by it, or something is pressed already
 */
export function otherEndWords(here: readonly PanelZones[], other: readonly PanelZones[], hungFrom: WallSide): string | null {
  const holes = (list: readonly PanelZones[]) => list.reduce((s, p) => s + p.pierces.length, 0);
  if (here.some((p) => p.done.length > 0) || holes(other) >= holes(here)) return null;
  const end = hungFrom === 'left' ? 'right' : 'left';
  return `Hung from its ${end} end it would be pierced ${holes(other) ? `in ${count(holes(other), 'place')} only` : 'nowhere'}: say so in Measure before the first ${panelNoun(here.map((p) => p.panel))} is cut.`;
}

/** What the other school of the border, all of it set first, would do on this panel. */
export function setFirstWords(graph: JointGraph, units: UnitSystem): string {
  const { shutIn, pierces } = setFirstCosts(graph);
  if (shutIn === 0) return 'Set first, the border would shut in nothing here.';
  const at = pierces.slice(0, 3).map((p) => `${formatRough(p.xMm, units)} from the left, ${p.yMm < 1 ? 'at the foot' : `${formatRough(p.yMm, units)} up`}`);
  return `Set first, the border would shut in ${count(shutIn, 'piece of joint', 'pieces of joint')}: pierced in ${count(pierces.length, 'place')} (${at.join('; ')}${pierces.length > 3 ? '; …' : ''}) it could still be pressed out.`;
}

/** A stroke as a line on the wall, from where it begins. */
export function strokePath({ nodes, segments }: JointGraph, stroke: JointStroke): { readonly xMm: number; readonly yMm: number }[] {
  if (stroke.does === 'seal') {
    const at = stroke.exits.map((n) => nodes[n]!).sort((p, q) => p.xMm - q.xMm || p.yMm - q.yMm);
    return [at[0]!, at.at(-1)!].map(({ xMm, yMm }) => ({ xMm, yMm }));
  }
  let at = stroke.from;
  let x = nodes[at]!.xMm;
  const path = [{ xMm: x, yMm: nodes[at]!.yMm }];
  for (const i of stroke.segments) {
    const s = segments[i]!;
    const isOn = s.a === at;
    at = isOn ? s.b : s.a;
    // round a column the place where the film meets itself lies at both ends
    x += s.way === 'bed' ? (isOn ? s.lengthMm : -s.lengthMm) : 0;
    path.push({ xMm: x, yMm: nodes[at]!.yMm });
  }
  return path;
}
