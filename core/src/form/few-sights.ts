import { addPacked, packedRows, timesPacked, squareInverter } from '../geometry/index.js';
import { type Memo } from '../ground/index.js';
import { bendSigmas, bendsAt, bendsLowOrHigh, DRIFT_SHARE, edgeBends, type Bending, type EdgeBends } from './edge-bends.js';
import { smoothPriors, typicalBow, uprightBow, type Rows, type SmoothPrior } from './pane-prior.js';
import type { Sight } from './sight.js';
import type { SplineBox } from './spline.js';

/** How a sight agrees with all the others. */
export interface SightCheck {
  readonly id: string;
  /** What the others say it should read, mm, and their standard deviation together with its own. */
  readonly expectedMm: number;
  readonly sigmaMm: number;
  /** (read − expected) / sigma. */
  readonly off: number;
  /** How likely a slip in it is, against no slip in any. */
  readonly slipFrac: number;
  /** Left out: a slip in it is far more likely than none. */
  readonly isOut: boolean;
}

/** A slip of the rule or of the pen: so often, so far. @source house rule, as for tapes */
const SLIP = { frac: 0.02, sigmaMm: 15 };
/** A sight is left out when a slip in it is so likely. */
const OUT_FRAC = 0.8;
/** The likeliest kinds of pane are kept until they are so much of all; no more than so many. */
const KEPT = { frac: 0.995, most: 64 };

/** A kind of pane as it may be beforehand: how stiff, which edges bend. */
interface Kind extends Bending {
  readonly stiff: number;
}
/** A square matrix row after row. */
type Square = Float64Array;
/** What the sights say of one kind. */
interface Verdict {
  readonly kind: Kind;
  readonly evidence: number;
  /** Diagonal of C⁻¹, and C⁻¹ y. */
  readonly diagonal: Float64Array;
  readonly weights: Float64Array;
}

/** Every kind of pane, looked at by what the sights would read of it: that is a small matrix, however fine the spline. */
interface Kinds {
  readonly list: readonly Kind[];
  readonly priors: readonly SmoothPrior[];
  /** Σ0 a of every sight, for every stiffness. */
  readonly solved: readonly Rows[];
  readonly bends: EdgeBends;
  /** What each sight reads of each bend. */
  readonly bent: Rows;
  /** Variance of each bend where its group is not meant, and what is added where it is. */
  readonly little: Float64Array;
  readonly strong: Float64Array;
  /** Covariance of what the sights would read, without their own errors: by stiffness, and what a group adds. */
  readonly ofStiff: readonly Square[];
  readonly ofGroup: readonly Square[];
}

function kindsOf(box: SplineBox, rows: Rows, sights: readonly Sight[], turnsIn: readonly ('lower' | 'upper')[], memo: Memo): Kinds {
  const priors = smoothPriors(box, sights, memo);
  const bends = edgeBends(box, memo);
  const m = rows.length;
  const { strongMm, littleMm } = bendSigmas(typicalBow(sights));
  const bent = rows.map((r) => Float64Array.from(bends.splines, (v) => timesPacked(r, v)));
  const [little, strong] = [littleMm, strongMm].map((mm) => bends.share.map((s) => (s * mm) ** 2)) as [Float64Array, Float64Array];
  const ofBends = (from: number, to: number, variance: Float64Array): Square => {
    const out = new Float64Array(m * m);
    for (let k = from; k < to; k++)
      for (let i = 0; i < m; i++) {
        const f = variance[k]! * bent[i]![k]!;
        if (f !== 0) for (let j = 0; j < m; j++) out[i * m + j]! += f * bent[j]![k]!;
      }
    return out;
  };
  little[bends.drift] = (DRIFT_SHARE * uprightBow(box, sights)) ** 2;
  const everywhere = ofBends(0, bends.splines.length, little);
  const solved = priors.map(({ factor }) => rows.map((r) => factor.solve(r)));
  const ofStiff = solved.map((s) => everywhere.map((v, k) => v + timesPacked(rows[Math.floor(k / m)]!, s[k % m]!)));
  const ofGroup = bends.groups.map(([from, to]) => ofBends(from, to, strong));
  // an edge that somebody saw turn in does bend
  const bendings = bends.bendings.filter((b) => turnsIn.every((side) => bendsAt(b, side)));
  const list = priors.flatMap(({ belief }, stiff) => bendings.map((b): Kind => ({ belief: belief + b.belief, stiff, groups: b.groups })));
  return { list, priors, solved, bends, bent, little, strong, ofStiff, ofGroup };
}

