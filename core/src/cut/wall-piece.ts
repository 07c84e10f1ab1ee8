import type { BenchCut, DryAllowances, Film, Hardware, Wall } from '@yellow-pane/contracts';
import { isLaidDry } from '../films/index.js';
import { formatLength } from '../ground/index.js';
import {
  ceilingBetween,
  CORNER_RULER_MM,
  coverOfWall,
  floorAt,
  floorBetween,
  insideReturnMm,
  LEAST_CORNER_LAP_MM,
  wallSpan,
  type WallCorner,
  type WallLine,
  type WallSide,
  type WallSurvey,
} from '../measure/index.js';
import { crossOver, crossWords } from './cross-over.js';
import { laidOver, type DryPart, type DryPieces, type DryToPiece } from './dry-piece.js';
import { roundUpToMark } from './handy-size.js';
import { turnsOf } from './piece.js';
import { FOLD_BACK_MM, GRIP_MM, mirroredCut } from './wrapped-edges.js';

/** Everything that decides the pieces of one wall. */
export interface WallToPiece extends DryToPiece<Pick<Wall, 'id' | 'name' | 'hardware' | 'seam' | 'hungFrom' | 'hanging' | 'lie'>, WallSurvey> {
  /** The run of walls that its film goes on over: all of it comes from one lot. */
  readonly run: string;
  /** How many drops of its film hang in that run to the left of this wall. Left out: none. */
  readonly dropsBefore?: number;
}

/** A drop narrower than this beside full ones looks like a mend: the first and the last then share. @source house rule */
const NARROW_DROP_MM = 300;
/** Film over an opening that is narrower than this is no piece. @source house rule */
const LEAST_PIECE_MM = 5;

/** How film goes on past one end of a wall. */
export interface EndReach {
  /** From the end of the wall outwards; negative: it begins so far inside, over the film that comes round. */
  readonly reachMm: number;
  /** Of it, on to the other wall to stay there; 0: none. */
  readonly returnMm: number;
  /** Film of the other wall lies on this one so far from its end already; 0: none. */
  readonly comesMm: number;
  /** Its liner is slit along this much of the edge; 0: not. */
  readonly linerMm: number;
  readonly words: string;
}

/** How far film goes past one end of a wall, and what is done there. */
export function endReach(side: WallSide, c: WallCorner, a: DryAllowances, f: (mm: number) => string): EndReach {
  const to = c.beside?.name ?? 'the next wall';
  const end = `${side === 'left' ? 'Left' : 'Right'} end`;
  if (c.is === 'stop') return { reachMm: a.panelMm, returnMm: 0, comesMm: 0, linerMm: 0, words: `${end}: ${f(a.panelMm)} past it, trimmed there.` };
  if (c.is === 'outside') {
    if (c.isFirst) {
      const reachMm = Math.max(a.panelMm, a.outsideWrapMm + GRIP_MM);
      return { reachMm, returnMm: a.outsideWrapMm, comesMm: 0, linerMm: 0, words: `${end}: ${f(a.outsideWrapMm)} round the outside corner on to ${to}, so that no seam lies on the arris, and ${f(reachMm - a.outsideWrapMm)} to hold.` }; // prettier-ignore
    }
    const inMm = Math.max(LEAST_PIECE_MM, a.outsideWrapMm - a.lapMm);
    return { reachMm: -inMm, returnMm: 0, comesMm: a.outsideWrapMm, linerMm: 0, words: `${end}: the film of ${to} comes ${f(a.outsideWrapMm)} round the outside corner; this one begins ${f(inMm)} from the arris, ${f(a.outsideWrapMm - inMm)} over it.` }; // prettier-ignore
  }
  const asked = insideReturnMm(a.insideReturnMm, c.wanderMm);
  const reachMm = Math.max(a.cornerLinerMm, (c.isFirst ? asked.returnMm : 0) + GRIP_MM);
  const liner = `liner slit ${f(reachMm)} from the edge that goes into the corner`;
  if (!c.isFirst) return { reachMm, returnMm: 0, comesMm: 0, linerMm: reachMm, words: `${end}: ${f(reachMm)} into the inside corner, ${liner}; trimmed along a ruler of ${f(CORNER_RULER_MM)} over the return of ${to}.` }; // prettier-ignore
  const wide = asked.isWidened
    ? ` (the corner wanders ${f(c.wanderMm ?? 0)}: the usual ${f(a.insideReturnMm)} would leave less than ${f(LEAST_CORNER_LAP_MM)} of lap)`
    : '';
  return { reachMm, returnMm: asked.returnMm, comesMm: 0, linerMm: reachMm, words: `${end}: ${f(reachMm)} into the inside corner, ${liner}; trimmed on ${to} to a return of ${f(asked.returnMm)}${wide}.` }; // prettier-ignore
}

