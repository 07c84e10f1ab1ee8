import fc from 'fast-check';
import { seededRandom } from '../ground/index.js';
import {
  farthestFor,
  followAir,
  followHeat,
  HYGROMETER_LAG_S,
  shareOnStrip,
  shootLaser,
  shownAir,
  shownC,
  spotMm,
  THERMOMETER_LAG_S,
  usualLaser,
} from './index.js';

const spread = (values: readonly number[]): { mean: number; sigma: number } => {
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  return { mean, sigma: Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length) };
};

describe('laser distance meter', () => {
  test('many shots: the mean is the distance with the offset, the spread is that of the model (and of its rounding)', () => {
    const random = seededRandom(7);
    const { mean, sigma } = spread(Array.from({ length: 4000 }, () => shootLaser(2046, random, { ...usualLaser, offsetMm: 2 })));
    expect(mean).toBeCloseTo(2048, 1);
    expect(sigma).toBeGreaterThan(0.7);
    expect(sigma).toBeLessThan(Math.hypot(0.76, 1 / Math.sqrt(12)) + 0.05);
  });
  test('the same seed shoots the same; too near and too far are refused', () => {
    expect(shootLaser(900, seededRandom(1))).toBe(shootLaser(900, seededRandom(1)));
    expect(() => shootLaser(20, seededRandom(1))).toThrow(/Distance.*50 … 40000/);
    expect(() => shootLaser(Number.NaN, seededRandom(1))).toThrow(/Distance/);
  });
});

describe('how the made-up instruments scatter', () => {
  // a seeded run of many: what the scatter is, not single values
  const many = (take: (random: () => number) => number) => {
    const random = seededRandom(11);
    return spread(Array.from({ length: 4000 }, () => take(random)));
  };
  test('a laser scatters more the farther it shoots: its own noise and its share of the length, root of the squares', () => {
    const at = (mm: number) => many((random) => shootLaser(mm, random)).sigma;
    // 0.75 mm and 5e-5 of 30 m, and the rounding to whole millimetres
    expect(at(30_000)).toBeGreaterThan(0.95 * Math.hypot(0.75, 1.5));
    expect(at(30_000)).toBeLessThan(1.1 * Math.hypot(0.75, 1.5, 0.29));
    expect(at(1000)).toBeLessThan(0.9);
  });
  test('it shows whole steps of its own display, around the distance', () => {
    const random = seededRandom(5);
    for (let i = 0; i < 200; i++) expect(shootLaser(903.2, random, { ...usualLaser, stepMm: 5 }) % 5).toBe(0);
    expect(many((r) => shootLaser(903.2, r, { ...usualLaser, stepMm: 5, noiseMm: 4 })).mean).toBeCloseTo(903.2, 0);
  });
  test('a hygrometer scatters about what its sensor has: a tenth or two of a degree, a per cent or so, never beyond 1 to 99', () => {
    const [air, humidity] = [
      many((r) => shownAir({ airC: 20.55, humidityPct: 50 }, r).airC),
      many((r) => shownAir({ airC: 20.55, humidityPct: 50 }, r).humidityPct),
    ];
    expect(air.mean).toBeCloseTo(20.55, 1);
    expect(air.sigma).toBeGreaterThan(0.03);
    expect(air.sigma).toBeLessThan(0.6);
    expect(humidity.mean).toBeCloseTo(50, 0);
    expect(humidity.sigma).toBeGreaterThan(0.3);
    expect(humidity.sigma).toBeLessThan(4);
    expect(many((r) => shownAir({ airC: 20, humidityPct: 0 }, r).humidityPct).mean).toBeGreaterThanOrEqual(1);
  });
  test('half a lag on the humidity has come on as far as the temperature', () => {
    const half = followAir({ airC: 10, humidityPct: 90 }, { airC: 20, humidityPct: 40 }, HYGROMETER_LAG_S * Math.LN2);
    expect(half.airC).toBeCloseTo(15, 9);
    expect(half.humidityPct).toBeCloseTo(65, 9);
  });
});

