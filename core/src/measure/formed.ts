import type { DrySurface } from './kinds.js';

/** Whether film is bent or stretched somewhere on what it is laid on dry. */
const formed: { readonly [K in DrySurface['kind']]: (s: Extract<DrySurface, { kind: K }>) => boolean } = {
  column: () => false,
  panel: (s) => s.grooves.length > 0 || Object.values(s.wraps).some((w) => w !== 'trimmed'),
  wall: (s) => s.left.is !== 'stop' || s.right.is !== 'stop' || (s.masonry?.jointDepthMm ?? 0) > 0,
  counter: (s) => Object.values(s.sides).some((side) => side === 'edge' || side === 'return' || side === 'strip'),
  // pressed into a texture
  sign: (s) => s.texture !== 'smooth',
};
export const isFormed = (surface: DrySurface): boolean => (formed[surface.kind] as (s: DrySurface) => boolean)(surface);
