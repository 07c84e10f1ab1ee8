import type { BenchCut, Counter, CounterCorner, CounterSide, DryAllowances, Film, Hardware, Turn } from '@yellow-pane/contracts';
import { isLaidDry } from '../films/index.js';
import { boundingBox } from '../geometry/index.js';
import { mostStretchOf } from '../form/index.js';
import { capital, formatLength, listed } from '../ground/index.js';
import {
  counterCornerNames,
  counterCorners,
  counterSideNames,
  counterSides,
  coverOfCounter,
  edgeRunMm,
  type CounterBody,
  type CounterSideName,
  type CounterSurvey,
  type EdgeArc,
} from '../measure/index.js';
import { crossOver, crossWords } from './cross-over.js';
import { laidOver, type DryPart, type DryPieces, type DryToPiece } from './dry-piece.js';
import { roundUpToMark } from './handy-size.js';
import { turnsOf } from './piece.js';
import { leastRadiusMm, roundEdge, tooMuchMm } from './round-edge.js';
import { inStrips } from './strips.js';
import { runsOn, type RunsOn } from './runs-on.js';
import {
  cutsOfCorners,
  faceMarkWords,
  GRIP_MM,
  levelRunWords,
  mirroredCut,
  OFF_ARRIS_MM,
  reachOf,
  SIDES,
  turnsFor,
  type Reach,
  type Side,
  type SideNames,
} from './wrapped-edges.js';

/** Everything that decides the pieces of one top. */
export interface CounterToPiece extends DryToPiece<Pick<Counter, 'id' | 'name' | 'sides' | 'round' | 'grain' | 'seam' | 'hardware'>, CounterSurvey> {
  /** Tops that it is joined to, itself among them, from the left; left out: it stands alone. */
  readonly tops?: readonly CounterBeside[];
}
/** A top as the one that it is joined to needs to know it. */
export interface CounterBeside extends Pick<CounterToPiece, 'allowances' | 'survey'> {
  readonly surface: Pick<Counter, 'id' | 'sides'>;
}
const runOfTops = ({ tops = [] }: CounterToPiece): string | null => (tops.length > 1 ? tops[0]!.surface.id : null);

/** A cross ends so far from the corners of a hole: a slit into a corner runs on under the rim. @source house rule */
const RELIEF_MM = 10;
/** A V underneath is no wider than this: wider ones leave a step. @source house rule */
const WIDEST_V_MM = 12;
/** What the sides of a top are called on its piece. */
const topNames: SideNames = { left: 'left', right: 'right', top: 'back', bottom: 'front' };
const sideOn: Readonly<Record<Side, CounterSideName>> = { left: 'left', right: 'right', top: 'back', bottom: 'front' };
/** The two sides that meet at a corner. */
const sidesAt = (c: CounterCorner): readonly [CounterSideName, CounterSideName] => {
  const i = counterCorners.indexOf(c);
  return [counterSides[(i + 3) % 4]!, counterSides[i]!];
};
const isWrapped = (s: CounterSide): boolean => s === 'edge' || s === 'return';
/** What film does at a side, as far as it has to go on round a corner. */
const wayOf = (s: CounterSide): 'over' | 'strip' | 'ends' => (isWrapped(s) ? 'over' : s === 'strip' ? 'strip' : 'ends');
const percent = (frac: number): string => (Number.isFinite(frac) ? `${Math.round(frac * 100)} %` : 'any');

/** How far the film of the top goes over one of its sides, from the arris on; 0: it ends there. */
export const counterDepth = (side: CounterSide, girthMm: number, a: Pick<DryAllowances, 'returnMm'>): number =>
  side === 'return' ? girthMm + a.returnMm : side === 'edge' ? girthMm : 0;

/** The end that is tacked first: the left one, or the one where nothing is folded. */
export const tackedFirst = (sides: Counter['sides']): 'left' | 'right' => (isWrapped(sides.left) && !isWrapped(sides.right) ? 'right' : 'left');