/** One drop as it hangs, from the left edge of the wall. */
export interface HungDrop {
  readonly fromMm: number;
  readonly toMm: number;
}

/** Where drops lie: full ones from the end that is hung first; where the last would be narrow, it and the first share. */
export function dropsOf(film: { readonly fromMm: number; readonly toMm: number }, widestMm: number, lapMm: number, hungFrom: WallSide): HungDrop[] {
  const whole = film.toMm - film.fromMm;
  if (whole <= widestMm + 1e-6) return [film];
  const count = Math.ceil((whole - lapMm) / (widestMm - lapMm) - 1e-9);
  const rest = whole - (count - 1) * (widestMm - lapMm);
  const ends = rest < NARROW_DROP_MM ? (widestMm + rest) / 2 : null;
  const widths = Array.from({ length: count }, (_, i) => (i === count - 1 ? (ends ?? rest) : i === 0 ? (ends ?? widestMm) : widestMm));
  let at = 0;
  return widths.map((width): HungDrop => {
    const [near, far] = [at, at + width];
    at = far - lapMm;
    return hungFrom === 'left' ? { fromMm: film.fromMm + near, toMm: film.fromMm + far } : { fromMm: film.toMm - far, toMm: film.toMm - near };
  });
}

/** Heights between which a length along the wall lies, from the level that its floor is told from. */
export interface LevelLength {
  readonly lowMm: number;
  readonly highMm: number;
}

/** How film lies on a wall: where each drop hangs, and how it goes on past both ends. */
export interface WallLayout {
  readonly wallMm: number;
  readonly ends: Readonly<Record<WallSide, EndReach>>;
  /** In the order they are hung. */
  readonly drops: readonly HungDrop[];
  /** Whether each hangs turned half round, its head at the foot: every other one of a run, counted from its left. */
  readonly isTurned: readonly boolean[];
  /** Along the wall: in one length, or in several. */
  readonly isLying: boolean;
  /** Of several lengths along the wall, from the foot up: from which height to which each reaches, past floor and ceiling too; empty: they hang, or one is enough. */
  readonly levels: readonly LevelLength[];
  readonly lapMm: number;
}

