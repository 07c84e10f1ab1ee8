import { jetOnWall, stepCells, streamShare, type CellRow, type HotAirGun, type JetOnWall } from '../physics/index.js';
import { bare, lifted, lying, ROOM_W_PER_M2K, rowAt, type FilmHeat, type GroundHeat, type HeatPlace } from './heat-matter.js';

/** What the gun is for: film softens over the pores of faces, or over joints; is made soft to be formed; is heated so that it stays; a bare hollow is warmed for film to come. */
export type HeatAim = 'faces' | 'joints' | 'relax' | 'post-heat' | 'warm';
/** Hand-warm, and what a bare hollow may come to. @source common practice: 150 °F (66 °C) at most; hand-warm: house figure */
export const BARE_C = { wantC: 40, limitC: 66 } as const;

/** A gun that is moved along film at a steady speed. */
export interface HeatCase {
  readonly film: FilmHeat;
  readonly ground: GroundHeat;
  readonly gun: HotAirGun;
  readonly distanceMm: number;
  /** Of the air and of the ground before the gun comes, °C. */
  readonly airC: number;
  readonly groundC: number;
}

/** How well convection under a gun is known beside the range in which it was measured. @source the correlation's own scatter, and the trade's setting: docs/models/hot-air.md */
const UNKNOWN_FRAC = 0.4;
/** What a reading cannot know better: hand, angle, draught. @source house rule */
const KNOWN_FRAC = 0.1;
/** A pocket infrared thermometer on plain film, 1 σ, K. @source from memory */
const READING_SIGMA_K = 2;

/** By how much convection is more or less than reckoned: expected, and its range. */
export interface HeatFactor {
  readonly low: number;
  readonly mid: number;
  readonly high: number;
}
export const unproven: HeatFactor = { low: 1 - UNKNOWN_FRAC, mid: 1, high: 1 + UNKNOWN_FRAC };

/** Speeds a hand can hold, mm/s. @source house rule */
const HAND_MM_PER_S = { slowest: 5, fastest: 150 } as const;
/** To and fro over a hand's length. @source house rule */
const STRETCH_MM = 200;
const MOST_PASSES = 12;
/** Film is cut when the hand feels nothing. @source common practice: let it cool before cutting; figure: house rule */
const CUT_AT_C = 35;
const COOLING_S = 600;

/** What happened at a place while the gun went by. */
export interface Passed {
  readonly peakC: number;
  /** Of the ground's own surface. */
  readonly groundPeakC: number;
  /** After the gun's middle has passed (the last time), s: how long it stays soft, and until it can be cut; null: not within ten minutes. */
  readonly softS: number;
  readonly coolS: number | null;
  /** At a moment after that, °C. */
  at(seconds: number): number;
}

interface Timed {
  readonly times: readonly number[];
  readonly tempsC: readonly number[];
}
const tempAt = ({ times, tempsC }: Timed, seconds: number): number => {
  const next = times.findIndex((t) => t >= seconds);
  if (next <= 0) return next === 0 ? tempsC[0]! : tempsC.at(-1)!;
  const [a, b] = [times[next - 1]!, times[next]!];
  return tempsC[next - 1]! + ((tempsC[next]! - tempsC[next - 1]!) * (seconds - a)) / (b - a);
};
/** When it was last so warm, s; null: never after 0. */
function lastAbove({ times, tempsC }: Timed, warmC: number): number | null {
  for (let i = tempsC.length - 1; i > 0; i--) {
    if (tempsC[i - 1]! < warmC) continue;
    if (tempsC[i]! >= warmC) return times[i]!;
    return times[i - 1]! + ((tempsC[i - 1]! - warmC) / (tempsC[i - 1]! - tempsC[i]!)) * (times[i]! - times[i - 1]!);
  }
  return null;
}

/** What does not change from pass to pass: worked out once. */
interface Prepared {
  readonly jet: JetOnWall;
  readonly row: CellRow;
}

