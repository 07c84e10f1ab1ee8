import fc from 'fast-check';
import { seededRandom } from '../ground/index.js';
import { balancedAnchor } from './balance.js';
import { sightsOfBows } from './bow-sights.js';
import { dishOver, inputOf, normal, readBows, sheet } from './curved-panes.testing.js';
import { straightLine } from './anchor-line.js';
import { fitPane } from './pane-fit.js';
import { straightedgeOf, usualBows } from './pane-outline.js';
import { shrinkField } from './shrink-field.js';
import { shrinkPlan } from './shrink-plan.js';
import { nextBow, slackForm, weigh } from './slack-range.js';
import { heightSurface } from './surface.js';
import { curvatureChange, splineHeight, splineSurface, type SplineBox } from './spline.js';

const outline = sheet(1200, 600);
const box = { minX: -60, minY: -60, maxX: 1260, maxY: 660 };
const fitOf = (height: (x: number, y: number) => number, places = usualBows(outline), error?: () => number) => {
  const bows = readBows(outline, height, places, error);
  return { bows, fit: fitPane(box, sightsOfBows(outline, bows).sights) };
};
const gap = (fit: ReturnType<typeof fitPane>, place: Parameters<typeof straightedgeOf>[1]) => {
  const e = straightedgeOf(outline, place)!;
  const z = (p: { x: number; y: number }) => splineHeight(fit.box, fit.coefficients)(p.x, p.y).z;
  return z(e.middle) - (z(e.from) + z(e.to)) / 2;
};

describe('a pane out of eight bows', () => {
  test('a dish reads back: every bow within a tenth of a millimetre, also where none was laid', () => {
    const { fit, bows } = fitOf(dishOver(1200, 600, 45, 10));
    for (const b of bows) expect(gap(fit, b)).toBeCloseTo(b.depthMm, 1);
    expect(gap(fit, { way: 'across', atMm: 200, span: null })).toBeCloseTo(45, 0);
    expect(gap(fit, { way: 'upright', atMm: 380, span: null })).toBeCloseTo(10, 0);
  });
  test('a bow that was misread by 15 mm is named, left out, and told what it should read', () => {
    const bows = readBows(outline, dishOver(1200, 600, 45, 10)).map((b, i) => (i === 1 ? { ...b, depthMm: 60, typed: '60' } : b));
    const plan = shrinkPlan(inputOf(outline, { bows }));
    expect(plan.suspects).toHaveLength(1);
    expect(plan.suspects[0]).toMatchObject({ bowId: bows[1]!.id, isOut: true });
    expect(plan.suspects[0]!.expectedMm).toBeCloseTo(45, 0);
    expect(plan.suspects[0]!.text).toContain('reads 60; all the others together say 45.0 mm');
    // and the plan is as good as without the slip
    const clean = shrinkPlan(inputOf(outline, { bows: readBows(outline, dishOver(1200, 600, 45, 10)) }));
    expect(plan.below.slackMm).toBeCloseTo(clean.below.slackMm, 0);
  });
  test('hands that are off by half a millimetre make no slip (60 surveys, at most one called one)', () => {
    const deviate = normal(seededRandom(11));
    let called = 0;
    for (let k = 0; k < 60; k++) called += fitOf(dishOver(1200, 600, 45, 10), undefined, () => 0.5 * deviate()).fit.checks.some((c) => c.isOut) ? 1 : 0;
    expect(called).toBeLessThanOrEqual(1);
  });
  test('level and upright bows and diagonals close: depth of the middle under the corners comes out the same three ways, so one bad diagonal shows', () => {
    // bows on the very edges make it exact: across(mid) + mean of upright(edges) = upright(mid) + mean of across(edges) = mean of the diagonals
    const places = [0, 300, 600].map((atMm) => ({ way: 'across' as const, atMm, span: null }));
    const ups = [0, 600, 1200].map((atMm) => ({ way: 'upright' as const, atMm, span: null }));
    const dia = (['down', 'up'] as const).map((way) => ({ way, atMm: 0, span: null }));
    const b = readBows(outline, (x, y) => dishOver(1200, 600, 45, 10)(x, y) + 4e-9 * (x - 600) ** 2 * (y - 300), [...places, ...ups, ...dia]);
    const d = b.map((x) => x.depthMm);
    expect(d[1]! + (d[3]! + d[5]!) / 2).toBeCloseTo(d[4]! + (d[0]! + d[2]!) / 2, 9);
    expect(d[1]! + (d[3]! + d[5]!) / 2).toBeCloseTo((d[6]! + d[7]!) / 2, 9);
    const off = b.map((x, i) => (i === 6 ? { ...x, depthMm: x.depthMm - 12 } : x));
    expect(fitPane(box, sightsOfBows(outline, off).sights).checks.filter((c) => c.isOut).map((c) => c.id)).toEqual([b[6]!.id]); // prettier-ignore
  });
});