/** Where the drops of a wall hang, or why there are none. */
export function layoutOfWall(p: WallToPiece): WallLayout | { readonly blocked: string } {
  const { surface, survey, film, units, allowances: a } = p;
  const f = (mm: number) => formatLength(mm, units);
  const cover = coverOfWall(survey);
  if (!cover) return { blocked: 'No width and height of this wall yet.' };
  if (!isLaidDry(film)) return { blocked: `${film.name} is film for glass and laid wet; a wall takes film that is laid dry. Choose another.` };
  const untaped = survey.doubts.find((d) => d.is === 'break-untaped');
  if (untaped) return { blocked: `Its ${untaped.line} breaks: tape ${untaped.line === 'floor' ? 'down' : 'up'} from the level line at both ends first.` };
  if (survey.doubts.some((d) => d.is === 'break-outside' || d.is === 'break-crossed'))
    return { blocked: 'A break of its floor or ceiling cannot be as it was taped: tape it again.' };
  if (survey.doubts.some((d) => d.is === 'outside')) return { blocked: 'Something does not stand on this wall: tape its place again.' };
  const ends = { left: endReach('left', survey.corners.left, a, f), right: endReach('right', survey.corners.right, a, f) };
  const filmed = { fromMm: -ends.left.reachMm, toMm: cover.widthMm + ends.right.reachMm };
  if (filmed.toMm - filmed.fromMm < LEAST_PIECE_MM) return { blocked: 'Nothing of this wall is left beside the film that comes round its corners.' };
  const lapMm = surface.seam === 'double-cut' ? a.doubleCutMm : a.lapMm;
  // film without a direction lies along the wall where one length of it is enough
  const isLying = turnsOf(film.direction).length === 4 && cover.heightMm + 2 * a.panelMm <= widestOf(p);
  if (surface.lie === 'level' && !isLying) {
    if (turnsOf(film.direction).length < 4) return { blocked: `${film.name} has a direction that stands upright: let its drops hang.` };
    if (survey.body!.isBroken.ceiling || survey.body!.isBroken.floor) return { blocked: 'Lengths along a wall want a floor and a ceiling without breaks: let drops hang upright.' }; // prettier-ignore
    const span = wallSpan(survey, Math.max(0, filmed.fromMm), Math.min(cover.widthMm, filmed.toMm))!;
    const high = { fromMm: span.lowMm - a.panelMm, toMm: higherAtCorners(span, survey, { left: true, right: true }).highMm + a.panelMm };
    const levels = dropsOf(high, widestOf(p), lapMm, 'left').map(({ fromMm, toMm }) => ({ lowMm: fromMm, highMm: toMm }));
    return { wallMm: cover.widthMm, ends, drops: levels.map(() => filmed), isTurned: levels.map(() => false), isLying: true, levels, lapMm };
  }
  const drops = isLying ? [filmed] : dropsOf(filmed, widestOf(p), lapMm, surface.hungFrom);
  const isBook = surface.hanging === 'book' && !isLying && mayHangTurned(film);
  const fromLeft = (i: number) => (surface.hungFrom === 'left' ? i : drops.length - 1 - i);
  const isTurned = drops.map((_, i) => isBook && ((p.dropsBefore ?? 0) + fromLeft(i)) % 2 === 1);
  return { wallMm: cover.widthMm, ends, drops, isTurned, isLying, levels: [], lapMm };
}
/** Film that has one way up only has no book-match. */
export const mayHangTurned = ({ direction }: Pick<Film, 'direction'>): boolean => turnsOf(direction).includes(180);
const widestOf = ({ rollWidthsMm }: Pick<WallToPiece, 'rollWidthsMm'>): number => (rollWidthsMm.length ? Math.max(...rollWidthsMm) : Infinity);

