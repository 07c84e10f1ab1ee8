import type { BenchCut, Film, Groove, Panel, PanelWrap } from '@yellow-pane/contracts';
import { isLaidDry } from '../films/index.js';
import { mostStretchOf, planCorrugation, planWrappedCorner, stretchLimitOf, stretchPct, type CornerPlan } from '../form/index.js';
import { boundingBox } from '../geometry/index.js';
import { capital, formatLength, listed } from '../ground/index.js';
import { coverOfPanel, grooveName, LIES_DOWN_MM, panelDoubtText, recessName, type JudgedGroove, type PanelSurvey } from '../measure/index.js';
import { crossOver, crossWords } from './cross-over.js';
import { laidOver, type DryPart, type DryPieces, type DryToPiece } from './dry-piece.js';
import { roundUpToMark } from './handy-size.js';
import { runsOn, type RunsOn } from './runs-on.js';
import { inStrips, type ToStrip } from './strips.js';
import {
  cutsOfCorners,
  faceMarkWords,
  FOLD_BACK_MM,
  GRIP_MM,
  hasWrappedCorner,
  headed,
  levelRunWords,
  mirroredCut,
  OFF_ARRIS_MM,
  reachOf,
  SIDES,
  turnsFor,
  uprightNames,
  wrapDepth,
  type FaceOnPiece,
  type Reach,
  type Side,
} from './wrapped-edges.js';

/** Everything that decides the pieces of one panel. */
export interface PanelToPiece extends DryToPiece<
  Pick<Panel, 'id' | 'name' | 'wraps' | 'faces' | 'grain' | 'head' | 'hinges' | 'grooves' | 'recesses' | 'corrugation' | 'dome' | 'corners' | 'hardware'>,
  PanelSurvey
> {
  /** Leaves that its grain runs over, itself among them, from the left of the front; left out: it stands alone. */
  readonly leaves?: readonly PanelBeside[];
}
/** A leaf as the one beside it needs to know it. */
export interface PanelBeside extends Pick<PanelToPiece, 'allowances' | 'survey'> {
  readonly surface: Pick<Panel, 'id' | 'wraps' | 'faces'>;
}
type Face = 'front' | 'back';
/** Doubts with which no piece is drawn. */
const cannotBe = new Set<string>(['groove-outside', 'groove-through', 'groove-narrow', 'recess-outside', 'recess-through', 'recess-narrow', 'recess-overlap', 'ribs-none', 'ribs-hollows', 'dome-none', 'dome-hollows'] satisfies PanelSurvey['doubts'][number]['is'][]); // prettier-ignore
/** An upright wall of a recess has no width on plan: so much is taken for it. */
const LEAST_WALL_MM = 0.1;

/**
 * Where a place on the face comes to lie on the flat piece: farther by the slack of every groove and wall of a recess between it and the left edge (or the foot), as they
 * run at its height (or across). Inside one in proportion.
 */
export function developed(xMm: number, yMm: number, parts: Hollows): { xMm: number; yMm: number } {
  const arms = armsOf(parts);
  const over = (at: number, beside: number, isUpright: boolean) =>
    at * (1 + moreAllOver(parts, isUpright)) +
    arms
      .filter((a) => a.isUpright === isUpright && beside >= a.fromMm - 1e-6 && beside <= a.toMm + 1e-6)
      .reduce((s, a) => s + a.slackMm * Math.min(1, Math.max(0, (at - a.atMm) / a.widthMm)), 0);
  return { xMm: over(xMm, yMm, true), yMm: over(yMm, xMm, false) };
}