describe('how sure the slack is', () => {
  const lineOf = (fit: ReturnType<typeof fitPane>) => straightLine(fit.surface, outline, { through: { u: 600, v: 300 }, way: { du: 1, dv: 0 } }, 20);
  test('moments of the slack against five hundred panes drawn from what the bows leave, each laid out anew (Monte Carlo)', () => {
    const { fit } = fitOf(dishOver(1200, 600, 45, 10));
    const line = lineOf(fit);
    const w = weigh(fit, slackForm(fit, outline, line, 'below'));
    const deviate = normal(seededRandom(4));
    const n = fit.coefficients.length;
    // root of the covariance, column by column
    const root = Array.from({ length: n }, () => new Float64Array(n));
    for (let j = 0; j < n; j++) {
      for (let i = j; i < n; i++) {
        let s = fit.covariance[i]![j]! + (i === j ? 1e-9 : 0);
        for (let k = 0; k < j; k++) s -= root[i]![k]! * root[j]![k]!;
        root[i]![j] = i === j ? Math.sqrt(Math.max(s, 1e-12)) : s / root[j]![j]!;
      }
    }
    const draws: number[] = [];
    for (let k = 0; k < 500; k++) {
      const e = Array.from({ length: n }, () => deviate());
      const c = fit.coefficients.map((v, i) => v + root[i]!.reduce((s, r, j) => s + r * e[j]!, 0));
      draws.push(shrinkField(splineSurface(fit.box, c), outline, { through: { u: 600, v: 300 }, way: { du: 1, dv: 0 } }, { stepMm: 60 }).slackBelowMm);
    }
    const mean = draws.reduce((s, v) => s + v, 0) / draws.length;
    const sigma = Math.sqrt(draws.reduce((s, v) => s + (v - mean) ** 2, 0) / draws.length);
    const exact = shrinkField(fit.surface, outline, { through: { u: 600, v: 300 }, way: { du: 1, dv: 0 } }, { stepMm: 60 }).slackBelowMm;
    expect(w.sigmaMm / sigma).toBeGreaterThan(0.85);
    expect(w.sigmaMm / sigma).toBeLessThan(1.15);
    // three standard errors of the mean of five hundred
    expect(Math.abs(mean - exact - w.biasMm)).toBeLessThan((3 * sigma) / Math.sqrt(draws.length));
    // leading order against the threads themselves
    expect(w.atFitMm / exact).toBeCloseTo(1, 1);
  });
  test('±1 mm in a bow of 5 mm is a fifth of the answer (CHECKS): a pane with one upright bow of 5 is not known better than that', () => {
    const { fit } = fitOf(
      dishOver(1200, 600, 45, 5),
      usualBows(outline).filter((p) => p.way === 'across' || (p.way === 'upright' && p.atMm === 600)),
    );
    const w = weigh(fit, slackForm(fit, outline, lineOf(fit), 'below'));
    expect((2 * w.sigmaMm) / w.atFitMm).toBeGreaterThan(0.2);
  });
  test('smooth panes that nobody chose, bows read by hand: the range holds the true slack nine times in ten', () => {
    const random = seededRandom(21);
    const deviate = normal(random);
    let [held, all] = [0, 0];
    for (let k = 0; k < 60; k++) {
      const [a, b, t, q] = [20 + 50 * random(), 3 + 15 * random(), 6e-9 * (random() - 0.5), 3e-11 * (random() - 0.3)];
      const height = (x: number, y: number) => dishOver(1200, 600, a, b)(x, y) + t * (x - 600) ** 2 * (y - 300) - q * (y - 300) ** 2 * (x - 600) ** 2;
      const { fit } = fitOf(height, undefined, () => 0.5 * deviate());
      const line = lineOf(fit);
      const h = 1;
      const truth = shrinkField(
        heightSurface((x, y) => {
          const z = height(x, y);
          const [l, r, d, u] = [height(x - h, y), height(x + h, y), height(x, y - h), height(x, y + h)];
          const zxy = (height(x + h, y + h) - height(x + h, y - h) - height(x - h, y + h) + height(x - h, y - h)) / 4;
          return { z, zx: (r - l) / 2, zy: (u - d) / 2, zxx: l + r - 2 * z, zyy: u + d - 2 * z, zxy };
        }),
        outline,
        { through: { u: 600, v: 300 }, way: { du: 1, dv: 0 } },
        { stepMm: 60 },
      );
      for (const side of ['below', 'above'] as const) {
        const w = weigh(fit, slackForm(fit, outline, line, side));
        const mine = shrinkField(fit.surface, outline, { through: { u: 600, v: 300 }, way: { du: 1, dv: 0 } }, { stepMm: 60 });
        const [got, is] = side === 'below' ? [mine.slackBelowMm, truth.slackBelowMm] : [mine.slackAboveMm, truth.slackAboveMm];
        held += Math.abs(got + w.biasMm - is) <= 2 * w.sigmaMm ? 1 : 0;
        all++;
      }
    }
    expect(held / all).toBeGreaterThan(0.9);
  });
  test('the one more bow that is asked for does narrow the range as promised, and none of the others does it more', () => {
    const places = usualBows(outline).slice(0, 4);
    const { fit } = fitOf(dishOver(1200, 600, 45, 10), places);
    const line = lineOf(fit);
    const both = (f: typeof fit) => (['above', 'below'] as const).map((side) => weigh(f, slackForm(f, outline, lineOf(f), side)));
    const asked = nextBow(fit, outline, both(fit), places)!;
    expect(asked.place.way).toBe('upright');
    const after = fitOf(dishOver(1200, 600, 45, 10), [...places, asked.place]).fit;
    const wide = (f: typeof fit) => Math.hypot(...both(f).map((w) => w.sigmaMm));
    expect(1 - wide(after) / wide(fit)).toBeGreaterThan(asked.narrowsFrac / 2);
    expect(line.length).toBeGreaterThan(3);
  });
});

