import type { Film, Hardware, Masonry, Wall } from '@yellow-pane/contracts';
import { layoutOnWall, type HungDrop, type LevelLength, type WallLayout } from '../cut/index.js';
import { boundingBox } from '../geometry/index.js';
import { floorAt, girthOfSection, surveyWall, wallBeside, wallSpan, type WallBody, type WallSide, type WallSurvey } from '../measure/index.js';
import { jointGraph, type JointedPanel, type JointGraph, type PanelBorder } from './joint-graph.js';
import type { LayRecords } from './lay-records.js';

/** One panel of film on a wall of blocks or bricks, with the joints beneath it that it is the first to cover. */
export interface TexturedPanel {
  /** From 1, in the order they are hung. */
  readonly number: number;
  readonly asked: JointedPanel;
  readonly graph: JointGraph;
  /** The side at which it is laid over the panel before it: of a length along the wall its foot; null: it is the first. */
  readonly overSide: WallSide | 'foot' | null;
  /** It is what another panel of this wall goes on to round an arris. Left out: it lies on the wall itself. */
  readonly round?: RoundArris;
}
/** Round which arris film goes, with which panel, and on to which wall. */
export interface RoundArris {
  readonly side: WallSide;
  readonly panel: number;
  readonly on: string;
  /** So far. */
  readonly acrossMm: number;
}

/** From where to where a panel is the first to lie on the wall: what it laps over was pressed with the panel before it. */
function ownSpan(drops: readonly HungDrop[], i: number, wallMm: number): { readonly fromMm: number; readonly toMm: number; readonly over: WallSide | null } {
  const drop = drops[i]!;
  const before = drops[i - 1];
  const [from, to] = [Math.max(0, drop.fromMm), Math.min(wallMm, drop.toMm)];
  if (!before) return { fromMm: from, toMm: to, over: null };
  return before.fromMm < drop.fromMm ? { fromMm: Math.max(from, before.toMm), toMm: to, over: 'left' } : { fromMm: from, toMm: Math.min(to, before.fromMm), over: 'right' }; // prettier-ignore
}

/** A cover that comes off and an opening leave their edge open; what film is cut round shuts the joint that ends at it. */
const obstacleAt = (h: Hardware, body: WallBody, footMm: number): JointedPanel['obstacles'][number] => ({
  what: h.what,
  leftMm: h.fromLeftMm,
  footMm: floorAt(body, h.fromLeftMm + h.widthMm / 2) + h.fromFootMm - footMm,
  widthMm: h.widthMm,
  heightMm: h.heightMm,
  isOpen: h.handling !== 'round',
});

/**
 * The panels of film on a wall with the joints beneath each. Places in mm from its left end and the foot of that end.
 * A lap is set on promoter as the panel is laid, and film that comes round an arris is laid over: there nothing goes out. Everywhere else the edge is free until it is sealed.
 * @source docs/models/joints.md §4
 */