/** The film that goes over a wall: drops of the roll’s width from floor to ceiling, in the order they are hung. */
export function piecesOfWall(p: WallToPiece): DryPieces {
  const { surface, survey, film, units, allowances: a } = p;
  const f = (mm: number) => formatLength(mm, units);
  const layout = layoutOfWall(p);
  if ('blocked' in layout) return layout;
  const { wallMm, ends, drops, isTurned, isLying, levels, lapMm } = layout;
  if (levels.length) return { pieces: levelPieces(p, layout) };
  const isBook = surface.hanging === 'book' && !isLying && mayHangTurned(film);
  const widestMm = widestOf(p);
  const isFree = turnsOf(film.direction).length === 4;
  const seamed = drops.length > 1;
  const seamWords = surface.seam === 'double-cut' ? `${f(lapMm)} of both under the double cut` : `each ${f(lapMm)} over the one before it`;
  const spans = drops.map((drop) => wallSpan(survey, Math.max(0, drop.fromMm), Math.min(wallMm, drop.toMm))!);
  // a slope of its ceiling is hung as it is: heads are level only where it is
  const highestMm = Math.max(...spans.map((s) => s.highMm));
  const parts = drops.flatMap((drop, i): DryPart[] => {
    const first = surface.hungFrom === 'left' ? i === 0 : i === drops.length - 1;
    const last = surface.hungFrom === 'left' ? i === drops.length - 1 : i === 0;
    const hasEnd = { left: first, right: last };
    return stretchesOf(drop, hasEnd, p, wallMm).map((s): DryPart => {
      const markedMm = roundUpToMark(drop.toMm - drop.fromMm, units);
      const widthMm = isLying ? markedMm : Math.min(widestMm, markedMm);
      const heightMm = roundUpToMark(s.highMm - s.lowMm + 2 * a.panelMm, units);
      const bench = [
        ...benchOf({ drop, stretch: s, widthMm, heightMm, hasEnd, ends }, p, f),
        ...(isBook ? [wayUp({ widthMm, heightMm }, isTurned[i]!, f)] : []),
      ];
      const over = surface.hungFrom === 'left' ? 'right' : 'left';
      const headDropMm =
        (survey.body!.isBroken.ceiling ? highestMm : spans[i]!.highMm) - (s.name === 'below' || survey.body!.isBroken.ceiling ? s.highMm : spans[i]!.highMm);
      return {
        ...(headDropMm > 0 ? { headDropMm } : {}),
        suffix: [seamed ? `drop ${i + 1}` : '', s.name].filter(Boolean).join(' '),
        piece: {
          surfaceId: surface.id,
          filmId: film.id,
          ...laidOver,
          widthMm,
          heightMm,
          turns: isBook ? [isTurned[i] ? 180 : 0] : isLying ? [90, 270] : turnsOf(film.direction).filter((t) => !isFree || t % 180 === 0),
          // the edge that is seen lies over the drop before it: the roll’s own is straight; liner up, it lies at the other side
          factoryEdge: isLying || widthMm >= widestMm - 1e-6 ? null : seamed && i > 0 && surface.seam === 'overlap' ? over : overlaid(hasEnd, survey.corners),
          trimmedEdges: ['top', ...(hasEnd.right ? (['right'] as const) : []), 'bottom', ...(hasEnd.left ? (['left'] as const) : [])],
          meets: p.run,
          // seen from the film’s side, a piece from its liner’s
          bench: bench.map((c) => mirroredCut(c, widthMm)),
          why: [
            `From ${s.name === 'above' ? 'the opening' : 'the floor'} to ${s.name === 'below' ? 'the opening' : 'the ceiling'} over its width: ${f(s.highMm - s.lowMm)} at most (two standard deviations of the tapes in it), and ${f(a.panelMm)} past both.`,
            ...(seamed ? [`${drops.length} drops from the ${surface.hungFrom}, ${seamWords}. Hung to a plumb line, not to the corner.`] : []),
            ...(hasEnd.left ? [ends.left.words] : []),
            ...(hasEnd.right ? [ends.right.words] : []),
            ...bookWords(film, isBook, isTurned[i]!),
          ],
        },
      };
    });
  });
  const note = surface.hanging === 'book' && seamed && !mayHangTurned(film) ? `${film.name} has one way up: none of its drops can hang turned, so there is no book-match.` : null; // prettier-ignore
  return parts.length ? { pieces: parts, note } : { blocked: 'Openings take the whole of this wall.' };
}

