import type { BenchCut, Column, DryAllowances, Turn } from '@yellow-pane/contracts';
import { formatLength } from '../ground/index.js';
import { coverOfColumn, type ColumnSurvey } from '../measure/index.js';
import { isLaidDry } from '../films/index.js';
import { laidOver, type DryPieces, type DryToPiece } from './dry-piece.js';
import { roundUpToMark } from './handy-size.js';
import { turnsOf } from './piece.js';

/** Everything that decides the pieces of one column. */
export type ColumnToPiece = DryToPiece<Pick<Column, 'id' | 'name' | 'ends'>, ColumnSurvey>;

/** A strip behind a column in two pieces is not made narrower than this: both its laps would lie side by side. @source house rule */
const LEAST_BACK_MM = 300;
/** A lap that grows by less is not told, nor trimmed. @source house rule: a tape round a column is read within 2 mm */
export const NOTABLE_TAPER_MM = 4;
/** Film beside the notches that holds the piece together, mm. @source house rule */
const LEAST_BESIDE_NOTCH_MM = 20;

/** How a cone lies flat: the sector of a ring. */
export interface ConeSector {
  /** From the point where its sides would meet to its wider end; Infinity for a cylinder. */
  readonly radiusMm: number;
  readonly angleDeg: number;
  /** How far the middle of the wider end stands out past its corners. */
  readonly sagittaMm: number;
}

/**
 * The flat piece of a column that gets thinner.
 * @param girthMm at its wider end, @param narrowGirthMm at the other, @param heightMm upright between them
 * @source closed form: slant s = √(h² + (Δr)²), R = s·r/Δr, angle = girth/R, sagitta = R·(1 − cos(angle/2)) (docs/models/columns.md §3)
 */
export function coneSector(girthMm: number, narrowGirthMm: number, heightMm: number): ConeSector {
  const [r, dr] = [girthMm / (2 * Math.PI), (girthMm - narrowGirthMm) / (2 * Math.PI)];
  if (dr < 1e-9) return { radiusMm: Infinity, angleDeg: 0, sagittaMm: 0 };
  const radiusMm = (Math.hypot(heightMm, dr) * r) / dr;
  const angle = girthMm / radiusMm;
  // 1 − cos x without the loss of figures where x is small
  return { radiusMm, angleDeg: (angle * 180) / Math.PI, sagittaMm: 2 * radiusMm * Math.sin(angle / 4) ** 2 };
}

/** The film that goes round a column: one piece with its seam at the back, or a wide one in front and the rest behind. */
export function piecesOfColumn(c: ColumnToPiece): DryPieces {
  const { survey, allowances: a, film, units } = c;
  const f = (mm: number) => formatLength(mm, units);
  const cover = coverOfColumn(survey);
  if (!cover) return { blocked: 'No girth and height yet.' };
  if (!isLaidDry(film)) return { blocked: `${film.name} is film for glass and laid wet; a column takes film that is laid dry. Choose another.` };
  const growsBy = cover.narrowsByMm < NOTABLE_TAPER_MM ? 0 : cover.narrowsByMm;
  const cone = coneSector(cover.girthMm, cover.girthMm - growsBy, cover.heightMm);
  const heightMm = roundUpToMark(cover.heightMm + 2 * a.notchMm + cone.sagittaMm, units);
  // flat, the sides of a cone reach past its narrow end: up where it narrows upwards, down where it widens
  const isWideAtTop = (survey.body?.taperMm ?? 0) > 0;
  const parts = divided(cover.girthMm, heightMm, a.lapMm, c);
  const narrowest = Math.min(...parts.map((p) => p.widthMm));
  if (narrowest < a.linerStripMm + 2 * a.notchMm + 2 * LEAST_BESIDE_NOTCH_MM)
    return {
      blocked: `A strip of ${f(a.linerStripMm)} with notches of ${f(a.notchMm)} does not go into a piece ${f(narrowest)} wide: make the strip narrower or the notches less deep.`,
    };
  const why = [
    `Largest girth ${f(cover.girthMm)} (two standard deviations of the tapes in it), tallest height ${f(cover.heightMm)}.`,
    ...(parts.length === 1
      ? [`${f(a.lapMm)} lie over at the seam, which is turned away from where people come from.`]
      : [`Its girth is more than the roll is wide: ${parts.length} pieces, each ${f(a.lapMm)} over the next, the seams turned to the back.`]),
    `Notches ${f(a.notchMm)} deep at both ends, which meet ${c.surface.ends.foot} and ${c.surface.ends.head}.`,
    ...(growsBy > 0
      ? [
          `It ${isWideAtTop ? 'widens upwards' : 'narrows'}: flat it is a sector of ${cone.angleDeg.toFixed(2)}° at a radius of ${(cone.radiusMm / 1000).toFixed(1)} m, whose wide end bulges ${cone.sagittaMm.toFixed(1)} mm (in the length). The lap grows from ${f(a.lapMm)} to ${f(a.lapMm + growsBy)}: ${a.taper === 'trim' ? 'trim it straight' : 'it stays as a wedge'}.`,
        ]
      : []),
  ];
  return {
    pieces: parts.map((p) => ({
      suffix: p.suffix,
      piece: {
        surfaceId: c.surface.id,
        filmId: film.id,
        ...laidOver,
        method: 'laid-round',
        widthMm: p.widthMm,
        heightMm,
        turns: p.turns,
        trimmedEdges: ['top', 'bottom'],
        meets: parts.length > 1 ? c.surface.id : null,
        bench: benchCuts(p.widthMm, heightMm, a, { foot: isWideAtTop ? cone.sagittaMm : 0, top: isWideAtTop ? 0 : cone.sagittaMm }, c.surface.ends, f),
        why,
      },
    })),
  };
}

