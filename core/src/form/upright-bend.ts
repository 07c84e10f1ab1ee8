import type { CurvedPane } from '@yellow-pane/contracts';
import { boundingBox } from '../geometry/index.js';

/** So much of the width on either side of the middle tells of the upright bend of a cloud. @source house rule */
const COLUMN_FRAC = 0.15;

/**
 * How sharply a pane bends along a blade that stands upright on it, 1/mm: by its deepest upright bow over the whole height, of a point cloud by the parabola through
 * its middle. An edge that bends once more does not count: the hard card goes over it.
 * @param heightMm of the pane @returns null where neither was measured
 * @source chord and sagitta: 8 h / H²
 */
export function uprightBendPerMm(curved: Pick<CurvedPane, 'bows' | 'cloud'>, heightMm: number): number | null {
  if (curved.cloud) return bendOfMiddle(curved.cloud);
  const bows = curved.bows.filter((b) => b.way === 'upright' && !b.span);
  return bows.length ? (8 * Math.max(...bows.map((b) => Math.abs(b.depthMm)))) / heightMm ** 2 : null;
}

function bendOfMiddle({ cells, outline }: NonNullable<CurvedPane['cloud']>): number | null {
  const box = boundingBox(outline);
  const [mid, reach] = [(box.minX + box.maxX) / 2, COLUMN_FRAC * (box.maxX - box.minX)];
  const column = cells.filter(([x]) => Math.abs(x - mid) <= reach);
  if (column.length < 6) return null;
  // least squares with the parabola that is square to the straight lines over these heights
  const mean = (f: (c: (typeof column)[number]) => number): number => column.reduce((s, c) => s + f(c), 0) / column.length;
  const y0 = mean((c) => c[1]);
  const [m2, m3] = [mean((c) => (c[1] - y0) ** 2), mean((c) => (c[1] - y0) ** 3)];
  const bowed = (c: (typeof column)[number]): number => (c[1] - y0) ** 2 - m2 - (m3 / m2) * (c[1] - y0);
  const norm = mean((c) => bowed(c) ** 2);
  return norm > 0 ? 2 * Math.abs(mean((c) => bowed(c) * c[2]) / norm) : null;
}
