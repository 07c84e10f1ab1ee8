import type { BowPlace, EdgePlan, FormGrade, ShrinkInput, ShrinkPlan, UnitSystem } from '@yellow-pane/contracts';
import { boundingBox, uprightSpanAt, type Polygon } from '../geometry/index.js';
import { formatFine, formatLength, formatRough, formatRoughRange, listed, unbroken } from '../ground/index.js';
import { LIES_DOWN_FRAC } from './fingers.js';
import { FORMING } from './flat-film.js';
import { gradeNames } from './grade.js';

/** A height known to no better than this share of the pane is not worth saying. */
const HARDLY_FRAC = 0.2;

/** A length as a person would tape it. */
export const taped = (mm: number, units: UnitSystem): string => (units === 'mm' ? `${Math.round(mm)} mm` : unbroken(formatLength(mm, 'in')));
/** Closer than this a finger stands in the middle. @source house rule */
const IN_THE_MIDDLE_MM = 5;
/** Where a finger stands along its edge: `left 410 mm` of the middle. */
export const fromMiddle = (alongMm: number, units: UnitSystem): string =>
  Math.abs(alongMm) < IN_THE_MIDDLE_MM ? 'middle' : `${alongMm < 0 ? 'left' : 'right'} ${taped(Math.abs(alongMm), units)}`;
export const percent = (frac: number): string => `${(100 * frac).toFixed(frac < 0.001 && frac > -0.001 ? 2 : 1)} %`;
const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** "the airbag, the sensor and the wiper". */

/** Where a straightedge lies, in words. */
export function bowPlaceWords(p: BowPlace, units: UnitSystem): string {
  const f = (mm: number) => taped(mm, units);
  if (p.way === 'down') return 'along the diagonal from the upper left to the lower right';
  if (p.way === 'up') return 'along the diagonal from the lower left to the upper right';
  const where = p.way === 'across' ? `across, ${f(p.atMm)} above the lower corners` : `upright, ${f(p.atMm)} from the left corner`;
  if (!p.span) return where;
  const [on, off] = p.way === 'across' ? ['begun at the left edge', 'from the left edge'] : ['stood on the lower edge', 'above the lower edge'];
  return `${where}, a straightedge of ${f(p.span.lengthMm)} ${p.span.fromMm < 0.5 ? on : `begun ${f(p.span.fromMm)} ${off}`}`;
}

/** "easy to form, or needs care if the bows are off". */
export function formGradeWords(grade: FormGrade, range: readonly [FormGrade, FormGrade]): string {
  const others = [...new Set(range)].filter((g) => g !== grade);
  return `${gradeNames[grade]}${others.length ? `; within the measures also “${others.map((g) => gradeNames[g]).join('” or “')}”` : ''}`;
}

const slackWords = (e: EdgePlan, name: string, fine: (mm: number) => string): string => `${fine(e.slackMm)} of film has to go along the ${name} edge (${fine(e.lowMm)} to ${fine(e.highMm)}), at most ${percent(e.peakFrac)} of its width at one place.`; // prettier-ignore

/** Sides that differ by less are taken for equally long. @source house rule: a finger's breadth */
const ONE_SIDE_MM = 10;
/** Fingers that an arch is not left with fewer of. @source common practice: on nearly flat door glass too few are made by pushing the film together; three is what a front door shows */
const LEAST_ARCH_FINGERS = 3;

/** The longer upright side of what the film covers; null where both are alike. */
function longSide(outline: Polygon): 'left' | 'right' | null {
  const { minX, maxX } = boundingBox(outline);
  const heightAt = (x: number): number => {
    const [low, high] = uprightSpanAt(outline, x) ?? [0, 0];
    return high - low;
  };
  const [left, right] = [0.05, 0.95].map((k) => heightAt(minX + k * (maxX - minX))) as [number, number];
  return Math.abs(left - right) < ONE_SIDE_MM ? null : left > right ? 'left' : 'right';
}

/** How an arch is laid. @source common practice (carded across the top, down both sides, 13 mm free at the long side, over the other, 25–50 mm up from the lower seal) */
function archWords(
  plan: Pick<ShrinkPlan, 'above' | 'below'> & { readonly finished: Polygon },
  { units, curved }: Pick<ShrinkInput, 'units' | 'curved'>,
): string[] {
  const fine = (mm: number) => formatFine(mm, units);
  const side = longSide(plan.finished);
  const other = side === 'left' ? 'right' : 'left';
  const out = [
    `An arch: card the film down across the top, which is a finished edge, then down both sides like a rainbow. All of it is brought to the bottom${plan.above.peakFrac > LIES_DOWN_FRAC ? `; ${fine(plan.above.slackMm)} stay above, at the corners that stand out over the line` : ', nothing stays above'}.`,
  ];
  if (curved.seat === 'drop')
    out.push(
      `Leave ${formatRough(FORMING.pastSidesMm, units)} of glass free at ${side ? `the long side, here the ${side} one, and let film rest over the ${other}` : 'one side and let film rest over the other'}; its lower edge ${formatRoughRange(25, 50, units)} up from the lower seal.`,
    );
  const count = plan.below.fingers.length;
  if (count < LEAST_ARCH_FINGERS)
    out.push(
      `${count === 0 ? 'Even nearly flat door glass is shrunk' : 'Too few fingers'}: push the film together by hand along the bottom until ${LEAST_ARCH_FINGERS} stand evenly, and shrink those lightly; make one more if one gets too big.`,
    );
  return out;
}

