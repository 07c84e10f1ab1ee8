import type { HeatInput, HeatResult } from '@yellow-pane/contracts';
import { toldAll } from '../ground/index.js';
import { filmHeatOf, groundHeatOf } from './heat-matter.js';
import { factorOf, type HeatTrial } from './heat-of-surface.js';
import { correctBy, planHeat, type HeatCase } from './heat-pass.js';
import { heatWords, trialText } from './heat-words.js';

/** The plan for a gun by its figures alone, with the words of the screen. Null: the film’s maker gives no figure for what is asked. */
export function heatCard({ aim, film, material, masonry, gun, airC, groundC, trial: read, units }: HeatInput): HeatResult {
  const { distanceMm, ...rest } = gun;
  const c: HeatCase = { film: filmHeatOf(film), ground: groundHeatOf({ material }, masonry), gun: rest, distanceMm, airC, groundC };
  const trial: HeatTrial | null = read && { readC: read.readC, says: correctBy(c, read) };
  const plan = planHeat(c, aim, factorOf(trial));
  if (!plan) return null;
  const words = heatWords(c, plan, trial, units);
  const { speedMmPerS, passes, sure, expected, groundPeakC, softS, coolS } = plan;
  return toldAll(
    {
      headline: words.headline,
      follow: words.follow,
      speedMmPerS,
      passes,
      sure,
      expected,
      places: plan.places.map(({ peakC }, i) => ({ name: words.places[i]!.name, isWanted: words.places[i]!.isWanted, peakC: [...peakC] })),
      groundPeakC: [...groundPeakC],
      softS,
      coolS,
      howSure: words.sure,
      minds: [...words.minds],
      trial: trialText(trial),
      why: [...words.why],
    },
    units,
  );
}
