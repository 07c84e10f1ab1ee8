import type { Film } from '@yellow-pane/contracts';
import { dewPointC } from '../physics/index.js';
import { GLASS_STEP_MINUTES, type GlassMoment } from './glass-day.js';

/** Whether wet work on a pane is good, marginal or wrong. */
export type WorkGrade = 'good' | 'marginal' | 'wrong';
export type WorkCause = 'sun' | 'warm' | 'cold' | 'dew' | 'frost' | 'wind' | 'rain';

/** One thing that speaks against working now. */
export interface WorkReason {
  readonly cause: WorkCause;
  readonly grade: Exclude<WorkGrade, 'good'>;
  /** How far over the limit it is, to name the worst first. */
  readonly weight: number;
  readonly words: string;
}
export interface WorkMoment extends GlassMoment {
  /** Face that is worked on, °C. */
  readonly faceC: number;
  /** Dew point of the air before that face, and how far the face is above it. */
  readonly dewC: number;
  readonly dewMarginK: number;
  readonly grade: WorkGrade;
  /** Worst first. */
  readonly reasons: readonly WorkReason[];
}
/** A stretch of the day with one verdict. */
export interface WorkWindow {
  readonly fromHour: number;
  readonly toHour: number;
  readonly grade: WorkGrade;
  readonly cause: WorkCause | null;
  /** In words, what is so at its worst; empty when all is well. */
  readonly why: string;
}

/** What the work asks for. */
export interface WorkAsked {
  readonly face: 'room' | 'street';
  /** Between two rooms: nothing outside matters. */
  readonly isIndoors: boolean;
  readonly film: Pick<Film, 'temps' | 'drying'> | null;
  readonly roomC: number;
  readonly roomHumidityPct: number;
  /** Coldest air of the night after, °C; null: nobody knows, and no frost is spoken of. */
  readonly nightLowC: number | null;
}

/** Direct sun from which on "the sun shines". @source WMO-No. 8: 120 W/m² on a plane that faces it (from memory) */
const SUNSHINE_W_PER_M2 = 120;
/** So little of the pane in the sun can be kept wet. @source house rule */
const LITTLE_LIT = 0.05;
/** Glass above the air it will end at: the water dries faster than it is pushed out. @source house rule on "still warm from the sun" (common practice) */
const WARM_K = { marginal: 6, wrong: 12 };
/** Glass and air below this are too cold for wet film. @source common practice: 40 °F (5 °C) */
const LEAST_C = 5;
/** Film that says nothing of heat. @source house rule */
const MOST_C = 38;
/** Margin to the dew point below which a surface counts as damp. @source ISO 8502-4: 3 °C (from memory) */
const DEW_K = 3;
/** Dust flies and the film sails. @source house rule: Beaufort 4 and 6 */
const GUST = { marginal: 5.5, wrong: 10.8 };

const rank: Record<WorkGrade, number> = { good: 0, marginal: 1, wrong: 2 };
const deg = (c: number): string => `${Math.round(c)} °C`;

/**
 * How cold the face that gets the film becomes in the night after, °C: between that night's air and the room in the share in which it stood in the
 * darkest cold of this day. A room face behind a double unit stays above zero in many a frost; a street face does not.
 * @returns null where nothing outside counts or nobody knows the night
 * @source steady state of the pane's row of heat stores: linear in both airs (docs/models/day.md)
 */
function faceAtNight(day: readonly GlassMoment[], asked: WorkAsked): number | null {
  if (asked.isIndoors || asked.nightLowC === null) return null;
  const dark = day.filter((m) => m.sunWPerM2 === 0 && m.hour < 6);
  if (dark.length === 0) return null;
  const coldest = dark.reduce((a, b) => (b.airC < a.airC ? b : a));
  const faceC = asked.face === 'room' ? coldest.innerC : coldest.outerC;
  const apart = asked.roomC - coldest.airC;
  // where air and room are alike there is no share to read off: the face goes with the air
  const share = Math.abs(apart) < 1 ? 0 : Math.min(1, Math.max(0, (faceC - coldest.airC) / apart));
  return asked.nightLowC + share * (asked.roomC - asked.nightLowC);
}