/**
 * The pane that few sights leave, as one normal distribution with the mean and covariance of the mixture of every kind of pane by how likely each is; and
 * what each sight has against it.
 * @param rows what the sights read of each spline
 * @param turnsIn edges that somebody saw turn in sharply
 */
export function paneOfFew(
  box: SplineBox,
  rows: Rows,
  sights: readonly Sight[],
  turnsIn: readonly ('lower' | 'upper')[],
  memo: Memo,
): { coefficients: Float64Array; covariance: Float64Array[]; checks: SightCheck[]; bendFrac: number } {
  const kinds = kindsOf(box, rows, sights, turnsIn, memo);
  const { verdicts, out, checks } = lookForSlips(kinds, sights);
  const parts = likely(verdicts);
  const bendFrac = parts.reduce((s, p) => s + (bendsLowOrHigh(p.kind) ? p.share : 0), 0);
  return { ...mixed(kinds, parts, noiseOf(sights, out)), checks, bendFrac };
}

/** Those that count, and their shares. */
function likely(verdicts: readonly Verdict[]): (Verdict & { readonly share: number })[] {
  const all = lnSum(verdicts.map((v) => v.evidence));
  const ranked = verdicts.map((v) => ({ ...v, share: Math.exp(v.evidence - all) })).sort((a, b) => b.share - a.share);
  let whole = 0;
  const kept = ranked.filter((k, i) => {
    if (whole >= KEPT.frac || i >= KEPT.most) return false;
    whole += k.share;
    return true;
  });
  return kept.map((k) => ({ ...k, share: k.share / whole }));
}

/**
 * Mean and covariance of the mixture: of each kind its mean Σa'C⁻¹y and its covariance Σ − Σa'C⁻¹aΣ, and how far the means lie apart. All that the sights
 * tell lies in the span of Σ0 a for each stiffness and of the bends; so it is summed in that small space and brought to the coefficients once.
 */
