import type { MeasureKey, PaneShape } from '@yellow-pane/contracts';
import { distance, flatten, rankOf, solveSymmetric, transposeTimes } from '../geometry/index.js';
import { matchedLevels } from '../ground/index.js';
import { handTape, houseLevels, tapeSigmaMm, type Adjustment, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { bestNext, informationBits, PRIOR, type NextTape, type Suspect } from './hypotheses.js';
import { boxOf, shapeModel, type Numbers, type ShapeModel } from './shape-models.js';
import { usualSlips } from './slips.js';
import type { Survey } from './survey.js';

/** What a perfect tape would read on this shape. */
export const shapeReading = (model: ShapeModel, p: Numbers, key: MeasureKey): number => distance(...model.ends(p, key));

/** Derivative by each number of the shape: central difference, small beside every size. */
function slopeOf(f: (p: Numbers) => number, p: Numbers): number[] {
  return p.map((v, i) => {
    const h = Math.abs(v) > 10 ? 0.01 : 1e-5;
    const at = (by: number) => f(p.map((x, j) => (j === i ? x + by : x)));
    return (at(h) - at(-h)) / (2 * h);
  });
}

const measureSlope = (model: ShapeModel, p: Numbers, key: MeasureKey): number[] => model.slope?.(p, key) ?? slopeOf((q) => shapeReading(model, q, key), p);

interface Fit extends Adjustment<Numbers> {
  /** Log evidence of these tapes by Laplace's method, but for a constant per tape. */
  readonly lnEvidence: number;
}
const quadratic = (g: readonly number[], q: readonly (readonly number[])[]): number =>
  g.reduce((s, a, i) => s + g.reduce((t, b, j) => t + a * q[i]![j]! * b, 0), 0);

/**
 * Least-squares adjustment of any taped outline. Where the tapes alone do not fix it, what is usual of the shape (plumb, round,
 * parallel) fills in, with its own spread; with `leaning` it always takes part, as the prior of the explanations. `near`: a shape to start from.
 * @returns null when not even a first shape can be had
 * @source docs/models/shapes.md; Gauss–Markov model, as for the four-sided opening
 */
export function adjustShape(
  model: ShapeModel,
  readings: readonly TapeReading[],
  {
    tape = handTape,
    levels = houseLevels,
    leaning = false,
    near = null,
  }: { tape?: TapeError; levels?: TestLevels; leaning?: boolean; near?: Numbers | null } = {},
): Fit | null {
  const rows = readings.filter((r) => model.keys.includes(r.measure) && r.lengthMm > 0);
  let p = near ?? model.start(new Map(rows.map((r) => [r.measure, r.lengthMm])));
  if (!p) return null;
  const sigmas = rows.map((r) => tapeSigmaMm(r.lengthMm, tape));
  const weights = sigmas.map((s) => 1 / s ** 2);
  const slopes = (at: Numbers) => rows.map((r) => measureSlope(model, at, r.measure));
  const rank = p.length === 0 ? 0 : rankOf(slopes(p));
  const isDetermined = rank === p.length;
  const pulls = !isDetermined || leaning;
  const system = (at: Numbers) => {
    const a = slopes(at);
    const usuals = pulls ? model.usual(at) : [];
    const pull = usuals.map((_, k) => slopeOf((q) => model.usual(q)[k]!.offMm, at));
    const all = [...a, ...pull];
    const w = [...weights, ...usuals.map((u) => 1 / u.sigmaMm ** 2)];
    const misfit = [...rows.map((r) => r.lengthMm - shapeReading(model, at, r.measure)), ...usuals.map((u) => -u.offMm)];
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
  const residuals = rows.map((r) => r.lengthMm - shapeReading(model, fit, r.measure));
  const qv = rows.map((_, i) =>
    rows.map((__, j) => (i === j ? sigmas[i]! ** 2 : 0) - a[i]!.reduce((s, x, k) => s + a[j]!.reduce((t, y, l) => t + x * inverse[k]![l]! * y, 0), 0)),
  );
  const redundancy = rows.length - rank;
  const { limit, alpha } = redundancy > 0 ? matchedLevels(levels.alpha0, levels.power, redundancy) : { limit: Infinity, alpha: levels.alpha0 };
  const chiSquare = redundancy > 0 ? residuals.reduce((s, v, i) => s + v * v * weights[i]!, 0) : 0;
  const pulled = pulls ? model.usual(fit).reduce((s, u) => s + (u.offMm / u.sigmaMm) ** 2, 0) : 0;
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

interface Explained {
  readonly suspect: Suspect<Numbers>;
  readonly fit: Fit;
  /** What reading i would be, and how sure. */
  readonly predict: (key: MeasureKey) => { mean: number; variance: number };
}

/**
 * Every tape in turn left out: how well the others agree, and whether what was read beside what they predict looks like a usual slip.
 * Each shape is fitted anew without the tape, so large slips do not bend the others.
 * @source docs/models/shapes.md §3: p(slip on i) ∝ prior × evidence of the others × Σ w·N(miss; m, v + σ²); evidence by Laplace's method
 */
function weighSlips(model: ShapeModel, readings: readonly TapeReading[], tape: TapeError): Explained[] {
  const predictor = (fit: Fit) => (key: MeasureKey) => ({
    mean: shapeReading(model, fit.shape, key),
    variance: quadratic(measureSlope(model, fit.shape, key), fit.covariance),
  });
  const whole = adjustShape(model, readings, { tape, leaning: true });
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
    const others = adjustShape(model, readings.filter((x) => x !== r), { tape, leaning: true, near: whole?.shape ?? null }); // prettier-ignore
    if (!others) continue;
    const { mean, variance } = predictor(others)(r.measure);
    const v = variance + tapeSigmaMm(r.lengthMm, tape) ** 2;
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
  const top = Math.max(...out.map((x) => x.lnWeight));
  const total = out.reduce((s, x) => s + Math.exp(x.lnWeight - top), 0);
  return out
    .map((x) => x.make(Math.exp(x.lnWeight - top) / total))
    .filter((x) => x.suspect.probability >= 0.01)
    .sort((a, b) => b.suspect.probability - a.suspect.probability);
}

function nextTape(model: ShapeModel, explained: readonly Explained[], readings: readonly TapeReading[], tape: TapeError): NextTape | null {
  const gains = model.keys.map((measure): NextTape => {
    const parts = explained.map((x, label) => {
      const { mean, variance } = x.predict(measure);
      return { label, weight: x.suspect.probability, mean, variance: variance + tapeSigmaMm(mean, tape) ** 2 };
    });
    return { measure, isRetape: readings.some((r) => r.measure === measure), gainBits: informationBits(parts) };
  });
  return bestNext(gains, explained.map((x) => x.suspect)); // prettier-ignore
}

const noBows: Survey['bowsMm'] = { bowTop: 0, bowRight: 0, bowBottom: 0, bowLeft: 0 };
const nothing = { crookedness: null, suspects: [], next: null, disagreeMm: 0, possibleOutlines: [], cannotCheck: [], impossible: [], bowsMm: noBows } as const;

/** Judges the tapes of one pane that is not four-sided, as a four-sided one is judged. @param readings in force, at most one per measure, mm */
export function surveyShape(
  shape: PaneShape,
  readings: readonly TapeReading[],
  { tape = handTape, levels = houseLevels }: { tape?: TapeError; levels?: TestLevels } = {},
): Survey {
  const model = shapeModel(shape);
  const used = readings.filter((r) => model.keys.includes(r.measure) && r.lengthMm > 0);
  const fit = adjustShape(model, used, { tape, levels });
  const isBroken = !fit && shape.kind === 'polygon' && used.length >= 2 * shape.corners - 3;
  if (!fit)
    return {
      ...nothing,
      shape,
      status: isBroken ? 'impossible' : 'nothing',
      adjustment: null,
      outline: null,
      path: null,
      boxSigmaMm: null,
      impossible: isBroken ? used.map((r) => r.measure) : [],
    };
  const path = model.outline(fit.shape);
  const box = (p: Numbers) => boxOf(model.outline(p));
  const spread = (f: (p: Numbers) => number) => Math.sqrt(Math.max(0, quadratic(slopeOf(f, fit.shape), fit.covariance)));
  const outline = flatten(path);
  const base = {
    shape,
    adjustment: fit,
    outline,
    path,
    crookedness: null,
    bowsMm: noBows,
    boxSigmaMm: { width: spread((p) => box(p).maxX - box(p).minX), height: spread((p) => box(p).maxY - box(p).minY) },
  };
  const cannotCheck = [...(fit.redundancy === 0 ? ['No tape here checks another: a slip would pass unseen.'] : []), ...model.blindTo];
  if (fit.passes) return { ...nothing, ...base, status: fit.redundancy === 0 ? 'unchecked' : 'agreeing', possibleOutlines: [outline], cannotCheck };
  const explained = weighSlips(model, used, tape);
  const blamed = explained.map((x) => x.suspect).filter((s) => s.hypothesis.kind !== 'no-slip');
  const outlines = explained.filter((x) => x.suspect.probability >= 0.02).map((x) => flatten(model.outline(x.fit.shape)));
  return {
    ...nothing,
    ...base,
    status: 'doubtful',
    suspects: explained.map((x) => x.suspect),
    next: nextTape(model, explained, used, tape),
    disagreeMm: blamed.length ? Math.min(...blamed.filter((s) => s.probability > 0.05 * blamed[0]!.probability).map((s) => Math.abs(s.slipMm))) : 0,
    possibleOutlines: outlines.length ? outlines : [outline],
    cannotCheck,
  };
}
