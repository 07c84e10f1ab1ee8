import fc from 'fast-check';
import { gridSize, laidFlat, relaxSheet, stretchOf, type FilmMap, type StretchGrid } from './stretch-sheet.js';

const steps = (from: number, to: number, count: number) => Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
const heights = ({ xs, ys }: StretchGrid, of: (x: number, y: number) => number) => Float64Array.from({ length: xs.length * ys.length }, (_, n) => of(xs[n % xs.length]!, ys[Math.floor(n / xs.length)]!)); // prettier-ignore
const none = (grid: StretchGrid) => new Uint8Array(gridSize(grid));
/** A long trench along y, its two rims held: from `xs` and the depth at each. Lengthwise nothing moves. */
function trench(xs: number[], z: (x: number) => number) {
  const grid = { xs, ys: [0, 10, 20] };
  const isPressed = none(grid).map((_p, n) => (n % xs.length === 0 || n % xs.length === xs.length - 1 ? 1 : 0));
  const film = laidFlat(grid);
  expect(relaxSheet(grid, heights(grid, z), film, [isPressed, none(grid).fill(1)])).toBe(true);
  return stretchOf(grid, heights(grid, z), film);
}
const largest = (cells: readonly { stretchFrac: number }[]) => Math.max(...cells.map((c) => c.stretchFrac));
const least = (cells: readonly { stretchFrac: number }[]) => Math.min(...cells.map((c) => c.stretchFrac));

describe('film held at both rims and formed in hot stretches evenly, by its girth (closed form)', () => {
  test('trapezoid 100 wide, 60 flat, 20 deep: 16.57 %', () => {
    const cells = trench([...steps(0, 20, 6), ...steps(20, 80, 8).slice(1), ...steps(80, 100, 6).slice(1)], (x) => -Math.min(20, x, 100 - x));
    expect([least(cells), largest(cells)].map((s) => +(100 * s).toFixed(2))).toEqual([16.57, 16.57]);
  });
  test('half-round: 57.08 %', () => {
    const turns = steps(-Math.PI / 2, Math.PI / 2, 80);
    const cells = trench(turns.map((t) => 50 * Math.sin(t)), (x) => -Math.sqrt(Math.max(0, 2500 - x * x))); // prettier-ignore
    expect(100 * largest(cells)).toBeCloseTo(57.08, 1);
    expect(100 * least(cells)).toBeCloseTo(57.08, 1);
  });
  test.each([[0.3, 20.43], [0.1, 2.61]])('parabola, depth by width %d: %d %%; the rough rule (8/3)(depth/width)² is above it', (by, pct) => {
    const cells = trench(steps(-50, 50, 60), (x) => -100 * by * (1 - (x / 50) ** 2));
    expect(100 * largest(cells)).toBeCloseTo(pct, 1);
    expect((8 / 3) * by ** 2).toBeGreaterThan(largest(cells));
  }); // prettier-ignore
});

