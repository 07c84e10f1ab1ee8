import * as z from 'zod';
import { id, instant, words } from '../quantities.js';

/** A spoiled or extra piece that was asked for. */
const extraPiece = z.object({
  id,
  reason: words(80),
  at: instant,
  /** Of a surface laid in several pieces: which of them, counted from 0; null = the only one. */
  part: z.int().min(0).max(60).nullable().default(null),
});

/** What every surface has, whatever its kind. */
export const ofEverySurface = {
  id,
  jobId: id,
  placeId: id,
  name: words(60).min(1, 'A surface needs a name.'),
  order: z.number(),
  /** Its readings are those of that surface (of the same kind), but for the ones it has itself. */
  measuredLikeId: id.nullable(),
  filmId: id.nullable(),
  /** Signed by a person for exactly these readings, with the explanation of tapes that disagree that they take for true. */
  signed: z.object({ personId: id, at: instant, readingsHash: z.string(), believes: z.string().max(80).nullable().optional() }).nullable(),
  /** The doubt was put off; it stays visible, and Cut stays shut where it matters. */
  doubtLater: z.boolean(),
  extraPieces: z.array(extraPiece).max(50),
  /** A piece already cut for another surface serves this one: its id. */
  servedById: z.string().max(60).nullable().default(null),
  note: words(400),
  deletedAt: instant.nullable(),
};
export type OfEverySurface = z.infer<z.ZodObject<typeof ofEverySurface>>;

/** What has to be known of a surface before it can be written down. */
export type NamedSurface = Pick<OfEverySurface, 'id' | 'jobId' | 'placeId' | 'name' | 'order'>;