/** What is promised of the height of a balanced line: nothing where an edge that turns in sharply would not have been seen. */
function heightWords(plan: Pick<ShrinkPlan, 'above' | 'below' | 'anchor' | 'halfWay'>, sureToMm: number, f: (mm: number) => string): string {
  if (!plan.anchor.edgesSeen)
    return 'How good that height is nobody can say yet: lay a short straightedge upright at the lower edge and one at the upper. An edge that turns in sharply draws the line towards it, and long ones do not see it.';
  if (Math.max(plan.above.peakHighFrac, plan.below.peakHighFrac) <= LIES_DOWN_FRAC)
    return 'The height hardly matters: there is next to nothing to go on either side.';
  return sureToMm > HARDLY_FRAC * 2 * plan.halfWay.heightMm
    ? `Too little is known of that height: it may be off by ${f(sureToMm)}.`
    : `That height is good to ${f(sureToMm)} with these measures.`;
}

/** The plan in a few sentences, the first ones first. */
export function planSummary(
  plan: Pick<ShrinkPlan, 'above' | 'below' | 'anchor' | 'halfWay' | 'balanced' | 'grade' | 'gradeRange' | 'quickMm' | 'keepClear'> & {
    readonly finished: Polygon;
  },
  input: Pick<ShrinkInput, 'units' | 'film' | 'curved'>,
): string[] {
  const f = (mm: number) => taped(mm, input.units);
  const fine = (mm: number) => formatFine(mm, input.units);
  const { above, below, anchor, halfWay, balanced } = plan;
  const fingers = [...above.fingers, ...below.fingers];
  const out: string[] = [];
  if (fingers.length === 0)
    out.push(
      anchor.kind === 'arch'
        ? 'No fingers stand by themselves: what hangs below would lie down under the squeegee.'
        : 'No fingers: all of it lies down under the squeegee.',
    );
  else {
    const longest = Math.max(...fingers.map((x) => x.lengthMm));
    out.push(`${plural(below.fingers.length, 'finger')} below, ${above.fingers.length} above, the longest ${f(longest)}.`);
  }
  const heights = `${f(anchor.middleMm)} above the lower corners${Math.abs(anchor.leftMm - anchor.middleMm) + Math.abs(anchor.rightMm - anchor.middleMm) > 4 ? ` in the middle, ${f(anchor.leftMm)} at the left, ${f(anchor.rightMm)} at the right` : ''}`;
  const worst = Math.max(above.slackMm, below.slackMm);
  const halfWorst = Math.max(halfWay.aboveMm, halfWay.belowMm);
  if (anchor.kind === 'middle') out.push(`Nothing to balance: lay the line half way, ${heights}.`);
  else if (anchor.kind === 'arch') out.push(...archWords(plan, input));
  else if (anchor.kind === 'balanced') {
    const gain = halfWorst - worst;
    out.push(
      gain > 0.15 * worst && Math.abs(anchor.middleMm - halfWay.heightMm) > 10
        ? `Lay the line ${heights}, not half way: half way, at ${f(halfWay.heightMm)}, ${fine(halfWorst)} would hang from one edge instead of ${fine(worst)}.`
        : `Lay the line ${heights}; that is near enough half way.`,
    );
    if (anchor.sureToMm !== null) out.push(heightWords(plan, anchor.sureToMm, f));
  } else {
    out.push(`The line lies ${heights}, as it was chosen.`);
    if (balanced && worst > balanced.worstMm * 1.05)
      out.push(`Balanced, at ${f(balanced.middleMm)}, ${fine(balanced.worstMm)} would hang from each edge instead of ${fine(worst)} from one.`);
  }
  out.push(slackWords(below, 'lower', fine));
  if (anchor.kind !== 'arch' || above.peakFrac > LIES_DOWN_FRAC) out.push(slackWords(above, 'upper', fine));
  const passed = [...new Set(plan.keepClear.filter((k) => k.ledMm > 0.05).map((k) => `the ${k.name.toLowerCase()}`))];
  if (passed.length) out.push(`Fingers stand clear of ${listed(passed)}: film led past has to lose more beside it than the map shows.`);
  const big = fingers.find((x) => x.partOf > 1);
  if (big) out.push(`Film gathers in big fingers: split each in ${big.partOf}. A foot of ${f(big.baseMm)} then stands ${f(big.foldMm)} high and loses ${percent(big.needFrac)}.`);
  else if (fingers[0]) out.push(`A finger has a foot of ${f(fingers[0].baseMm)}, stands ${f(Math.max(...fingers.map((x) => x.foldMm)))} high and loses ${percent(Math.max(...fingers.map((x) => x.needFrac)))}.`); // prettier-ignore
  if (plan.quickMm !== null)
    out.push(
      anchor.kind === 'arch'
        ? `The quick rule, four times 8 × bow across × bow upright ÷ width, says ${fine(4 * plan.quickMm)} below from the top; reckoned out it is ${fine(below.slackMm)}.`
        : `The quick rule, 8 × bow across × bow upright ÷ width, says ${fine(plan.quickMm)} an edge from half way; reckoned out it is ${fine((halfWay.aboveMm + halfWay.belowMm) / 2)}.`,
    );
  return out;
}
