import type { MeasureKey } from '@yellow-pane/contracts';
import { solveSymmetric } from '../geometry/index.js';
import {
  adjustOpening,
  crookednessRows,
  firstGuess,
  handTape,
  tapeSigmaMm,
  usualRackMm,
  usualTaperMm,
  type TapeError,
  type TapeReading,
} from './adjustment.js';
import { bowKeys, readingSlope, tapeOrder, trueReading, type BowKey, type Shape } from './opening.js';
import { usualSlips } from './slips.js';

/** One explanation of tapes that disagree. */
export type Hypothesis =
  | { readonly kind: 'no-slip' }
  | { readonly kind: 'slip'; readonly measure: MeasureKey }
  | { readonly kind: 'bowed'; readonly bow: BowKey }
  | { readonly kind: 'swapped'; readonly measures: readonly [MeasureKey, MeasureKey] }
  /** No slip: the thing is shaped otherwise than its kind usually is. */
  | { readonly kind: 'otherwise'; readonly is: string };

export interface Suspect<S extends readonly number[] = Shape> {
  readonly hypothesis: Hypothesis;
  readonly probability: number;
  /** What the reading would have been, fitted from the others alone; null for a bowed side. */
  readonly wouldBeMm: number | null;
  /** Typed minus true; for a bowed side the gap in its middle. */
  readonly slipMm: number;
  /** The usual slip that this one looks like. */
  readonly looksLike: string | null;
  /** The opening if this is the explanation. */
  readonly shape: S;
}

/** A further measure that would tell the explanations apart. */
export interface NextTape {
  readonly measure: MeasureKey;
  readonly isRetape: boolean;
  /** Expected information on which explanation holds, bits. */
  readonly gainBits: number;
}

/**
 * How likely each explanation is before looking at the numbers. @source house rule, docs/models/survey.md §4:
 * one tape in fifty carries a slip, one side in fifty is bowed by more than the tape shows, one pair in five hundred is exchanged.
 */
/** A slip that is made in one tape is made in the same way again when the place is taped anew, one time in twenty. @source house rule */
const SAME_SLIP_AGAIN = 0.05;
/** How much less a tape is to blame for having been taken anew with the same result. */
const lessBlame = (r: TapeReading): number => SAME_SLIP_AGAIN ** ((r.times ?? 1) - 1);
export const PRIOR = { slip: 0.02, bowed: 0.02, swapped: 0.002, noSlip: 0.8 };
/** A bowed side, 1 σ of its gap. @source house rule */
const BOW_SIGMA_MM = 8;
const STRAIGHTEDGE_SIGMA_MM = 0.7;
/** So near to a usual slip a slip is called by its name. @source house rule: two tapes' own errors */
const NAMED_WITHIN_MM = 3;
export const bowActsOn: Record<BowKey, MeasureKey> = { bowLeft: 'widthMiddle', bowRight: 'widthMiddle', bowTop: 'heightMiddle', bowBottom: 'heightMiddle' };

/** One Gaussian of the mixture: label, prior weight, mean shift and extra spread along one direction of the readings. */
interface Component {
  readonly label: number;
  readonly lnPrior: number;
  readonly values: readonly number[];
  readonly direction: readonly number[] | null;
  readonly meanMm: number;
  readonly spreadMm: number;
  readonly crooked: { taper: number; rack: number };
  readonly name: string | null;
  /** Set when the shift is a true bow of this side, not a slip of the hand: then it acts on further readings too. */
  readonly bow: BowKey | null;
}

interface Fitted {
  readonly component: Component;
  readonly lnEvidence: number;
  /** Linear predictor of any further reading: mean and variance. */
  readonly predict: (key: MeasureKey) => { mean: number; variance: number };
}

const dotProduct = (a: readonly number[], b: readonly number[]): number => a.reduce((s, v, i) => s + v * b[i]!, 0);

/** Prior covariance of the five numbers: size unknown, crookedness as usual. */
function shapeCovariance(taper: number, rack: number): number[][] {
  const far = 1 / 1e4 ** 2;
  const rows: (readonly number[])[] = [[1, 0, 0, 0, 0], [0, 0, 0, 0, 1], ...crookednessRows];
  const weights = [far, far, 1 / taper ** 2, 1 / taper ** 2, 1 / rack ** 2];
  const precision = Array.from({ length: 5 }, (_, i) => Array.from({ length: 5 }, (_, j) => rows.reduce((s, r, k) => s + weights[k]! * r[i]! * r[j]!, 0)));
  return solveSymmetric(precision, new Array(5).fill(0)).inverse;
}

