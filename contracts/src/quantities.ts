import * as z from 'zod';
// here, where every schema comes by: from the index a bundler leaves it out
import './plain-words.js';

/** A length in millimetres, at least 0 and at most 100 m: nothing that is taped or cut is longer. */
export const lengthMm = z.number().min(0).max(100_000).meta({ unit: 'mm' });
/** A length that must be there: more than 0 mm. */
export const positiveLengthMm = z.number().positive().max(100_000).meta({ unit: 'mm' });
/** A place or a length along film on a roll: a roll is at most 1 km long. */
export const alongRollMm = z.number().min(0).max(1_000_000).meta({ unit: 'mm' });
/** Film of several rolls together. */
export const filmMm = z.number().min(0).max(100_000_000).meta({ unit: 'mm' });
/** A signed offset in millimetres, e.g. the gap under a straightedge. */
export const offsetMm = z.number().min(-10_000).max(10_000).meta({ unit: 'mm' });
/** Length of film on a roll in metres; a roll longer than 1 km does not exist. */

export const rollLengthM = z.number().min(0).max(1000).meta({ unit: 'm' });
/** An instant: ISO 8601 with offset, stored in UTC. */
export const instant = z.iso.datetime({ offset: true });
/** Ids are UUIDs made by the application (version 7: they sort by time), never by the database. */
export const id = z.uuid();
/** Unit prices are decimal strings, so that no price is ever half a cent off by floating point. */
export const decimalPrice = z
  .string()
  .regex(/^\d{1,7}(\.\d{1,4})?$/, 'a price such as 13.50')
  .meta({ unit: 'currency' });
/** How a bare number is read and how lengths are shown. */
export const unitSystem = z.enum(['mm', 'in']);
export type UnitSystem = z.infer<typeof unitSystem>;
/** Free text that a person types; trimmed, bounded. */
export const words = (most: number) => z.string().trim().max(most);