function texturedPanels(
  masonry: Masonry,
  hardware: readonly Hardware[],
  survey: WallSurvey,
  layout: Pick<WallLayout, 'drops' | 'levels' | 'wallMm' | 'ends'>,
): TexturedPanel[] {
  const { body, corners } = survey;
  if (!body) return [];
  const { footMm, ...wall } = sizeOf(body);
  const closedAt = (side: WallSide) => corners[side].is === 'outside' && !corners[side].isFirst;
  return layout.drops.flatMap((_d, i): TexturedPanel[] => {
    const level = layout.levels[i];
    const own = level
      ? { ...ownSpan(layout.drops.slice(0, 1), 0, wall.widthMm), over: i > 0 ? ('foot' as const) : null }
      : ownSpan(layout.drops, i, wall.widthMm);
    // what comes round an arris was pressed with the other wall's film
    const [fromMm, toMm, over] = [Math.max(own.fromMm, layout.ends.left.comesMm), Math.min(own.toMm, wall.widthMm - layout.ends.right.comesMm), own.over];
    // all of it lies on what came round
    if (toMm - fromMm < AT_END_MM) return [];
    const span = wallSpan(survey, fromMm, toMm, 0)!;
    const border = (side: PanelBorder): 'free' | 'closed' => {
      if (side === over) return 'closed';
      if (side === 'foot' || side === 'top') return 'free';
      const isEnd = side === 'left' ? own.fromMm < closedReach(layout, 'left') : own.toMm > closedReach(layout, 'right');
      return isEnd && closedAt(side) ? 'closed' : 'free';
    };
    const asked: JointedPanel = {
      masonry,
      wall,
      panel: {
        leftMm: fromMm,
        rightMm: toMm,
        ...heightsOf(level, layout.levels[i - 1], { lowMm: Math.max(0, span.lowMm - footMm), highMm: Math.min(wall.heightMm, span.highMm - footMm) }, footMm),
      },
      borders: { left: border('left'), right: border('right'), foot: border('foot'), top: border('top') },
      obstacles: hardware.map((h) => obstacleAt(h, body, footMm)),
    };
    return [{ number: i + 1, asked, graph: jointGraph(asked), overSide: over }];
  });
}
/** From which height to which a panel is the first to lie: a length along the wall from the upper edge of the one below it. */
const heightsOf = (
  level: LevelLength | undefined,
  below: LevelLength | undefined,
  all: LevelLength,
  footMm: number,
): { readonly footMm: number; readonly topMm: number } => ({
  footMm: below ? Math.max(all.lowMm, below.highMm - footMm) : all.lowMm,
  topMm: level ? Math.min(all.highMm, level.highMm - footMm) : all.highMm,
});
/** Past this a panel is the one at that end of the wall. */
const closedReach = ({ drops }: Pick<WallLayout, 'drops'>, side: WallSide): number =>
  side === 'left' ? Math.min(...drops.map((d) => Math.max(0, d.fromMm))) + 1 : Math.max(...drops.map((d) => d.toMm)) - 1;

/** What the places of its joints are told from: width, height over the foot of its left end, and where that is. */
function sizeOf(body: WallBody): { readonly widthMm: number; readonly heightMm: number; readonly footMm: number } {
  const box = boundingBox(body.outline);
  const footMm = floorAt(body, 0);
  return { widthMm: box.maxX - box.minX, heightMm: box.maxY - footMm, footMm };
}

/** Nearer to the end of the wall than this a panel goes on round its arris; narrower than this it is none, mm. */
const AT_END_MM = 1;
/**
 * Strips that film of a wall goes on to round its arrises, where the wall beside has joints too: each a panel of its own, in the frame of that wall.
 * At the arris it lies already, nothing goes out there; its edge on the other wall is free. One for the drop at that end, or for each length along the wall.
 * @source docs/models/joints.md §4
 */