describe('splines', () => {
  const b: SplineBox = { minX: 0, minY: 0, maxX: 700, maxY: 400, nx: 7, ny: 5 };
  const random = seededRandom(9);
  const c = Array.from({ length: 80 }, () => 10 * random());
  test('derivatives are those of the height (central differences)', () =>
    fc.assert(
      fc.property(fc.double({ min: 5, max: 695, noNaN: true }), fc.double({ min: 5, max: 395, noNaN: true }), (x, y) => {
        const f = splineHeight(b, c);
        const [here, e] = [f(x, y), 1e-3];
        expect(here.zx).toBeCloseTo((f(x + e, y).z - f(x - e, y).z) / 2 / e, 5);
        expect(here.zyy).toBeCloseTo((f(x, y + e).zy - f(x, y - e).zy) / 2 / e, 4);
        expect(here.zxx).toBeCloseTo((f(x + e, y).zx - f(x - e, y).zx) / 2 / e, 4);
        expect(here.zxy).toBeCloseTo((f(x, y + e).zx - f(x, y - e).zx) / 2 / e, 4);
      }),
    ));
  test('a dish, a saddle and a plane change no curvature: nothing speaks against them', () => {
    // coefficients of a quadratic on uniform knots: its own values at the knots, less a constant share of the second differences
    const n = b.nx + 3;
    const [hx, hy] = [100, 80];
    const quadratic = Array.from({ length: 80 }, (_, k) => {
      const [u, v] = [((k % n) - 1) * hx, (Math.floor(k / n) - 1) * hy];
      return 3e-4 * (u * u - (hx * hx) / 3) - 2e-4 * (v * v - (hy * hy) / 3) + 1e-4 * u * v + 0.1 * u - 0.2 * v + 7;
    });
    expect(splineHeight(b, quadratic)(333, 222).z).toBeCloseTo(3e-4 * 333 ** 2 - 2e-4 * 222 ** 2 + 1e-4 * 333 * 222 + 33.3 - 44.4 + 7, 6);
    const m = curvatureChange(b);
    const energy = quadratic.reduce((s, v, i) => s + v * m[i]!.reduce((t, w, j) => t + w * quadratic[j]!, 0), 0);
    expect(Math.abs(energy)).toBeLessThan(1e-12);
    expect(c.reduce((s, v, i) => s + v * m[i]!.reduce((t, w, j) => t + w * c[j]!, 0), 0)).toBeGreaterThan(1e-6);
  });
});

