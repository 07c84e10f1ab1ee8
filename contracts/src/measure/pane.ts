import * as z from 'zod';
import { id, lengthMm, words } from '../quantities.js';
import { chooseSettings, exposure, faceFound, glazing } from '../choose/glazing.js';
import { cutOut, paneShape } from './shape.js';
import { curvedPane } from '../form/curved.js';
import { allowances, cutMethod } from '../cut/allowances.js';
import { design } from '../cut/design.js';
import { seam } from '../cut/seam.js';
import { ofEverySurface } from './shared.js';

/**
 * What a tape can say of an opening; the first fourteen of a four-sided one. `largest` are the two tapes of an overhang job; the eight others make the
 * redundant survey; the four `bow` gaps settle whether a side is bowed (straightedge along the side, gap at its middle,
 * positive where the side stands away from the opening, so that the opening is wider there).
 */
export const paneMeasure = z.enum([
  'widthLargest',
  'heightLargest',
  'widthTop',
  'widthMiddle',
  'widthBottom',
  'heightLeft',
  'heightMiddle',
  'heightRight',
  'diagonalDown',
  'diagonalUp',
  'bowTop',
  'bowBottom',
  'bowLeft',
  'bowRight',
  // arches, circles, quarters, triangles
  'widthSpring',
  'widthHalfRise',
  'crownLeft',
  'crownRight',
  'chord',
  'cornerToArc',
  'sideLeft',
  'sideRight',
  // polygons: from corner to corner
  'AB',
  'AC',
  'AD',
  'AE',
  'AF',
  'AG',
  'AH',
  'BC',
  'BD',
  'BE',
  'BF',
  'BG',
  'BH',
  'CD',
  'CE',
  'CF',
  'CG',
  'CH',
  'DE',
  'DF',
  'DG',
  'DH',
  'EF',
  'EG',
  'EH',
  'FG',
  'FH',
  'GH',
]);

const side = z.enum(['room', 'street']);
export const frameKind = z.enum(['gasket', 'silicone', 'putty', 'bead', 'unknown']);
export const obstructionKind = z.enum(['handle', 'hinge', 'blind bracket', 'vent', 'sensor', 'other']);

/** One physical pane of glass, flat or curved. */
export const pane = z.object({
  ...ofEverySurface,
  kind: z.literal('pane'),
  /** Where it stands in a group of equal panes between glazing bars (row 0 is the top), if in one. */
  grid: z.object({ groupId: id, row: z.int().min(0), column: z.int().min(0) }).nullable(),
  /** Null: four-sided. */
  shape: paneShape.nullable().default(null),
  cutOuts: z.array(cutOut).max(20).default([]),
  /** Null: flat glass. */
  curved: curvedPane.nullable().default(null),
  /** Daylight: gasket to gasket. Tight: under the beads. */
  sizeKind: z.enum(['daylight', 'tight']),
  revealMm: lengthMm.nullable(),
  frame: frameKind,
  obstructions: z.array(z.object({ kind: obstructionKind, note: words(120) })).max(20),
  seenFrom: side,
  filmFace: side,
  /** The person saw that it is crooked: ask for all tapes and expect more taper. */
  calledCrooked: z.boolean(),
  /** Null: nobody has looked at the glass yet. */
  glazing: glazing.nullable().default(null),
  exposure: exposure.nullable().default(null),
  /** What the face that gets the film felt like; what is found on site is in the log and counts before it. */
  workedFace: faceFound.default('unknown'),
  /** What is wanted here; null = as the job. */
  choose: chooseSettings.nullable().default(null),
  method: cutMethod.nullable(),
  /** How a pane wider than its film is pieced together; null = in one piece. */
  seam: seam.nullable().default(null),
  /** Frosted design; null = plain film all over. */
  design: design.nullable().default(null),
  allowances: allowances.partial().nullable(),
});
export type Pane = z.infer<typeof pane>;