function weigh(component: Component, keys: readonly MeasureKey[], sigmas: readonly number[], at: Shape, covariance: number[][]): Fitted {
  const slopes = keys.map((k) => readingSlope(at, k));
  const carried = slopes.map((s) => covariance.map((row) => dotProduct(row, s)));
  const { direction, spreadMm, meanMm, values } = component;
  const sigma = keys.map((_, i) =>
    keys.map((_, j) => {
      const shared = direction ? spreadMm ** 2 * direction[i]! * direction[j]! : 0;
      return dotProduct(slopes[i]!, carried[j]!) + shared + (i === j ? sigmas[i]! ** 2 : 0);
    }),
  );
  const misfit = keys.map((k, i) => values[i]! - trueReading(at, k) - (direction ? meanMm * direction[i]! : 0));
  const { solution, inverse, lnDeterminant } = solveSymmetric(sigma, misfit);
  const lnEvidence = component.lnPrior - 0.5 * (dotProduct(misfit, solution) + lnDeterminant);
  const predict = (key: MeasureKey) => {
    const slope = readingSlope(at, key);
    const own = covariance.map((row) => dotProduct(row, slope));
    const acts = component.bow !== null && (key === component.bow || key === bowActsOn[component.bow]) ? 1 : 0;
    const link = keys.map((_, i) => dotProduct(slopes[i]!, own) + (acts ? spreadMm ** 2 * acts * direction![i]! : 0));
    const mean = trueReading(at, key) + dotProduct(link, solution);
    const pulled = inverse.map((row) => dotProduct(row, link));
    const variance = dotProduct(slope, own) + (acts ? (spreadMm * acts) ** 2 : 0) - dotProduct(link, pulled);
    return { mean, variance: Math.max(variance, 0) };
  };
  return { component, lnEvidence, predict };
}

/** All explanations as Gaussians, for a usual, a crooked and a very crooked opening (weights: house rule). */
function components(readings: readonly TapeReading[], calledCrooked: boolean): { hypotheses: Hypothesis[]; list: Component[] } {
  const values = readings.map((r) => r.lengthMm);
  const hypotheses: Hypothesis[] = [{ kind: 'no-slip' }];
  const list: Component[] = [];
  const kinds = [
    { taper: usualTaperMm, rack: usualRackMm, weight: calledCrooked ? 0.2 : 0.75 },
    { taper: 3 * usualTaperMm, rack: 3 * usualRackMm, weight: calledCrooked ? 0.5 : 0.2 },
    { taper: 9 * usualTaperMm, rack: 9 * usualRackMm, weight: calledCrooked ? 0.3 : 0.05 },
  ];
  const push = (c: Omit<Component, 'lnPrior' | 'crooked'>, prior: number) =>
    kinds.forEach((crooked) => list.push({ ...c, crooked, lnPrior: Math.log(prior * crooked.weight) }));
  const along = (...keys: MeasureKey[]) => readings.map((r) => (keys.includes(r.measure) ? 1 : 0));
  push({ label: 0, values, direction: null, meanMm: 0, spreadMm: 0, name: null, bow: null }, PRIOR.noSlip);
  for (const r of readings) {
    if ((bowKeys as readonly string[]).includes(r.measure)) continue;
    const label = hypotheses.push({ kind: 'slip', measure: r.measure }) - 1;
    for (const s of usualSlips(r.lengthMm))
      push(
        { label, values, direction: along(r.measure), meanMm: s.meanMm, spreadMm: s.sigmaMm, name: s.name, bow: null },
        PRIOR.slip * s.weight * lessBlame(r),
      );
  }
  for (const bow of bowKeys) {
    if (!readings.some((r) => r.measure === bowActsOn[bow])) continue;
    const label = hypotheses.push({ kind: 'bowed', bow }) - 1;
    push({ label, values, direction: along(bowActsOn[bow], bow), meanMm: 0, spreadMm: BOW_SIGMA_MM, name: 'bowed', bow }, PRIOR.bowed);
  }
  const tapes = readings.map((r, i) => ({ r, i })).filter(({ r }) => (tapeOrder as readonly string[]).includes(r.measure));
  for (const { r: a, i } of tapes)
    for (const { r: b, i: j } of tapes) {
      if (j <= i || Math.abs(a.lengthMm - b.lengthMm) < 5) continue;
      const label = hypotheses.push({ kind: 'swapped', measures: [a.measure, b.measure] }) - 1;
      const exchanged = values.map((v, k) => (k === i ? values[j]! : k === j ? values[i]! : v));
      push({ label, values: exchanged, direction: null, meanMm: 0, spreadMm: 0, name: 'swapped', bow: null }, PRIOR.swapped * lessBlame(a) * lessBlame(b));
    }
  return { hypotheses, list };
}

