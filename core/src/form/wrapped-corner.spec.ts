import fc from 'fast-check';
import { drawnOver } from './dome-ways.js';
import { alongCorner, planWrappedCorner, type WrappedCorner } from './wrapped-corner.js';
import { wrappedCornerCard, wrappedCornerWords } from './wrapped-corner-words.js';

const corner = (c: Partial<WrappedCorner> = {}): WrappedCorner => ({ radiusMm: 80, arrisMm: 5, thicknessMm: 12, girthMm: 12, returnMm: 0, ...c }); // prettier-ignore
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const any = fc
  .record({ radius: num(1, 200), share: num(0, 1), thick: num(1, 60), back: num(0, 20) })
  .map(({ radius, share, thick, back }) => corner({ radiusMm: radius, arrisMm: radius * share, thicknessMm: thick, girthMm: thick * 1.2, returnMm: back }));
const longOf = (c: WrappedCorner) => Object.values(planWrappedCorner(c, 0.3).partsMm).reduce((s, x) => s + x, 0);

/** The same by steps, from the geometry alone: where film is on the solid, and that what is λ times as long is 1/√λ as wide. */
function byStep(c: WrappedCorner, alongMm: number, steps = 40_000): number {
  const b = Math.min(c.arrisMm, c.radiusMm);
  const turn = c.thicknessMm! < b ? Math.acos(1 - c.thicknessMm! / b) : Math.PI / 2;
  const away = (t: number): number => {
    const flat = c.radiusMm - b;
    if (b > 0 && t <= b * turn) return flat + b * Math.sin(t / b);
    const end = flat + (b > 0 ? b * Math.sin(turn) : 0);
    const edge = Math.max(0, c.thicknessMm! - b * (1 - Math.cos(turn)), c.girthMm - b * turn);
    return t <= b * turn + edge ? end : end - (t - b * turn - edge);
  };
  let rho = c.radiusMm - b;
  const dt = alongMm / steps;
  for (let i = 0; i < steps; i++) {
    const slope = (at: number, r: number) => (away(at) / r) ** 2;
    const mid = rho + (dt / 2) * slope(i * dt, rho);
    rho += dt * slope((i + 0.5) * dt, mid);
  }
  return (rho / away(alongMm)) ** 2 - 1;
}

describe('film drawn over a corner where two edges meet', () => {
  test('corner and arris of one radius are an eighth of a ball: as on a dome, 77 % at its equator (λ = (3π/4)^⅔)', () => {
    const ball = corner({ radiusMm: 20, arrisMm: 20, thicknessMm: 30, girthMm: 40 });
    for (const phi of [0.1, 0.5, 1, Math.PI / 2]) expect(alongCorner(ball, 20 * phi).stretchFrac).toBeCloseTo(drawnOver(phi), 9);
    expect(alongCorner(ball, 10 * Math.PI).stretchFrac).toBeCloseTo(((3 * Math.PI) / 4) ** (2 / 3) - 1, 9);
  });
  test('a sharp arris is the round edge of a top: (1 + 3t/r)^⅔ (docs/models/counters.md)', () => {
    const sharp = corner({ radiusMm: 100, arrisMm: 0, thicknessMm: 18, girthMm: 18 });
    expect(planWrappedCorner(sharp, 0.4).largestFrac).toBeCloseTo(1.54 ** (2 / 3) - 1, 12);
    expect(planWrappedCorner(sharp, 0.4).partsMm).toEqual({ arris: 0, edge: 18, back: 0 });
  });
  test('an edge of almost no round needs a cut whatever the film; a wide round needs none', () => {
    expect(planWrappedCorner(corner({ radiusMm: 3, arrisMm: 1, thicknessMm: 18, girthMm: 18 }), 1.5).is).toBe('folds');
    expect(planWrappedCorner(corner({ radiusMm: 400 }), 0.1).is).toBe('draws');
  });
  test('worked: a rim of 12 with corners of 80 and an arris of 5 stretches film 23 % (docs/models/stretch.md §6)', () => {
    const plan = planWrappedCorner(corner(), 0.3);
    expect(plan.largestFrac).toBeCloseTo(0.2322, 3);
    expect(plan).toMatchObject({ is: 'draws', reachMm: longOf(corner()) });
    // less flat film than the way is long: that is what stretching means
    expect(plan.filmMm).toBeLessThan(longOf(corner()));
  });
  test('on to the back it goes towards the axis: there it is stretched most, and never comes to the middle', () => {
    const back = planWrappedCorner(corner({ returnMm: 15 }), 0.3);
    expect(back.is).toBe('folds');
    expect(back.edgeFrac).toBeCloseTo(planWrappedCorner(corner(), 0.3).largestFrac, 12);
    expect(back.largestFrac).toBeGreaterThan(2 * back.edgeFrac);
    expect(planWrappedCorner(corner({ returnMm: 80 }), 0.3).largestFrac).toBe(Infinity);
  });
  test('a board thinner than its arris ends before that has turned', () => {
    const { partsMm } = planWrappedCorner(corner({ arrisMm: 10, thicknessMm: 5, girthMm: 10.5 }), 0.3);
    expect(partsMm.arris).toBeCloseTo((10 * Math.PI) / 3, 6);
    expect(partsMm.edge).toBeCloseTo(10.5 - (10 * Math.PI) / 3, 6);
    // a moulded edge is longer by the string than the board is thick
    expect(planWrappedCorner(corner({ girthMm: 30 }), 0.3).partsMm.edge).toBeCloseTo(30 - 2.5 * Math.PI, 9);
    expect(planWrappedCorner(corner({ thicknessMm: null, girthMm: 30 }), 0.3).partsMm.edge).toBeCloseTo(30 - 2.5 * Math.PI, 9);
  });
  test('a cut begins where film comes to its figure, on the diagonal: inside the place where both edges of the face would meet', () => {
    const c = corner({ radiusMm: 20, arrisMm: 0, thicknessMm: 18, girthMm: 18 });
    const plan = planWrappedCorner(c, 0.3);
    // a sharp arris: λ = (ρ/r)², so ρ = 20·√1.3, and the corner of both lines lies 20·√2 from the axis
    expect(plan.cutInsetMm).toBeCloseTo(20 - (20 * Math.sqrt(1.3)) / Math.SQRT2, 6);
    expect(plan.cutInsetMm).toBeGreaterThan(3);
    // film that stands far more is cut no farther out than that corner
    expect(planWrappedCorner(c, 1.5).cutInsetMm).toBe(0);
  });
  test('any corner: as by small steps from the geometry alone', () => {
    fc.assert(
      fc.property(any, num(0.1, 1), (c, share) => {
        // where it comes to nothing there is no step small enough, and at the pole of a ball it begins at nothing
        const to = share * longOf(c);
        const { stretchFrac } = alongCorner(c, to);
        if (stretchFrac > 20 || c.radiusMm - c.arrisMm < 0.2 * c.radiusMm) return;
        expect(Math.abs(byStep(c, to) - stretchFrac)).toBeLessThan(2e-3 * (1 + stretchFrac));
      }),
      { numRuns: 40 },
    );
  });
  test('any corner: never less stretched farther down; within its figure as far as is said, and no farther', () => {
    fc.assert(
      fc.property(any, num(0.02, 1.5), (c, limit) => {
        const long = longOf(c);
        const at = Array.from({ length: 30 }, (_, i) => alongCorner(c, (long * i) / 29).stretchFrac);
        at.forEach((x, i) => i > 0 && expect(x).toBeGreaterThanOrEqual(at[i - 1]! - 1e-9));
        const plan = planWrappedCorner(c, limit);
        expect(alongCorner(c, plan.reachMm).stretchFrac).toBeLessThanOrEqual(limit + 1e-6);
        if (plan.is === 'folds') expect(alongCorner(c, plan.reachMm + 0.01).stretchFrac).toBeGreaterThan(limit - 1e-6);
        else expect(plan.largestFrac).toBeLessThanOrEqual(limit);
        expect(plan.arrisFrac).toBeLessThanOrEqual(plan.edgeFrac + 1e-9);
      }),
      { numRuns: 200 },
    );
  });
});

