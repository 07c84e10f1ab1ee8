import type { Climate } from '@yellow-pane/contracts';
import { clearSky, lightOnPlane, shadowOnPane, sunPosition, type SunPosition } from '../physics/index.js';

/** Where a pane stands. */
export interface Facade {
  readonly latDeg: number;
  readonly lonDeg: number;
  readonly zoneMinutes: number;
  readonly year: number;
  readonly facadeDeg: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly revealMm: number;
  /** From the face of the wall. */
  readonly overhangMm: number;
  readonly overhangAboveMm: number;
  /** Between two rooms: no sun comes here. */
  readonly isIndoors: boolean;
}
/** Light on a facade at one moment of a clear day. */
export interface FacadeMoment {
  /** Clock hour at the site. */
  readonly hour: number;
  /** W/m² on lit glass. */
  readonly directWPerM2: number;
  readonly diffuseWPerM2: number;
  readonly incidenceDeg: number;
  /** Share of the pane that the sun reaches past reveal and overhang. */
  readonly litFrac: number;
}
export interface FacadeDay {
  readonly month: number;
  readonly dayOfYear: number;
  readonly moments: readonly FacadeMoment[];
}

export const STEP_S = 300;
const STEPS = 86_400 / STEP_S;

/**
 * Share of the pane in the sun. An overhang is measured from the face of the wall, and the glass stands back from that by the reveal: it throws its shadow as if
 * it were deeper by so much, past the clear height first; the reveal at top and side starts at once.
 */
export function litFrac(sun: SunPosition, f: Pick<Facade, 'facadeDeg' | 'overhangMm' | 'overhangAboveMm' | 'revealMm' | 'widthMm' | 'heightMm'>): number {
  const over = f.overhangMm > 0 ? shadowOnPane(sun, f.facadeDeg, f.overhangMm + f.revealMm, 0).fromTopMm - f.overhangAboveMm : 0;
  const reveal = shadowOnPane(sun, f.facadeDeg, f.revealMm, f.revealMm);
  const top = Math.min(1, Math.max(0, over, reveal.fromTopMm) / f.heightMm);
  const side = Math.min(1, reveal.fromSideMm / f.widthMm);
  return (1 - top) * (1 - side);
}

/** The 21st of a month under a clear sky, every five minutes of the clock. @param month 1 … 12 */
function clearDay(f: Facade, month: number): FacadeDay {
  const midnight = Date.UTC(f.year, month - 1, 21) - f.zoneMinutes * 60_000;
  const dayOfYear = Math.round((Date.UTC(f.year, month - 1, 21) - Date.UTC(f.year, 0, 1)) / 86_400_000) + 1;
  const moments = Array.from({ length: STEPS }, (_, i): FacadeMoment => {
    if (f.isIndoors) return { hour: (i * STEP_S) / 3600, directWPerM2: 0, diffuseWPerM2: 0, incidenceDeg: 90, litFrac: 0 };
    const sun = sunPosition(midnight + i * STEP_S * 1000, f.latDeg, f.lonDeg);
    const light = lightOnPlane(sun, clearSky(sun.altitudeDeg, dayOfYear), f.facadeDeg);
    return {
      hour: (i * STEP_S) / 3600,
      directWPerM2: light.directWPerM2,
      diffuseWPerM2: light.diffuseWPerM2,
      incidenceDeg: light.incidenceDeg,
      litFrac: light.directWPerM2 > 0 ? litFrac(sun, f) : 0,
    };
  });
  return { month, dayOfYear, moments };
}

/** The year as twelve clear days. */
export const clearYear = (f: Facade): FacadeDay[] => Array.from({ length: 12 }, (_, i) => clearDay(f, i + 1));

/** Swing between night and afternoon on a clear day, K. @source common practice for a temperate coast */
const SWING_K = 10;
/** Hottest around 20 July north of the equator, 20 January south of it. */
const PEAK_DAY = 201;

/** How summery a day is: 0 at the coldest, 1 at the hottest time of the year. */
export function summerShare(dayOfYear: number, latDeg: number): number {
  const peak = latDeg >= 0 ? PEAK_DAY : PEAK_DAY - 182;
  return (1 + Math.cos((2 * Math.PI * (dayOfYear - peak)) / 365)) / 2;
}

/** Outside air on a clear day of the year, °C: the year's hottest and coldest hour as given, warmest at 15, coldest at 3. @source house rule, stated in docs/models/thermal-break.md */
export function outsideC(climate: Climate, latDeg: number, dayOfYear: number, hour: number): number {
  const swing = Math.min(SWING_K, Math.max(0, climate.hotC - climate.coldC));
  const high = climate.coldC + swing + (climate.hotC - climate.coldC - swing) * summerShare(dayOfYear, latDeg);
  return high - swing * (0.5 - 0.5 * Math.cos((2 * Math.PI * (hour - 15)) / 24));
}