/** A gun goes by so often at this speed, to and fro, and the film cools. @param factor on the convection reckoned */
function passOver(c: HeatCase, { jet, row }: Prepared, speedMmPerS: number, factor: number, passes = 1): Passed {
  const reachS = (2.6 * jet.halfWidthMm) / speedMmPerS;
  const periodS = STRETCH_MM / speedMmPerS;
  const beginS = -reachS - (passes - 1) * periodS;
  const steps = Math.round(90 + 30 * (passes - 1) * Math.min(3, periodS / reachS));
  const times = Array.from({ length: steps + 1 }, (_, i) => beginS + ((reachS - beginS) * i) / steps);
  for (let dt = (reachS - beginS) / steps, t = reachS; t < COOLING_S; dt *= 1.2) times.push((t += dt));
  const hot = jet.wPerM2K * factor;
  const front = (s: number) => {
    let share = 0;
    for (let i = 0; i < passes; i++) share += streamShare((s + i * periodS) * speedMmPerS, jet.halfWidthMm);
    share = Math.min(1, share);
    const wPerM2K = hot * share + ROOM_W_PER_M2K * (1 - share);
    return { wPerM2K, tempC: (hot * share * jet.middleC + ROOM_W_PER_M2K * (1 - share) * c.airC) / wPerM2K };
  };
  const tempsC: number[] = [];
  let [peakC, groundPeakC] = [-Infinity, -Infinity];
  stepCells(row, row.joulePerM2K.map(() => c.groundC), times, front, (_s, t) => {
    tempsC.push(t[0]!);
    if (t[0]! > peakC) peakC = t[0]!;
    if (t[1]! > groundPeakC) groundPeakC = t[1]!;
  }); // prettier-ignore
  const timed = { times, tempsC };
  const above = lastAbove(timed, Math.max(CUT_AT_C, c.airC + 3));
  return {
    peakC,
    groundPeakC,
    softS: Math.max(0, lastAbove(timed, c.film.relaxC) ?? 0),
    coolS: above === null ? 0 : above >= times.at(-1)! ? null : Math.max(0, above),
    at: (seconds) => tempAt(timed, seconds),
  };
}

/** A gun over one place. @param factor on the convection reckoned */
export function heatPass(c: HeatCase, place: HeatPlace, speedMmPerS: number, factor = 1, passes = 1): Passed {
  return passOver(c, { jet: jetOnWall(c.gun, c.distanceMm, c.airC), row: rowAt(c.film, c.ground, place, c.airC) }, speedMmPerS, factor, passes);
}

/** Where what is above a figure at slow speed falls to it, mm/s; the nearest end of what a hand can hold where it never does. */
function speedFor(peak: (speed: number) => number, figureC: number): number {
  let [low, high] = [Math.log(HAND_MM_PER_S.slowest / 4), Math.log(HAND_MM_PER_S.fastest * 2)];
  if (peak(Math.exp(low)) < figureC) return 0;
  if (peak(Math.exp(high)) > figureC) return Infinity;
  for (let i = 0; i < 11; i++) {
    const middle = (low + high) / 2;
    if (peak(Math.exp(middle)) > figureC) low = middle;
    else high = middle;
  }
  return Math.exp((low + high) / 2);
}

/** Whether the ground under film that lies on is heated with it: one that film is held off from is warmed less, and a bare one has a figure of its own. */
const heatsThrough = (aim: HeatAim): boolean => aim !== 'relax' && aim !== 'warm';

/** What is asked of film and ground by what the gun is for. */
export interface HeatAsked {
  readonly aim: HeatAim;
  /** Which place has to come to it. */
  readonly place: HeatPlace;
  readonly wantC: number;
  /** The place that gets hottest, and what it may come to. */
  readonly hottest: HeatPlace;
  readonly limitC: number;
}
/** Null: its maker's figure is not in the library. */
function askedOf(aim: HeatAim, film: FilmHeat, ground: GroundHeat): HeatAsked | null {
  if (aim === 'warm') return { aim, place: bare, wantC: BARE_C.wantC, hottest: bare, limitC: Math.min(BARE_C.limitC, ground.limitC) };
  if (aim === 'relax') return { aim, place: lifted, wantC: film.relaxC, hottest: lifted, limitC: film.scorchC };
  if (aim === 'post-heat') return film.postHeatC === null ? null : { aim, place: lying, wantC: film.postHeatC, hottest: lying, limitC: film.scorchC };
  const byDepth = [...ground.hollows].sort((a, b) => a.gapMm! - b.gapMm!);
  const deepest = byDepth.at(-1) ?? lying;
  return { aim, place: aim === 'joints' ? deepest : (byDepth[0] ?? lying), wantC: film.relaxC, hottest: deepest, limitC: film.scorchC };
}