describe('what is said of it', () => {
  const words = (c: WrappedCorner, limit: number, isKnown = true) => wrappedCornerWords(planWrappedCorner(c, limit), isKnown, 'mm');
  test('drawn over in goes of a tenth, back to the arris each time: that line hides a change of colour', () => {
    const w = words(corner(), 0.3);
    expect(w.headline).toBe('Drawn over without a cut: 23 % at its end.');
    expect(w.doing.join(' ')).toContain('In 3 goes: lift back to the arris, heat, let it nearly cool, draw on. A change of colour is hidden by the arris');
    expect(w.minds.join(' ')).toContain('23 % is near what it stands (30 %)');
    expect(words(corner({ radiusMm: 300 }), 0.3).doing.join(' ')).not.toContain('goes');
  });
  test('with a cut: how far it is drawn over first; over the edge only it would have gone', () => {
    const w = words(corner({ returnMm: 15 }), 0.3);
    expect(w.headline).toMatch(/^Not without a cut: at its end it would stretch \d+ %, and this film stands 30 %\.$/);
    expect(w.doing[0]).toMatch(/as far as \d+ mm from where the face ends; there it is cut or folded as the bench sheet says/);
    expect(w.minds.join(' ')).toContain('over the edge only, it goes without a cut');
    expect(words(corner({ radiusMm: 2, arrisMm: 2 }), 0.05, false).minds.join(' ')).toContain('not in the library');
    expect(words(corner({ returnMm: 80 }), 0.3).headline).toContain('many times its length');
    // a sharp corner gives no film to draw over at all
    expect(words(corner({ radiusMm: 1, arrisMm: 0, thicknessMm: 18, girthMm: 18 }), 0.3).doing[0]).toBe(
      'Cut or fold it as the bench sheet says, from where the face ends.',
    );
  });
  test('by its measures alone, as the API gives it', () => {
    const card = wrappedCornerCard({ corner: { radiusMm: 80, arrisMm: 5 }, thicknessMm: 12, returnMm: 0, film: { stretchMaxPct: 30 }, units: 'mm' });
    expect(card).toMatchObject({ is: 'draws', headline: 'Drawn over without a cut: 23 % at its end.' });
    expect(card.largestPct).toBeCloseTo(23.2, 1);
    const none = wrappedCornerCard({ corner: { radiusMm: 10, arrisMm: 5 }, thicknessMm: 12, returnMm: 10, film: { stretchMaxPct: null }, units: 'in' });
    expect(none).toMatchObject({ is: 'folds', largestPct: null });
  });
});
