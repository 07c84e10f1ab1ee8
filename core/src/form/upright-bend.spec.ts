import { dishOver, readBows, sheet, strewn } from './curved-panes.testing.js';
import { placeCloud } from './place-cloud.js';
import { uprightBendPerMm } from './upright-bend.js';

const [w, h] = [1320, 560];
const height = dishOver(w, h, 62, 14);
/** A parabola that stands 14 mm off a chord of 560: 8 h / H². */
const bent = (8 * 14) / h ** 2;

test('by the bows of a pane: its deepest upright one; level ones, diagonals and short ones near an edge do not count', () => {
  const bows = readBows(sheet(w, h), height);
  expect(uprightBendPerMm({ bows, cloud: null }, h)).toBeCloseTo(bent, 9);
  const short = bows.map((b) => (b.way === 'upright' ? { ...b, span: { fromMm: 0, lengthMm: 260 }, depthMm: 40 } : b));
  expect(uprightBendPerMm({ bows: short, cloud: null }, h)).toBeNull();
});
test('by its cloud: the parabola through its middle, to 3 %', () => {
  const placed = placeCloud(strewn(w, h, height), 'x.ply', 'mm');
  if (!placed.ok) throw new Error(placed.message);
  expect(uprightBendPerMm({ bows: [], cloud: placed.value }, h)! / bent).toBeCloseTo(1, 1);
  expect(uprightBendPerMm({ bows: [], cloud: { ...placed.value, cells: placed.value.cells.slice(0, 4) } }, h)).toBeNull();
});
