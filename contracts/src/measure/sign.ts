import * as z from 'zod';
import { id, offsetMm, positiveLengthMm, words } from '../quantities.js';
import { ofDrySurface } from './dry-surface.js';
import { hardware } from './hardware.js';
import { panelMeasure } from './panel.js';

/** What can be taped of the ground of a sign: its face, as it is seen from the front. */
export const signMeasure = panelMeasure.exclude(['edgeThickness', 'edgeGirth']);
export type SignMeasure = z.infer<typeof signMeasure>;

/** The shipped faces that letters are set in: open and even strokes; the same, heavy; strokes of one width on a fixed pitch, plain and heavy. */
export const letterFace = z.enum(['plain', 'heavy', 'pitched', 'pitched-heavy']);
export type LetterFace = z.infer<typeof letterFace>;
/** Space between letters beyond what the face has, % of the height of a capital. */
const letterSpacing = z.number().min(-5).max(60);
/** What is written in one line of letters. */
export const letterText = words(60).min(1, 'Say what is written there.');

/** Letters or a figure may be drawn with so many signs of an SVG path: a line of sixty letters of the richest outlines goes in. */
const svgPath = z.string().trim().min(3).max(90_000);

/** Where a line of letters, or a figure, comes to stand on its ground, seen from the front. */
const placed = {
  id,
  /** From the foot of the ground to what the letters stand on, or to the lowest of a figure. */
  baselineMm: offsetMm,
  /** From the left side of the ground to the left end of the line, to its middle, or to its right end: where `align` says. */
  atMm: offsetMm,
  align: z.enum(['left', 'middle', 'right']),
  /** Of a capital without a round; of a figure all of it. */
  heightMm: positiveLengthMm.max(5000),
};

/** One line of letters, set once: as the outlines of its face, whose baseline is y = 0; or a figure. */
export const signLine = z.discriminatedUnion('is', [
  z.object({
    is: z.literal('letters'),
    ...placed,
    text: letterText,
    face: letterFace,
    spacing: letterSpacing,
    svgPath,
    /** Height of a capital, in the units of the path. */
    capUnits: z.number().positive().max(100_000),
  }),
  z.object({ is: z.literal('figure'), ...placed, what: words(40).min(1, 'Say what it is.'), svgPath }),
]);
export type SignLine = z.infer<typeof signLine>;

/** Letters and figures that are cut out of film and carried over to a canvas, a board, a wall or a door with transfer tape. */
export const sign = z.object({
  ...ofDrySurface,
  kind: z.literal('sign'),
  what: z.enum(['canvas', 'board', 'wall', 'door']),
  /** How its ground feels: letters on texture need heat. */
  texture: z.enum(['smooth', 'fine', 'rough', 'unknown']),
  lines: z.array(signLine).max(8),
  /** Eyelets, seams, lamps: what letters must keep off. */
  hardware: z.array(hardware).max(20),
});
export type Sign = z.infer<typeof sign>;

/** What is to be set. */
export const letteringInput = z.object({ text: letterText, face: letterFace, spacing: letterSpacing.default(0) });
/** Letters as outlines: an SVG path whose baseline is y = 0, y down. */
export const letteringResult = z.object({ svgPath: z.string(), capUnits: z.number() });
export type Lettering = z.infer<typeof letteringResult>;
