import type { Film } from '@yellow-pane/contracts';
import { waterThroughGPerM2Day } from '../physics/index.js';

/** Water that stays behind a film worked as it should be, g/m². @source with it and one published permeability the trade's drying times come out (common practice): docs/models/drying.md */
const WATER_LEFT_G_PER_M2 = 24;
/** Each hard pass leaves this share of what was there. @source house figure */
const HARD_PASS_LEAVES = 0.4;
/** One hard pass for thin film, two for thick. @source common practice */
const hardPassesFor = (isThick: boolean): number => (isThick ? 2 : 1);
/** A pass done in less than this share of the time that its strokes need counts as half of one. @source house rule */
export const HURRIED = 0.4;
/** Up to here a blade presses as it should; a wider one spreads the same hand's push over more rubber. @source common practice, as Prepare chooses blades */
const BLADE_MM = { thin: 200, thick: 150 };
/** Water under a blade goes with the root of its load. @source house rule: between the square root of a sliding blade and none */
const LOAD_POWER = 0.5;

/** How a pane was pressed, as far as the log tells. */
export interface Pressing {
  readonly isThick: boolean;
  readonly bladeMm: number;
  /** Hard passes done, each hurried one as a half; null: the log does not say, it is taken as worked well. */
  readonly hardPasses: number | null;
}

/** Water behind the film when it was left, g/m². */
export function waterLeftGPerM2({ isThick, bladeMm, hardPasses }: Pressing): number {
  const due = hardPassesFor(isThick);
  const missed = hardPasses === null ? 0 : Math.max(0, due - hardPasses);
  const blade = Math.max(1, bladeMm / (isThick ? BLADE_MM.thick : BLADE_MM.thin)) ** LOAD_POWER;
  return (WATER_LEFT_G_PER_M2 * blade) / HARD_PASS_LEAVES ** missed;
}

/** Permeability to water vapour at 25 °C, barrer; its own change with temperature is small (a few kJ/mol) and left out. @source Polymer Handbook (from memory): polyester 130, poly(vinyl chloride) 275; polyether urethanes above 1000 */
const POLYMER_BARRER = { polyester: 130, vinyl: 275, urethane: 1200 } as const;
/** Layers that hold water back: share that gets through. @source house figures; looks at panes of the film take their place */
const LAYER_LETS_THROUGH: Partial<Record<NonNullable<Film['construction']>, number>> = { metallised: 0.6, 'spectrally-selective': 0.6, ceramic: 0.8 };

/** Permeability of a film by what it is made of, barrer. */
export function permeabilityBarrer(film: Pick<Film, 'construction'>): number {
  const made = film.construction ?? 'clear';
  const polymer = made.endsWith('vinyl') ? 'vinyl' : made === 'urethane' ? 'urethane' : 'polyester';
  return POLYMER_BARRER[polymer] * (LAYER_LETS_THROUGH[made] ?? 1);
}

/** Air before the film and glass behind it at one moment. */
export interface DryingMoment {
  readonly glassC: number;
  readonly airC: number;
  readonly humidityPct: number;
}
/** Water that leaves on a day, g/m²: its moments, evenly spaced, one by one. With the mean temperature it would be too little: sun counts more than shade takes away. */
export function dayLossGPerM2(moments: readonly DryingMoment[], film: Pick<Film, 'construction' | 'thicknessUm'>): number {
  const sheet = { permeabilityBarrer: permeabilityBarrer(film), thicknessUm: film.thicknessUm };
  return moments.reduce((s, m) => s + waterThroughGPerM2Day({ ...sheet, waterC: m.glassC, airC: m.airC, humidityPct: m.humidityPct }), 0) / moments.length;
}

/** What a day so long after laying would take away; between two of them straight, after the last as on the last. */
export interface LossOnDay {
  readonly day: number;
  readonly gPerM2: number;
}

/** Water that would have left in so many days were there no end to it, g/m². @param losses in the order of days, one at least */
export function lostByGPerM2(losses: readonly LossOnDay[], day: number): number {
  let sum = 0;
  const [first, last] = [losses[0]!, losses.at(-1)!];
  sum += first.gPerM2 * Math.min(day, first.day);
  for (let i = 0; i + 1 < losses.length; i++) {
    const [a, b] = [losses[i]!, losses[i + 1]!];
    const to = Math.min(day, b.day);
    if (to <= a.day) break;
    const atEnd = a.gPerM2 + ((b.gPerM2 - a.gPerM2) * (to - a.day)) / (b.day - a.day);
    sum += ((a.gPerM2 + atEnd) / 2) * (to - a.day);
  }
  return sum + last.gPerM2 * Math.max(0, day - last.day);
}

