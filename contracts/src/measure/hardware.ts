import * as z from 'zod';
import { id, lengthMm, positiveLengthMm, words } from '../quantities.js';

/** What becomes of something on a face: it comes off before film goes on, it stays and is cut round, or there is an opening and no film. */
export const handling = z.enum(['off', 'round', 'open']);

/** Something that stands on a face, or an opening in it. */
export const hardware = z.object({
  id,
  what: words(40).min(1, 'Say what it is.'),
  handling,
  fromLeftMm: lengthMm,
  fromFootMm: lengthMm,
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
  isElectric: z.boolean(),
  /** Round: its cuts end at its rim. Left out: it has corners. */
  isRound: z.boolean().optional(),
});
export type Hardware = z.infer<typeof hardware>;
