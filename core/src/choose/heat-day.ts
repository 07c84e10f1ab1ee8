import type { HeatDay } from '@yellow-pane/contracts';
import { summerShare, type Facade, type FacadeDay } from './facade.js';
import { angularShare, diffuseShare } from './light-through.js';

/**
 * Solar heat let in over the clear day of the warm half-year on which this facade gets most, per m² of glass: direct light on
 * the lit part and diffuse light, each by g at its angle. Another film is the same curve times its g over the bare g.
 */
export function heatDayOf(year: readonly FacadeDay[], facade: Facade, gBare: number, paneCount: number): HeatDay {
  const warm = year.filter((d) => summerShare(d.dayOfYear, facade.latDeg) >= 0.4);
  const gains = warm.map((d) => gainsOn(d, gBare, paneCount));
  let best = 0;
  gains.forEach((g, i) => (best = sum(g) > sum(gains[best]!) ? i : best));
  const day = warm[best]!;
  const every = 6;
  const hoursPerStep = 24 / day.moments.length;
  return {
    month: day.month,
    points: day.moments.flatMap((m, i) =>
      i % every ? [] : [{ hour: m.hour, sunWPerM2: m.directWPerM2 * m.litFrac + m.diffuseWPerM2, bareWPerM2: gains[best]![i]!, litFrac: m.litFrac }],
    ),
    bareWhPerM2: sum(gains[best]!) * hoursPerStep,
  };
}

const gainsOn = (d: FacadeDay, g: number, paneCount: number): number[] =>
  d.moments.map((m) => g * (m.directWPerM2 * m.litFrac * angularShare(m.incidenceDeg, paneCount) + m.diffuseWPerM2 * diffuseShare(paneCount)));
const sum = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0);