/** What film goes down into. */
export type Hollows = Pick<PanelSurvey, 'grooves' | 'recesses' | 'ribs' | 'dome'>;
/** By what share film that is fed in over ribs, or goes over the middle of a dome, is more than the sheet is across (or up). */
function moreAllOver({ ribs, dome }: Pick<Hollows, 'ribs' | 'dome'>, isAcross: boolean): number {
  if (dome) return isAcross ? dome.pieceMm.across / dome.widthMm - 1 : dome.pieceMm.up / dome.heightMm - 1;
  return ribs && ribs.corrugation.way === 'fed' && (ribs.corrugation.run === 'upright') === isAcross ? ribs.moreFrac : 0;
}
interface Arm {
  readonly isUpright: boolean;
  /** Its nearer side, and from where to where it runs along. */
  readonly atMm: number;
  readonly widthMm: number;
  readonly slackMm: number;
  readonly fromMm: number;
  readonly toMm: number;
}
/** Every straight length of groove, and every wall of a recess. */
const armsOf = ({ grooves, recesses }: Hollows): Arm[] => [
  ...grooves.flatMap(({ groove: { run, widthMm }, slackMm }): Arm[] => {
    const whole = { fromMm: -Infinity, toMm: Infinity, widthMm, slackMm };
    if (run.way === 'upright') return [{ ...whole, isUpright: true, atMm: run.fromLeftMm }];
    if (run.way === 'level') return [{ ...whole, isUpright: false, atMm: run.fromFootMm }];
    const [right, top] = [run.fromLeftMm + run.acrossMm, run.fromFootMm + run.upMm];
    const upright = { isUpright: true, widthMm, slackMm, fromMm: run.fromFootMm, toMm: top };
    const level = { isUpright: false, widthMm, slackMm, fromMm: run.fromLeftMm, toMm: right };
    return [
      { ...upright, atMm: run.fromLeftMm },
      { ...upright, atMm: right - widthMm },
      { ...level, atMm: run.fromFootMm },
      { ...level, atMm: top - widthMm },
    ];
  }),
  ...recesses.flatMap(({ recess: { fromLeftMm, fromFootMm, acrossMm, upMm, slopeMm }, slackMm }): Arm[] => {
    const widthMm = Math.max(slopeMm, LEAST_WALL_MM);
    const upright = { isUpright: true, widthMm, slackMm, fromMm: fromFootMm, toMm: fromFootMm + upMm };
    const level = { isUpright: false, widthMm, slackMm, fromMm: fromLeftMm, toMm: fromLeftMm + acrossMm };
    return [
      { ...upright, atMm: fromLeftMm },
      { ...upright, atMm: fromLeftMm + acrossMm - widthMm },
      { ...level, atMm: fromFootMm },
      { ...level, atMm: fromFootMm + upMm - widthMm },
    ];
  }),
];

/** The most slack that any line across (or up) the face crosses. */
function mostSlack(parts: Hollows, isAcross: boolean): number {
  const arms = armsOf(parts).filter((a) => a.isUpright === isAcross);
  const at = [0, ...arms.flatMap((a) => [a.fromMm, a.toMm].filter(Number.isFinite))];
  return Math.max(0, ...at.map((y) => arms.filter((a) => y >= a.fromMm && y <= a.toMm).reduce((s, a) => s + a.slackMm, 0)));
}

/** The film that goes over a panel: its face with the girth of its grooves, what is wrapped and what is held; one piece, strips where the roll is too narrow, two faces where both are covered. */
export function piecesOfPanel(p: PanelToPiece): DryPieces {
  const { surface, survey, film, units } = p;
  const f = (mm: number) => formatLength(mm, units);
  const cover = coverOfPanel(survey);
  if (!cover || survey.face.status === 'impossible')
    return { blocked: cover ? 'These tapes cannot belong to one face: tape the marked ones again.' : 'No width and height of its face yet.' };
  if (!isLaidDry(film)) return { blocked: `${film.name} is film for glass and laid wet; a panel takes film that is laid dry. Choose another.` };
  const wraps = SIDES.filter((s) => surface.wraps[s] !== 'trimmed');
  if (wraps.length > 0 && !survey.edge) return { blocked: `Film is to go over its ${listed(wraps)}: tape how thick its edge is first.` };
  const moulding = survey.grooves.find((g) => g.girthMm === null);
  if (moulding) return { blocked: `The girth of the ${grooveName(moulding.groove, surface.grooves)} is not known: press a string into it.` };
  const impossible = survey.doubts.find((d) => cannotBe.has(d.is));
  if (impossible)
    return {
      blocked:
        impossible.is.startsWith('ribs') || impossible.is.startsWith('dome')
          ? panelDoubtText(impossible, surface, units)
          : `A ${impossible.is.startsWith('recess') ? 'recess' : 'groove'} cannot be as it was taped: tape its place and its size again.`,
    };
  const faces: readonly Face[] = surface.faces === 'both' ? ['front', 'back'] : ['front'];
  const named = (face: Face, strip: string) => [faces.length > 1 ? face : '', strip].filter(Boolean).join(' ');
  return {
    note: starvedWords(survey, film),
    pieces: faces.flatMap((face) => {
      const one = onePiece(p, cover, face, f);
      const on = p.surface.grain === 'level' ? runsOnOf(one, p, face) : null;
      return inStrips(one.piece, stripsOf(one, p, face)).map((s, place) => ({
        piece: s.piece,
        suffix: named(face, s.suffix),
        ...(on ? { runsOn: { ...on, place } } : {}),
      }));
    }),
  };
}

