import type { Surface, SurfaceKind, SurfaceOf } from '@yellow-pane/contracts';

/** Where film lies on each kind of surface. */
const faceOfKind: { readonly [K in SurfaceKind]: (s: SurfaceOf<K>) => string } = {
  pane: (s) => (s.filmFace === 'room' ? 'room side' : 'street side'),
  column: () => 'all round',
  panel: (s) => (s.faces === 'both' ? 'both faces' : 'its front'),
  wall: () => 'the side of the room',
  counter: () => 'its top',
  sign: () => 'its front',
};
/** The face of a surface that film lies on, in a few words. */
export const laidFace = (surface: Surface): string => (faceOfKind[surface.kind] as (s: Surface) => string)(surface);