function roundArrises(
  surface: Wall,
  records: LayRecords,
  here: WallSurvey,
  on: { readonly layout: Pick<WallLayout, 'ends'>; readonly panels: readonly TexturedPanel[] },
): TexturedPanel[] {
  const { body, corners } = here;
  const strips = (['left', 'right'] as const).flatMap((side): Omit<TexturedPanel, 'number'>[] => {
    const { returnMm } = on.layout.ends[side];
    const beside = corners[side].is === 'outside' && returnMm > 0 ? wallBeside(surface, side, records) : null;
    const there = beside && surveyWall(beside, records).survey;
    if (!body || !beside?.masonry || !there?.body) return [];
    const { footMm, ...wall } = sizeOf(there.body);
    const own = sizeOf(body);
    const [leftMm, rightMm] = side === 'right' ? [0, Math.min(returnMm, wall.widthMm)] : [Math.max(0, wall.widthMm - returnMm), wall.widthMm];
    // both floors meet at the arris: heights are carried over from there
    const floorOf = (b: WallBody, foot: number, xMm: number) => floorAt(b, xMm) - foot;
    const liftMm = floorOf(there.body, footMm, side === 'right' ? 0 : wall.widthMm) - floorOf(body, own.footMm, side === 'right' ? own.widthMm : 0);
    const span = wallSpan(there, leftMm, rightMm, 0)!;
    const ending = on.panels.filter(({ asked: { panel: p } }) => (side === 'right' ? p.rightMm > own.widthMm - AT_END_MM : p.leftMm < AT_END_MM));
    return ending.map((p, i): Omit<TexturedPanel, 'number'> => {
      const asked: JointedPanel = {
        masonry: beside.masonry!,
        wall,
        panel: {
          leftMm,
          rightMm,
          footMm: i === 0 ? Math.max(0, span.lowMm - footMm) : p.asked.panel.footMm + liftMm,
          topMm: i === ending.length - 1 ? Math.min(wall.heightMm, span.highMm - footMm) : p.asked.panel.topMm + liftMm,
        },
        borders: { left: side === 'right' ? 'closed' : 'free', right: side === 'right' ? 'free' : 'closed', foot: p.asked.borders.foot, top: 'free' },
        obstacles: beside.hardware.map((h) => obstacleAt(h, there.body!, footMm)),
      };
      return { asked, graph: jointGraph(asked), overSide: null, round: { side, panel: p.number, on: beside.name, acrossMm: rightMm - leftMm } };
    });
  });
  const last = Math.max(0, ...on.panels.map((p) => p.number));
  return strips.map((s, i) => ({ ...s, number: last + i + 1 }));
}

/** How film lies in the joints of a wall. */
export interface JointFit {
  /** Lies: the face roller takes it down, no wheel. Goes: it is heated and wheeled in. Bridges: it would have to stretch beyond what it stands. */
  readonly is: 'lies' | 'goes' | 'bridges' | 'unknown';
  readonly stretchFrac: number;
  readonly limitFrac: number | null;
}
/** Stretched less than this film lies down by itself under a foam roller. @source house figure: what the best film for glass already gives, and about a joint struck flush */
const LIES_FRAC = 0.02;

/**
 * Whether film goes in to the bottom of a joint: held at both arrises it is drawn out over a tooled, that is hollow, joint.
 * @source a circular arc over the mouth, `2·asin(s)/(2s)` with `s = w/2 / r`, straight sides below it where the joint is deeper than half its width; CHECKS, columns, grooves,
 * recesses 2 has the half-round (57.08 %). A parabola of the same depth is within two hundredths of it up to a depth of 0.3 of the width
 */
export function jointFit({ jointMm: w, jointDepthMm: d }: Pick<Masonry, 'jointMm' | 'jointDepthMm'>, limitFrac: number | null): JointFit {
  const girthMm = girthOfSection({ form: 'round', widthMm: w, depthMm: d, flatMm: 0, girthMm: null }) ?? w;
  const stretchFrac = d <= 0 ? 0 : girthMm / w - 1;
  const is = stretchFrac <= LIES_FRAC ? 'lies' : limitFrac === null ? 'unknown' : stretchFrac <= limitFrac ? 'goes' : 'bridges';
  return { is, stretchFrac, limitFrac };
}

/** The panels of a wall as it stands in the records; null: it is smooth, has no size, or no film that is laid dry. */
export function texturedWallOf(
  surface: Wall,
  records: LayRecords,
): { readonly panels: readonly TexturedPanel[]; readonly film: Film; readonly masonry: Masonry } | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const layout = film && surface.masonry ? layoutOnWall(surface, records, film) : null;
  if (!film || !surface.masonry || !layout) return null;
  const { survey } = surveyWall(surface, records);
  const panels = texturedPanels(surface.masonry, surface.hardware, survey, layout);
  return { panels: [...panels, ...roundArrises(surface, records, survey, { layout, panels })], film, masonry: surface.masonry };
}
