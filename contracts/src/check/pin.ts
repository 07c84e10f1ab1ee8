import * as z from 'zod';
import { id } from '../quantities.js';

/** Place on a pane, from the lower left of its box as it is seen: shares of width and height. */
export const onPane = z.object({ xFrac: z.number().min(0).max(1), yFrac: z.number().min(0).max(1) });

/** What is seen on film that is on, by what it looks like: picked from drawings. */
export const pinKind = z.enum([
  /** Clear blisters or a milky patch. */
  'pockets',
  /** A veil over a part or all of it. */
  'haze',
  'bubble',
  'bubble-field',
  /** Beads along a line. */
  'bubble-line',
  'speck',
  'hair',
  'crease',
  /** Little fingers along an edge. */
  'fingers',
  /** A light line where film should be. */
  'light-line',
  /** An edge that stands off. */
  'edge-up',
  /** Many fine tight lines in a part of it. */
  'fine-lines',
  /** A stripe or wave that runs on. */
  'streak',
  'scratch',
  'crack',
  /** Wet fog that no cloth reaches. */
  'fog',
]);
export type PinKind = z.infer<typeof pinKind>;

/** How it lies: by itself, in a row, at an edge, all over. */
export const pinSpread = z.enum(['one', 'line', 'edge', 'field']);
export type PinSpread = z.infer<typeof pinSpread>;

/** What became of a thing that was seen. */
export const pinState = z.enum(['open', 'watched', 'mended', 'replaced', 'left', 'accepted']);
export type PinState = z.infer<typeof pinState>;

/** One tap after a look at the whole pane: how much water is still in it; of anything else there is a pin. */
export const paneLook = z.object({
  water: z.enum(['none', 'some', 'much']),
  /** Nothing but water, if that, was seen. */
  isClean: z.boolean(),
});
export type PaneLook = z.infer<typeof paneLook>;

/** Something that was seen. The place is as seen from the room, wherever one stood. */
export const pin = z.object({
  kind: pinKind,
  at: onPane,
  seenFrom: z.enum(['room', 'street']),
  spread: pinSpread,
  /** The longest way across it; null: not measured. */
  sizeMm: z.number().min(0).max(20_000).nullable().meta({ unit: 'mm' }),
  answers: z.record(z.string().max(40), z.string().max(40)),
});
export type Pin = z.infer<typeof pin>;

/** A further line about a pin: an answer, or what became of it. */
export const pinNews = z.object({
  pinId: id,
  answers: z.record(z.string().max(40), z.string().max(40)).default({}),
  state: pinState.nullable().default(null),
  /** What it was put down to. */
  causeKey: z.string().max(40).nullable().default(null),
  /** Looked at again from this day on. */
  watchUntil: z.iso.date().nullable().default(null),
});
export type PinNews = z.infer<typeof pinNews>;

/**
 * What a firm lets pass, seen from its distance. Sizes are of single things; a zone along the edges is judged half as strictly.
 * The rule is the firm's own: contracts and local standards come before it.
 */
export const acceptanceRule = z.object({
  distanceMm: z.number().min(300).max(10_000).meta({ unit: 'mm' }),
  /** Smaller ones do not count. */
  unseenMm: z.number().min(0).max(10).meta({ unit: 'mm' }),
  /** A larger one is never let pass. */
  speckMm: z.number().min(0).max(50).meta({ unit: 'mm' }),
  /** Hairs, lint and short lines up to this length. */
  lineMm: z.number().min(0).max(500).meta({ unit: 'mm' }),
  perM2: z.number().min(0).max(100),
  /** Nearer to one another than this they are seen as one. */
  apartMm: z.number().min(0).max(2000).meta({ unit: 'mm' }),
  edgeMm: z.number().min(0).max(300).meta({ unit: 'mm' }),
  source: z.string().max(200),
});
export type AcceptanceRule = z.infer<typeof acceptanceRule>;
/** What would leave a laid pane on days after it was laid, and what was so then. */
export const paneDrying = z.object({
  surfaceId: id,
  losses: z.array(z.object({ day: z.number(), gPerM2: z.number().meta({ unit: 'g/m²' }) })).min(1),
  basis: z.string(),
  wasWarm: z.boolean().nullable(),
});
export type PaneDrying = z.infer<typeof paneDrying>;