/** Judges every moment of a day. */
export function workMoments(day: readonly GlassMoment[], asked: WorkAsked): WorkMoment[] {
  const lowestC = Math.max(LEAST_C, asked.film?.temps?.applyMinC ?? LEAST_C);
  const highestC = asked.film?.temps?.applyMaxC ?? MOST_C;
  const isWet = asked.film?.drying !== 'dry-applied';
  const nightFaceC = faceAtNight(day, asked);
  return day.map((m) => {
    const isOut = asked.face === 'street' && !asked.isIndoors;
    const faceC = asked.face === 'room' ? m.innerC : m.outerC;
    const airC = isOut ? m.airC : asked.roomC;
    const dewC = isOut ? dewPointC(m.airC, m.humidityPct) : dewPointC(asked.roomC, asked.roomHumidityPct);
    const reasons: WorkReason[] = [];
    const say = (cause: WorkCause, grade: Exclude<WorkGrade, 'good'>, weight: number, words: string) => void reasons.push({ cause, grade, weight, words });
    if (m.beamWPerM2 >= SUNSHINE_W_PER_M2 && m.litFrac > 0) {
      const share = m.litFrac >= 0.95 ? 'sun on the glass' : `sun on ${Math.max(1, Math.round(m.litFrac * 100))} % of the glass`;
      say('sun', m.litFrac > LITTLE_LIT ? 'wrong' : 'marginal', 1 + m.sunWPerM2 / 1000, `${share}, ${Math.round(m.sunWPerM2)} W/m²`);
    }
    const settlesC = Math.max(airC, (m.airC + asked.roomC) / 2);
    const over = faceC - settlesC;
    if (faceC > highestC) say('warm', 'wrong', 3, `glass at ${deg(faceC)}, the film is laid up to ${deg(highestC)}`);
    else if (isWet && over > WARM_K.marginal)
      say(
        'warm',
        over > WARM_K.wrong ? 'wrong' : 'marginal',
        over / WARM_K.wrong,
        `glass ${Math.round(over)} °C warmer than the air: the water dries under the blade`,
      );
    const coldest = Math.min(faceC, airC);
    if (coldest < lowestC) say('cold', 'wrong', 2, `${faceC <= airC + 0.1 ? 'glass' : 'air'} at ${deg(coldest)}, the film needs ${deg(lowestC)}`);
    else if (coldest < lowestC + 2)
      say('cold', 'marginal', 0.5, `${faceC <= airC + 0.1 ? 'glass' : 'air'} at ${deg(coldest)}, hardly above the ${deg(lowestC)} that the film needs`);
    const dewMarginK = faceC - dewC;
    if (dewMarginK < DEW_K)
      say(
        'dew',
        'marginal',
        1 - dewMarginK / DEW_K,
        dewMarginK < 0
          ? `the glass sweats (${deg(faceC)}, dew point ${deg(dewC)}): dry glass and frame, air the room, then it can go on; it dries slowly`
          : `only ${dewMarginK.toFixed(1)} °C above the dew point: the frame stays damp`,
      );
    if (isWet && nightFaceC !== null && nightFaceC < 0)
      say('frost', 'marginal', 0.2 - nightFaceC / 20, `the film’s face gets down to ${deg(nightFaceC)} at night: wet film must not freeze`);
    if (isOut && m.gustMPerS >= GUST.marginal)
      say(
        'wind',
        m.gustMPerS >= GUST.wrong ? 'wrong' : 'marginal',
        m.gustMPerS / GUST.wrong,
        `gusts of ${Math.round(m.gustMPerS)} m/s: dust, and the film sails`,
      );
    if (isOut && m.rainMm > 0) say('rain', 'wrong', 2, `rain, ${m.rainMm.toFixed(1)} mm in the hour`);
    reasons.sort((a, b) => rank[b.grade] - rank[a.grade] || b.weight - a.weight);
    return { ...m, faceC, dewC, dewMarginK, grade: reasons[0]?.grade ?? 'good', reasons };
  });
}

/** Stretches of one verdict between two hours, each with its cause at its worst. */
export function workWindows(moments: readonly WorkMoment[], fromHour = 6, toHour = 21): WorkWindow[] {
  const out: { fromHour: number; toHour: number; grade: WorkGrade; cause: WorkCause | null; why: string; weight: number }[] = [];
  for (const m of moments) {
    if (m.hour < fromHour - 1e-9 || m.hour >= toHour - 1e-9) continue;
    const first = m.reasons[0];
    const last = out[out.length - 1];
    const end = Math.min(toHour, m.hour + GLASS_STEP_MINUTES / 60);
    if (last && last.grade === m.grade && last.cause === (first?.cause ?? null)) {
      last.toHour = end;
      if (first && first.weight > last.weight) [last.why, last.weight] = [first.words, first.weight];
    } else out.push({ fromHour: m.hour, toHour: end, grade: m.grade, cause: first?.cause ?? null, why: first?.words ?? '', weight: first?.weight ?? 0 });
  }
  return out.map(({ weight: _, ...w }) => w);
}

/** The longest stretch without anything that speaks against it; where there is none, the longest that is only marginal. */
export function bestWindow(windows: readonly WorkWindow[]): WorkWindow | null {
  const longest = (grade: WorkGrade) =>
    windows
      .filter((w) => w.grade === grade)
      .reduce<WorkWindow | null>((best, w) => (best && best.toHour - best.fromHour >= w.toHour - w.fromHour ? best : w), null);
  return longest('good') ?? longest('marginal');
}