/** What film does at the round corners where wrapped edges meet; null: no two meet, they are sharp, or nobody taped the edge. */
export function cornersOfPanel({ surface, survey, allowances, film }: Pick<PanelToPiece, 'survey' | 'allowances'> & { readonly surface: Pick<Panel, 'wraps' | 'faces' | 'corners'>; readonly film: Pick<Film, 'stretchMaxPct'> }): CornerPlan | null {
  const { wraps, faces, corners } = surface;
  if (!corners || !survey.edge || !hasWrappedCorner(surface)) return null;
  const goesOn = faces === 'both' || SIDES.some((s) => wraps[s] === 'return');
  const { thicknessMm, girthMm } = survey.edge;
  return planWrappedCorner({ ...corners, thicknessMm, girthMm, returnMm: goesOn ? allowances.returnMm : 0 }, mostStretchOf(film));
} // prettier-ignore
function roundCornerWords(p: PanelToPiece, f: (mm: number) => string): string[] {
  const plan = cornersOfPanel(p);
  if (!plan) return [];
  const { radiusMm, arrisMm } = p.surface.corners!;
  const round = `Corners of radius ${f(radiusMm)}, their arris ${arrisMm > 0 ? `of radius ${f(arrisMm)}` : 'sharp'}`;
  return plan.is === 'draws'
    ? [`${round}: film is drawn over them warm, ${stretchPct(plan.largestFrac)} at its end, and not cut.`]
    : [`${round}: without a cut film would be stretched farther than the ${stretchPct(plan.limitFrac)} it stands.`];
}

/** Ribs that film is to be stretched over farther than it stands, and what helps; null: none. */
export function starvedWords({ ribs }: Pick<PanelSurvey, 'ribs'>, film: Pick<Film, 'name' | 'stretchMaxPct'>): string | null {
  if (ribs?.corrugation.way !== 'bridged') return null;
  const { is, bridgedFrac, limitFrac } = planCorrugation(ribs.corrugation, stretchLimitOf(film), ribs.girthMm);
  if (is !== 'feed') return null;
  return `Over the crests of its ribs it would stretch ${stretchPct(bridgedFrac)}, and ${film.name} stands ${stretchPct(limitFrac!)}: have it fed in valley by valley, which takes a larger piece.`;
}

/** The first of the leaves side by side, where there are several: what all their pieces name as their run. */
const runOfLeaves = ({ leaves = [] }: PanelToPiece): string | null => (leaves.length > 1 ? leaves[0]!.surface.id : null);

/** How the level direction of a face runs on over the leaves beside it. */
function runsOnOf({ piece, reach }: OnePiece, { surface, leaves = [] }: PanelToPiece, face: Face): Omit<RunsOn, 'place'> {
  const isHeadDown = !piece.turns.includes(90);
  const faces = leaves.map(({ surface: { id }, survey: { face: taped, ...hollows } }) => {
    const box = taped.outline && boundingBox(taped.outline);
    return { id, alongMm: box && (box.maxX - box.minX) * (1 + moreAllOver(hollows, true)) + mostSlack(hollows, true) };
  });
  const starts: Side = (face === 'front') !== isHeadDown ? 'left' : 'right';
  // whoever stands before the back has the first leaf at the right
  return runsOn(face === 'front' ? faces : faces.reverse(), surface.id, reach[starts], { side: face, isHeadDown });
}