/** A rounded corner that film is pulled round over both its sides, and what that asks of the film. */
export interface WrappedRound {
  readonly corner: CounterCorner;
  readonly radiusMm: number;
  readonly stretchFrac: number;
  /** To be cut out as Vs at the end of what goes underneath; 0: nothing does. */
  readonly tooMuchMm: number;
  readonly vs: number;
  /** What its film stands: its maker’s figure, or a usual one. */
  readonly mostFrac: number;
  /** More stretch than film takes: its sides want a strip of their own. */
  readonly isTooTight: boolean;
}
/** Rounded corners with film over both their sides. @param film null: whatever film there will be */
export function wrappedRounds(
  body: CounterBody,
  sides: Counter['sides'],
  girthMm: number,
  a: Pick<DryAllowances, 'returnMm'>,
  film: Pick<Film, 'stretchMaxPct'> | null,
): WrappedRound[] {
  const mostFrac = mostStretchOf(film);
  return counterCorners
    .filter((c) => body.radiusMm[c] > 0 && sidesAt(c).every((s) => isWrapped(sides[s])))
    .map((corner): WrappedRound => {
      const [radiusMm, turn] = [body.radiusMm[corner], body.turnRad[corner]];
      const { stretchFrac, filmMm } = roundEdge(radiusMm, girthMm);
      const under = sidesAt(corner).some((s) => sides[s] === 'return') ? a.returnMm : 0;
      // beyond the edge film is as wide again as it lay flat, and its place grows narrower
      const much = under > 0 ? turn * (filmMm + under) + tooMuchMm(turn, radiusMm, under) : 0;
      return { corner, radiusMm, stretchFrac, tooMuchMm: much, vs: Math.ceil(much / WIDEST_V_MM), mostFrac, isTooTight: stretchFrac > mostFrac };
    });
}

/** Runs of sides whose edge has a strip of its own, anticlockwise. All four: one that begins in the middle of the back. */
export function stripRuns(sides: Counter['sides']): CounterSideName[][] {
  if (counterSides.every((s) => sides[s] === 'strip')) return [['back', 'left', 'front', 'right']];
  const first = counterSides.findIndex((s) => sides[s] !== 'strip');
  const runs: CounterSideName[][] = [[]];
  for (let i = 1; i <= 4; i++) {
    const side = counterSides[(first + i) % 4]!;
    if (sides[side] === 'strip') runs.at(-1)!.push(side);
    else runs.push([]);
  }
  return runs.filter((r) => r.length > 0);
}

