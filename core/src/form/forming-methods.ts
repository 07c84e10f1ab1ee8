import type { CurvedPane, FormGrade, FormingSchool, LubricationCard, MethodCard, UnitSystem } from '@yellow-pane/contracts';
import { formatLong, formatRough, formatRoughRange } from '../ground/index.js';
import type { Finger } from './fingers.js';
import { taped } from './plan-words.js';

/** No full gun on it: laminated by its stamp or its make-up, or chipped. */
export const takesNoFullGun = ({ curved, isLaminated }: { readonly curved: Pick<CurvedPane, 'stamp' | 'isChipped'>; readonly isLaminated: boolean }): boolean =>
  isLaminated || curved.stamp === 'laminated' || curved.isChipped;

/** Why no film is formed on a pane at all. @source common practice; what lookout glass may carry is the law's to say */
export function formRefusal({
  curved,
  isLookout,
  film,
}: {
  readonly curved: Pick<CurvedPane, 'stamp'>;
  readonly isLookout: boolean;
  readonly film: { readonly darkens: boolean };
}): string | null {
  if (isLookout && film.darkens) return 'Lookout glass (wheelhouse, windscreen, front side): no tint on it unless the authority allows it in writing.';
  if (curved.stamp === 'plastic') return 'A plastic window: no heat gun on it. It gives off gas, bends and blisters the film.';
  return null;
}

/** What decides how a pane is formed. */
export interface ToForm {
  readonly above: readonly Finger[];
  readonly below: readonly Finger[];
  readonly grade: FormGrade;
  /** Laminated or chipped: it takes no full gun. */
  readonly isLaminated: boolean;
  readonly thicknessUm: number;
  readonly isOutside: boolean;
  readonly areaM2: number;
  /** Width of the part that has to be heated, along both edges, m. */
  readonly bandM: number;
  readonly units: UnitSystem;
}

export const schoolNames: Record<FormingSchool, string> = {
  'finger-by-finger': 'Finger by finger',
  'double-lift': 'Double lift',
  'single-lift': 'Single lift',
  'tug-and-heat': 'Tug and heat',
  'gel-and-fold': 'Gel and fold',
};

/** Film thicker than this is folded by the air rather than pressed by a card. @source house rule; thick exterior film is 150–250 µm (common practice) */
const THICK_UM = 120;
/** Seconds: to warm the gun up, for a finger, and to sweep a metre of edge evenly. @source common practice: 20–30 s warm-up, 30 s to 2 min for a side window; the shares are house rules */
const SECONDS = { warmUp: 25, perFinger: 7, perMetre: 12, warmPanePerM2: 90 };

/** From farther off the same gun heats less at a time. @source house rule for "low heat" (common practice) */
const LOW_GUN_MM: [number, number] = [150, 250];

/** Close: farther off the same gun is a hair-dryer and only makes thick film soft. @source common practice for the word, the distance a house rule */
const GEL_GUN_MM: [number, number] = [30, 80];

interface School {
  readonly gunMm: (t: ToForm) => [number, number];
  readonly gunDeg: number | null;
  readonly risk: string;
  readonly badWhen: string;
  readonly heats: (t: ToForm) => number;
  readonly seconds: (t: ToForm, fingers: number) => number;
  readonly text: (t: ToForm, fingers: number) => string;
  readonly notHere: (t: ToForm) => string | null;
}

const tooThick = (t: ToForm): string | null => (t.thicknessUm > THICK_UM ? 'Thick film springs back from a card: let the air fold it.' : null);
const hotGun = (t: ToForm): string | null => (t.isLaminated ? 'Laminated or chipped glass: no full gun on it.' : tooThick(t));
const longestMm = (t: ToForm): number => Math.round(Math.max(0, ...[...t.above, ...t.below].map((f) => f.lengthMm)));
const longest = (t: ToForm): string => taped(longestMm(t), t.units);
const halves = (t: ToForm): string => (t.below[0]?.partOf ?? t.above[0]?.partOf ?? 1) > 1 ? `split every big finger in ${t.below[0]?.partOf ?? t.above[0]!.partOf}; ` : ''; // prettier-ignore