describe('a pane whose lower edge is bent once more, abruptly', () => {
  const random = seededRandom(33);
  const deviate = normal(random);
  /** Rolled across, little curved upright, and from somewhere in its lowest third on bent as far as 12 to 30 mm. */
  const bentPane = () => {
    const [across, upright, from, off] = [35 + 25 * random(), 4 + 6 * random(), 110 + 110 * random(), 12 + 18 * random()];
    return (x: number, y: number) => dishOver(1200, 600, across, upright)(x, y) - off * (Math.max(0, from - y) / from) ** 2;
  };
  const curved = (height: (x: number, y: number) => number) =>
    heightSurface((x, y) => {
      const h = 0.5;
      const z = height(x, y);
      const [l, r, d, u] = [height(x - h, y), height(x + h, y), height(x, y - h), height(x, y + h)];
      return { z, zx: (r - l) / (2 * h), zy: (u - d) / (2 * h), zxx: (l + r - 2 * z) / h ** 2, zyy: (u + d - 2 * z) / h ** 2, zxy: 0 };
    });
  test('whoever lays the straightedge where the survey asks, four times at most, is led from the eight usual bows to the true line and slack', () => {
    const off: number[] = [];
    let [held, sure, slack] = [0, 0, 0];
    const runs = 10;
    for (let k = 0; k < runs; k++) {
      const height = bentPane();
      const truth = balancedAnchor(curved(height), sheet(1200, 600), 600, { stepMm: 10 })!;
      const error = () => 0.4 * deviate();
      let bows = readBows(outline, height, undefined, error);
      let plan = shrinkPlan(inputOf(outline, { bows }));
      for (let i = 0; i < 4 && plan.nextBow; i++) {
        const [one] = readBows(outline, height, [plan.nextBow.place], error);
        bows = [...bows, { ...one!, id: `018f0000-0000-7000-8000-0000000009${bows.length}` }];
        plan = shrinkPlan(inputOf(outline, { bows }));
      }
      const miss = Math.abs(plan.anchor.middleMm - truth.heightMm);
      off.push(miss);
      held += miss <= plan.anchor.sureToMm! ? 1 : 0;
      sure += plan.anchor.sureToMm! < 60 ? 1 : 0;
      slack += plan.below.lowMm <= truth.field.toGoBelowMm && truth.field.toGoBelowMm <= plan.below.highMm ? 1 : 0;
    }
    off.sort((a, b) => a - b);
    // half of them within 20 mm, none as far off as the half-way line would be
    expect(off[runs >> 1]).toBeLessThan(20);
    expect(off.at(-1)).toBeLessThan(75);
    expect(held / runs).toBeGreaterThan(0.85);
    expect(sure / runs).toBeGreaterThan(0.9);
    expect(slack / runs).toBeGreaterThan(0.85);
  });
});

test('a plain dish is not made to bend by that: two more bows at most, and its line stays half way', () => {
  const deviate = normal(seededRandom(12));
  for (const upright of [5, 9, 14]) {
    const height = dishOver(1200, 600, 45, upright);
    const error = () => 0.3 * deviate();
    let bows = readBows(outline, height, undefined, error);
    let plan = shrinkPlan(inputOf(outline, { bows }));
    expect(plan.anchor.middleMm).toBeCloseTo(300, -1.5);
    for (let i = 0; i < 2 && plan.nextBow; i++) {
      bows = [...bows, { ...readBows(outline, height, [plan.nextBow.place], error)[0]!, id: `018f0000-0000-7000-8000-0000000009${bows.length}` }];
      plan = shrinkPlan(inputOf(outline, { bows }));
    }
    expect(Math.abs(plan.anchor.middleMm - 300)).toBeLessThan(30);
    expect(plan.anchor.sureToMm).toBeLessThan(60);
  }
});

test('a lower edge that bends abruptly draws the balanced line down, once a short straightedge has found it (trade fact)', () => {
  const bent = (x: number, y: number) => dishOver(1200, 600, 45, 4)(x, y) - 1.1e-3 * Math.max(0, 150 - y) ** 2;
  const short = [400, 600, 800].map((atMm) => ({ way: 'upright' as const, atMm, span: { fromMm: 0, lengthMm: 200 } }));
  const upper = [400, 600, 800].map((atMm) => ({ way: 'upright' as const, atMm, span: { fromMm: 250, lengthMm: 300 } }));
  const { fit } = fitOf(bent, [...usualBows(outline), ...short, ...upper]);
  const found = balancedAnchor(fit.surface, outline, 600, { stepMm: 20 })!;
  expect(found.heightMm).toBeLessThan(240);
});