/** Whether film goes over any of its edges. */
const goesRound = ({ wraps }: Pick<Panel, 'wraps'>): boolean => SIDES.some((s) => wraps[s] !== 'trimmed');
const mirroredSide: Readonly<Record<Side, Side>> = { left: 'right', right: 'left', top: 'top', bottom: 'bottom' };

/** A face in one piece, and how far that reaches past it. */
interface OnePiece {
  readonly piece: DryPart['piece'];
  readonly reach: Reach;
}
/** How far film goes over each edge of a face. */
function depthOf({ surface, survey, allowances }: PanelBeside, face: Face): Record<Side, number> {
  const wraps = (s: Side): PanelWrap => (face === 'back' ? 'trimmed' : surface.wraps[s]);
  const of = (s: Side) => wrapDepth(wraps(s), survey.edge?.girthMm ?? 0, surface.faces === 'both', allowances);
  return Object.fromEntries(SIDES.map((s) => [s, of(s)])) as Record<Side, number>;
}

function onePiece(p: PanelToPiece, cover: { widthMm: number; heightMm: number }, face: Face, f: (mm: number) => string): OnePiece {
  const { surface, survey, allowances: a, film, units } = p;
  const isBoth = surface.faces === 'both';
  const girth = survey.edge?.girthMm ?? 0;
  const depth = depthOf(p, face);
  const reach = reachOf(depth, a);
  // a pattern that lies level is at one height on all leaves where each of them reaches as far past its head
  if (surface.grain === 'level' && film.patternRepeatMm !== null)
    for (const l of p.leaves ?? []) reach.top = Math.max(reach.top, reachOf(depthOf(l, face), l.allowances).top);
  const ribs = { x: cover.widthMm * moreAllOver(survey, true), y: cover.heightMm * moreAllOver(survey, false) };
  const slack = { x: mostSlack(survey, true) + ribs.x, y: mostSlack(survey, false) + ribs.y };
  const widthMm = roundUpToMark(cover.widthMm + slack.x + reach.left + reach.right, units);
  const heightMm = roundUpToMark(cover.heightMm + slack.y + reach.top + reach.bottom, units);
  const wrapped = SIDES.filter((s) => depth[s] > 0);
  const run = runOfLeaves(p);
  const why = [
    `Face ${f(cover.widthMm)} × ${f(cover.heightMm)} (two standard deviations of the tapes in it)${face === 'back' ? `, taken for the mirror image of the front${goesRound(surface) ? `. Over what was returned it ends ${f(OFF_ARRIS_MM)} from the arris` : ''}` : ''}.`,
    wrapped.length
      ? `Over the ${listed(wrapped)}: ${f(girth)} of edge${wrapped.some((s) => depth[s] > girth) ? ` and ${f(a.returnMm)} on to the back${isBoth ? ', beneath the film there, so that no seam lies on the arris' : ''}` : ''}, and ${f(GRIP_MM)} to hold; elsewhere ${f(a.panelMm)} past the face.`
      : `${f(a.panelMm)} past the face on every side.`,
    ...(slack.x + slack.y > 0
      ? [
          `${hollowWords(survey)} take ${[slack.x > 0 && `${f(slack.x)} across`, slack.y > 0 && `${f(slack.y)} upwards`].filter(Boolean).join(' and ')}: their girth is in the piece as slack.`,
        ]
      : []),
    ...(face === 'front' ? roundCornerWords(p, f) : []),
    ...(survey.ribs?.corrugation.way === 'bridged' ? ['Its ribs take no more film: it is stretched over their crests and formed into the valleys hot.'] : []),
    ...survey.grooves.flatMap((g) => frameWords(g, surface.grooves, f)),
    ...(isBoth ? survey.recesses.map((r) => `${capital(recessName(r.recess, surface.recesses))} is taken to be in both faces.`) : []),
    ...(isBoth && survey.dome ? ['Its back is hollow: that is not reckoned with, film there is measured as over the front.'] : []),
    ...(film.direction === 'none' ? [] : [`Its direction runs ${surface.grain === 'upright' ? 'upright' : 'level'}: all pieces of a face the same way.`]),
    ...(film.direction === 'none' || surface.head === 'any'
      ? []
      : [`Head ${surface.head}: beside a leaf with its head ${surface.head === 'up' ? 'down' : 'up'} both show the same edge of the roll.`]),
    ...(run
      ? [surface.grain === 'level' ? levelRunWords(film) : 'Grain goes on over leaves that stand side by side: one lot, heads at one mark of the pattern.']
      : []),
  ];
  const seen = { widthMm, heightMm, reach, depth, cover };
  const bench = benchOf(seen, p, face, f);
  const piece: DryPart['piece'] = {
    surfaceId: surface.id,
    filmId: film.id,
    ...laidOver,
    widthMm,
    heightMm,
    turns: headed(turnsFor(film.direction, surface.grain), film.direction === 'none' ? 'any' : surface.head),
    meets: run ?? (isBoth ? surface.id : null),
    // the front is seen from the film’s side, a piece from its liner’s: the front is mirrored, and so the back is not
    bench: face === 'front' ? bench.map((c) => mirroredCut(c, widthMm)) : bench,
    why,
  };
  return { piece, reach };
}

