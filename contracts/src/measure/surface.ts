import * as z from 'zod';
import { id, instant, lengthMm, offsetMm, unitSystem, words } from '../quantities.js';
import { chooseSettings, exposure, faceFound, glazing } from '../choose/glazing.js';
import { cutOut, paneShape } from './shape.js';
import { curvedPane } from '../form/curved.js';
import { allowances, cutMethod } from '../cut/allowances.js';
import { design } from '../cut/design.js';
import { seam } from '../cut/seam.js';

/**
 * What a tape can say of an opening; the first fourteen of a four-sided one. `largest` are the two tapes of an overhang job; the eight others make the
 * redundant survey; the four `bow` gaps settle whether a side is bowed (straightedge along the side, gap at its middle,
 * positive where the side stands away from the opening, so that the opening is wider there).
 */
export const measureKey = z.enum([
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
export type MeasureKey = z.infer<typeof measureKey>;

/** One reading of one measure. Superseded, never overwritten: the newest that no other supersedes is in force. */
export const reading = z.object({
  id,
  jobId: id,
  surfaceId: id,
  measure: measureKey,
  /** Exactly what was typed. */
  typed: words(40),
  unit: unitSystem,
  lengthMm: offsetMm.or(lengthMm),
  /** Quote: what a price was asked for; a guess until somebody tapes it. */
  instrument: z.enum(['tape', 'laser', 'straightedge', 'import', 'quote']),
  personId: id,
  at: instant,
  supersedesId: id.nullable(),
  /** A reading taken back without a new one: it no longer counts, but stays in the record. */
  withdrawnAt: instant.nullable(),
  deletedAt: instant.nullable(),
});
export type Reading = z.infer<typeof reading>;

const side = z.enum(['room', 'street']);
export const frameKind = z.enum(['gasket', 'silicone', 'putty', 'bead', 'unknown']);
export const obstructionKind = z.enum(['handle', 'hinge', 'blind bracket', 'vent', 'sensor', 'other']);

/** A spoiled or extra piece that was asked for. */
const extraPiece = z.object({
  id,
  reason: words(80),
  at: instant,
  /** Of a pane laid in several pieces: which of them, counted from 0; null = the only one. */
  part: z.int().min(0).max(60).nullable().default(null),
});

/** One physical pane, wall, column …; in this version every surface is a pane of glass, flat or curved. */
export const surface = z.object({
  id,
  jobId: id,
  placeId: id,
  kind: z.literal('flat-pane'),
  name: words(60).min(1, 'A pane needs a name.'),
  order: z.number(),
  /** Where it stands in a group of equal panes between glazing bars (row 0 is the top), if in one. */
  grid: z.object({ groupId: id, row: z.int().min(0), column: z.int().min(0) }).nullable(),
  /** Its readings are those of that surface, but for the ones it has itself. */
  measuredLikeId: id.nullable(),
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
  filmId: id.nullable(),
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
  /** A piece already cut for another pane serves this one: its id. */
  servedById: z.string().max(60).nullable().default(null),
  allowances: allowances.partial().nullable(),
  /** Signed by a person for exactly these readings, with the explanation of tapes that disagree that they take for true. */
  signed: z.object({ personId: id, at: instant, readingsHash: z.string(), believes: z.string().max(80).nullable().optional() }).nullable(),
  /** The doubt was put off; it stays visible, and Cut stays shut where it matters. */
  doubtLater: z.boolean(),
  extraPieces: z.array(extraPiece).max(50),
  note: words(400),
  deletedAt: instant.nullable(),
});
export type Surface = z.infer<typeof surface>;

/** A pane nobody has looked at yet, with what is known of it. */
export const newSurface = (known: Pick<Surface, 'id' | 'jobId' | 'placeId' | 'name' | 'order'> & Partial<Surface>): Surface => ({
  kind: 'flat-pane',
  grid: null,
  measuredLikeId: null,
  shape: null,
  cutOuts: [],
  curved: null,
  sizeKind: 'daylight',
  revealMm: null,
  frame: 'unknown',
  obstructions: [],
  seenFrom: 'room',
  filmFace: 'room',
  calledCrooked: false,
  filmId: null,
  glazing: null,
  exposure: null,
  workedFace: 'unknown',
  choose: null,
  method: null,
  seam: null,
  design: null,
  servedById: null,
  allowances: null,
  signed: null,
  doubtLater: false,
  extraPieces: [],
  note: '',
  deletedAt: null,
  ...known,
});
