import type { MeasureKey } from '@yellow-pane/contracts';
import { rankOf, solveSymmetric, transposeTimes } from '../geometry/index.js';
import { matchedLevels } from '../ground/index.js';
import { handTape, houseLevels, tapeSigmaMm, type Adjustment, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { bestNext, informationBits, PRIOR, type NextTape, type Suspect } from './hypotheses.js';
import { usualSlips } from './slips.js';

/** What was taped, by measure, mm. */
export type Tapes = ReadonlyMap<MeasureKey, number>;
/** The numbers of a shape; what they mean is each model's own. */
export type Numbers = readonly number[];

/** Something usual but not certain of a shape: how far it is from usual, and one standard deviation of that, mm. */
export interface Usual {
  readonly offMm: number;
  readonly sigmaMm: number;
}

/** Another truth than this model's that its tapes may tell of: the same model with one number more. */
export interface Otherwise {
  readonly is: string;
  readonly model: TapedModel;
  /** How likely it is before anything is taped, and how large that further number usually is, 1 σ. */
  readonly prior: number;
  readonly spreadMm: number;
  /** The further number, as it is told. */
  sizeMm(p: Numbers): number;
}

/** A shape of few numbers that every measure of it follows from: what tapes are adjusted to and judged by. */
export interface TapedModel {
  /** Measures in the order a person walks with the tape. */
  readonly keys: readonly MeasureKey[];
  /** A first shape from what was taped; null when that is not enough. */
  start(tapes: Tapes): Numbers | null;
  /** What a perfect tape would read. */
  reading(p: Numbers, key: MeasureKey): number;
  usual(p: Numbers): readonly Usual[];
  /** What of it fills in where the tapes alone do not fix the shape; left out: all that is usual. */
  fills?(p: Numbers): readonly Usual[];
  /** Derivative of a measure by each number, where it is known in closed form. */
  slope?(p: Numbers, key: MeasureKey): number[];
  /** Measures that may be nought or negative. */
  readonly offsets?: readonly MeasureKey[];
  /** One standard deviation of a measure that is not read off a tape held straight, mm. */
  sigmaMm?(key: MeasureKey): number | null;
  readonly otherwise?: readonly Otherwise[];
}

const sigmaOf = (model: TapedModel, key: MeasureKey, lengthMm: number, tape: TapeError): number => model.sigmaMm?.(key) ?? tapeSigmaMm(lengthMm, tape);
/** The readings that a model can make something of. */
export const usable = (model: TapedModel, readings: readonly TapeReading[]): TapeReading[] =>
  readings.filter((r) => model.keys.includes(r.measure) && (r.lengthMm > 0 || model.offsets?.includes(r.measure)));

/** Derivative by each number of the shape: central difference, small beside every size. */
export function slopeOf(f: (p: Numbers) => number, p: Numbers): number[] {
  return p.map((v, i) => {
    const h = Math.abs(v) > 10 ? 0.01 : 1e-5;
    const at = (by: number) => f(p.map((x, j) => (j === i ? x + by : x)));
    return (at(h) - at(-h)) / (2 * h);
  });
}

const measureSlope = (model: TapedModel, p: Numbers, key: MeasureKey): number[] => model.slope?.(p, key) ?? slopeOf((q) => model.reading(q, key), p);

export interface Fit extends Adjustment<Numbers> {
  /** Log evidence of these tapes by Laplace's method, but for a constant per tape. */
  readonly lnEvidence: number;
}
export const quadratic = (g: readonly number[], q: readonly (readonly number[])[]): number =>
  g.reduce((s, a, i) => s + g.reduce((t, b, j) => t + a * q[i]![j]! * b, 0), 0);

/**
 * Least-squares adjustment of any taped outline. Where the tapes alone do not fix it, what is usual of the shape (plumb, round,
 * parallel) fills in, with its own spread; with `leaning` it always takes part, as the prior of the explanations. `near`: a shape to start from.
 * @returns null when not even a first shape can be had
 * @source docs/models/shapes.md; Gauss–Markov model, as for the four-sided opening
 */
export function adjustTaped(
  model: TapedModel,
  readings: readonly TapeReading[],
  {
    tape = handTape,
    levels = houseLevels,
    leaning = false,
    near = null,
  }: { tape?: TapeError; levels?: TestLevels; leaning?: boolean; near?: Numbers | null } = {},
): Fit | null {
  const rows = usable(model, readings);
  let p = near ?? model.start(new Map(rows.map((r) => [r.measure, r.lengthMm])));
  if (!p) return null;
  const sigmas = rows.map((r) => sigmaOf(model, r.measure, r.lengthMm, tape));
  const weights = sigmas.map((s) => 1 / s ** 2);
  const slopes = (at: Numbers) => rows.map((r) => measureSlope(model, at, r.measure));
  const rank = p.length === 0 ? 0 : rankOf(slopes(p));
  const isDetermined = rank === p.length;
  const pulls = !isDetermined || leaning;
  const usualOf = (at: Numbers): readonly Usual[] => (leaning ? model.usual(at) : (model.fills ?? model.usual).call(model, at));
  const system = (at: Numbers) => {
    const a = slopes(at);
    const usuals = pulls ? usualOf(at) : [];
    const pull = usuals.map((_, k) => slopeOf((q) => usualOf(q)[k]!.offMm, at));
    const all = [...a, ...pull];
    const w = [...weights, ...usuals.map((u) => 1 / u.sigmaMm ** 2)];
    const misfit = [...rows.map((r) => r.lengthMm - model.reading(at, r.measure)), ...usuals.map((u) => -u.offMm)];
    return { a, normal: transposeTimes(all, w, all), right: transposeTimes(all, w, misfit.map((m) => [m])).map((v) => v[0]!) }; // prettier-ignore
  };
  let inverse: number[][] = [];
  let lnDeterminant = 0;
  if (p.length > 0)
    try {
      for (let i = 0; i < 40; i++) {
        const { normal, right } = system(p);
        const { solution } = solveSymmetric(normal, right);
        p = p.map((v, j) => v + solution[j]!);
        if (Math.max(...solution.map(Math.abs)) < 1e-7) break;
      }
      ({ inverse, lnDeterminant } = solveSymmetric(system(p).normal, new Array<number>(p.length).fill(0)));
    } catch {
      // neither the tapes nor what is usual fixes the shape
      return null;
    }
  if (!p.every(Number.isFinite)) return null;
  const a = slopes(p);
  const fit = p;
  const residuals = rows.map((r) => r.lengthMm - model.reading(fit, r.measure));
  const qv = rows.map((_, i) =>
    rows.map((__, j) => (i === j ? sigmas[i]! ** 2 : 0) - a[i]!.reduce((s, x, k) => s + a[j]!.reduce((t, y, l) => t + x * inverse[k]![l]! * y, 0), 0)),
  );
  const redundancy = rows.length - rank;
  const { limit, alpha } = redundancy > 0 ? matchedLevels(levels.alpha0, levels.power, redundancy) : { limit: Infinity, alpha: levels.alpha0 };
  const chiSquare = redundancy > 0 ? residuals.reduce((s, v, i) => s + v * v * weights[i]!, 0) : 0;
  const pulled = pulls ? usualOf(fit).reduce((s, u) => s + (u.offMm / u.sigmaMm) ** 2, 0) : 0;
  const missed = residuals.reduce((s, v, i) => s + v * v * weights[i]!, 0);
  return {
    shape: fit,
    lnEvidence: -0.5 * (missed + pulled + lnDeterminant) - sigmas.reduce((s, x) => s + Math.log(x), 0),
    readings: rows.map((r, i) => ({
      measure: r.measure,
      readMm: r.lengthMm,
      adjustedMm: r.lengthMm - residuals[i]!,
      residualMm: residuals[i]!,
      sigmaMm: sigmas[i]!,
      normalised: qv[i]![i]! * weights[i]! > 1e-6 ? residuals[i]! / Math.sqrt(qv[i]![i]!) : 0,
      redundancyFrac: Math.max(0, qv[i]![i]! * weights[i]!),
    })),
    redundancy,
    isDetermined,
    chiSquare,
    limit,
    alpha,
    power: levels.power,
    passes: redundancy === 0 || chiSquare <= limit,
    covariance: inverse,
    testCorrelation: qv.map((row, i) => row.map((v, j) => (qv[i]![i]! * qv[j]![j]! > 1e-12 ? v / Math.sqrt(qv[i]![i]! * qv[j]![j]!) : 0))),
  };
}

const HALF_LN_2PI = 0.5 * Math.log(2 * Math.PI);
const normalDensity = (x: number, mean: number, variance: number): number => Math.exp(-0.5 * (x - mean) ** 2 / variance) / Math.sqrt(2 * Math.PI * variance); // prettier-ignore

export interface Explained {
  readonly suspect: Suspect<Numbers>;
  readonly fit: Fit;
  /** What reading i would be, and how sure. */
  readonly predict: (key: MeasureKey) => { mean: number; variance: number };
}

const predictorOf = (model: TapedModel, fit: Fit) => (key: MeasureKey) => ({
  mean: model.reading(fit.shape, key),
  variance: quadratic(measureSlope(model, fit.shape, key), fit.covariance),
});

/**
 * Every tape in turn left out: how well the others agree, and whether what was read beside what they predict looks like a usual slip.
 * Each shape is fitted anew without the tape, so large slips do not bend the others.
 * @source docs/models/shapes.md §3: p(slip on i) ∝ prior × evidence of the others × Σ w·N(miss; m, v + σ²); evidence by Laplace's method
 */
export function weighSlips(model: TapedModel, readings: readonly TapeReading[], tape: TapeError): Explained[] {
  const predictor = (fit: Fit) => predictorOf(model, fit);
  const whole = adjustTaped(model, readings, { tape, leaning: true });
  const out: { lnWeight: number; make: (p: number) => Explained }[] = [];
  if (whole)
    out.push({
      lnWeight: Math.log(PRIOR.noSlip) + whole.lnEvidence - whole.readings.length * HALF_LN_2PI,
      make: (probability) => ({
        suspect: { hypothesis: { kind: 'no-slip' }, probability, wouldBeMm: null, slipMm: 0, looksLike: null, shape: whole.shape },
        fit: whole,
        predict: predictor(whole),
      }),
    });
  for (const r of readings) {
    const others = adjustTaped(model, readings.filter((x) => x !== r), { tape, leaning: true, near: whole?.shape ?? null }); // prettier-ignore
    if (!others) continue;
    const { mean, variance } = predictor(others)(r.measure);
    const v = variance + sigmaOf(model, r.measure, r.lengthMm, tape) ** 2;
    const miss = r.lengthMm - mean;
    const slips = usualSlips(r.lengthMm).map((s) => ({ ...s, density: s.weight * normalDensity(miss, s.meanMm, v + s.sigmaMm ** 2) }));
    const best = slips.reduce((x, y) => (y.density > x.density ? y : x));
    const density = slips.reduce((s, x) => s + x.density, 0);
    out.push({
      lnWeight: Math.log(PRIOR.slip * Math.max(density, 1e-290)) + others.lnEvidence - others.readings.length * HALF_LN_2PI,
      make: (probability) => ({
        suspect: {
          hypothesis: { kind: 'slip', measure: r.measure },
          probability,
          wouldBeMm: mean,
          slipMm: miss,
          looksLike: best.name === 'misread' ? null : best.name,
          shape: others.shape,
        },
        fit: others,
        predict: predictor(others),
      }),
    });
  }
  for (const other of model.otherwise ?? []) {
    const fit = adjustTaped(other.model, readings, { tape, leaning: true });
    if (!fit) continue;
    out.push({
      // the further number's own prior; its constants cancel against Laplace's
      lnWeight: Math.log(other.prior) - Math.log(other.spreadMm) + fit.lnEvidence - fit.readings.length * HALF_LN_2PI,
      make: (probability) => ({
        suspect: {
          hypothesis: { kind: 'otherwise', is: other.is },
          probability,
          wouldBeMm: null,
          slipMm: other.sizeMm(fit.shape),
          looksLike: null,
          shape: fit.shape,
        },
        fit,
        predict: predictorOf(other.model, fit),
      }),
    });
  }
  const top = Math.max(...out.map((x) => x.lnWeight));
  const total = out.reduce((s, x) => s + Math.exp(x.lnWeight - top), 0);
  return out
    .map((x) => x.make(Math.exp(x.lnWeight - top) / total))
    .filter((x) => x.suspect.probability >= 0.01)
    .sort((a, b) => b.suspect.probability - a.suspect.probability);
}

export function nextTape(model: TapedModel, explained: readonly Explained[], readings: readonly TapeReading[], tape: TapeError): NextTape | null {
  const gains = model.keys.map((measure): NextTape => {
    const parts = explained.map((x, label) => {
      const { mean, variance } = x.predict(measure);
      return { label, weight: x.suspect.probability, mean, variance: variance + sigmaOf(model, measure, mean, tape) ** 2 };
    });
    return { measure, isRetape: readings.some((r) => r.measure === measure), gainBits: informationBits(parts) };
  });
  return bestNext(gains, explained.map((x) => x.suspect)); // prettier-ignore
}