/** The film that goes over a top: one piece (or strips where the roll is too narrow), and the strips of its own edges. */
export function piecesOfCounter(p: CounterToPiece): DryPieces {
  const { surface, survey, film, units, allowances: a } = p;
  const f = (mm: number) => formatLength(mm, units);
  const cover = coverOfCounter(survey);
  const { body, edge } = survey;
  if (!cover || !body) return { blocked: 'No width and depth of this top yet.' };
  if (!isLaidDry(film)) return { blocked: `${film.name} is film for glass and laid wet; a top takes film that is laid dry. Choose another.` };
  const overs = counterSides.filter((s) => isWrapped(surface.sides[s]) || surface.sides[s] === 'strip');
  if (overs.length && !edge) return { blocked: `Film is to go over its ${listed(overs.map((s) => counterSideNames[s]))}: tape how thick its edge is first.` };
  if (survey.doubts.some((d) => d.is === 'outside')) return { blocked: 'Something does not stand on this top: tape its place again.' };
  const untaped = survey.doubts.find((d) => d.is === 'round-untaped' && sidesAt(d.corner).some((s) => overs.includes(s)));
  if (untaped?.is === 'round-untaped') return { blocked: `Its ${counterCornerNames[untaped.corner]} corner is round, and film goes over it: tape it first.` };
  const torn = counterCorners.find((c) => body.radiusMm[c] > 0 && new Set(sidesAt(c).map((s) => wayOf(surface.sides[s]))).size > 1);
  if (torn)
    return {
      blocked: `Its ${counterCornerNames[torn]} corner is round: film does the same on both its sides. Change the ${listed(sidesAt(torn).map((s) => counterSideNames[s])).replace(' and ', ' or the ')}.`,
    };
  if (survey.doubts.some((d) => d.is === 'rounds-meet')) return { blocked: 'The rounds of one side overlap: tape them again.' };
  const lapMm = surface.seam === 'double-cut' ? a.doubleCutMm : a.lapMm;
  const girthMm = edge?.girthMm ?? 0;
  const top = topPiece(p, cover, body, girthMm, f);
  const grain = surface.grain === 'along' ? 'level' : 'upright';
  // a seam through a hole is the shortest there is
  const seamPlacesMm = surface.hardware
    .filter((h) => h.handling !== 'round')
    .map((h) => (grain === 'level' ? top.frontMm + h.fromFootMm + h.heightMm / 2 : top.piece.widthMm - top.leftMm - h.fromLeftMm - h.widthMm / 2));
  const tops = inStrips(top.piece, {
    lapMm,
    direction: film.direction,
    rollWidthsMm: p.rollWidthsMm,
    grain,
    names: topNames,
    seamPlacesMm,
    markWords: (seams) => topMarkWords(top.from, body, f, seams),
    units,
  });
  const runs = stripRuns(surface.sides);
  const strips = runs.map((run): DryPart => ({
    suffix: runs.length > 1 ? `edge, ${listed(run.map((s) => counterSideNames[s]))}` : 'edge',
    piece: stripPiece(run, p, body, girthMm, f),
  }));
  const on = grain === 'level' ? runsOnOf(top, p) : null;
  const named = tops.map((t, place) => ({
    ...t,
    suffix: [strips.length ? 'top' : '', t.suffix].filter(Boolean).join(' '),
    ...(on ? { runsOn: { ...on, place } } : {}),
  }));
  const run = runOfTops(p);
  const parts = [...strips, ...named];
  return {
    pieces: run || parts.length > 1 ? parts.map((s) => ({ ...s, piece: { ...s.piece, meets: run ?? surface.id } })) : parts,
    note: tightWords(wrappedRounds(body, surface.sides, girthMm, a, film), girthMm, f),
  };
}

/** Rounds that are too tight for one film, and what helps; null: there are none. */
export function tightWords(rounds: readonly WrappedRound[], girthMm: number, f: (mm: number) => string): string | null {
  const tight = rounds.filter((r) => r.isTooTight);
  const [one] = tight;
  if (!one) return null;
  const corners = capital(listed(tight.map((r) => counterCornerNames[r.corner])));
  return `${corners}: over an edge of ${f(girthMm)} a round of ${f(one.radiusMm)} stretches the film by ${percent(one.stretchFrac)} where it lies without a fold; it takes about ${percent(one.mostFrac)} (a round of ${f(Math.ceil(leastRadiusMm(girthMm, one.mostFrac)))} and more). Give these sides a strip of their own.`;
}

/** How grain along it runs on from the tops at its left. */
function runsOnOf(top: ReturnType<typeof topPiece>, { surface, tops = [] }: CounterToPiece): Omit<RunsOn, 'place'> {
  const faces = tops.map(({ surface: { id }, survey: { body } }) => {
    const box = body && boundingBox(Object.values(body.corners));
    return { id, alongMm: box && box.maxX - box.minX };
  });
  return runsOn(faces, surface.id, top.leftMm, { side: 'top' });
}

/** What two standard deviations, and other explanations, add to a top: it lies on both sides alike. */
function spareRound({ corners }: CounterBody, cover: { readonly widthMm: number; readonly heightMm: number }): { readonly xMm: number; readonly yMm: number } {
  const box = boundingBox(Object.values(corners));
  return { xMm: (cover.widthMm - (box.maxX - box.minX)) / 2, yMm: (cover.heightMm - (box.maxY - box.minY)) / 2 };
}