/** Nobody waits longer: then it is no drying any more. */
const LONGEST_DAYS = 730;
/** The day on which so much has left. Two years: it does not. */
export function dayOfLoss(losses: readonly LossOnDay[], gPerM2: number): number {
  let [low, high] = [0, LONGEST_DAYS];
  if (lostByGPerM2(losses, high) < gPerM2) return high;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (lostByGPerM2(losses, middle) < gPerM2) low = middle;
    else high = middle;
  }
  return high;
}

/** How much water is seen: none, some of it, or as on the first day. */
export type WaterSeen = 'none' | 'some' | 'much';
/** One look at a pane. */
export interface WaterLook {
  /** Days after laying. */
  readonly day: number;
  readonly seen: WaterSeen;
}
/** A pane whose drying is looked at. */
export interface DryingPane {
  readonly waterGPerM2: number;
  readonly losses: readonly LossOnDay[];
  readonly looks: readonly WaterLook[];
  /** Whether the log says how it was pressed. */
  readonly isPressingKnown: boolean;
}

/** Doubt about the speed, one standard deviation of its logarithm: of a film (permeability, layers), of a pane (hand, room air), more where the log is silent. @source house figures: eight of ten panes within × 0.7 to × 1.4, as the 90 to 140 days of common practice are for thick film */
const SPREAD = { film: 0.2, pane: 0.16, unlogged: 0.14 };
/** Speeds that are weighed: from a ninth to nine times the reckoned one, evenly on a logarithmic scale. */
const SPEED_STEP = 0.04;
const SPEEDS = Array.from({ length: 111 }, (_, i) => (i - 55) * SPEED_STEP);

const bell = (x: number, sigma: number): number => Math.exp(-0.5 * (x / sigma) ** 2);
const scaled = (weights: readonly number[]): number[] => {
  const sum = weights.reduce((s, v) => s + v, 0);
  return weights.map((v) => v / sum);
};
const rising = (x: number, middle: number, width: number): number => 1 / (1 + Math.exp(-(x - middle) / width));

/** One look in thirty is a slip: another pane, sun in the eyes. @source house rule */
const SLIP_OF_LOOK = 0.03;
/** How likely a person sees so much where this share of the water is left. @source house figures: the last twentieth is not seen; above two thirds it looks as on the first day */
export function seenOdds(leftFrac: number, seen: WaterSeen): number {
  const much = rising(leftFrac, 0.65, 0.08);
  const none = 1 - rising(leftFrac, 0.06, 0.02);
  const odds = { none, much, some: Math.max(0, 1 - none - much) };
  return SLIP_OF_LOOK / 3 + (1 - SLIP_OF_LOOK) * odds[seen];
}

const leftAt = (pane: Pick<DryingPane, 'losses' | 'waterGPerM2'>, day: number, lnSpeed: number): number =>
  Math.max(0, 1 - (Math.exp(lnSpeed) * lostByGPerM2(pane.losses, day)) / pane.waterGPerM2);

/** How well each speed explains what was seen on a pane. */
function looksOdds(pane: DryingPane): number[] {
  // what would have left by then does not hang on the speed: reckoned once a look
  const lost = pane.looks.map((l) => ({ seen: l.seen, frac: lostByGPerM2(pane.losses, l.day) / pane.waterGPerM2 }));
  return SPEEDS.map((x) => lost.reduce((p, l) => p * seenOdds(Math.max(0, 1 - Math.exp(x) * l.frac), l.seen), 1));
}
const ownSpread = (pane: DryingPane): number => (pane.isPressingKnown ? SPREAD.pane : Math.hypot(SPREAD.pane, SPREAD.unlogged));
/** Every weight spread over its neighbours. Plain loops: with three hundred panes this is where the time goes. */
function blurred(weights: readonly number[], sigma: number): number[] {
  // beyond five standard deviations nothing is left
  const reach = Math.ceil((5 * sigma) / SPEED_STEP);
  const kernel = Array.from({ length: reach + 1 }, (_, i) => bell(i * SPEED_STEP, sigma));
  const out = new Array<number>(weights.length).fill(0);
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    const last = Math.min(weights.length - 1, i + reach);
    for (let j = Math.max(0, i - reach); j <= last; j++) sum += weights[j]! * kernel[Math.abs(i - j)]!;
    out[i] = sum;
  }
  return out;
}

