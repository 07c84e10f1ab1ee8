import * as z from 'zod';

/** What film that is laid dry is laid on. */
export const groundMaterial = z.enum([
  'plasterboard',
  'plaster',
  'concrete',
  'brick',
  'wood',
  'wood-board',
  'steel',
  'aluminium',
  'laminate',
  'tile',
  'canvas',
  'unknown',
]);
export const groundFinish = z.enum(['bare', 'painted', 'lacquered', 'laminated', 'unknown']);
export const gloss = z.enum(['matt', 'satin', 'gloss', 'unknown']);
export const groundState = z.enum(['sound', 'damaged', 'chalking', 'peeling', 'unknown']);

/** What a person found of a ground that is no glass; what nobody looked at is unknown. */
export const ground = z.object({
  material: groundMaterial.default('unknown'),
  finish: groundFinish.default('unknown'),
  /** When it was painted, or concrete and render was made; null: nobody knows. */
  madeOn: z.iso.date().nullable().default(null),
  gloss: gloss.default('unknown'),
  state: groundState.default('unknown'),
  /** Moisture was found. Null: nobody measured. */
  isDamp: z.boolean().nullable().default(null),
  isGreasy: z.boolean().nullable().default(null),
  /** Measured on it. Null: nobody did. */
  surfaceTempC: z.number().min(-45).max(90).nullable().default(null).meta({ unit: '°C' }),
});
export type Ground = z.infer<typeof ground>;
