import * as z from 'zod';
import { lengthMm } from '../quantities.js';

/** What to do with a lap that grows because a column gets thinner. */
const taperSchool = z.enum(['trim', 'wedge']);

/** What is added to pieces that are laid dry, and where their liner is slit. Firm, then job, then surface decide. */
export const dryAllowances = z.object({
  /** Film over film at a seam. */
  lapMm: lengthMm.min(5).max(150),
  /** How deep the notches at both ends of a column piece are: half an inch, or more where bases are not level. */
  notchMm: lengthMm.min(3).max(150),
  /** Width of the strip of liner that is slit free in the middle of a column piece. */
  linerStripMm: lengthMm.min(30).max(400),
  /** The lap of a tapered column is trimmed straight, or left as the wedge it is. */
  taper: taperSchool,
});
export type DryAllowances = z.infer<typeof dryAllowances>;