/** Speeds at which film comes to its figure and nothing gets too hot. */
export interface SpeedBand {
  readonly slowestMmPerS: number;
  readonly fastestMmPerS: number;
}
/** The band for one pass; null: no speed a hand can hold does both. @param factor a low one for what must get warm, a high one for what must not get hot */
export function speedBand(c: HeatCase, asked: HeatAsked, factor: { readonly low: number; readonly high: number }): SpeedBand | null {
  const jet = jetOnWall(c.gun, c.distanceMm, c.airC);
  const rows = { want: { jet, row: rowAt(c.film, c.ground, asked.place, c.airC) }, hot: { jet, row: rowAt(c.film, c.ground, asked.hottest, c.airC) }, on: { jet, row: rowAt(c.film, c.ground, lying, c.airC) } }; // prettier-ignore
  const fastest = speedFor((v) => passOver(c, rows.want, v, factor.low).peakC, asked.wantC);
  const ofFilm = speedFor((v) => passOver(c, rows.hot, v, factor.high).peakC, asked.limitC);
  const ofGround = !heatsThrough(asked.aim) ? 0 : speedFor((v) => passOver(c, rows.on, v, factor.high).groundPeakC, c.ground.limitC);
  const band = { slowestMmPerS: Math.max(HAND_MM_PER_S.slowest, ofFilm, ofGround), fastestMmPerS: Math.min(HAND_MM_PER_S.fastest, fastest) };
  return band.slowestMmPerS <= band.fastestMmPerS ? band : null;
}

/** Low, expected, high. */
export type HeatSpread = readonly [low: number, mid: number, high: number];
export type Hindrance = 'ground' | 'film' | 'cold';
/** How a gun is to be moved, and what that does. */
export interface HeatPlan {
  readonly asked: HeatAsked;
  readonly jet: JetOnWall;
  readonly factor: HeatFactor;
  /** For one pass, whatever the convection may be; null: no speed is sure. */
  readonly sure: SpeedBand | null;
  /** For one pass, as far as is expected; null: none. */
  readonly expected: SpeedBand | null;
  readonly speedMmPerS: number;
  /** 1: one pass does; more: to and fro over a hand's length; null: not at this distance. */
  readonly passes: number | null;
  /** What hinders at this distance: the ground is spoilt first, film scorches first, neither comes warm enough; null: it goes. */
  readonly hindered: Hindrance | null;
  /** What each place comes to at that speed and so many passes. */
  readonly places: readonly { readonly place: HeatPlace; readonly peakC: HeatSpread }[];
  readonly groundPeakC: HeatSpread;
  /** The roller has to follow within this time, s: the least of the range where a speed is sure, else what is expected. */
  readonly softS: number;
  /** Until it can be cut, s, at the longest; null: not within ten minutes. */
  readonly coolS: number | null;
}

/** What hands are used to: 2 in a second. @source common practice */
const USUAL_MM_PER_S = 50;
/** Slower than this nobody goes in one pass: then to and fro. @source house rule */
const STEADY_MM_PER_S = 15;
/** In a band, what hands are used to; with a tenth kept from its ends, so that a hand may waver. */
function speedIn({ slowestMmPerS, fastestMmPerS }: SpeedBand): number {
  const [low, high] = [slowestMmPerS * 1.1, fastestMmPerS / 1.1];
  return low > high ? Math.sqrt(slowestMmPerS * fastestMmPerS) : Math.min(high, Math.max(low, USUAL_MM_PER_S));
}

/** How to move the gun at a distance. Null: film's maker gives no figure for this. */
export function planHeat(c: HeatCase, aim: HeatAim, factor: HeatFactor = unproven): HeatPlan | null {
  const asked = askedOf(aim, c.film, c.ground);
  if (!asked) return null;
  const jet = jetOnWall(c.gun, c.distanceMm, c.airC);
  const [sure, expected] = [speedBand(c, asked, factor), speedBand(c, asked, { low: factor.mid, high: factor.mid })];
  const once = sure ?? expected;
  const isOnce = once !== null && speedIn(once) >= STEADY_MM_PER_S;
  const { speed, passes, hindered } = isOnce ? { speed: speedIn(once), passes: 1, hindered: null } : toAndFro(c, asked, factor, once);
  const places = [...new Map([asked.place, asked.hottest, ...(heatsThrough(aim) ? [lying, ...c.ground.hollows] : [])].map((p) => [p.key, p])).values()];
  const run = (place: HeatPlace) => spreadPasses(c, place, speed, passes ?? 1, factor);
  const of = new Map(places.map((p) => [p.key, run(p)]));
  const wanted = of.get(asked.place.key)!;
  const on = of.get('lying') ?? wanted;
  const cools = wanted.map((p) => p.coolS);
  return {
    asked,
    jet,
    factor,
    sure,
    expected,
    speedMmPerS: speed,
    passes,
    hindered,
    places: places.map((place) => ({ place, peakC: of.get(place.key)!.map((p) => p.peakC) as unknown as HeatSpread })),
    groundPeakC: on.map((p) => p.groundPeakC) as unknown as HeatSpread,
    softS: wanted[sure ? 0 : 1].softS,
    coolS: cools.includes(null) ? null : Math.max(...(cools as number[])),
  };
}
function spreadPasses(c: HeatCase, place: HeatPlace, speed: number, passes: number, { low, mid, high }: HeatFactor): readonly [Passed, Passed, Passed] {
  const ready = { jet: jetOnWall(c.gun, c.distanceMm, c.airC), row: rowAt(c.film, c.ground, place, c.airC) };
  return [passOver(c, ready, speed, low, passes), passOver(c, ready, speed, mid, passes), passOver(c, ready, speed, high, passes)];
}

