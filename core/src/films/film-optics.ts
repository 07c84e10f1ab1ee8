import type { FilmOptics } from '@yellow-pane/contracts';
import { fail, ok, type Result } from '../ground/index.js';
import { filmAlone, referenceSlab, type BandName, type Layer } from './glass-slab.js';

/** The film by itself, bonded to glass in front (towards the street) and open behind, in each band. */
export type FilmBlock = Readonly<Record<BandName, Layer>>;

/**
 * Takes the reference glass off the rated values. A film rated on 3 mm clear is not darker for standing on that glass, so
 * its label cannot simply be multiplied with another pane's.
 * Ultraviolet is rated as transmission only; the reflections are taken as those of a plain polyester face.
 * @returns the film by itself, or the sentence that says what cannot be
 * @source docs/models/light.md §2
 */
export function filmBlock(optics: FilmOptics): Result<FilmBlock> {
  const uvFace = 0.05;
  const rated: Record<BandName, Layer> = {
    visible: asLayer(optics.visible),
    solar: asLayer(optics.solar),
    uv: { t: optics.uvTransmittanceFrac, rFront: uvFace, rBack: uvFace },
  };
  const out: Partial<Record<BandName, Layer>> = {};
  for (const band of ['visible', 'solar', 'uv'] as const) {
    const alone = filmAlone(rated[band], referenceSlab(optics.ratedOn, band));
    if (!alone)
      return fail(
        `In the ${band} band these values cannot come from a film on ${referenceName[optics.ratedOn]}: it would give out more than it gets. Check what glass the sheet was made on.`,
      );
    out[band] = alone;
  }
  return ok(out as FilmBlock);
}

const asLayer = (b: FilmOptics['visible']): Layer => ({ t: b.transmittanceFrac, rFront: b.reflectanceGlassSideFrac, rBack: b.reflectanceFreeSideFrac });
export const referenceName = { none: 'no glass', 'clear-3': '3 mm clear glass', 'clear-6': '6 mm clear glass' } as const;
