import type { EdgePlan, FormGrade, ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import { formatFine } from '../ground/index.js';
import { balancedAnchor } from './balance.js';
import { edgeLosses, FINGER, LIES_DOWN_FRAC, peakLoss, PRESSED_MM } from './fingers.js';
import { halfHeight, partOf } from './flat-film.js';
import { barringBoxes } from './keep-clear.js';
import { GRADE, gradeOf, USUAL_SHRINK_FRAC } from './grade.js';
import { percent, taped } from './plan-words.js';
import { takesNoFullGun } from './forming-methods.js';
import type { FormedPane } from './formed-pane.js';

interface Found {
  readonly above: EdgePlan;
  readonly below: EdgePlan;
  readonly grade: FormGrade;
  readonly capacity: number;
  readonly anchorKind: ShrinkPlan['anchor']['kind'];
  readonly balancedWorstMm: number | null;
  readonly flat: ShrinkPlan['flat'];
  readonly keepClear: ShrinkPlan['keepClear'];
}

/** What would help, when this film on this line is hard or too much. */
export function advice(input: ShrinkInput, pane: FormedPane, found: Found): string[] {
  const { curved, units, film } = input;
  const out: string[] = [];
  if (input.isLookout && !film.darkens) out.push('Lookout glass: ask the authority before anything is laid on it, clear film too.');
  const worst = Math.max(found.above.slackMm, found.below.slackMm);
  if (found.balancedWorstMm !== null && found.anchorKind === 'arch') {
    // an arch is right on drop glass even where it asks for more; only where that gets hard is another anchor worth a thought
    if (found.grade === 'care' || found.grade === 'beyond')
      out.push(`Another anchor: an H asks for ${formatFine(found.balancedWorstMm, units)} at each edge instead of ${formatFine(worst, units)} below.`);
  } else if (found.balancedWorstMm !== null && found.anchorKind !== 'balanced' && worst > 1.1 * found.balancedWorstMm)
    out.push(`Another line: the balanced one asks for ${formatFine(found.balancedWorstMm, units)} an edge instead of ${formatFine(worst, units)}.`);
  if (!film.shrink) out.push(`The sheet of ${film.name} does not say what it shrinks; ${percent(USUAL_SHRINK_FRAC)} is taken, as for a usual tint.`);
  if ((curved.anchor.kind === 'through' || curved.anchor.kind === 'forced') && found.anchorKind !== curved.anchor.kind)
    out.push(
      `The line that was chosen does not lie across this pane: ${found.anchorKind === 'arch' ? 'an arch' : found.anchorKind === 'balanced' ? 'the balanced one' : 'half way'} is shown. Choose it again.`,
    );
  const peak = Math.max(found.above.peakFrac, found.below.peakFrac);
  const least = Math.min(found.above.leastFrac, found.below.leastFrac);
  if (least < -LIES_DOWN_FRAC)
    out.push(`A saddle: at one edge film would have to stretch by ${percent(-least)}. It shrinks, it does not stretch: ${film.stretches ? 'this film gives way to a pull, warm.' : 'a film that gives way to a pull, a seam there, or relief cuts under a border.'}`); // prettier-ignore
  if (found.grade === 'care' || found.grade === 'beyond') {
    const better = [...input.others].filter((o) => o.id !== film.id && o.alongPct / 100 > found.capacity && gradeOf(peak, o.alongPct / 100) !== 'beyond').sort((a, b) => a.alongPct - b.alongPct)[0]; // prettier-ignore
    if (better && peak > LIES_DOWN_FRAC) out.push(`Another film: ${better.name} shrinks ${better.alongPct} %, ${film.name} ${percent(found.capacity)}.`);
  }
  if (found.grade === 'beyond' || found.flat.fitsRoll === false) {
    const seam = seamWords(pane, input, found.capacity);
    if (seam) out.push(seam);
  }
  if (found.flat.fitsRoll === false)
    out.push(
      `The piece is ${taped(found.flat.piece.heightMm, units)} high and the widest roll ${taped(input.widestRollMm!, units)}: its width has to lie along the roll, so it cannot be turned.`,
    );
  const stuck = found.keepClear.filter((k) => k.stuckMm > PRESSED_MM);
  for (const k of stuck)
    out.push(`${k.name}: ${formatFine(k.stuckMm, units)} of film has no way round it. Another line, a seam there, or film that ends before it.`);
  if (found.grade === 'beyond') out.push('Or hand it to somebody who forms such panes every week, and say so to the customer now.');
  if (!curved.cloud && curved.bows.length < 6)
    out.push(`Only ${curved.bows.length} bows: three level and three upright are the least that say where a pane bends.`);
  return out;
}

/** Two pieces that meet along a heating line: what each would ask for. */
function seamWords(pane: FormedPane, input: ShrinkInput, capacity: number): string | null {
  const lines = input.curved.defroster;
  if (lines?.way !== 'across') return null;
  const mid = halfHeight(pane.finished);
  const heights = Array.from({ length: lines.count }, (_, i) => lines.firstMm + i * lines.spacingMm).sort((a, b) => Math.abs(a - mid) - Math.abs(b - mid));
  const y = heights[0]!;
  const peaks = (['above', 'below'] as const).map((side) => {
    const part = partOf(pane.finished, y, side);
    if (!part) return Infinity;
    const found = balancedAnchor(pane.fit.surface, part, pane.middleMm, { stepMm: input.stepMm });
    if (!found) return Infinity;
    return Math.max(
      ...(['above', 'below'] as const).map((s) => peakLoss(edgeLosses(found.field.stations, s, barringBoxes(input.curved)).places, FINGER.baseMm).frac),
    );
  });
  const peak = Math.max(...peaks);
  if (!Number.isFinite(peak)) return null;
  const grade = gradeOf(peak, capacity);
  return `Two pieces that meet along the heating line ${taped(y, input.units)} above the lower corners: at most ${percent(peak)} to lose, ${grade === 'beyond' ? 'still too much' : peak <= GRADE.easy * capacity ? 'easy' : 'with care'}.`;
}

/** What can hurt here, said before the gun is on. @param keepClear what is said of each zone */
export function cautionsFor(input: ShrinkInput, keepClear: readonly string[]): string[] {
  const { curved } = input;
  const out: string[] = [];
  if (curved.stamp === 'unknown') out.push('Find the stamp first: the full gun is for tempered glass only. Nobody has said yet what this is.');
  if (takesNoFullGun(input))
    out.push(
      `${curved.isChipped ? 'Chipped' : 'Laminated'} glass cracks under a full gun: low heat, always moving, the whole pane warmed first, never over a chip. Or refuse.`,
    );
  out.push('Under 15 °C do not start: cold glass cracks by heat. Warm the pane evenly all over first, by hand or hair-dryer heat, then the gun.');
  out.push('480 to 540 °C at the nozzle: burns through a glove in a second, smokes film that is held too long. Air the place; nobody stands behind the gun.');
  out.push(curved.seat === 'drop' ? 'Rubber and trim melt before glass is warm: form higher up, shield the belt seal.' : 'Rubber and trim melt before glass is warm: shield them with a hard card or a wet cloth.'); // prettier-ignore
  out.push(...keepClear);
  if (curved.defroster) out.push('Heating lines: no blade across them, light pressure along them, peel old film along them.');
  out.push('How dark a vehicle’s glass may be is local law: it is yours to know, nobody here promises it.');
  out.push('Never done it? Practise on glass that is yours before a customer’s.');
  return out;
}