/** The fewest passes, to and fro, after which film has its figure as far as is expected and nothing is too hot; else the one slow pass that does it; else none. */
function toAndFro(
  c: HeatCase,
  asked: HeatAsked,
  factor: HeatFactor,
  once: SpeedBand | null,
): { speed: number; passes: number | null; hindered: Hindrance | null } {
  const jet = jetOnWall(c.gun, c.distanceMm, c.airC);
  const [want, on] = [asked.place, lying].map((p) => ({ jet, row: rowAt(c.film, c.ground, p, c.airC) })) as [Prepared, Prepared];
  let hindered: Hindrance = 'cold';
  for (let passes = 2; passes <= MOST_PASSES; passes++) {
    const film = passOver(c, want, USUAL_MM_PER_S, factor.mid, passes);
    if (film.peakC < asked.wantC) continue;
    const ground = !heatsThrough(asked.aim) ? -Infinity : passOver(c, on, USUAL_MM_PER_S, factor.mid, passes).groundPeakC;
    if (film.peakC <= asked.limitC && ground <= c.ground.limitC) return { speed: USUAL_MM_PER_S, passes, hindered: null };
    hindered = film.peakC > asked.limitC ? 'film' : 'ground';
    break;
  }
  return once ? { speed: speedIn(once), passes: 1, hindered: null } : { speed: USUAL_MM_PER_S, passes: null, hindered };
}

/** What was read after a pass, of film that lies on. */
export interface HeatReading {
  readonly readC: number;
  /** After the gun's middle had passed, s. */
  readonly afterS: number;
  readonly speedMmPerS: number;
  readonly passes: number;
}
/** What a reading says of the convection under this gun on this ground. */
export type Corrected =
  | { readonly is: 'corrected'; readonly factor: HeatFactor }
  /** Too late, or the ground takes all: what is not known would not be seen in it. */
  | { readonly is: 'says-nothing' }
  /** No convection there can be explains it. */
  | { readonly is: 'cannot-be'; readonly betweenC: readonly [number, number] };

/** Convection as little and as much as may be at all, by what was reckoned. @source house rule */
const POSSIBLE = { least: 0.25, most: 3 };
/** A reading that tells less apart than this, K, tells nothing. */
const LEAST_TOLD_K = 4 * READING_SIGMA_K;

/** The convection that explains a reading, and how sure it is then. */
export function correctBy(c: HeatCase, { readC, afterS, speedMmPerS, passes }: HeatReading): Corrected {
  const ready = { jet: jetOnWall(c.gun, c.distanceMm, c.airC), row: rowAt(c.film, c.ground, lying, c.airC) };
  const shown = (factor: number) => passOver(c, ready, speedMmPerS, factor, passes).at(afterS);
  if (shown(unproven.high) - shown(unproven.low) < LEAST_TOLD_K) return { is: 'says-nothing' };
  const between: [number, number] = [shown(POSSIBLE.least), shown(POSSIBLE.most)];
  if (readC < between[0] - 2 * READING_SIGMA_K || readC > between[1] + 2 * READING_SIGMA_K) return { is: 'cannot-be', betweenC: between };
  let [low, high] = [POSSIBLE.least, POSSIBLE.most];
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2;
    if (shown(middle) < readC) low = middle;
    else high = middle;
  }
  const mid = (low + high) / 2;
  const perK = 0.1 / Math.max(1e-6, shown(mid + 0.05) - shown(mid - 0.05));
  const doubt = Math.min(UNKNOWN_FRAC * mid, Math.hypot(2 * READING_SIGMA_K * perK, KNOWN_FRAC * mid));
  return { is: 'corrected', factor: { low: mid - doubt, mid, high: mid + doubt } };
}

/** The sure band (the expected one where none is sure) at distances: what a map of speed against distance is drawn from. */
export function heatMap(c: HeatCase, aim: HeatAim, distancesMm: readonly number[], factor: HeatFactor = unproven) {
  const asked = askedOf(aim, c.film, c.ground);
  if (!asked) return [];
  return distancesMm.map((distanceMm) => {
    const at = { ...c, distanceMm };
    return { distanceMm, sure: speedBand(at, asked, factor), expected: speedBand(at, asked, { low: factor.mid, high: factor.mid }) };
  });
}