/** Lengths along a wall, one over the other from the foot up: each laid over the one below, so that no edge holds dust. */
function levelPieces(p: WallToPiece, { ends, drops, levels, lapMm }: WallLayout): DryPart[] {
  const { surface, film, units, allowances: a } = p;
  const f = (mm: number) => formatLength(mm, units);
  const widestMm = widestOf(p);
  const hasEnd = { left: true, right: true };
  const last = levels.length - 1;
  const seamWords = surface.seam === 'double-cut' ? `${f(lapMm)} of both under the double cut` : `each ${f(lapMm)} over the one below it`;
  return levels.map(({ lowMm, highMm }, i): DryPart => {
    const drop = drops[i]!;
    const widthMm = roundUpToMark(drop.toMm - drop.fromMm, units);
    const heightMm = Math.min(widestMm, roundUpToMark(highMm - lowMm, units));
    // what film reaches past floor and ceiling is in its heights already
    const stretch: Stretch = { name: '', parts: null, lowMm: lowMm + a.panelMm, highMm: highMm - a.panelMm };
    const bench = benchOf({ drop, stretch, widthMm, heightMm, hasEnd, ends, foldAt: surface.hungFrom }, p, f);
    return {
      suffix: `length ${i + 1}`,
      piece: {
        surfaceId: surface.id,
        filmId: film.id,
        ...laidOver,
        widthMm,
        heightMm,
        turns: [90, 270],
        // the edge that is seen lies over the length below: the roll’s own is straight
        factoryEdge: heightMm >= widestMm - 1e-6 || i === 0 || surface.seam === 'double-cut' ? null : 'bottom',
        trimmedEdges: [...(i === last ? (['top'] as const) : []), 'right', ...(i === 0 ? (['bottom'] as const) : []), 'left'],
        meets: p.run,
        bench: bench.map((c) => mirroredCut(c, widthMm)),
        why: [
          `Along all of the wall, and ${f(a.panelMm)} past floor and ceiling: from ${f(Math.max(0, lowMm + a.panelMm))} on, ${f(heightMm)} high.`,
          `${levels.length} lengths from the foot up, ${seamWords}: no edge of them holds dust. Laid to a level line, not to the floor.`,
          ...(film.patternRepeatMm === null ? [] : ['Its pattern is not matched from one length to the next: nobody knows how it runs across the roll.']),
          ends.left.words,
          ends.right.words,
        ],
      },
    };
  });
}

/** How its direction lies against that of the drop beside it. */
function bookWords({ direction }: WallToPiece['film'], isBook: boolean, isTurned: boolean): string[] {
  if (isBook)
    return [`Book-match: every other drop of a run hangs turned half round, and each shows the next the same edge of the roll. This one hangs ${isTurned ? 'turned' : 'as it comes off the roll'}.`]; // prettier-ignore
  return direction === 'none' ? [] : ['Its direction runs upright: all drops of a run the same way.'];
}

/** An arrow that is seen at arm’s length: how long, and its head; on a small piece no more than half of it. @source house figure */
const ARROW_MM = 200;
const ARROW_HEAD_MM = 40;
/** Turned or not, film without a print looks the same in the hand: the liner says which end is hung at the ceiling. As it hangs. */
function wayUp({ widthMm, heightMm }: Pick<Hung, 'widthMm' | 'heightMm'>, isTurned: boolean, f: (mm: number) => string): BenchCut {
  const [long, head] = [Math.min(ARROW_MM, heightMm / 2), Math.min(ARROW_HEAD_MM, heightMm / 4, widthMm / 4)];
  const [x, tip, tail] = [widthMm / 2, (heightMm + long) / 2, (heightMm - long) / 2];
  const path = [[x, tail], [x, tip], [x - head, tip - head], [x, tip], [x + head, tip - head]]; // prettier-ignore
  return {
    layer: 'mark',
    path: path.map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm!, bulge: 0 })),
    words: `Pencil an arrow on the liner, ${f(long)} long over the middle, its barbs ${f(head)} back and out, its tip towards the top end: that one hangs at the ceiling${isTurned ? '; this drop hangs turned' : ''}.`,
  };
}

/** The edge, as the piece lies, that is laid over film which comes round an outside corner. */
const overlaid = (hasEnd: Hung['hasEnd'], corners: WallSurvey['corners']): 'left' | 'right' | null => {
  const is = (side: WallSide) => hasEnd[side] && corners[side].is === 'outside' && !corners[side].isFirst;
  return is('left') ? 'right' : is('right') ? 'left' : null;
};

interface Stretch {
  readonly name: '' | 'above' | 'below';
  /** The opening that parts its drop, by its id. */
  readonly parts: string | null;
  readonly lowMm: number;
  readonly highMm: number;
}
const low = (body: NonNullable<WallSurvey['body']>, h: Hardware): number => floorAt(body, h.fromLeftMm + h.widthMm / 2) + h.fromFootMm;

