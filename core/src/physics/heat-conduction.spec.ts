import fc from 'fast-check';
import { blownHalfSpaceC, cellsOf, heldHalfSpaceC, lumpedEnd, lumpedSeconds, scaledErfc, stepCells, type CellRow } from './heat-conduction.js';

const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const brick = { wPerMK: 0.72, joulePerM3K: 1920 * 835 };
const even = (seconds: number, steps: number) => Array.from({ length: steps + 1 }, (_, i) => (seconds * i) / steps);

describe('closed forms of conduction', () => {
  test('a water main lies 0.68 m deep under ground that is suddenly at −15 °C for sixty days (Incropera & DeWitt, example)', () => {
    const at = (m: number) => heldHalfSpaceC(0.138e-6, -15, 20, 60 * 86400, m);
    expect(at(0.677)).toBeCloseTo(0, 1);
    expect(at(0.6)).toBeLessThan(0);
    expect(at(0.75)).toBeGreaterThan(0);
  });
  test('a thermocouple of 1 s comes from 25 to 199 °C in gas of 200 °C in 5.2 s (Incropera & DeWitt, example)', () => {
    const bead = { joulePerM2K: 400, front: { wPerM2K: 400, tempC: 200 }, back: { wPerM2K: 0, tempC: 25 } };
    expect(lumpedEnd(bead)).toEqual({ endC: 200, tauS: 1 });
    expect(lumpedSeconds(bead, 25, 199)).toBeCloseTo(5.165, 3);
    expect(lumpedSeconds(bead, 25, 201)).toBeNull();
  });
  test('film of 50 µm over air: 130 °C after 0.34 s, 331 °C at the end (worked example)', () => {
    const film = { joulePerM2K: 50e-6 * 1390 * 1200, front: { wPerM2K: 80, tempC: 450 }, back: { wPerM2K: 30, tempC: 15 } };
    expect(lumpedEnd(film).endC).toBeCloseTo(331.36, 2);
    expect(lumpedEnd(film).tauS).toBeCloseTo(0.7582, 4);
    expect(lumpedSeconds(film, 15, 130)).toBeCloseTo(0.3425, 4);
  });
  test('hot gas over brick: its surface after 1 and 10 s (worked example)', () => {
    expect(blownHalfSpaceC(brick, 50, 500, 20, 1)).toBeCloseTo(44.2, 2);
    expect(blownHalfSpaceC(brick, 50, 500, 20, 10)).toBeCloseTo(90.36, 2);
  });
  test('exp(x²)·erfc(x): table of erfc (Abramowitz & Stegun 7.1), and both forms meet', () => {
    // erfc 0.5 = 0.4795001222, erfc 1 = 0.1572992071, erfc 2 = 0.0046777350
    for (const [x, erfc] of [[0.5, 0.4795001222], [1, 0.1572992071], [2, 0.004677735]] as const) expect(scaledErfc(x) * Math.exp(-x * x)).toBeCloseTo(erfc, 9); // prettier-ignore
    expect(scaledErfc(0)).toBe(1);
    expect(scaledErfc(2.5 - 1e-9)).toBeCloseTo(scaledErfc(2.5), 8);
    // far out it is 1/(x√π)
    expect(scaledErfc(1e4) * 1e4 * Math.sqrt(Math.PI)).toBeCloseTo(1, 7);
  });
});

describe('finite volumes', () => {
  const thick = (firstCellM: number, growth = 1.15) => cellsOf([{ ...brick, thickM: 0.08, firstCellM, growth }], [], { wPerM2K: 0, tempC: 20 });
  const surfaceAfter = (row: CellRow, steps: number) => {
    let last = 0;
    // the surface lies half a cell before the middle of the first: what flows in falls over that half
    const half = row.joulePerM2K[0]! / brick.joulePerM3K / 2 / brick.wPerMK;
    const inner = 1 / (1 / 50 + half);
    stepCells(row, row.joulePerM2K.map(() => 20), even(10, steps), () => ({ wPerM2K: inner, tempC: 500 }), (_s, t) => (last = t[0]! + (500 - t[0]!) * inner * half)); // prettier-ignore
    return last;
  };
  test('come to the closed form of a thick body, nearer by the step', () => {
    expect(surfaceAfter(thick(1e-4), 400)).toBeCloseTo(90.36, 0);
    const [coarse, fine] = [50, 400].map((steps) => Math.abs(surfaceAfter(thick(2e-5, 1.02), steps) - 90.36));
    expect(fine!).toBeLessThan(0.15);
    expect(coarse! / fine!).toBeGreaterThan(4);
  });
  test('what goes in is stored or goes out, and nothing is hotter than what heats it', () => {
    const any = fc.record({ cells: fc.array(fc.tuple(mm(10, 1e5), mm(1, 1e4)), { minLength: 1, maxLength: 12 }), h: mm(1, 300), gas: mm(20, 600), back: mm(0, 100), seconds: mm(0.05, 200), steps: fc.integer({ min: 2, max: 60 }) }); // prettier-ignore
    fc.assert(
      fc.property(any, ({ cells, h, gas, back, seconds, steps }) => {
        const row: CellRow = { joulePerM2K: cells.map(([c]) => c), wPerM2K: cells.slice(1).map(([, g]) => g), back: { wPerM2K: back, tempC: 15 } };
        let temps: Float64Array = new Float64Array();
        let hottest = -Infinity;
        const { inJ, outJ } = stepCells(row, cells.map(() => 15), even(seconds, steps), () => ({ wPerM2K: h, tempC: gas }), (_s, t) => ((temps = t), (hottest = Math.max(hottest, ...t)))); // prettier-ignore
        const stored = row.joulePerM2K.reduce((sum, c, i) => sum + c * (temps[i]! - 15), 0);
        expect(stored + outJ).toBeCloseTo(inJ, 3 - Math.ceil(Math.log10(1 + inJ)));
        expect(hottest).toBeLessThanOrEqual(gas + 1e-9);
      }),
      { numRuns: 150 },
    );
  });
  test('a row of one cell is the thin thing of the closed form', () => {
    const row: CellRow = { joulePerM2K: [83.4], wPerM2K: [], back: { wPerM2K: 30, tempC: 15 } };
    let at = 0;
    stepCells(row, [15], even(0.3425, 600), () => ({ wPerM2K: 80, tempC: 450 }), (_s, t) => (at = t[0]!)); // prettier-ignore
    expect(at).toBeCloseTo(130, 1);
  });
  test('cells of layers add up to what lies there; what holds heat up between two stands between them', () => {
    const film = { wPerMK: 0.17, joulePerM3K: 1.4e6, thickM: 60e-6, firstCellM: 60e-6, growth: 1 };
    const row = cellsOf([film, { ...brick, thickM: 0.05, firstCellM: 1e-4, growth: 1.3 }], [1e-4], { wPerM2K: 8, tempC: 20 });
    expect(row.joulePerM2K.reduce((a, b) => a + b, 0)).toBeCloseTo(60e-6 * 1.4e6 + 0.05 * brick.joulePerM3K, 6);
    expect(1 / row.wPerM2K[0]!).toBeCloseTo(30e-6 / 0.17 + 1e-4 + 0.5e-4 / brick.wPerMK, 9);
    // all the way through at rest: every resistance once
    const through = 30e-6 / 0.17 + 1e-4 + 0.05 / brick.wPerMK + 1 / 8;
    expect(row.wPerM2K.reduce((sum, g) => sum + 1 / g, 0) + 1 / row.back.wPerM2K).toBeCloseTo(through, 9);
  });
});