function mixed({ priors, solved, bends, bent, little, strong, ofStiff, ofGroup }: Kinds, parts: ReturnType<typeof likely>, noise: Float64Array) {
  const m = noise.length;
  const stiffs = [...new Set(parts.map((p) => p.kind.stiff))];
  const basis: Rows = [...stiffs.flatMap((s) => solved[s]!), ...bends.splines];
  const [size, nBends, first] = [basis.length, bends.splines.length, stiffs.length * m];
  const small = packedRows(size);
  const mean = new Float64Array(size);
  const look = looker(m);
  // used again for every kind: what a sight has of each bend, and C⁻¹ times that
  const [ofBend, told] = [new Float64Array(m * nBends), new Float64Array(m * nBends)];
  const means = parts.map(({ kind, share, weights }) => {
    const at = stiffs.indexOf(kind.stiff) * m;
    const variance = little.slice();
    for (const g of kind.groups) for (let k = bends.groups[g]![0]; k < bends.groups[g]![1]; k++) variance[k]! += strong[k]!;
    const { inverse } = look(kind, ofStiff, ofGroup, noise);
    const own = new Float64Array(size);
    for (let i = 0; i < m; i++) {
      own[at + i] = weights[i]!;
      for (let k = 0, b = bent[i]!; k < nBends; k++) {
        const v = b[k]! * variance[k]!;
        ofBend[i * nBends + k] = v;
        own[first + k]! += weights[i]! * v;
      }
    }
    told.fill(0);
    for (let i = 0; i < m; i++) {
      const to = small[at + i]!;
      for (let j = 0; j < m; j++) {
        const f = inverse[i * m + j]!;
        to[at + j]! -= share * f;
        for (let k = 0; k < nBends; k++) told[i * nBends + k]! += f * ofBend[j * nBends + k]!;
      }
      for (let k = 0; k < nBends; k++) to[first + k]! -= share * told[i * nBends + k]!;
    }
    for (let k = 0; k < nBends; k++) {
      const to = small[first + k]!;
      to[first + k]! += share * variance[k]!;
      for (let i = 0; i < m; i++) {
        const f = share * ofBend[i * nBends + k]!;
        if (f !== 0) for (let l = k; l < nBends; l++) to[first + l]! -= f * told[i * nBends + l]!;
      }
    }
    for (let k = 0; k < size; k++) mean[k]! += share * own[k]!;
    return { share, own };
  });
  for (const { share, own } of means)
    for (let i = 0; i < size; i++) for (let j = i, f = share * (own[i]! - mean[i]!), to = small[i]!; j < size; j++) to[j]! += f * (own[j]! - mean[j]!);
  for (let i = 0; i < size; i++) for (let j = 0; j < i; j++) small[i]![j] = small[j]![i]!;
  const n = basis[0]!.length;
  const covariance = packedRows(n);
  for (const stiff of stiffs) {
    const share = parts.reduce((s, p) => s + (p.kind.stiff === stiff ? p.share : 0), 0);
    const inverse = priors[stiff]!.inverse();
    for (let i = 0; i < n; i++) for (let j = i, to = covariance[i]!, row = inverse[i]!; j < n; j++) to[j]! += share * row[j]!;
  }
  const coefficients = new Float64Array(n);
  addPacked(coefficients, mean, basis);
  // basis' small basis, the half on and right of the diagonal
  const seen = packedRows(size, n);
  seen.forEach((to, p) => addPacked(to, small[p]!, basis));
  covariance.forEach((row, i) =>
    addPacked(
      row,
      Float64Array.from(basis, (b) => b[i]!),
      seen,
      i,
    ),
  );
  for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) covariance[i]![j] = covariance[j]![i]!;
  return { coefficients, covariance };
}

const indexOfBest = (list: readonly number[]): number => list.reduce((best, v, i) => (v > list[best]! ? i : best), 0);
function lnSum(list: readonly number[]): number {
  const most = list.reduce((a, b) => Math.max(a, b), -Infinity);
  return most + Math.log(list.reduce((s, v) => s + Math.exp(v - most), 0));
}

/** Variance of what each sight is off by itself; one that is a slip may be off by far more. */
const noiseOf = (sights: readonly Sight[], out: ReadonlySet<number>): Float64Array =>
  Float64Array.from(sights, (s, i) => s.sigmaMm ** 2 + (out.has(i) ? SLIP.sigmaMm ** 2 : 0));

/** Takes the covariances of m sights apart, five hundred times a pane, in the same squares each time. */
function looker(m: number) {
  const covariance = new Float64Array(m * m);
  const invert = squareInverter(m);
  return (kind: Kind, ofStiff: readonly Square[], ofGroup: readonly Square[], noise: Float64Array): { lnDeterminant: number; inverse: Square } => {
    covariance.set(ofStiff[kind.stiff]!);
    for (const g of kind.groups) for (let k = 0, add = ofGroup[g]!; k < covariance.length; k++) covariance[k]! += add[k]!;
    for (let j = 0; j < m; j++) covariance[j * m + j]! += noise[j]!;
    return invert(covariance);
  };
}

