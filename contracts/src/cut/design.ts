import * as z from 'zod';
import { lengthMm, offsetMm, positiveLengthMm } from '../quantities.js';

/** From a height to a height, mm. */
export const heightZone = z
  .object({ bottomMm: lengthMm.max(20_000), topMm: positiveLengthMm.max(20_000) })
  .refine((z_) => z_.topMm > z_.bottomMm, { path: ['topMm'], message: 'The top of a band lies above its bottom.' });
export type HeightZone = z.infer<typeof heightZone>;

const common = {
  /** What heights are measured from: the finished floor, or the lower edge of the glass. */
  heightsFrom: z.enum(['floor', 'sill']),
  /** Clear distance from glass to glass between neighbouring panes: the design runs on behind the bars. */
  gapMm: lengthMm.max(2000),
};
const pitchMm = z.number().min(5).max(2000).meta({ unit: 'mm' });
const sizeMm = z.number().min(1).max(2000).meta({ unit: 'mm' });

/** A frosted design by its measures. It is drawn in the frame of the wall, so that it runs over neighbouring panes at true spacing. */
export const design = z.discriminatedUnion('kind', [
  /** Frosted bands, clear between them. */
  z.object({ kind: z.literal('bands'), ...common, bands: z.array(heightZone).min(1).max(12) }),
  /** Frosted dots or level stripes that grow smaller from one end of the zone to the other. */
  z.object({
    kind: z.literal('graded'),
    ...common,
    motif: z.enum(['dots', 'stripes']),
    zone: heightZone,
    denseAt: z.enum(['bottom', 'top']),
    pitchMm,
    largestMm: sizeMm,
    smallestMm: sizeMm,
  }),
  /** Frost all over with a clear figure in it, drawn as an SVG path. */
  z.object({
    kind: z.literal('figure'),
    ...common,
    svgPath: z.string().trim().min(3).max(20_000),
    widthMm: sizeMm.max(10_000),
    /** Middle of the figure: along the wall from the left side of the first pane, and its height. */
    acrossMm: offsetMm,
    middleMm: lengthMm,
  }),
  /** Marks that make glass seen: doors and walls of glass. */
  z.object({
    kind: z.literal('marking'),
    ...common,
    rule: z.enum(['approved-document-k', 'own']),
    zones: z.array(heightZone).min(1).max(4),
    motif: z.enum(['band', 'dots', 'squares']),
    sizeMm,
    pitchMm,
  }),
]);
export type Design = z.infer<typeof design>;
export type DesignKind = Design['kind'];