/** Expected information (bits) of a new reading on the label, by integrating over the mixture of its predictions. */
export function informationBits(parts: readonly { label: number; weight: number; mean: number; variance: number }[]): number {
  const sds = parts.map((p) => Math.sqrt(p.variance));
  const low = Math.min(...parts.map((p, i) => p.mean - 5 * sds[i]!));
  const high = Math.max(...parts.map((p, i) => p.mean + 5 * sds[i]!));
  const steps = Math.min(3000, Math.max(200, Math.ceil((high - low) / 0.4)));
  const dz = (high - low) / steps;
  const labels = [...new Set(parts.map((p) => p.label))];
  const weightOf = new Map(labels.map((l) => [l, parts.filter((p) => p.label === l).reduce((s, p) => s + p.weight, 0)]));
  let bits = 0;
  for (let k = 0; k <= steps; k++) {
    const z = low + k * dz;
    const density = new Map<number, number>();
    parts.forEach((p, i) => {
      const d = (z - p.mean) / sds[i]!;
      if (Math.abs(d) < 7) density.set(p.label, (density.get(p.label) ?? 0) + (p.weight * Math.exp(-0.5 * d * d)) / (sds[i]! * 2.5066282746));
    });
    const all = [...density.values()].reduce((s, v) => s + v, 0);
    if (all < 1e-300) continue;
    for (const [label, d] of density) if (d > 0) bits += d * Math.log2(d / (all * weightOf.get(label)!)) * dz;
  }
  return Math.max(0, bits);
}

/** The shape and the mended value that one explanation leaves, from the other readings alone. */
function mended(h: Hypothesis, readings: readonly TapeReading[], fitted: Fitted, tape: TapeError): Omit<Suspect, 'hypothesis' | 'probability'> {
  const looksLike = h.kind === 'bowed' ? fitted.component.name : null;
  if (h.kind === 'slip') {
    const others = adjustOpening(
      readings.filter((r) => r.measure !== h.measure),
      tape,
    );
    const read = readings.find((r) => r.measure === h.measure)!.lengthMm;
    const predicted = fitted.predict(h.measure).mean;
    const wouldBeMm = others && others.isDetermined ? trueReading(others.shape, h.measure) : predicted;
    const shape = others?.isDetermined
      ? others.shape
      : adjustOpening(
          readings.map((r) => (r.measure === h.measure ? { ...r, lengthMm: predicted } : r)),
          tape,
        )!.shape;
    // named by a usual slip only where it is that one: 660 for 600 is no digits exchanged, however near 606 may be
    const isNamed = fitted.component.name !== 'misread' && Math.abs(read - wouldBeMm - fitted.component.meanMm) <= NAMED_WITHIN_MM;
    return { wouldBeMm, slipMm: read - wouldBeMm, looksLike: isNamed ? fitted.component.name : null, shape };
  }
  if (h.kind === 'bowed') {
    const others = adjustOpening(
      readings.filter((r) => r.measure !== bowActsOn[h.bow]),
      tape,
    )!;
    const read = readings.find((r) => r.measure === bowActsOn[h.bow])!.lengthMm;
    return { wouldBeMm: null, slipMm: read - trueReading(others.shape, bowActsOn[h.bow]), looksLike, shape: others.shape };
  }
  const [a, b] = h.kind === 'swapped' ? h.measures : [null, null];
  const value = (k: MeasureKey | null) => readings.find((r) => r.measure === k)?.lengthMm ?? 0;
  const exchanged = readings.map((r) => (r.measure === a ? { ...r, lengthMm: value(b) } : r.measure === b ? { ...r, lengthMm: value(a) } : r));
  return { wouldBeMm: h.kind === 'swapped' ? value(b) : null, slipMm: value(a) - value(b), looksLike, shape: adjustOpening(exchanged, tape)!.shape };
}

