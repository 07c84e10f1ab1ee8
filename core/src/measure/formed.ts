import type { DrySurface } from './kinds.js';

/** Where film is bent or stretched on what it is laid on dry. */
export interface FormedAt {
  /** Over edges and their rounds. */
  readonly edges: boolean;
  /** Into grooves and recesses. */
  readonly hollows: boolean;
  /** Round corners of walls, or into a texture. */
  readonly elsewhere: boolean;
}
const nowhere: FormedAt = { edges: false, hollows: false, elsewhere: false };
const formed: { readonly [K in DrySurface['kind']]: (s: Extract<DrySurface, { kind: K }>) => FormedAt } = {
  column: () => nowhere,
  panel: (s) => ({
    ...nowhere,
    hollows: s.grooves.length + s.recesses.length > 0 || s.corrugation !== null || s.dome !== null,
    edges: Object.values(s.wraps).some((w) => w !== 'trimmed'),
  }),
  wall: (s) => ({ ...nowhere, elsewhere: s.left.is !== 'stop' || s.right.is !== 'stop' || (s.masonry?.jointDepthMm ?? 0) > 0 }),
  counter: (s) => ({ ...nowhere, edges: Object.values(s.sides).some((side) => side === 'edge' || side === 'return' || side === 'strip') }),
  sign: (s) => ({ ...nowhere, elsewhere: s.texture !== 'smooth' }),
};
export const formedAt = (surface: DrySurface): FormedAt => (formed[surface.kind] as (s: DrySurface) => FormedAt)(surface);