/** Where the wall beside it makes their corner higher, film is long enough for that too: nobody knows yet which tape is right. */
function higherAtCorners(
  span: { readonly lowMm: number; readonly highMm: number },
  { doubts }: WallSurvey,
  at: Hung['hasEnd'],
): { readonly lowMm: number; readonly highMm: number } {
  const more = doubts.flatMap((d) => (d.is === 'corner-height' && at[d.side] ? [-d.byMm] : []));
  return { ...span, highMm: span.highMm + Math.max(0, ...more) };
}

/** From where to where a drop hangs: an opening as wide as the drop parts it in two. */
function stretchesOf(drop: HungDrop, hasEnd: Hung['hasEnd'], { survey, surface }: WallToPiece, wallMm: number): Stretch[] {
  const [from, to] = [Math.max(0, drop.fromMm), Math.min(wallMm, drop.toMm)];
  const span = higherAtCorners(wallSpan(survey, from, to)!, survey, hasEnd);
  const gap = surface.hardware.find((h) => h.handling === 'open' && h.fromLeftMm <= from + 1e-6 && h.fromLeftMm + h.widthMm >= to - 1e-6);
  if (!gap) return [{ name: '', parts: null, ...span }];
  const foot = low(survey.body!, gap);
  const parts: Stretch[] = [
    { name: 'above', parts: gap.id, lowMm: foot + gap.heightMm, highMm: span.highMm },
    { name: 'below', parts: gap.id, lowMm: span.lowMm, highMm: foot },
  ];
  return parts.filter((s) => s.highMm - s.lowMm >= LEAST_PIECE_MM);
}

interface Hung {
  readonly drop: HungDrop;
  readonly stretch: Stretch;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly hasEnd: Readonly<Record<WallSide, boolean>>;
  readonly ends: Readonly<Record<WallSide, EndReach>>;
  /** The end that is tacked first, of film along the wall. Left out: the top. */
  readonly foldAt?: WallSide;
}

/** Where a line falls away from the end of its drop by more than this, what is too much is cut off at the bench: nobody hangs a metre of flap. @source house rule */
const ROUGH_CUT_MM = 100;
/** More breaks than these in one drop are not told one by one. */
const TOLD_BREAKS = 4;
/** What is cut off one end of a drop under a gable, along stairs, below a beam: past the line by what film reaches past it everywhere. As it hangs; told as it lies. */
function roughCut(line: WallLine, on: Pick<Hung, 'drop' | 'stretch' | 'widthMm' | 'heightMm'>, p: WallToPiece, f: (mm: number) => string): BenchCut[] {
  const { drop, stretch, widthMm, heightMm } = on;
  const { survey, allowances: a } = p;
  const body = survey.body!;
  // where the tapes leave more than one wall possible nothing is cut off yet
  if (!body.isBroken[line] || survey.possible.length > 1 || survey.doubts.some((d) => d.is === 'corner-height')) return [];
  const wallMm = coverOfWall(survey)!.widthMm;
  const [from, to] = [Math.max(0, drop.fromMm), Math.min(wallMm, drop.toMm)];
  // past the end of the wall it goes on level
  const within = (line === 'ceiling' ? ceilingBetween : floorBetween)(body, from, to);
  const spareMm = body.sigmaMm.height;
  const places = [{ x: drop.fromMm, y: within[0]!.y }, ...within, { x: Infinity, y: within.at(-1)!.y }].map(({ x, y }) => ({
    xMm: Math.min(widthMm, x - drop.fromMm),
    offMm: Math.max(0, line === 'ceiling' ? stretch.highMm - spareMm - y : y - spareMm - stretch.lowMm),
  }));
  if (Math.max(...places.map((q) => q.offMm)) < ROUGH_CUT_MM) return [];
  const path = places.map(({ xMm, offMm }) => ({ xMm, yMm: line === 'ceiling' ? heightMm - offMm : offMm, bulge: 0 }));
  const end = line === 'ceiling' ? 'top' : 'foot';
  const away = line === 'ceiling' ? 'below' : 'above';
  const [first, ...rest] = [...places].reverse().filter((q, i, all) => i === 0 || Math.hypot(q.xMm - all[i - 1]!.xMm, q.offMm - all[i - 1]!.offMm) > 1);
  const last = rest.pop()!;
  const between = rest.length > TOLD_BREAKS ? ', between them as drawn' : rest.map((q) => `, ${f(widthMm - q.xMm)} from the left edge ${f(q.offMm)}`).join('');
  return [
    {
      layer: 'film',
      path,
      words: `Rough cut, ${f(a.panelMm)} past the ${line}, as it lies: at the left edge ${f(first!.offMm)} ${away} the ${end} end${between}, at the right edge ${f(last.offMm)}. Trimmed when it hangs.`,
    },
  ];
}