/**
 * Weighs every explanation of tapes that disagree, and finds the one further measure that best tells them apart.
 * Bayes on the linearised adjustment: openings are usually nearly rectangular, one tape at most slipped, a side may be bowed.
 * @returns suspects from the most to the least probable, down to 1 %; empty when no rectangle can be had
 * @source docs/models/survey.md §4
 */
export function weighExplanations(
  readings: readonly TapeReading[],
  calledCrooked: boolean,
  tape: TapeError = handTape,
): { suspects: Suspect[]; next: NextTape | null } {
  const at = firstGuess(readings);
  if (!at) return { suspects: [], next: null };
  const { hypotheses, list } = components(readings, calledCrooked);
  const keys = readings.map((r) => r.measure);
  const sigmas = readings.map((r) => ((bowKeys as readonly string[]).includes(r.measure) ? STRAIGHTEDGE_SIGMA_MM : tapeSigmaMm(r.lengthMm, tape)));
  const covariances = new Map<number, number[][]>();
  const fits = list.map((c) => {
    if (!covariances.has(c.crooked.taper)) covariances.set(c.crooked.taper, shapeCovariance(c.crooked.taper, c.crooked.rack));
    return weigh(c, keys, sigmas, at, covariances.get(c.crooked.taper)!);
  });
  const top = Math.max(...fits.map((f) => f.lnEvidence));
  const raw = fits.map((f) => Math.exp(f.lnEvidence - top));
  const total = raw.reduce((s, v) => s + v, 0);
  const weights = raw.map((v) => v / total);
  const suspects = hypotheses
    .map((hypothesis, label) => {
      const own = fits.map((f, i) => ({ f, w: weights[i]! })).filter(({ f }) => f.component.label === label);
      const best = own.reduce((a, b) => (b.w > a.w ? b : a));
      return { hypothesis, probability: own.reduce((s, o) => s + o.w, 0), best: best.f };
    })
    .filter((s) => s.probability >= 0.01)
    .sort((a, b) => b.probability - a.probability)
    .map(({ hypothesis, probability, best }) => ({ hypothesis, probability, ...mended(hypothesis, readings, best, tape) }));
  const live = fits.map((f, i) => ({ f, w: weights[i]! })).filter((x) => x.w > 1e-4);
  const candidates: MeasureKey[] = [...tapeOrder, ...bowKeys.filter((b) => keys.includes(bowActsOn[b]) && !keys.includes(b))];
  const gains = candidates.map((measure): NextTape => {
    const isBow = (bowKeys as readonly string[]).includes(measure);
    const noise = isBow ? STRAIGHTEDGE_SIGMA_MM : tapeSigmaMm(trueReading(at, measure), tape);
    const parts = live.map(({ f, w }) => {
      const p = f.predict(measure);
      return { label: f.component.label, weight: w, mean: p.mean, variance: p.variance + noise ** 2 };
    });
    return { measure, isRetape: keys.includes(measure), gainBits: informationBits(parts) };
  });
  return { suspects, next: bestNext(gains, suspects) };
}

/** The measure that tells most; among those nearly as good, the one that is suspected most, for it mends at once. */
export function bestNext(gains: readonly NextTape[], suspects: readonly Pick<Suspect, 'hypothesis' | 'probability'>[]): NextTape | null {
  const blame = (key: MeasureKey) =>
    suspects.reduce((s, x) => {
      const h = x.hypothesis;
      const hit = (h.kind === 'slip' && h.measure === key) || (h.kind === 'bowed' && h.bow === key) || (h.kind === 'swapped' && h.measures.includes(key));
      return hit ? s + x.probability : s;
    }, 0);
  const most = Math.max(...gains.map((g) => g.gainBits));
  const good = gains.filter((g) => g.gainBits >= 0.85 * most || (most < 0.1 && blame(g.measure) > 0.5));
  return good.sort((a, b) => blame(b.measure) - blame(a.measure) || b.gainBits - a.gainBits)[0] ?? null;
}