type Sized = Readonly<Record<Side, number>>;
function topPiece(p: CounterToPiece, cover: { widthMm: number; heightMm: number }, body: CounterBody, girthMm: number, f: (mm: number) => string) {
  const { surface, allowances: a, film, units } = p;
  const sides = SIDES.map((s) => ({ s, is: surface.sides[sideOn[s]] }));
  const depth = Object.fromEntries(sides.map(({ s, is }) => [s, counterDepth(is, girthMm, a)])) as Record<Side, number>;
  const reach = reachOf(depth, a);
  // grain along is at one depth on all tops where each of them reaches as far past its back
  const backOf = (t: CounterBeside) => counterDepth(t.surface.sides.back, t.survey.edge?.girthMm ?? 0, t.allowances);
  if (surface.grain === 'along' && film.patternRepeatMm !== null)
    for (const t of p.tops ?? []) reach.top = Math.max(reach.top, reachOf({ ...depth, top: backOf(t) }, t.allowances).top);
  const spare = spareRound(body, cover);
  const widthMm = roundUpToMark(cover.widthMm + reach.left + reach.right, units);
  const heightMm = roundUpToMark(cover.heightMm + reach.top + reach.bottom, units);
  const of = (...is: CounterSide[]) => sides.filter((x) => is.includes(x.is)).map((x) => counterSideNames[sideOn[x.s]]);
  const [over, under, strip, wall, joint] = [of('edge', 'return'), of('return'), of('strip'), of('wall'), of('joint')];
  const rounds = wrappedRounds(body, surface.sides, girthMm, a, film);
  const why = [
    `Top ${f(cover.widthMm)} × ${f(cover.heightMm)} (two standard deviations of the tapes in it).`,
    over.length
      ? `Over the ${listed(over)}: ${f(girthMm)} of edge${under.length ? ` and ${f(a.returnMm)} underneath${under.length < over.length ? ` at the ${listed(under)}` : ''}` : ''}, and ${f(GRIP_MM)} to hold; elsewhere ${f(a.panelMm)} past it.`
      : `${f(a.panelMm)} past it on every side.`,
    ...(strip.length ? [`At the ${listed(strip)} it is laid over the strip of the edge and ends ${f(OFF_ARRIS_MM)} from the arris.`] : []),
    ...(wall.length ? [`At the ${listed(wall)} it is trimmed in the angle of the wall.`] : []),
    ...(joint.length ? [`At the ${listed(joint)} it ends at the joint: film over two tops tears when they move.`] : []),
    ...rounds.map((r) => roundWords(r, f)),
    ...(film.direction === 'none' ? [] : [`Its direction runs ${surface.grain} it: all its pieces the same way.`]),
    ...(runOfTops(p)
      ? ['It is joined to another top: all their film from one lot.', ...(surface.grain === 'along' && film.direction !== 'none' ? [levelRunWords(film)] : [])]
      : []),
  ];
  const bench = benchOfTop({ widthMm, heightMm, reach, depth }, p, cover, body, rounds, f);
  const piece: DryPart['piece'] = {
    ...laidOver,
    surfaceId: surface.id,
    filmId: film.id,
    widthMm,
    heightMm,
    turns: turnsFor(film.direction, surface.grain === 'along' ? 'level' : 'upright'),
    // the top is seen from the film’s side, a piece from its liner’s
    bench: bench.map((c) => mirroredCut(c, widthMm)),
    why,
  };
  return { piece, from: marginsOf({ widthMm, heightMm, reach }, cover, body), leftMm: reach.left + spare.xMm, frontMm: reach.bottom + spare.yMm };
}

/** How far the most probable top lies from each end of its piece: what it reaches past it, two standard deviations, and what the rule rounds up. */
function marginsOf(
  { widthMm, heightMm, reach }: Pick<TopOnPiece, 'widthMm' | 'heightMm' | 'reach'>,
  cover: { widthMm: number; heightMm: number },
  body: CounterBody,
): Reach {
  const box = boundingBox(Object.values(body.corners));
  const spare = spareRound(body, cover);
  const [left, bottom] = [reach.left + spare.xMm, reach.bottom + spare.yMm];
  return { left, bottom, right: widthMm - left - (box.maxX - box.minX), top: heightMm - bottom - (box.maxY - box.minY) };
}

