import type { Bow, BowPlace, PaneCloud } from '@yellow-pane/contracts';
import type { Polygon } from '../geometry/index.js';
import type { Sight } from './sight.js';
import { lengthOf, straightedgeOf, type Straightedge } from './pane-outline.js';

/** Standard deviation of a bow read with a straightedge and a rule, mm. @source common practice: good to 1 mm, taken as two sigma */
export const BOW_SIGMA_MM = 0.5;

/** A gap deeper than this share of its straightedge is no reading: on glass that film is laid on none comes near. @source house rule; a half circle has a half */
export const DEEPEST_FRAC = 1 / 3;

/** Heights that make the gap under the middle of a straightedge. Null where it would lie off the glass. */
export function bowTerms(outline: Polygon, place: BowPlace): Sight['terms'] | null {
  const edge = straightedgeOf(outline, place);
  return edge && termsOf(edge);
}
const termsOf = (edge: Straightedge): Sight['terms'] => [
  { ...edge.middle, factor: 1 },
  { ...edge.from, factor: -0.5 },
  { ...edge.to, factor: -0.5 },
];

/** The bows of a pane as sights; those that lie off the glass, and those that no pane can have, are told apart. */
export function sightsOfBows(outline: Polygon, bows: readonly Bow[]): { sights: Sight[]; off: Bow[]; impossible: Bow[] } {
  const sights: Sight[] = [];
  const off: Bow[] = [];
  const impossible: Bow[] = [];
  for (const b of bows) {
    const edge = straightedgeOf(outline, b);
    if (!edge) off.push(b);
    else if (Math.abs(b.depthMm) > DEEPEST_FRAC * lengthOf(edge)) impossible.push(b);
    else sights.push({ id: b.id, terms: termsOf(edge), valueMm: b.depthMm, sigmaMm: BOW_SIGMA_MM });
  }
  return { sights, off, impossible };
}

/** The cells of a point cloud as sights. */
export const sightsOfCloud = (cloud: Pick<PaneCloud, 'cells'>): Sight[] =>
  cloud.cells.map(([x, y, z, sigmaMm], i) => ({ id: String(i), terms: [{ x, y, factor: 1 }], valueMm: z, sigmaMm }));
