import type { Bow, BowPlace, PaneCloud } from '@yellow-pane/contracts';
import type { Polygon } from '../geometry/index.js';
import type { Sight } from './sight.js';
import { straightedgeOf } from './pane-outline.js';

/** Standard deviation of a bow read with a straightedge and a rule, mm. @source common practice: good to 1 mm, taken as two sigma */
export const BOW_SIGMA_MM = 0.5;

/** Heights that make the gap under the middle of a straightedge. Null where it would lie off the glass. */
export function bowTerms(outline: Polygon, place: BowPlace): Sight['terms'] | null {
  const edge = straightedgeOf(outline, place);
  if (!edge) return null;
  return [
    { ...edge.middle, factor: 1 },
    { ...edge.from, factor: -0.5 },
    { ...edge.to, factor: -0.5 },
  ];
}

/** The bows of a pane as sights; those that lie off the glass are told apart. */
export function sightsOfBows(outline: Polygon, bows: readonly Bow[]): { sights: Sight[]; off: Bow[] } {
  const sights: Sight[] = [];
  const off: Bow[] = [];
  for (const b of bows) {
    const terms = bowTerms(outline, b);
    if (terms) sights.push({ id: b.id, terms, valueMm: b.depthMm, sigmaMm: BOW_SIGMA_MM });
    else off.push(b);
  }
  return { sights, off };
}

/** The cells of a point cloud as sights. */
export const sightsOfCloud = (cloud: Pick<PaneCloud, 'cells'>): Sight[] =>
  cloud.cells.map(([x, y, z, sigmaMm], i) => ({ id: String(i), terms: [{ x, y, factor: 1 }], valueMm: z, sigmaMm }));