/** What takes slack, at the beginning of a sentence. */
const hollowWords = ({ grooves, recesses, ribs, dome }: Hollows): string =>
  capital(listed([...(grooves.length ? ['grooves'] : []), ...(recesses.length ? ['recesses'] : []), ...(ribs ? ['ribs'] : []), ...(dome ? ['bows'] : [])]));

function frameWords({ groove, slackMm }: JudgedGroove, all: readonly Groove[], f: (mm: number) => string): string[] {
  if (groove.run.way !== 'frame' || slackMm < 0.5) return [];
  const more =
    slackMm > LIES_DOWN_MM
      ? ' That is more than lies down: cover field and rails in pieces of their own, the seam at the foot of the groove.'
      : ' Warm it and press it outwards over the rails.';
  return [
    `At each corner of the ${grooveName(groove, all)} ${f(slackMm)} are cut away both ways and the rest slit on the diagonal; beyond it ${f(slackMm)} stay over.${more}`,
  ];
}

/** Words of the pencil line round the face. Liner up the front is mirrored, the back is not. */
function markWordsOf(reach: Reach, { hinges }: Pick<Panel, 'hinges'>, face: Face, f: (mm: number) => string, seams: readonly string[] = []): string {
  const lies = (side: Side): Side => (face === 'front' ? mirroredSide[side] : side);
  const from = { ...reach, left: reach[lies('left')], right: reach[lies('right')] };
  return `${faceMarkWords('face', uprightNames, from, f, seams)}${hinges === 'none' ? '' : ` Its hinges are on the ${lies(hinges)} as it lies.`}`;
}

/**
 * What is marked and cut in a piece, in its order; the face as the front is seen. What is done at the bench is told as it lies there, liner up; what is cut later, as
 * one stands before the panel.
 */
function benchOf(laid: FaceOnPiece, p: PanelToPiece, face: Face, f: (mm: number) => string): BenchCut[] {
  const { surface, survey, allowances: a } = p;
  const { widthMm, heightMm, reach } = laid;
  const point = (xMm: number, yMm: number) => ({ xMm, yMm, bulge: 0 });
  // corners of the face on the flat piece; the back is drawn as the front is seen, and is not mirrored afterwards
  const [left, right, foot, top] = [reach.left, widthMm - reach.right, reach.bottom, heightMm - reach.top];
  const onFilm = (x: number, y: number) => {
    const d = developed(x, y, survey);
    return point(Math.min(widthMm, left + d.xMm), Math.min(heightMm, foot + d.yMm));
  };
  const cuts: BenchCut[] = [
    {
      layer: 'mark',
      path: [point(left, foot), point(right, foot), point(right, top), point(left, top), point(left, foot)],
      words: markWordsOf(reach, surface, face, f),
    },
    {
      layer: 'mark',
      path: [point(0, heightMm - FOLD_BACK_MM), point(widthMm, heightMm - FOLD_BACK_MM)],
      words: `Fold: the liner is folded back here, ${f(FOLD_BACK_MM)} from the top end, when the centre is tacked. Not cut.`,
    },
  ];
  for (const g of survey.grooves) cuts.push(...cutsOfFrame(g, surface.grooves, face, onFilm, f));
  if (face === 'front') cuts.push(...cutsOfCorners(laid, a, { left, right, foot, top }, f, uprightNames, undefined, cornersOfPanel(p)));
  const wide = (h: PanelToPiece['surface']['hardware'][number]) => onFilm(h.fromLeftMm, h.fromFootMm);
  for (const h of surface.hardware.filter((x) => x.handling !== 'off')) {
    const low = wide(h);
    const high = onFilm(h.fromLeftMm + h.widthMm, h.fromFootMm + h.heightMm);
    cuts.push(crossOver(low, high, crossWords(h), h));
  }
  return cuts;
}

