import * as z from 'zod';
import { decimalPrice, id, instant, positiveLengthMm, rollLengthM, words } from '../quantities.js';

/** One roll in the van or the shop. */
export const roll = z.object({
  id,
  filmId: id,
  label: words(40).min(1),
  lot: words(40),
  widthMm: positiveLengthMm,
  lengthM: rollLengthM,
  /** Crushed or crooked start that is cut away before the first drop. */
  leadInMm: z.number().min(0).max(5000).meta({ unit: 'mm' }),
  pricePerM: decimalPrice,
  /** True while it is only planned on and still has to be ordered. */
  isToOrder: z.boolean().default(false),
  deletedAt: instant.nullable(),
});
export type Roll = z.infer<typeof roll>;
