import * as z from 'zod';
import { id, lengthMm, positiveLengthMm } from '../quantities.js';
import { ofDrySurface } from './dry-surface.js';
import { hardware } from './hardware.js';

/** What can be taped of a panel: its face as it is seen from the front, how thick its edge is, and the way of a string over that edge, from arris to arris. */
export const panelMeasure = z.enum([
  'widthTop',
  'widthMiddle',
  'widthBottom',
  'heightLeft',
  'heightMiddle',
  'heightRight',
  'diagonalDown',
  'diagonalUp',
  'edgeThickness',
  'edgeGirth',
]);
export type PanelMeasure = z.infer<typeof panelMeasure>;

/** How far film goes at an edge: trimmed at the arris, over the edge, or over it and on to the back. */
export const panelWrap = z.enum(['trimmed', 'edge', 'return']);
export type PanelWrap = z.infer<typeof panelWrap>;

/** How a groove is cut: straight sides, sides that slope down to a flat, a round bottom, or a moulding of which only its girth is known. */
export const grooveForm = z.enum(['square', 'vee', 'round', 'moulding']);

/** A groove or moulding of a panel. All places are from the left edge and the foot, seen from the front, to the nearer side of it. */
export const groove = z.object({
  id,
  /** Upright or level: from edge to edge. Frame: four of them, mitred at the corners. */
  run: z.discriminatedUnion('way', [
    z.object({ way: z.literal('upright'), fromLeftMm: lengthMm }),
    z.object({ way: z.literal('level'), fromFootMm: lengthMm }),
    z.object({ way: z.literal('frame'), fromLeftMm: lengthMm, fromFootMm: lengthMm, acrossMm: positiveLengthMm, upMm: positiveLengthMm }),
  ]),
  /** From its far side on to the right edge (a level one: to the top). Null: nobody taped it. It checks the other tapes. */
  toFarEdgeMm: lengthMm.nullable(),
  form: grooveForm,
  /** Its mouth. */
  widthMm: positiveLengthMm,
  depthMm: positiveLengthMm,
  /** Of sloping sides: how wide its flat bottom is; 0 = a V. */
  flatMm: lengthMm,
  /** The way of a string pressed into it. Null: nobody laid one. */
  girthMm: positiveLengthMm.nullable(),
});
export type Groove = z.infer<typeof groove>;

/** An order in which film is brought into a recess. */
export const recessWay = z.enum(['bridged', 'fed', 'divided', 'walls-first', 'field-first']);

/** A field that lies deeper than what is round it. Its place is from the left edge and the foot to the edge of its mouth, seen from the front. */
export const recess = z.object({
  id,
  fromLeftMm: lengthMm,
  fromFootMm: lengthMm,
  /** Its mouth. */
  acrossMm: positiveLengthMm,
  upMm: positiveLengthMm,
  depthMm: positiveLengthMm,
  /** How far its walls lean in from mouth to field; 0: upright. */
  slopeMm: lengthMm,
  /** Radius of the corners of its mouth; 0: sharp. */
  cornerMm: lengthMm,
  /** The order that was chosen for it. Null: the one in which film stretches least. */
  way: recessWay.nullable().default(null),
});
export type Recess = z.infer<typeof recess>;

/** Ribs of one section side by side over all of a sheet. */
export const corrugation = z.object({
  /** How its ribs run. */
  run: z.enum(['upright', 'level']),
  /** Arc beside arc, or flats with flanks between. */
  form: z.enum(['wave', 'trapezoid']),
  /** From the middle of a crest to the middle of the next. */
  pitchMm: positiveLengthMm,
  depthMm: positiveLengthMm,
  /** Flats of a trapezoid, from bend to bend: on its crests, and in its valleys. */
  crestMm: lengthMm,
  valleyMm: lengthMm,
  /** Radius of its bends; 0: sharp. */
  bendMm: lengthMm,
  /** The way of a string from crest to crest, pressed into the valley. Null: nobody laid one. */
  girthMm: positiveLengthMm.nullable(),
  /** Valley by valley with film drawn in from outside, or stretched over the crests and formed into the valleys. */
  way: z.enum(['fed', 'bridged']),
});
export type Corrugation = z.infer<typeof corrugation>;

/** A sheet that stands out in its middle, both ways or one: how far its arrises lie back behind a straightedge laid on its middle. */
export const dome = z.object({ acrossBowMm: lengthMm, upBowMm: lengthMm });
export type Dome = z.infer<typeof dome>;

/** Corners where wrapped edges meet: how round they are as one stands before the face, and how round the arris is between face and edge. */
export const roundCorners = z.object({
  radiusMm: z.number().positive().max(500).meta({ unit: 'mm' }),
  arrisMm: z.number().min(0).max(500).meta({ unit: 'mm' }),
});
export type RoundCorners = z.infer<typeof roundCorners>;

/** One leaf, front or board that film is laid on dry: a door, a wall panel, a drawer front, a wall of a lift. */
export const panel = z.object({
  ...ofDrySurface,
  kind: z.literal('panel'),
  what: z.enum(['door', 'panel', 'drawer', 'lift-wall']),
  /** Which side its hinges are on, seen from the front; none: it does not swing. */
  hinges: z.enum(['left', 'right', 'none']),
  faces: z.enum(['front', 'both']),
  wraps: z.object({ left: panelWrap, right: panelWrap, top: panelWrap, bottom: panelWrap }),
  /** How the film’s direction runs over it. */
  grain: z.enum(['upright', 'level']),
  /** Which end of the roll is its head, or its left where the direction is level: leaves that meet and are hung head up and head down show the same edge of the roll to each other. */
  head: z.enum(['any', 'up', 'down']).default('any'),
  /** The leaf on its left, from which grain, pattern and lot go on; null: none. */
  besideId: id.nullable().default(null),
  /** Whether it belongs to a fire door or an escape route, where film needs a written yes. */
  fire: z.enum(['no', 'rated', 'unknown']),
  grooves: z.array(groove).max(12),
  recesses: z.array(recess).max(6).default([]),
  /** Null: it is no corrugated sheet. */
  corrugation: corrugation.nullable().default(null),
  /** Null: its face is flat. */
  dome: dome.nullable().default(null),
  /** Null: they are sharp, and folded. */
  corners: roundCorners.nullable().default(null),
  hardware: z.array(hardware).max(20),
});
export type Panel = z.infer<typeof panel>;
