import type { BenchCut, Film, Piece, Turn } from '@yellow-pane/contracts';
import { flatten } from '../geometry/index.js';
import { formatLength, listed, type UnitSystem } from '../ground/index.js';
import type { DryPart } from './dry-piece.js';
import { roundUpToMark } from './handy-size.js';
import { turnsOf } from './piece.js';
import type { SideNames } from './wrapped-edges.js';

/** What decides how a piece is parted that its roll is too narrow for. */
export interface ToStrip {
  readonly lapMm: number;
  readonly direction: Film['direction'];
  readonly rollWidthsMm: readonly number[];
  readonly grain: 'upright' | 'level';
  readonly names: SideNames;
  /** Where a seam is least seen, along the piece as it lies: from its left end, or from its foot where the direction is level. */
  readonly seamPlacesMm: readonly number[];
  /** Words of what is marked first, without the figures of sides that are seams of this strip. */
  readonly markWords: (seams: readonly string[]) => string;
  readonly units: UnitSystem;
}

/**
 * A piece wider than its roll, in strips side by side (stacked, where its direction lies level); a seam goes where it is least seen. Each strip reaches
 * over the seam before it by the lap, and is as wide as a mark of the rule.
 */
export function inStrips(piece: DryPart['piece'], p: ToStrip): DryPart[] {
  const { lapMm, direction, rollWidthsMm, grain, names, units, markWords } = p;
  const widestMm = rollWidthsMm.length ? Math.max(...rollWidthsMm) : Infinity;
  const isUpright = grain === 'upright';
  const sizeMm = isUpright ? piece.widthMm : piece.heightMm;
  const free = turnsOf(direction).length === 4;
  if (sizeMm <= widestMm + 1e-6 || (free && (isUpright ? piece.heightMm : piece.widthMm) <= widestMm))
    return [{ piece: { ...piece, turns: fitting(piece, widestMm) }, suffix: '' }];
  const seams = seamsAt(sizeMm, widestMm, p);
  const ends = [0, ...seams, sizeMm];
  const count = ends.length - 1;
  const f = (mm: number) => formatLength(mm, units);
  return ends.slice(1).map((to, i): DryPart => {
    const from = ends[i]!;
    const lengthMm = i === 0 ? to : Math.min(widestMm, roundUpToMark(to - from + lapMm, units));
    const low = to - lengthMm;
    // a piece is seen from its liner: as one stands before it, the first strip is the right one
    const place = stripName(isUpright ? count - 1 - i : i, count, isUpright ? [names.left, names.right] : [names.bottom, names.top]);
    const seamEnds = [...(i > 0 ? [isUpright ? 'left' : names.bottom] : []), ...(i < count - 1 ? [isUpright ? 'right' : names.top] : [])];
    const bench = (piece.bench ?? []).flatMap((c) => inStrip(c, { lowMm: low, highMm: to, fromMm: from, isLast: i === count - 1 }, isUpright));
    const [marked, ...others] = bench;
    const isSeam = ` Of it this strip has a part: its ${listed(seamEnds)} ${seamEnds.length > 1 ? 'ends are seams' : 'end is a seam'}.`;
    return {
      suffix: place,
      piece: {
        ...piece,
        ...(isUpright ? { widthMm: lengthMm } : { heightMm: lengthMm }),
        turns: piece.turns.filter((t) => !free || (isUpright ? t % 180 === 0 : t % 180 === 90)),
        meets: piece.meets ?? piece.surfaceId,
        bench: marked ? [{ ...marked, words: `${markWords(seamEnds)}${isSeam}` }, ...others] : bench,
        why: [...piece.why, `The roll is too narrow for it: ${count} strips, each ${f(lapMm)} over the next.`],
      },
    };
  });
}

/** A strip as it is spoken of before the face. @param at counted from the left, or from the foot */
function stripName(at: number, count: number, [first, last]: readonly [string, string]): string {
  if (at === 0) return first;
  if (at === count - 1) return last;
  return count === 3 ? 'middle' : `${at + 1} of ${count}`;
}

/** Turns that go on to the roll. */
const fitting = (piece: Pick<Piece, 'turns' | 'widthMm' | 'heightMm'>, widest: number): Turn[] => {
  const fit = piece.turns.filter((t) => (t % 180 === 0 ? piece.widthMm : piece.heightMm) <= widest + 1e-6);
  return fit.length ? fit : piece.turns;
};

/** Ends of the strips but the last: strips alike; in two, the place for a seam nearest to the middle, where both strips still fit. */
function seamsAt(sizeMm: number, widestMm: number, { lapMm, units, seamPlacesMm }: ToStrip): number[] {
  const onMark = (mm: number) => Math.min(widestMm, roundUpToMark(mm, units));
  const count = Math.ceil((sizeMm - lapMm) / (widestMm - lapMm) - 1e-9);
  const each = onMark((sizeMm + (count - 1) * lapMm) / count);
  const alike = Array.from({ length: count - 1 }, (_, i) => each + i * (each - lapMm));
  if (count !== 2) return alike;
  const good = seamPlacesMm
    .map(onMark)
    .filter((s) => s <= widestMm && sizeMm - s + lapMm <= widestMm)
    .sort((x, y) => Math.abs(x - sizeMm / 2) - Math.abs(y - sizeMm / 2));
  return good.length ? [good[0]!] : alike;
}

/** Where a strip lies in its piece: with its lap from low to high; what is cut between its own seams is its own. */
interface Strip {
  readonly lowMm: number;
  readonly highMm: number;
  readonly fromMm: number;
  readonly isLast: boolean;
}
/** As true as a pencil line is. @source house rule */
const PENCIL_MM = 0.5;
const straightened = (path: BenchCut['path']): BenchCut['path'] =>
  flatten(
    path.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge })),
    PENCIL_MM,
  ).map((q) => ({ xMm: q.x, yMm: q.y, bulge: 0 }));
/** A cut as far as it lies in a strip: what is done to the liner in each, a cut through the film in the one that has its middle. */
function inStrip(cut: BenchCut, { lowMm, highMm, fromMm, isLast }: Strip, isUpright: boolean): BenchCut[] {
  // an arc that a seam parts is none any more
  const c = cut.path.some((q) => q.bulge !== 0) ? { ...cut, path: straightened(cut.path) } : cut;
  const of = (q: BenchCut['path'][number]) => (isUpright ? q.xMm : q.yMm);
  const [first, last] = [Math.min(...c.path.map(of)), Math.max(...c.path.map(of))];
  const middle = (first + last) / 2;
  const isOwn = c.layer !== 'film' ? last >= lowMm && first <= highMm : middle >= fromMm && (middle < highMm || isLast);
  if (!isOwn) return [];
  const held = (q: BenchCut['path'][number]) => Math.min(highMm, Math.max(lowMm, of(q))) - lowMm;
  return [{ ...c, path: c.path.map((q) => (isUpright ? { ...q, xMm: held(q) } : { ...q, yMm: held(q) })) }];
}