/** What the sights say of every kind. */
function verdictsOf({ list, ofStiff, ofGroup }: Kinds, values: Float64Array, noise: Float64Array): Verdict[] {
  const m = values.length;
  const look = looker(m);
  return list.map((kind) => {
    const { lnDeterminant, inverse } = look(kind, ofStiff, ofGroup, noise);
    const [diagonal, weights] = [new Float64Array(m), new Float64Array(m)];
    let misfit = 0;
    for (let i = 0; i < m; i++) {
      let w = 0;
      for (let j = 0; j < m; j++) w += inverse[i * m + j]! * values[j]!;
      weights[i] = w;
      diagonal[i] = inverse[i * m + i]!;
      misfit += w * values[i]!;
    }
    return { kind, evidence: kind.belief - 0.5 * (lnDeterminant + misfit), diagonal, weights };
  });
}

/**
 * Whether one of few sights is a slip: every sight in turn is taken as read far off, for every kind of pane, and weighed against none being so; the most
 * likely is left out and the rest looked through again.
 * @source one variance made larger by s² changes ln det C by ln(1 + s²[C⁻¹]ii) and y'C⁻¹y by −s²[C⁻¹y]i² / (1 + s²[C⁻¹]ii) (Golub & Van Loan, 2.1.4; from memory)
 */
function lookForSlips(kinds: Kinds, sights: readonly Sight[]): { verdicts: Verdict[]; out: Set<number>; checks: SightCheck[] } {
  const values = Float64Array.from(sights, (s) => s.valueMm);
  const out = new Set<number>();
  const odds = Math.log(SLIP.frac / (1 - SLIP.frac));
  const s2 = SLIP.sigmaMm ** 2;
  const most = Math.floor(sights.length / 5);
  let chance = sights.map(() => 0);
  for (;;) {
    const verdicts = verdictsOf(kinds, values, noiseOf(sights, out));
    const none = lnSum(verdicts.map((v) => v.evidence));
    const each = sights.map((_, i) => {
      if (out.has(i)) return -Infinity;
      const with_ = verdicts.map(({ evidence, diagonal, weights }) => {
        const grown = 1 + s2 * diagonal[i]!;
        return evidence - 0.5 * Math.log(grown) + (0.5 * s2 * weights[i]! ** 2) / grown;
      });
      return odds + lnSum(with_);
    });
    const all = lnSum([none, ...each.filter(Number.isFinite)]);
    const now = each.map((e) => Math.exp(e - all));
    chance = chance.map((was, i) => (out.has(i) ? was : now[i]!));
    const worst = indexOfBest(each);
    if (!(out.size < most && now[worst]! > OUT_FRAC && sights.length - out.size > 4))
      return { verdicts, out, checks: againstOthers(verdicts, sights, out, chance) };
    out.add(worst);
  }
}

/**
 * Each sight against all the others, for every kind of pane by how likely it is.
 * @source leaving one out of a Gaussian process: mean y − [C⁻¹y]/[C⁻¹], variance 1/[C⁻¹] (Rasmussen & Williams, Gaussian Processes for Machine Learning, 5.4.2; from memory)
 */
function againstOthers(verdicts: readonly Verdict[], sights: readonly Sight[], out: ReadonlySet<number>, chance: readonly number[]): SightCheck[] {
  const looks = likely(verdicts);
  return sights.map((s, i): SightCheck => {
    const parts = looks.map(({ share, diagonal, weights }) => ({
      share,
      mean: s.valueMm - weights[i]! / diagonal[i]!,
      variance: 1 / diagonal[i]! - (out.has(i) ? SLIP.sigmaMm ** 2 : 0),
    }));
    const expectedMm = parts.reduce((t, p) => t + p.share * p.mean, 0);
    const sigmaMm = Math.sqrt(parts.reduce((t, p) => t + p.share * (p.variance + (p.mean - expectedMm) ** 2), 0));
    return { id: s.id, expectedMm, sigmaMm, off: (s.valueMm - expectedMm) / sigmaMm, slipFrac: chance[i]!, isOut: out.has(i) };
  });
}
