import fc from 'fast-check';
import { firstFactor, firstRoot, warmThroughHours, type RoundBody } from './warm-through.js';

const film: RoundBody = { radiusMm: 70, wPerMK: 0.2, joulePerM3K: 1.6e6, surfaceWPerM2K: 8 };

/** The same by an independent way: shells, explicit, from outside inwards. */
function byShells({ radiusMm, wPerMK, joulePerM3K, surfaceWPerM2K }: RoundBody, fromC: number, airC: number, withinK: number): number {
  const [n, radius] = [40, radiusMm / 1000];
  const d = radius / n;
  const t = new Array<number>(n).fill(fromC);
  const step = (0.2 * d * d * joulePerM3K) / wPerMK;
  // the air, and half a shell, lie before the outermost
  const out = 1 / (1 / surfaceWPerM2K + d / 2 / wPerMK);
  for (let seconds = 0; ; seconds += step) {
    if (Math.abs(t[0]! - airC) <= withinK) return seconds / 3600;
    const flow = Array.from({ length: n + 1 }, (_, i) =>
      i === 0 ? 0 : i === n ? out * radius * (airC - t[n - 1]!) : (wPerMK / d) * i * d * (t[i]! - t[i - 1]!),
    );
    for (let i = 0; i < n; i++) t[i]! += (step * (flow[i + 1]! - flow[i]!)) / (joulePerM3K * (i + 0.5) * d * d);
  }
}

describe('how long a roll takes to be warm through', () => {
  test('the table of the infinite cylinder (Incropera & DeWitt, from memory): first root and factor by Biot number', () => {
    for (const [biot, root, factor] of [
      [0.1, 0.4417, 1.0246],
      [1, 1.2558, 1.2071],
      [2, 1.5995, 1.3384],
      [10, 2.1795, 1.5677],
    ] as const) {
      expect(firstRoot(biot)).toBeCloseTo(root, 3);
      expect(firstFactor(firstRoot(biot))).toBeCloseTo(factor, 3);
    }
  });
  test('as shells of it reckoned one by one: within 3 % from 20 °C apart down to 1', () => {
    for (const more of [{}, { radiusMm: 45 }, { radiusMm: 110 }, { surfaceWPerM2K: 4 }, { wPerMK: 0.35 }]) {
      const body = { ...film, ...more };
      for (const withinK of [1, 2, 5]) {
        const own = warmThroughHours(body, 2, 22, withinK);
        expect(Math.abs(own - byShells(body, 2, 22, withinK)) / own).toBeLessThan(0.03);
      }
    }
  });
  test('a thin one that conducts well cools as one lump: the time constant is ρcr/2h', () => {
    const rod: RoundBody = { radiusMm: 5, wPerMK: 200, joulePerM3K: 2.4e6, surfaceWPerM2K: 10 };
    expect(warmThroughHours(rod, 0, 20, 20 / Math.E)).toBeCloseTo((2.4e6 * 0.005) / 2 / 10 / 3600, 3);
  });
  test('nothing to wait for where it is near enough; thicker, colder, stiller air and nearer all take longer', () => {
    expect(warmThroughHours(film, 19, 20, 2)).toBe(0);
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(mm(20, 150), mm(-10, 10), mm(3, 12), mm(0.5, 4), (radiusMm, fromC, surfaceWPerM2K, withinK) => {
        const at = (more: Partial<RoundBody>, from = fromC, within = withinK) =>
          warmThroughHours({ ...film, radiusMm, surfaceWPerM2K, ...more }, from, 20, within);
        const own = at({});
        return (
          at({ radiusMm: radiusMm * 1.2 }) > own &&
          at({ surfaceWPerM2K: surfaceWPerM2K * 0.8 }) > own &&
          at({}, fromC - 3) > own &&
          at({}, fromC, withinK * 0.7) > own
        );
      }),
    );
  });
});