/** Words of the pencil line round a top, its rounds named as they lie: liner up, left and right are exchanged. */
function topMarkWords(margins: Reach, { radiusMm }: CounterBody, f: (mm: number) => string, seams: readonly string[] = []): string {
  const lies = { frontLeft: 'front right', frontRight: 'front left', backRight: 'back left', backLeft: 'back right' } as const;
  const rounds = counterCorners.filter((c) => radiusMm[c] > 0).map((c) => `${lies[c]} ${f(radiusMm[c])}`);
  const from = { ...margins, left: margins.right, right: margins.left };
  return `${faceMarkWords('top', topNames, from, f, seams)}${rounds.length ? ` Radius of its rounds: ${listed(rounds)}.` : ''}`;
}

const roundWords = (r: WrappedRound, f: (mm: number) => string): string =>
  `Round ${counterCornerNames[r.corner]}, radius ${f(r.radiusMm)}: pulled down warm, ${percent(r.stretchFrac)} longer at the lower arris${r.vs > 0 ? `; underneath ${r.vs} Vs take out ${f(r.tooMuchMm)}` : ''}.`;

const point = (xMm: number, yMm: number, bulge = 0) => ({ xMm, yMm, bulge });

interface TopOnPiece {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly reach: Sized;
  readonly depth: Sized;
}

/** What is marked, sliced and cut in the film of a top, in its order; seen from above, its front below. What is done at the bench is told as it lies there, liner up. */
function benchOfTop(
  on: TopOnPiece,
  p: CounterToPiece,
  cover: { widthMm: number; heightMm: number },
  body: CounterBody,
  rounds: readonly WrappedRound[],
  f: (mm: number) => string,
): BenchCut[] {
  const { surface, allowances: a } = p;
  const { widthMm, heightMm, reach } = on;
  const box = boundingBox(Object.values(body.corners));
  const spare = spareRound(body, cover);
  const left = reach.left + spare.xMm - box.minX;
  const foot = reach.bottom + spare.yMm - box.minY;
  const onFilm = (x: number, y: number, bulge = 0) => point(left + x, foot + y, bulge);
  const outline = body.path.map((q) => onFilm(q.x, q.y, q.bulge));
  // tacked first where nothing is folded
  const isRightFirst = tackedFirst(surface.sides) === 'right';
  const endX = isRightFirst ? widthMm - a.endLinerMm : a.endLinerMm;
  const cuts: BenchCut[] = [
    {
      layer: 'mark',
      path: [...outline, { ...outline[0]!, bulge: 0 }],
      words: topMarkWords(marginsOf(on, cover, body), body, f),
    },
    {
      layer: 'liner',
      path: [point(endX, 0), point(endX, heightMm)],
      words: `Slice the liner only, ${f(a.endLinerMm)} from the ${isRightFirst ? 'left' : 'right'} end as it lies, from front to back: this end is tacked first.`,
    },
  ];
  const skipped = new Set(counterCorners.filter((c) => body.radiusMm[c] > 0).map((c) => counterCornerNames[c]));
  const lines = { left: onFilm(box.minX, 0).xMm, right: onFilm(box.maxX, 0).xMm, foot: onFilm(0, box.minY).yMm, top: onFilm(0, box.maxY).yMm };
  cuts.push(...cutsOfCorners({ ...on, cover }, a, lines, f, topNames, (name) => !skipped.has(name)));
  for (const r of rounds) if (r.vs > 0) cuts.push(vsOfRound(r, body, p, onFilm, f));
  for (const h of surface.hardware)
    cuts.push(
      crossOver(
        onFilm(box.minX + h.fromLeftMm, box.minY + h.fromFootMm),
        onFilm(box.minX + h.fromLeftMm + h.widthMm, box.minY + h.fromFootMm + h.heightMm),
        holeWords(h, f),
        { ...(h.isRound ? { isRound: true } : {}), shortMm: h.handling === 'round' ? 0 : RELIEF_MM },
      ),
    );
  return cuts;
}

