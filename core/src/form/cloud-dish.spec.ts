import { seededRandom } from '../ground/index.js';
import { dishThrough } from './cloud-dish.js';

test('one point in seven lies 120 mm off, on a wiper or a tree: the dish is that of the glass, to a tenth of a millimetre', () => {
  const random = seededRandom(11);
  const glass = (x: number, y: number) => 30 - (40 * (x - 600) ** 2) / 600 ** 2 - (12 * (y - 300) ** 2) / 300 ** 2;
  const x = Float64Array.from({ length: 4000 }, () => 1200 * random());
  const y = x.map(() => 600 * random());
  const z = x.map((v, i) => glass(v, y[i]!) + (i % 7 === 0 ? 120 : random() - 0.5));
  const dish = dishThrough({ x, y, z }, 1200);
  for (const [px, py] of [[600, 300], [60, 40], [1140, 560], [300, 500]] as const) expect(Math.abs(dish(px, py) - glass(px, py))).toBeLessThan(0.1); // prettier-ignore
});
