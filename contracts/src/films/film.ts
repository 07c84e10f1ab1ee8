import * as z from 'zod';
import { id, instant, words } from '../quantities.js';

/** One immutable version of a film. A job refers to the version. */
export const film = z.object({
  id,
  name: words(80).min(1),
  version: z.int().min(1),
  kind: z.enum(['solar', 'frosted', 'security']),
  /** Which face lies outside on the roll. */
  wound: z.enum(['liner-in', 'liner-out', 'unknown']),
  /** Direction that must stay upright: none, one way only, or either way up. */
  direction: z.enum(['none', 'one-way', 'two-way']),
  /** Hatch by which it is told apart in drawings. */
  hatch: z.enum(['slant', 'dots', 'cross', 'lines']),
  thicknessUm: z.number().positive().max(1000).meta({ unit: 'µm' }),
  createdAt: instant,
});
export type Film = z.infer<typeof film>;