/** The five ways of forming, as the trade has them. @source common practice (finger by finger, double lift, single lift, tug and heat, gel and fold) */
const schools: Record<FormingSchool, School> = {
  'finger-by-finger': {
    gunMm: (t) => (t.isLaminated ? LOW_GUN_MM : [80, 120]),
    gunDeg: null,
    risk: 'A finger that is pressed before it has shrunk is a crease for good.',
    badWhen: 'Many small fingers: the edge between them is heated twice.',
    heats: (t) => t.above.length + t.below.length,
    seconds: (t, n) => (t.isLaminated ? 2 * n * SECONDS.perFinger + t.areaM2 * SECONDS.warmPanePerM2 : n * SECONDS.perFinger),
    text: (t, n) =>
      `${t.isLaminated ? 'Low heat only, the whole pane warmed first, the gun always moving, never over a chip; each finger in several short goes. ' : ''}${n} fingers one by one, each from its root towards the edge over up to ${longest(t)}: film zig-zags, press it with a felt card, go on; ${halves(t)}again until none pops up.`,
    notHere: tooThick,
  },
  'double-lift': {
    gunMm: () => [80, 150],
    gunDeg: null,
    risk: 'Dust under the lifted film; film laid back a little beside its place.',
    badWhen: 'Wind or dust at the car; few fingers, where it only costs time.',
    heats: (t) => t.above.length + t.below.length + 2,
    seconds: (t, n) => n * SECONDS.perFinger + t.bandM * SECONDS.perMetre + 20,
    text: (t, n) =>
      `${n} fingers as in finger by finger, then the film is lifted, laid back, and both bands, ${t.units === 'mm' ? `${t.bandM.toFixed(1)} m` : formatLong(1000 * t.bandM, 'in')} together, are heated evenly once more: what was pressed in evens out.`,
    notHere: hotGun,
  },
  'single-lift': {
    gunMm: () => [180, 200],
    gunDeg: null,
    risk: 'Knuckles near the gun; too long in one place and the corner shrinks past its shape.',
    badWhen: 'Slack all along the edge instead of in the corners.',
    heats: () => 4,
    seconds: (t) => 4 * 9 + t.bandM * SECONDS.perMetre,
    text: (t) =>
      `Each corner lifted under tension, knuckles on the glass, heated from ${formatRoughRange(180, 200, t.units)} until the lifted part tightens, laid back, sprayed and swept to test.`,
    notHere: hotGun,
  },
  'tug-and-heat': {
    gunMm: () => [140, 160],
    gunDeg: 45,
    risk: 'A tug too strong stretches film that should shrink.',
    badWhen: 'Fingers longer than a hand: the heat does not reach the root.',
    heats: (t) => t.above.length + t.below.length,
    seconds: (_, n) => n * (SECONDS.perFinger + 2),
    text: (t, n) => `Gun at 45° from ${formatRough(150, t.units)}, small circles, a light tug at the edge over each of the ${n} fingers until it lies.`,
    notHere: (t) => hotGun(t) ?? (longestMm(t) > 200 ? `The longest finger is ${longest(t)}: too long for a tug.` : null),
  },
  'gel-and-fold': {
    gunMm: () => GEL_GUN_MM,
    gunDeg: null,
    risk: 'Thick film burns late and then at once, where the gun stands still; cold laminated glass cracks.',
    badWhen: 'Thin tint: it gels and burns within a second.',
    heats: (t) => t.above.length + t.below.length + 2,
    seconds: (t, n) => n * (SECONDS.perFinger + 6) + t.areaM2 * SECONDS.warmPanePerM2,
    text: (t, n) =>
      `Whole pane warmed first. Soften the lower edge until the air stream folds it. The large finger in the centre first: the gun close and always moving, up one side, over, down the other, ovals through the middle; where it forks, push through and treat its halves apart. Side fingers and thumbs in a second stage, last. ${n} fingers over ${t.areaM2.toFixed(2)} m².`,
    notHere: (t) => (t.thicknessUm > THICK_UM ? null : 'Made for thick film; this one is thin and would burn.'),
  },
};

