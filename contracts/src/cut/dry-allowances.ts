import * as z from 'zod';
import { lengthMm } from '../quantities.js';

/** What to do with a lap that grows because a column gets thinner. */
const taperSchool = z.enum(['trim', 'wedge']);
/** How film is folded at a corner where two wrapped edges meet. */
export const cornerSchool = z.enum(['relief', 'mitre', 'envelope']);
export type CornerSchool = z.infer<typeof cornerSchool>;

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
  /** What a panel’s piece reaches past the face on every side, if no wrap asks for more. */
  panelMm: lengthMm.min(10).max(200),
  /** How far film goes on to the back of a panel where it is returned. */
  returnMm: lengthMm.min(5).max(150),
  corner: cornerSchool,
  /** Film that goes round a corner beneath the edge that is laid over it. */
  cornerTabMm: lengthMm.min(3).max(50),
  /** What the first of two walls turns round an inside corner, if the corner’s wandering asks for no more. */
  insideReturnMm: lengthMm.min(9).max(100),
  /** Liner that is slit free along the edge that goes into an inside corner. */
  cornerLinerMm: lengthMm.min(20).max(150),
  /** What the first of two walls goes round an outside corner at least: no seam lies on its arris. */
  outsideWrapMm: lengthMm.min(10).max(300),
  /** Film over film where both are cut through together. */
  doubleCutMm: lengthMm.min(20).max(150),
  /** Liner that is sliced off at one end of a top, where it is tacked first. */
  endLinerMm: lengthMm.min(20).max(300),
  /** Film left round letters, to weed them by and for transfer tape to hold. */
  weedMm: lengthMm.min(5).max(100),
  /** Letters are carried over in sheets no longer than this: what one pair of hands lays straight. */
  sheetMm: lengthMm.min(300).max(5000),
});
export type DryAllowances = z.infer<typeof dryAllowances>;
