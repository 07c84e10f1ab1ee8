import type { SizeStep } from '@yellow-pane/contracts';
import type { UnitSystem } from '../ground/index.js';

/** Steps that a knife and a tape are set to without looking twice, mm. @source common practice: 5 mm, ¼ in; the coarse ones are twice as much (house rule) */
const SIZE_STEP_MM: Readonly<Record<Exclude<SizeStep, 'none'>, Readonly<Record<UnitSystem, number>>>> = {
  fine: { mm: 5, in: 25.4 / 4 },
  coarse: { mm: 10, in: 25.4 / 2 },
};

/** Sizes rounded up to a mark a knife can be set to: whole mm, or 1/16 in. */
export const roundUpToMark = (mm: number, units: UnitSystem): number => upTo(mm, units === 'in' ? 25.4 / 16 : 1);
const upTo = (mm: number, step: number): number => Math.ceil(mm / step - 1e-6) * step;

/** How the pieces of a job come to their sizes. */
export interface SizeRule {
  readonly units: UnitSystem;
  readonly step: SizeStep | undefined;
  /** Widths of rolls and lengths of pulls: a size that just goes into one of them is not rounded out of it. */
  readonly limitsMm: readonly number[];
}

/**
 * A size that is trimmed on the glass, rounded up to a handy one; to a mark where handy sizes are off or the roll would be too narrow for it.
 * Never smaller than asked for.
 */
export function handySize(mm: number, { units, step, limitsMm }: SizeRule): number {
  const marked = roundUpToMark(mm, units);
  if (step === undefined || step === 'none') return marked;
  const handy = upTo(mm, SIZE_STEP_MM[step][units]);
  return limitsMm.some((limit) => marked <= limit && handy > limit + 1e-6) ? marked : handy;
}

/** What the steps are called. */
export const sizeStepNames: Readonly<Record<SizeStep, Readonly<Record<UnitSystem, string>>>> = {
  none: { mm: 'off: whole mm', in: 'off: 1/16"' },
  fine: { mm: 'every 5 mm', in: 'every ¼"' },
  coarse: { mm: 'every 10 mm', in: 'every ½"' },
};
