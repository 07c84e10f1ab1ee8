import fc from 'fast-check';
import { LIES_DOWN_MM, slackOfWall, type RecessForm } from '../measure/index.js';
import { insideMm, recessGrid, recessZ } from './recess-shape.js';
import { planRecess, recessBy, recessWays, verdictOn } from './recess-ways.js';

const field: RecessForm = { acrossMm: 300, upMm: 500, depthMm: 15, slopeMm: 15, cornerMm: 40 };
const planOf = (form: RecessForm, limit: number | null) => {
  const run = planRecess(form, limit);
  for (;;) {
    const { value, done } = run.next();
    if (done) return value;
  }
};
/** The largest stretch across in the middle of a wall, far from corners. */
const atSide = ({ cells }: ReturnType<typeof recessBy>, form: RecessForm) =>
  Math.max(...cells.filter((c) => c.yMm < 0.05 * form.upMm && insideMm(form, c.xMm, c.yMm) > 0).map((c) => c.stretchFrac));

describe('the shape', () => {
  test('a mouth with round corners: distance inside by hand', () => {
    expect(insideMm(field, 0, 0)).toBeCloseTo(150, 9);
    expect(insideMm(field, 150, 100)).toBeCloseTo(0, 9);
    expect(insideMm(field, 160, 100)).toBeCloseTo(-10, 9);
    // on the round: 40 mm from its centre
    expect(insideMm(field, 110 + 40 * Math.SQRT1_2, 210 + 40 * Math.SQRT1_2)).toBeCloseTo(0, 9);
  });
  test('a wall takes as much more film than it is wide as its girth says, upright ones too', () => {
    for (const form of [field, { ...field, slopeMm: 0 }]) {
      const grid = recessGrid(form);
      const z = recessZ(grid);
      const across = grid.xs.reduce((s, x, i) => (i === 0 ? 0 : s + Math.hypot(x - grid.xs[i - 1]!, z[i]! - z[i - 1]!)), 0);
      expect(across - grid.xs.at(-1)!).toBeCloseTo(slackOfWall(form), 6);
    }
    expect(slackOfWall({ slopeMm: 0, depthMm: 15 })).toBe(15);
  });
  test('lines rise and never meet, whatever the form', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(mm(20, 900), mm(20, 2000), mm(0.5, 60), mm(0, 60), mm(0, 200), (acrossMm, upMm, depthMm, slopeMm, cornerMm) => {
        const { xs, ys } = recessGrid({ acrossMm, upMm, depthMm, slopeMm, cornerMm });
        for (const all of [xs, ys]) for (let i = 1; i < all.length; i++) expect(all[i]! - all[i - 1]!).toBeGreaterThan(1e-3);
        expect(xs.length * ys.length).toBeLessThan(4000);
      }),
      { numRuns: 200 },
    );
  });
});