/** What would be done first of the ways that can be done here, and why. */
function recommended(t: ToForm): { school: FormingSchool; why: string } {
  const n = t.above.length + t.below.length;
  if (t.thicknessUm > THICK_UM) return { school: 'gel-and-fold', why: 'Thick film: the air folds it, a card does not.' };
  if (n === 0) return { school: 'finger-by-finger', why: 'Nothing to form: lay it as flat glass, a finger may still show at a corner.' };
  if (t.isLaminated) return { school: 'finger-by-finger', why: 'Laminated or chipped glass: low heat on one finger at a time, or refuse it.' };
  if (t.grade === 'care' || n > 10) return { school: 'double-lift', why: `${n} fingers: the second, even heat levels what was pressed in one by one.` };
  if (n <= 3 && longestMm(t) <= 200) return { school: 'tug-and-heat', why: 'Few short fingers: a light tug and small circles are enough.' };
  return { school: 'finger-by-finger', why: `${n} fingers that can be taken one by one.` };
}

/** A card for each way of forming film on this pane. */
export function methodCards(t: ToForm): MethodCard[] {
  const n = t.above.length + t.below.length;
  const best = recommended(t);
  return (Object.keys(schools) as FormingSchool[]).map((school): MethodCard => {
    const s = schools[school];
    return {
      school,
      name: schoolNames[school],
      text: s.text(t, n),
      heats: n === 0 ? 0 : s.heats(t),
      minutes: n === 0 ? 0 : (SECONDS.warmUp + s.seconds(t, n)) / 60,
      gunMm: s.gunMm(t),
      gunDeg: s.gunDeg,
      risk: s.risk,
      badWhen: s.badWhen,
      notHere: s.notHere(t),
      isRecommended: school === best.school,
      why: school === best.school ? best.why : '',
    };
  });
}

/** Wet or dry under the film while it is formed. @source common practice */
export const lubricationCards = (t: ToForm): LubricationCard[] => {
  const isDry = t.above.length + t.below.length > 8 && !t.isLaminated;
  return [
    {
      kind: 'wet',
      text: 'Water with a little soap: film slides long, and a finger can be moved on. Press the water out from under a finger before it is heated, or it boils and takes the heat away.',
      badWhen: 'Frost, or many fingers close together: every one has to be pressed dry first.',
      isRecommended: !isDry,
    },
    {
      kind: 'dry',
      text: 'A light haze of dry bar soap: no water between film and glass, so the film takes the heat at once and lies tight where it has shrunk.',
      badWhen: 'Dust and wind; wipe the haze off before the film is turned over.',
      isRecommended: isDry,
    },
  ];
};

type Ref = { side: 'above' | 'below'; number: number };
const ref = (f: Finger): Ref => ({ side: f.side, number: f.number });
/** From the middle outwards, left and right by turns. */
function fromMiddle(fingers: readonly Finger[]): Ref[] {
  const middle = (fingers.length - 1) / 2;
  return [...fingers].sort((a, b) => Math.abs(a.number - 1 - middle) - Math.abs(b.number - 1 - middle) || a.number - b.number).map(ref);
}

/** In which order the fingers are worked. @source common practice; from the middle outwards, so that what is left over goes to the sides: house rule */
export function fingerOrder(school: FormingSchool, above: readonly Finger[], below: readonly Finger[]): Ref[] {
  // the centre first, below and above, then out to the sides: they come last
  if (school === 'gel-and-fold') {
    const aside = (f: Finger, list: readonly Finger[]) => Math.abs(f.number - (list.length + 1) / 2);
    return [...below.map((f) => ({ f, at: aside(f, below) })), ...above.map((f) => ({ f, at: aside(f, above) }))].sort((a, b) => a.at - b.at).map(({ f }) => ref(f)); // prettier-ignore
  }
  if (school === 'single-lift') {
    const half = (list: readonly Finger[], left: boolean) => list.filter((f) => f.number - 1 < list.length / 2 === left);
    return [half(below, true), half(below, false), half(above, true), half(above, false)].flatMap((list) => list.map(ref));
  }
  return [...fromMiddle(below), ...fromMiddle(above)];
}