/** Whether a cut is one of these notches: small, dear to spoil, drawn once more large. */
export const isNotch = (cut: BenchCut): boolean => cut.layer === 'film' && !cut.later && cut.words.includes('45°');

interface Part {
  readonly widthMm: number;
  readonly turns: Turn[];
  readonly suffix: string;
}

/** How the girth is divided over the roll: all round, a wide front with the rest behind it, or equal parts. */
function divided(girthMm: number, heightMm: number, lapMm: number, { film, rollWidthsMm, units }: ColumnToPiece): Part[] {
  const widest = rollWidthsMm.length ? Math.max(...rollWidthsMm) : Infinity;
  const all = turnsOf(film.direction);
  const upright = all.filter((t) => t % 180 === 0);
  const lying = all.filter((t) => t % 180 === 90);
  const whole = roundUpToMark(girthMm + lapMm, units);
  if (whole <= widest) return [{ widthMm: whole, turns: upright, suffix: '' }];
  // film without a direction may go round in its length
  if (lying.length && heightMm <= widest) return [{ widthMm: whole, turns: lying, suffix: '' }];
  const most = widest - lapMm;
  const count = Math.ceil(girthMm / most - 1e-9);
  if (count === 2) {
    const front = Math.min(most, girthMm - LEAST_BACK_MM);
    // a mark more than the roll is wide would not come off it
    const frontMm = Math.min(widest, roundUpToMark(front + lapMm, units));
    return [
      { widthMm: frontMm, turns: upright, suffix: 'front' },
      { widthMm: roundUpToMark(girthMm - (frontMm - lapMm) + lapMm, units), turns: upright, suffix: 'back' },
    ];
  }
  const each = Math.min(widest, roundUpToMark(girthMm / count + lapMm, units));
  return Array.from({ length: count }, (_, i) => ({ widthMm: each, turns: upright, suffix: `${i + 1} of ${count}` }));
}

/**
 * What the bench cuts in a piece: the strip of liner in its middle, then the notches at both ends of that strip: 45° outwards from the notch's depth, and across.
 * The notch at a cone's narrow end is deeper by what its sides reach past it, so that the strip between the notches is as long as the column is high.
 */
function benchCuts(
  widthMm: number,
  heightMm: number,
  a: DryAllowances,
  bulgeMm: { readonly foot: number; readonly top: number },
  ends: Column['ends'],
  f: (mm: number) => string,
): BenchCut[] {
  const [left, right] = [(widthMm - a.linerStripMm) / 2, (widthMm + a.linerStripMm) / 2];
  const point = (xMm: number, yMm: number) => ({ xMm, yMm, bulge: 0 });
  const slit = (x: number, side: string): BenchCut => ({
    layer: 'liner',
    path: [point(x, 0), point(x, heightMm)],
    words: `Liner only, the whole length: ${side} side of the strip, ${f(x)} from the left edge.`,
  });
  const [low, high] = [a.notchMm + bulgeMm.foot, heightMm - a.notchMm - bulgeMm.top];
  const depth = heightMm - high;
  return [
    slit(left, 'left'),
    slit(right, 'right'),
    {
      layer: 'film',
      path: [point(left - low, 0), point(left, low), point(right, low), point(right + low, 0)],
      words: `Foot: 45° outwards from ${f(low)} above the end, and across between. It meets the ${ends.foot}.`,
    },
    {
      layer: 'film',
      path: [point(left - depth, heightMm), point(left, high), point(right, high), point(right + depth, heightMm)],
      words: `Top: 45° outwards from ${f(depth)} below the end, and across between. It meets the ${ends.head}.`,
    },
  ];
}