/** What is marked, slit and cut in one drop, in its order, as it hangs; what is cut when it lies comes last. */
function benchOf({ drop, stretch, widthMm, heightMm, hasEnd, ends, foldAt }: Hung, p: WallToPiece, f: (mm: number) => string): BenchCut[] {
  const { surface, survey, allowances: a } = p;
  const point = (xMm: number, yMm: number) => ({ xMm, yMm, bulge: 0 });
  const upright = (x: number) => [point(x, 0), point(x, heightMm)];
  const across = (mm: number) => Math.min(widthMm, Math.max(0, mm - drop.fromMm));
  // liner up, left and right are exchanged
  const lies = { left: 'right', right: 'left' } as const;
  const rough = [
    ...(stretch.name === 'below' ? [] : roughCut('ceiling', { drop, stretch, widthMm, heightMm }, p, f)),
    ...(stretch.name === 'above' ? [] : roughCut('floor', { drop, stretch, widthMm, heightMm }, p, f)),
  ];
  const foldX = foldAt === 'left' ? FOLD_BACK_MM : widthMm - FOLD_BACK_MM;
  const fold: BenchCut = foldAt
    ? {
        layer: 'mark',
        path: upright(foldX),
        words: `Fold: the liner is folded back here, ${f(FOLD_BACK_MM)} from the ${lies[foldAt]} edge as it lies, when that end is tacked. Not cut.`,
      }
    : {
        layer: 'mark',
        path: [point(0, heightMm - FOLD_BACK_MM), point(widthMm, heightMm - FOLD_BACK_MM)],
        words: `Fold: the liner is folded back here, ${f(FOLD_BACK_MM)} from the top end, when the top is tacked. Not cut.`,
      };
  // along a slope the liner is folded as the cut runs
  const cuts: BenchCut[] = [...rough, ...(rough.some((c) => c.words.includes('ceiling')) ? [] : [fold])];
  for (const side of ['left', 'right'] as const) {
    if (!hasEnd[side] || survey.corners[side].is === 'stop') continue;
    const end = ends[side];
    // told from the edge of the piece: what the rule rounds up lies at its other one
    const x = side === 'left' ? end.reachMm : widthMm - end.reachMm;
    if (end.linerMm > 0)
      cuts.push({
        layer: 'liner',
        path: upright(x),
        words: `Slit the liner only, ${f(end.linerMm)} from the ${lies[side]} edge as it lies, from end to end: this edge goes into the corner.`,
      });
    else if (end.returnMm > 0)
      cuts.push({
        layer: 'mark',
        path: upright(x),
        words: `Pencil on the liner: the arris, ${f(end.reachMm)} from the ${lies[side]} edge as it lies; ${f(end.returnMm)} beyond it stay on the other wall.`,
      });
  }
  for (const h of surface.hardware) {
    const [x0, x1] = [across(h.fromLeftMm), across(h.fromLeftMm + h.widthMm)];
    if (x1 - x0 < 1) continue;
    const foot = low(survey.body!, h) - stretch.lowMm + a.panelMm;
    const [y0, y1] = [Math.max(0, foot), Math.min(heightMm, foot + h.heightMm)];
    if (y1 - y0 < 1 || h.id === stretch.parts) continue;
    const words = h.handling === 'off' ? `${h.what}: when the film lies there, a cross inside its edge; its cover goes over the cut.` : crossWords(h);
    cuts.push(crossOver(point(x0, y0), point(x1, y1), words, h));
  }
  return cuts;
}