/** What is done at a hole of a top: film goes down into it, or under the rim of what comes back. */
function holeWords(h: Hardware, f: (mm: number) => string): string {
  if (h.handling === 'round') return crossWords(h);
  const cross = `${h.what}: when the film lies there, a cross over it that ends ${f(RELIEF_MM)} short of its ${h.isRound ? 'rim' : 'corners'};`;
  return `${cross} ${h.handling === 'off' ? 'flaps down, trimmed where its own rim covers them' : 'flaps warmed and down over the rim, trimmed below'}.`.slice(
    0,
    200,
  );
}

/** Vs in what goes underneath at a round, from the lower arris outwards, as one line along the rim of the film. */
function vsOfRound(
  r: WrappedRound,
  body: CounterBody,
  { survey, allowances: a }: CounterToPiece,
  onFilm: (x: number, y: number) => BenchCut['path'][number],
  f: (mm: number) => string,
): BenchCut {
  const { filmMm } = roundEdge(r.radiusMm, survey.edge!.girthMm);
  const turn = body.turnRad[r.corner];
  const i = counterCorners.indexOf(r.corner);
  const [c, before, after] = [body.corners[r.corner], body.corners[counterCorners[(i + 3) % 4]!], body.corners[counterCorners[(i + 1) % 4]!]];
  const unit = (from: { x: number; y: number }) => {
    const d = Math.hypot(from.x - c.x, from.y - c.y);
    return { x: (from.x - c.x) / d, y: (from.y - c.y) / d };
  };
  const [u, v] = [unit(before), unit(after)];
  // the centre lies on the bisector
  const inside = Math.PI - turn;
  const bisector = { x: (u.x + v.x) / (2 * Math.cos(inside / 2)), y: (u.y + v.y) / (2 * Math.cos(inside / 2)) };
  const centre = { x: c.x + (bisector.x * r.radiusMm) / Math.sin(inside / 2), y: c.y + (bisector.y * r.radiusMm) / Math.sin(inside / 2) };
  // anticlockwise, from where the side before ends
  const from = Math.atan2(-bisector.y, -bisector.x) - turn / 2;
  const at = (angle: number, radius: number) => onFilm(centre.x + radius * Math.cos(angle), centre.y + radius * Math.sin(angle));
  const apex = r.radiusMm + filmMm;
  const rim = apex + a.returnMm;
  const halfAngle = r.tooMuchMm / r.vs / rim / 2;
  const path = Array.from({ length: r.vs }, (_, k) => from + (turn * (k + 0.5)) / r.vs).flatMap((t) => [
    at(t - halfAngle, rim),
    at(t, apex),
    at(t + halfAngle, rim),
  ]);
  return {
    layer: 'film',
    later: true,
    path,
    words: `Round ${counterCornerNames[r.corner]}: when its edge lies, ${r.vs} Vs underneath, each ${f(r.tooMuchMm / r.vs)} wide at its end, points at the lower arris; none on the edge.`,
  };
}

