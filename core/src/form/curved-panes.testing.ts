import { newCurvedPane, type Bow, type BowPlace, type CurvedPane, type ShrinkInput } from '@yellow-pane/contracts';
import type { Polygon } from '../geometry/index.js';
import { seededRandom, type Random } from '../ground/index.js';
import { straightedgeOf, usualBows } from './pane-outline.js';
import { practicePane } from './practice.js';

/** A rectangle with its lower left corner at the origin. */
export const sheet = (w: number, h: number): Polygon => [
  { x: 0, y: 0 },
  { x: w, y: 0 },
  { x: w, y: h },
  { x: 0, y: h },
];

/** Normal deviates from a seeded stream. @source Box–Muller */
export const normal = (random: Random) => (): number => Math.sqrt(-2 * Math.log(random() + 1e-300)) * Math.cos(2 * Math.PI * random());

export const idOf = (n: number): string => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`;

/** What a straightedge reads of a height, exactly, or with the error of a hand. */
export function readBows(outline: Polygon, height: (x: number, y: number) => number, places: readonly BowPlace[] = usualBows(outline), error = () => 0): Bow[] {
  return places.map((p, i): Bow => {
    const e = straightedgeOf(outline, p)!;
    const depthMm = height(e.middle.x, e.middle.y) - (height(e.from.x, e.from.y) + height(e.to.x, e.to.y)) / 2 + error();
    return { ...p, id: idOf(i + 1), typed: depthMm.toFixed(1), unit: 'mm', depthMm, personId: null, at: '2026-11-02T08:00:00Z' };
  });
}

/** A dish over a box by its bows at the middle, standing out towards the one who looks. */
export const dishOver =
  (w: number, h: number, across: number, upright: number) =>
  (x: number, y: number): number =>
    -(((2 * x) / w - 1) ** 2 * across) - ((2 * y) / h - 1) ** 2 * upright;

export const filmOf = (more: Partial<ShrinkInput['film']> = {}): ShrinkInput['film'] => ({
  id: idOf(900),
  name: 'Tern Shade 35',
  shrink: { alongPct: 2.5, acrossPct: 0 },
  thicknessUm: 38,
  stretches: false,
  isOutside: false,
  darkens: true,
  ...more,
});

/** A plan's input, all else as of the pane that is practised on. */
export const inputOf = (outline: Polygon, curved: Partial<CurvedPane>, more: Partial<ShrinkInput> = {}): ShrinkInput => ({
  ...practicePane(0),
  curved: newCurvedPane({ stamp: 'tempered', ...curved }),
  outline: outline.map((p) => ({ ...p })),
  film: filmOf(),
  ...more,
});

/** Points strewn over a pane with noise, strays and a hole, turned somehow in space, the file's z upright. */
export function strewn(
  w: number,
  h: number,
  height: (x: number, y: number) => number,
  { count = 20_000, noiseMm = 0.4, strayFrac = 0.03, seed = 5, lean = 0.4, isGlass = (_x: number, _y: number): boolean => true } = {},
): Float64Array {
  const random = seededRandom(seed);
  const deviate = normal(random);
  const [c, s] = [Math.cos(lean), Math.sin(lean)];
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count;) {
    const [x, y] = [random() * w, random() * h];
    if (Math.hypot(x - 0.7 * w, y - 0.55 * h) < 0.1 * h || !isGlass(x, y)) continue;
    const z = height(x, y) + noiseMm * deviate() + (random() < strayFrac ? 200 * random() - 100 : 0);
    // x to the right, the file's z upright, the pane's face towards minus y
    out.set([2000 + x, -500 - c * z + s * y, 800 + s * z + c * y], 3 * i++);
  }
  return out;
}