describe('the orders', () => {
  test('pressed down from the arris bit by bit, a long recess comes to the closed form: W₁/W₀ · (W₁/W₀)^(−c·d/s), and to e^(2d/W) with upright walls', () => {
    // film between the walls is drawn on evenly while they take 2c·dz of it (docs/models/stretch.md)
    const long = { acrossMm: 300, upMm: 6000, depthMm: 20, slopeMm: 20, cornerMm: 40 };
    const [w0, w1, c] = [300, 260, Math.SQRT2];
    const closed = (w1 / w0) ** (1 - c) - 1;
    expect(atSide(recessBy(long, 'walls-first', 0, { goes: 12 }), long)).toBeCloseTo(closed, 2);
    const upright = { ...long, slopeMm: 0 };
    expect(Math.abs(atSide(recessBy(upright, 'walls-first', 0, { goes: 12 }), upright) - (Math.exp(40 / 300) - 1))).toBeLessThan(0.015);
  });
  test('bridged and formed in hot it stretches by girth at the sides of a long one; the field pressed first costs several times that', () => {
    const long = { acrossMm: 300, upMm: 6000, depthMm: 20, slopeMm: 20, cornerMm: 40 };
    const girth = (2 * slackOfWall(long)) / 300;
    expect(atSide(recessBy(long, 'bridged'), long)).toBeCloseTo(girth, 2);
    // drawn from the arris to the edge of what is pressed: film left for the wall is 150·e^(asinh(s/d) − asinh(150/d))
    const closed = Math.hypot(20, 20) / (150 * Math.exp(Math.asinh(1) - Math.asinh(7.5))) - 1;
    expect(closed).toBeGreaterThan(3 * girth);
    expect(Math.abs(atSide(recessBy(long, 'field-first', 0, { goes: 24 }), long) - closed)).toBeLessThan(0.022);
  });
  test('fed in, sides do not stretch at all, and at each corner a fold is left over; divided lies between', () => {
    const [bridged, divided, fed] = [recessBy(field, 'bridged'), recessBy(field, 'divided', 0.5), recessBy(field, 'fed')];
    expect(atSide(fed, field)).toBeLessThan(0.005);
    expect(fed.foldMm).toBeGreaterThan(slackOfWall(field));
    expect(divided.largestFrac).toBeLessThan(bridged.largestFrac);
    expect(divided.largestFrac).toBeGreaterThan(fed.largestFrac);
    expect(divided.foldMm).toBeGreaterThan(bridged.foldMm);
    expect(divided.foldMm).toBeLessThan(fed.foldMm);
  });
  test('film stretches most at the corners, whichever way', () => {
    for (const way of recessWays) {
      const { largestAt } = recessBy(field, way, 0.3);
      expect([way, insideMm(field, largestAt.xMm, largestAt.yMm) > -1, largestAt.xMm > 80, largestAt.yMm > 180]).toEqual([way, true, true, true]);
    }
  });
  test('a mesh twice as fine, and twice as many goes, change the largest stretch by less than a fifth and a tenth of it', () => {
    const [one, finer] = [recessBy(field, 'bridged'), recessBy(field, 'bridged', 0, { fineness: 2 })];
    expect(Math.abs(finer.largestFrac / one.largestFrac - 1)).toBeLessThan(0.2);
    const more = recessBy(field, 'walls-first', 0, { goes: 16 });
    expect(Math.abs(more.largestFrac / recessBy(field, 'walls-first').largestFrac - 1)).toBeLessThan(0.1);
  });
  test('deeper, steeper, sharper: never less stretch', () => {
    const of = (more: Partial<RecessForm>) => recessBy({ ...field, ...more }, 'bridged').largestFrac;
    const usual = of({});
    expect(of({ depthMm: 25 })).toBeGreaterThan(usual);
    expect(of({ slopeMm: 5 })).toBeGreaterThan(usual);
    expect(of({ cornerMm: 20 })).toBeGreaterThan(usual);
    expect(of({ depthMm: 1 })).toBeLessThan(0.01);
  });
});

describe('the plan', () => {
  test('it takes the order that stretches least while what is left over lies down, and says what that means for the film', () => {
    const plan = planOf(field, 0.25);
    expect(plan.ways.map((w) => w.way)).toEqual(['bridged', 'fed', 'divided', 'walls-first', 'field-first']);
    expect(plan.best.way).toBe('divided');
    expect(plan.best.foldMm).toBeLessThanOrEqual(LIES_DOWN_MM);
    for (const w of plan.ways) if (w.foldMm <= LIES_DOWN_MM) expect(w.largestFrac).toBeGreaterThanOrEqual(plan.best.largestFrac);
    expect(plan.is).toBe('goes');
    expect([...plan.ways, plan.finer].every((w) => w.isAtRest)).toBe(true);
    expect([verdictOn(0.14, 0.05, 0.08), verdictOn(0.14, 0.05, 0.01), verdictOn(0.14, 0.05, null)]).toEqual(['slit', 'inlay', 'unknown']);
  });
  test('a shallow one is fed in whole: what is left over lies down', () => {
    const plan = planOf({ ...field, depthMm: 4, slopeMm: 12 }, 0.05);
    expect([plan.best.way, plan.is]).toEqual(['fed', 'goes']);
  });
});