describe('what a flat film lies on by itself', () => {
  const grid = { xs: steps(-60, 60, 16), ys: steps(-60, 60, 16) };
  const laid = (z: Float64Array): FilmMap => {
    const film = laidFlat(grid);
    // one triangle in the middle holds it
    const isPressed = none(grid).map((_p, n) => (n === Math.floor(gridSize(grid) / 2) ? 1 : 0));
    relaxSheet(grid, z, film, [isPressed, isPressed]);
    return film;
  };
  test('a cylinder: nothing stretches, nothing is left over', () => {
    const z = heights(grid, (x) => Math.sqrt(100 ** 2 - x * x));
    const cells = stretchOf(grid, z, laid(z));
    expect(largest(cells)).toBeLessThan(0.003);
    expect(Math.max(...cells.map((c) => c.leftOverFrac))).toBeLessThan(0.02);
  });
  test('a cone beside its tip: the same', () => {
    const z = heights(grid, (x, y) => -0.4 * Math.hypot(x + 200, y));
    const cells = stretchOf(grid, z, laid(z));
    expect(largest(cells)).toBeLessThan(0.003);
    expect(Math.max(...cells.map((c) => c.leftOverFrac))).toBeLessThan(0.02);
  });
  test('a dome: nothing has to stretch, and a ring at angle φ has φ / sin φ − 1 of film left over (radial sheet)', () => {
    const [radius, z] = [100, heights(grid, (x, y) => Math.sqrt(100 ** 2 - x * x - y * y))];
    const cells = stretchOf(grid, z, laid(z));
    expect(largest(cells)).toBeLessThan(0.02);
    const at = cells.filter((c) => Math.abs(Math.hypot(c.xMm, c.yMm) - 50) < 6);
    const mean = at.reduce((s, c) => s + c.leftOverFrac * c.areaMm2, 0) / at.reduce((s, c) => s + c.areaMm2, 0);
    const phi = Math.asin(50 / radius);
    expect(mean).toBeGreaterThan(0.6 * (phi / Math.sin(phi) - 1));
    expect(mean).toBeLessThan(1.5 * (phi / Math.sin(phi) - 1));
  });
  test('a saddle: it would have to stretch round about, and as nothing holds it its radii are left over instead', () => {
    const z = heights(grid, (x, y) => (x * x - y * y) / 100);
    const cells = stretchOf(grid, z, laid(z));
    expect(largest(cells)).toBeLessThan(0.02);
    expect(Math.max(...cells.map((c) => c.leftOverFrac))).toBeGreaterThan(0.05);
  });
});

test('flat film held at the rim of a cap and pressed in: its area grows by tan²(φ/2) (closed form)', () => {
  for (const [deg, pct] of [[30, 7.18], [45, 17.16]] as const) {
    const phi = (deg * Math.PI) / 180;
    const radius = 50 / Math.sin(phi);
    const grid = { xs: steps(0, 50, 40), ys: steps(0, 50, 40) };
    const z = heights(grid, (x, y) => -(Math.sqrt(radius ** 2 - Math.min(2500, x * x + y * y)) - radius * Math.cos(phi)));
    const isPressed = none(grid).map((_p, n) => (Math.hypot(grid.xs[n % 41]!, grid.ys[Math.floor(n / 41)]!) >= 50 - 1e-9 ? 1 : 0));
    const film = laidFlat(grid);
    relaxSheet(grid, z, film, [isPressed.map((p, n) => p || (n % 41 === 0 ? 1 : 0)), isPressed.map((p, n) => p || (n < 41 ? 1 : 0))]);
    const within = stretchOf(grid, z, film).filter((c) => Math.hypot(c.xMm, c.yMm) < 50);
    const shape = within.reduce((s, c) => s + c.areaMm2, 0);
    expect(100 * (shape / ((Math.PI * 2500) / 4) - 1)).toBeCloseTo(pct, -0.5);
    // from the pole to the rim film is as long as it was at every step: its mean along the way is that of the arc
    const radial = within.filter((c) => c.yMm < 1.5);
    const [long, was] = radial.reduce(([l, w], c) => [l + c.areaMm2, w + c.areaMm2 / (1 + c.stretchFrac)] as const, [0, 0] as readonly [number, number]);
    expect(Math.abs(long / was - phi / Math.sin(phi))).toBeLessThan(0.01);
  }
}); // prettier-ignore

test('never pushed past what its rims allow: for a trench of any section the stretch is its girth, whatever the mesh', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.double({ min: 2, max: 20, noNaN: true }), fc.double({ min: -15, max: 15, noNaN: true })), { minLength: 2, maxLength: 9 }), (parts) => {
      const [xs, zs] = [[0], [0]];
      for (const [dx, dz] of parts) {
        xs.push(xs.at(-1)! + dx);
        zs.push(zs.at(-1)! + dz);
      }
      const wide = xs.at(-1)!;
      const girth = xs.slice(1).reduce((s, x, i) => s + Math.hypot(x - xs[i]!, zs[i + 1]! - zs[i]!), 0);
      const cells = trench(xs, (x) => zs[xs.indexOf(x)]!);
      expect(largest(cells)).toBeCloseTo(girth / wide - 1, 2);
      expect(least(cells)).toBeCloseTo(girth / wide - 1, 2);
    }),
    { numRuns: 40 },
  );
}); // prettier-ignore