/** What looks at a pane tell of the speed of its film: logarithms over `SPEEDS`; null: nobody looked. */
export function tellsOfFilm(pane: DryingPane): readonly number[] | null {
  return pane.looks.length ? blurred(looksOdds(pane), ownSpread(pane)).map(Math.log) : null;
}
/** Of all panes of a film together, so that what one tells can be taken off again. */
export const toldOfFilm = (tells: readonly (readonly number[] | null)[]): readonly number[] =>
  SPEEDS.map((_, i) => tells.reduce((s, t) => s + (t ? t[i]! : 0), 0));

/**
 * How fast a pane dries against what was reckoned, as odds over `SPEEDS`: by itself, by every look at it, and by looks at other panes of the same film.
 * The order of looks and of panes changes nothing.
 * @param told what other panes of the film tell
 * @source Bayes; a film has a speed of its own, each pane strays from it (docs/models/drying.md)
 */
function speedOdds(pane: DryingPane, told: readonly number[] | null): number[] {
  const most = told ? Math.max(...told) : 0;
  const film = scaled(SPEEDS.map((x, i) => bell(x, SPREAD.film) * (told ? Math.exp(told[i]! - most) : 1)));
  const before = blurred(film, ownSpread(pane));
  const looks = looksOdds(pane);
  return scaled(before.map((w, i) => w * looks[i]!));
}

/** From a day to a day, after laying. */
export interface DayRange {
  readonly fromDay: number;
  readonly toDay: number;
}
/** Logarithms of a slow, a usual and a quick pane's speed against the reckoned one: one of ten is slower than the first, one of ten quicker than the last. */
export interface Speeds {
  readonly slow: number;
  readonly middle: number;
  readonly quick: number;
}
export interface DryingClock {
  /** Between these days eight panes of ten come clear; at its end nine of ten are, and it is fair to judge what water would hide. */
  readonly clear: DayRange;
  /** How likely it is clear by the day asked. */
  readonly clearOdds: number;
  readonly speeds: Speeds;
}
/** A point of the drying curve: shares of the water that are left, for a quick pane, a usual one and a slow one. */
export interface CurvePoint {
  readonly day: number;
  readonly quickFrac: number;
  readonly middleFrac: number;
  readonly slowFrac: number;
}

/** Eight panes of ten. */
const TAIL = 0.1;
const CURVE_POINTS = 40;

/** Speed that so many panes stay below, between the steps of the scale. */
function speedBelow(odds: readonly number[], share: number): number {
  let sum = 0;
  for (const [i, w] of odds.entries()) {
    if (sum + w >= share) return SPEEDS[i]! + SPEED_STEP * ((share - sum) / w - 0.5);
    sum += w;
  }
  return SPEEDS.at(-1)!;
}

/**
 * When a pane is clear, with what has been seen since it was laid.
 * @param told what other panes of the same version of the film tell (`toldOfFilm`); null: nothing
 * @param day days since it was laid, for which `clearOdds` is told
 */
export function dryingClock(pane: DryingPane, told: readonly number[] | null, day: number): DryingClock {
  const odds = speedOdds(pane, told);
  const speeds: Speeds = { slow: speedBelow(odds, TAIL), middle: speedBelow(odds, 0.5), quick: speedBelow(odds, 1 - TAIL) };
  const clearDay = (lnSpeed: number) => dayOfLoss(pane.losses, pane.waterGPerM2 / Math.exp(lnSpeed));
  const lost = lostByGPerM2(pane.losses, day) / pane.waterGPerM2;
  return {
    clear: { fromDay: clearDay(speeds.quick), toDay: clearDay(speeds.slow) },
    clearOdds: odds.reduce((s, w, i) => s + (Math.exp(SPEEDS[i]!) * lost >= 1 ? w : 0), 0),
    speeds,
  };
}

/** Water that is left over the days, until a tenth after the slow one is clear. */
export function dryingCurve(pane: Pick<DryingPane, 'losses' | 'waterGPerM2'>, { clear, speeds }: DryingClock): CurvePoint[] {
  const end = Math.min(LONGEST_DAYS, clear.toDay * 1.1);
  return Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
    const at = (end * i) / CURVE_POINTS;
    return { day: at, quickFrac: leftAt(pane, at, speeds.quick), middleFrac: leftAt(pane, at, speeds.middle), slowFrac: leftAt(pane, at, speeds.slow) };
  });
}