/**
 * The four corners of a frame of grooves: of the square over the corner its outer part, as large as the slack both ways, falls out; the rest is slit on the diagonal.
 * What is left of the square covers both arms to their mitre: a place of one arm, `u` along the girth, reaches no farther than `u` along the other (docs/models/panels.md §4).
 */
function cutsOfFrame(
  { groove, slackMm, girthMm }: JudgedGroove,
  all: readonly Groove[],
  face: Face,
  onFilm: (x: number, y: number) => BenchCut['path'][number],
  f: (mm: number) => string,
): BenchCut[] {
  const { run, widthMm: w } = groove;
  if (run.way !== 'frame' || girthMm === null || slackMm < 0.5) return [];
  // told as one stands before this face: what is left on the front is right on the back
  const side = (of: 'left' | 'right') => (face === 'front' ? of : mirroredSide[of]);
  const corners = [
    { name: `top ${side('left')}`, x: run.fromLeftMm, y: run.fromFootMm + run.upMm, sx: -1, sy: 1 },
    { name: `top ${side('right')}`, x: run.fromLeftMm + run.acrossMm, y: run.fromFootMm + run.upMm, sx: 1, sy: 1 },
    { name: `bottom ${side('left')}`, x: run.fromLeftMm, y: run.fromFootMm, sx: -1, sy: -1 },
    { name: `bottom ${side('right')}`, x: run.fromLeftMm + run.acrossMm, y: run.fromFootMm, sx: 1, sy: -1 },
  ];
  return corners.map(({ name, x, y, sx, sy }): BenchCut => {
    // the corner of the field inside, and from there outwards along the film
    const inner = onFilm(x - sx * w, y - sy * w);
    const at = (u: number, v: number) => ({ xMm: inner.xMm + sx * u, yMm: inner.yMm + sy * v, bulge: 0 });
    const g = w + slackMm;
    return {
      layer: 'film',
      later: true,
      path: [at(0, 0), at(w, w), at(g, w), at(g, g), at(w, g), at(w, w)],
      words: `${capital(grooveName(groove, all))}, ${name}: once the field lies, slit from its corner outwards on the diagonal; a square of ${f(slackMm)} falls out at the end.`,
    };
  });
}

/** How a face is parted where its roll is too narrow: the seam in a groove that runs its way, if one allows it. With its bench cuts, as it lies. */
function stripsOf({ piece, reach }: OnePiece, { allowances, film, rollWidthsMm, surface, survey, units }: PanelToPiece, face: Face): ToStrip {
  const isUpright = surface.grain === 'upright';
  const along = piece.bench![0]!.path.map((q) => (isUpright ? q.xMm : q.yMm));
  const seamPlacesMm = survey.grooves.flatMap(({ groove: { run, widthMm }, slackMm }) => {
    const middle = (widthMm + slackMm) / 2;
    if (isUpright && run.way === 'upright') {
      const d = developed(run.fromLeftMm, 0, survey).xMm + middle;
      // liner up, the front's left is at the right end; the back's is where it is on the front
      return [face === 'front' ? Math.max(...along) - d : Math.min(...along) + d];
    }
    return !isUpright && run.way === 'level' ? [Math.min(...along) + developed(0, run.fromFootMm, survey).yMm + middle] : [];
  });
  const f = (mm: number) => formatLength(mm, units);
  const markWords = (seams: readonly string[]) => markWordsOf(reach, surface, face, f, seams);
  return { lapMm: allowances.lapMm, direction: film.direction, rollWidthsMm, grain: surface.grain, names: uprightNames, seamPlacesMm, markWords, units };
}