describe('infrared thermometer', () => {
  test('set to the surface’s own emissivity it shows the surface, whatever stands around', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: -20, max: 90, noNaN: true }),
        fc.double({ min: -20, max: 40, noNaN: true }),
        (e, c, around) => expect(shownC({ surfaceC: c, emissivityFrac: e, surroundingsC: around }, e)).toBeCloseTo(c, 6),
      ),
    ));
  test('a shiny face set to that of glass shows the room instead of itself (common practice: stick a bit of tape on it)', () => {
    const shiny = { surfaceC: 60, emissivityFrac: 0.1, surroundingsC: 20 };
    expect(shownC(shiny, 0.9)).toBeLessThan(30);
    // by hand: 0.1 · 333.15⁴ + 0.9 · 293.15⁴ = 7.878e9; less 0.1 · 293.15⁴, over 0.9: 298.3 K
    expect(shownC(shiny, 0.9)).toBeCloseTo(298.3 - 273.15, 0);
  });
});

describe('the spot of the thermometer', () => {
  test('is a twelfth of the way, and never smaller than its lens; so far off all of it lies on an edge', () => {
    expect(spotMm(300)).toBe(25);
    expect(spotMm(10)).toBe(10);
    expect(farthestFor(20)).toBe(240);
    expect(farthestFor(5)).toBe(0);
    expect(shareOnStrip(farthestFor(20), 20)).toBe(1);
  });
  test('on a strip narrower than it, so much of it as a circle has between two chords: counted over the circle by little squares', () => {
    for (const [distanceMm, wideMm] of [
      [600, 20],
      [360, 20],
      [1200, 44],
      [100, 3],
    ] as const) {
      const r = spotMm(distanceMm) / 2;
      let [on, all] = [0, 0];
      for (let x = -r; x < r; x += r / 200) for (let y = -r; y < r; y += r / 200) if (x * x + y * y < r * r) { all++; if (Math.abs(x) < wideMm / 2) on++; } // prettier-ignore
      expect(shareOnStrip(distanceMm, wideMm)).toBeCloseTo(on / all, 2);
    }
  });
  test('what lies beside it is read with it: a hot edge looks colder, a cold one warmer', () => {
    const hot = { surfaceC: 90, emissivityFrac: 0.95, surroundingsC: 20 };
    expect(shownC({ ...hot, onTargetFrac: 1 }, 0.95)).toBeCloseTo(90, 6);
    expect(shownC({ ...hot, onTargetFrac: 0 }, 0.95)).toBeCloseTo(20, 6);
    expect(shownC({ ...hot, onTargetFrac: 0.5 }, 0.95)).toBeLessThan(65);
    expect(shownC({ surfaceC: 4, emissivityFrac: 0.95, surroundingsC: 20, onTargetFrac: 0.5 }, 0.95)).toBeGreaterThan(10);
  });
  test('it follows what it sees: 63 % after its lag, all of it after a second and a half', () => {
    expect((followHeat(20, 90, THERMOMETER_LAG_S) - 20) / 70).toBeCloseTo(1 - Math.exp(-1), 9);
    expect(followHeat(20, 90, 0)).toBe(20);
    expect(followHeat(20, 90, 1.5)).toBeGreaterThan(89.5);
  });
});

describe('thermo-hygrometer', () => {
  const van = { airC: 4, humidityPct: 80 };
  const room = { airC: 21, humidityPct: 45 };
  test('from the cold van into the room it needs minutes: 63 % of the way after its lag, all of it in the end', () => {
    expect((followAir(van, room, HYGROMETER_LAG_S).airC - 4) / 17).toBeCloseTo(1 - Math.exp(-1), 9);
    expect(followAir(van, room, 0)).toEqual(van);
    expect(followAir(van, room, 3600).airC).toBeCloseTo(21, 6);
  });
  test('shows the air within its noise, in steps of a tenth and of one per cent', () => {
    const random = seededRandom(3);
    const shown = Array.from({ length: 2000 }, () => shownAir(room, random));
    expect(spread(shown.map((s) => s.airC)).mean).toBeCloseTo(21, 1);
    expect(Math.abs(spread(shown.map((s) => s.humidityPct)).mean - 45)).toBeLessThan(0.2);
    expect(shown.every((s) => Number.isInteger(s.humidityPct))).toBe(true);
    expect(shownAir({ airC: 20, humidityPct: 120 }, random).humidityPct).toBe(99);
  });
});
