import * as z from 'zod';
import { lengthMm } from '../quantities.js';

/** How two pieces meet on the glass. */
export const seamKind = z.enum(['overlap', 'butt', 'double-cut']);
export type SeamKind = z.infer<typeof seamKind>;

/** Where a pane is pieced together. Positions in mm from the left side of the opening (upright seams) or from its sill (level ones), as it was measured. */
export const seam = z.object({
  kind: seamKind,
  direction: z.enum(['upright', 'level']),
  atMm: z.array(lengthMm).min(1).max(20),
});
export type Seam = z.infer<typeof seam>;