/** The strip of an edge: so much on to the top beneath its film, the edge, and underneath; seen from outside. */
function stripPiece(run: readonly CounterSideName[], p: CounterToPiece, body: CounterBody, girthMm: number, f: (mm: number) => string): DryPart['piece'] {
  const { surface, allowances: a, film, units } = p;
  const isRing = run.length === 4;
  const edge = edgeRunMm(body, run);
  // a ring closes in the middle of its first side
  const half = isRing ? body.straightMm[run[0]!] / 2 : 0;
  const pastMm = isRing ? a.lapMm / 2 : a.panelMm;
  const widthMm = roundUpToMark(edge.lengthMm + 2 * pastMm + spareAlong(run, body), units);
  const underMm = a.returnMm;
  const lowerMm = underMm + GRIP_MM;
  const upperMm = lowerMm + girthMm;
  const heightMm = roundUpToMark(upperMm + a.lapMm, units);
  const arcs = edge.arcs.map((arc) => ({ ...arc, fromMm: isRing ? (arc.fromMm - half + edge.lengthMm) % edge.lengthMm : arc.fromMm }));
  const names = run.map((s) => counterSideNames[s]);
  const bench: BenchCut[] = [
    {
      layer: 'mark',
      path: [point(0, upperMm), point(widthMm, upperMm)],
      words: `Pencil on the liner: the upper arris, ${f(heightMm - upperMm)} from the top; so much lies beneath the film of the top.`,
    },
    { layer: 'mark', path: [point(0, lowerMm), point(widthMm, lowerMm)], words: `Pencil on the liner: the lower arris, ${f(girthMm)} below it.` },
    ...arcs.flatMap((arc) => vsOfStrip(arc, { pastMm, upperMm, lowerMm, underMm, lapMm: heightMm - upperMm }, f)),
  ];
  return {
    ...laidOver,
    surfaceId: surface.id,
    filmId: film.id,
    widthMm,
    heightMm,
    // along the edge, whatever the top’s direction
    turns: turnsOf(film.direction).length === 4 ? ([90, 270] as Turn[]) : turnsFor(film.direction, 'level'),
    bench: bench.map((c) => mirroredCut(c, widthMm)),
    why: [
      `Edge along the ${listed(names)}, ${f(edge.lengthMm)} as a tape lies round it (two standard deviations of the tapes in it), ${isRing ? `closed in the middle of the back with a lap of ${f(a.lapMm)}` : `${f(pastMm)} past both ends`}.`,
      `${f(a.lapMm)} on to the top beneath its film, ${f(girthMm)} of edge, ${f(underMm)} underneath and ${f(GRIP_MM)} to hold. It is laid first.`,
      ...(film.direction === 'none' ? [] : ['Its direction runs along the edge.']),
    ],
  };
}
/** Two standard deviations of each of its sides: they may all err the same way. */
const spareAlong = (run: readonly CounterSideName[], { sigmaMm }: CounterBody): number =>
  2 * run.reduce((sum, s) => sum + (s === 'front' || s === 'back' ? sigmaMm.width : sigmaMm.depth), 0);

interface StripLines {
  readonly pastMm: number;
  readonly upperMm: number;
  readonly lowerMm: number;
  readonly underMm: number;
  readonly lapMm: number;
}
/** Vs of a strip at one corner: above on to the top, and underneath. */
function vsOfStrip(arc: EdgeArc, on: StripLines, f: (mm: number) => string): BenchCut[] {
  const rows = [
    { from: on.upperMm, depthMm: on.lapMm, up: 1, where: 'on to the top' },
    { from: on.lowerMm, depthMm: on.underMm, up: -1, where: 'underneath' },
  ];
  return rows.map(({ from, depthMm, up, where }): BenchCut => {
    const much = tooMuchMm(arc.turnRad, arc.radiusMm, depthMm);
    const count = arc.radiusMm > 0 ? Math.max(1, Math.ceil(much / WIDEST_V_MM)) : 1;
    const halfV = much / count / 2;
    const middles = Array.from({ length: count }, (_, k) => on.pastMm + arc.fromMm + (arc.lengthMm * (k + 0.5)) / count);
    const path = middles.flatMap((x) => [point(x - halfV, from + up * depthMm), point(x, from), point(x + halfV, from + up * depthMm)]);
    const vs = count === 1 ? `one V, ${f(much)} wide` : `${count} Vs, each ${f(much / count)} wide`;
    return {
      layer: 'film',
      later: true,
      path,
      words: `${capital(counterCornerNames[arc.corner])}: when the edge lies, ${vs} at its end, ${where}, points at the arris; none on the edge.`,
    };
  });
}
