import type { LearnedMinutes, WorkClass } from '@yellow-pane/contracts';

/** A pane that was timed. */
export interface TimedPane {
  readonly work: WorkClass;
  readonly jobId: string;
  readonly minutes: number;
  readonly areaM2: number;
}
/** What the rates say of a pane: so long for any, more for each m². */
export interface PaneRates {
  readonly paneMinutes: number;
  readonly minutesPerM2: Readonly<Record<WorkClass, number>>;
  readonly cleaningMinutesPerM2: number;
}

/** So many panes weigh as much as the rates themselves. @source house rule */
const RATES_WEIGH = 8;

const quantile = (sorted: readonly number[], q: number): number => {
  const at = (sorted.length - 1) * q;
  const low = sorted[Math.floor(at)]!;
  return low + (sorted[Math.ceil(at)]! - low) * (at - Math.floor(at));
};

/**
 * How much longer panes take than expected, by kind of film: the median of real over expected (on a logarithmic scale, so that half and double
 * are equally far off), which a break, a forgotten tap or a disaster does not move; drawn towards 1 while it rests on few panes.
 * @returns one line for each kind of film that has a timed pane, in the order tint, frost, security
 * @source median as a robust location estimate: breakdown point 1/2 (Huber, Robust Statistics; from memory)
 */
export function learnMinutes(panes: readonly TimedPane[], rates: PaneRates): LearnedMinutes {
  return (['tint', 'frost', 'security'] as const).flatMap((work) => {
    const expected = (areaM2: number) => rates.paneMinutes + (rates.minutesPerM2[work] + rates.cleaningMinutesPerM2) * areaM2;
    const mine = panes.filter((p) => p.work === work && p.minutes > 0 && expected(p.areaM2) > 0);
    if (mine.length === 0) return [];
    const logs = mine.map((p) => Math.log(p.minutes / expected(p.areaM2))).sort((a, b) => a - b);
    const areaM2 = quantile(mine.map((p) => p.areaM2).sort((a, b) => a - b), 0.5); // prettier-ignore
    const middle = quantile(logs, 0.5);
    const usedFactor = Math.exp((middle * mine.length) / (mine.length + RATES_WEIGH));
    return [
      {
        work,
        paneCount: mine.length,
        jobCount: new Set(mine.map((p) => p.jobId)).size,
        factor: Math.exp(middle),
        middleHalf: [Math.exp(quantile(logs, 0.25)), Math.exp(quantile(logs, 0.75))] as [number, number],
        usedFactor,
        suggestedPerM2: Math.max(0, (expected(areaM2) * usedFactor - rates.paneMinutes) / areaM2 - rates.cleaningMinutesPerM2),
      },
    ];
  });
}
