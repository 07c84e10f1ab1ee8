import * as z from 'zod';
import { id, instant, words } from '../quantities.js';
import { faceFound } from '../choose/glazing.js';
import { workClass } from '../handover/work-class.js';
import { onPane, paneLook, pin, pinNews } from '../check/pin.js';
import { wallZoneDone } from './joints.js';
import { acceptance, erasedThing, lineErased } from '../handover/hand-over.js';

/** What is seen when something is wrong, on wet film on glass. */
export const problemKind = z.enum([
  'piece-small',
  'piece-mirrored',
  'grabs',
  'slides-off',
  'speck',
  'air',
  'water',
  'crease',
  'edge-fingers',
  'edge-line',
  'glass-scratch',
  'glass-crack',
]);
export type ProblemKind = z.infer<typeof problemKind>;

/** SHA-256 of the stored file, in hexadecimal: its name. */
export const photoHash = z.string().regex(/^[0-9a-f]{64}$/);

export const layKind = z.enum([
  /** Somebody has this pane in hand. */
  'begin',
  'step-done',
  'pane-done',
  'problem',
  /** The trouble is over; the pane goes on. */
  'mended',
  'note',
  'photo',
  'reading',
  /** What the face felt like, before anything hard touched it. */
  'found',
  /** A place of a textured wall is done: its faces, its joints, its border. */
  'zone-done',
  /** Something on the site was asked and is so. */
  'ready',
  /** The customer has seen the photos and signed. */
  'signed',
  /** Somebody looked at the whole pane after it was laid. */
  'looked',
  /** Something was seen on it. */
  'pin',
  /** More of what was seen: an answer, or what became of it. */
  'pin-news',
  /** The customer has walked panes and takes them over. */
  'accepted',
  /** The customer called after the work. */
  'called',
  /** Something personal was erased: who, when, why. */
  'erased',
  /** The entry named in `correctsId` was wrong. */
  'correction',
]);
export type LayKind = z.infer<typeof layKind>;

/** What was read with a thermometer. */
export const layReading = z.object({
  what: z.enum(['glass', 'film', 'hollow']),
  valueC: z.number().min(-60).max(400).meta({ unit: '°C' }),
  /** Film: which stretch of it was heated through and read. Left out: a trial of the gun, or the glass. */
  stretch: z
    .string()
    .regex(/^[a-z0-9-]{1,60}$/)
    .optional(),
  /** Film: how the gun had gone over it, and how long ago. */
  gun: z
    .object({
      distanceMm: z.number().min(5).max(400).meta({ unit: 'mm' }),
      speedMmPerS: z.number().min(1).max(500).meta({ unit: 'mm/s' }),
      passes: z.int().min(1).max(40),
      afterS: z.number().min(0).max(600).meta({ unit: 's' }),
    })
    .optional(),
});
export type LayReading = z.infer<typeof layReading>;

/**
 * One line of the log. It is never edited: what was wrong is corrected by a further line. `occurredAt` is the device’s clock put right by
 * the offset it measured; `receivedAt` is when the bench wrote it down, null on the way there.
 */
export const layEntry = z.object({
  id,
  jobId: id,
  /** Null: of the whole job. */
  surfaceId: id.nullable(),
  personId: id,
  occurredAt: instant,
  clockOffsetMs: z.number().min(-1e12).max(1e12).meta({ unit: 'ms' }),
  receivedAt: instant.nullable(),
  /** The steps this was logged by. */
  stepSetId: id,
  kind: layKind,
  /** Key of the step, or of the question before the work (`ready`). */
  stepKey: z.string().max(40).nullable().default(null),
  text: words(600).default(''),
  reading: layReading.nullable().default(null),
  found: faceFound.nullable().default(null),
  photo: photoHash.nullable().default(null),
  problem: z.object({ kind: problemKind, at: onPane.nullable(), answers: z.record(z.string().max(40), z.string().max(40)) }).nullable().default(null), // prettier-ignore
  /** Film of this pane: from which roll. */
  roll: z
    .object({ rollId: id, lot: words(80) })
    .nullable()
    .default(null),
  /** Who signed and the line they drew: strokes of points, shares of the field’s width. */
  signature: z
    .object({ name: words(120).min(1, 'Who signed?'), strokes: z.array(z.array(z.tuple([z.number(), z.number()])).max(2000)).max(200) })
    .nullable()
    .default(null),
  correctsId: id.nullable().default(null),
  /** Left out in lines of before there was a look after the work. */
  look: paneLook.optional(),
  pin: pin.optional(),
  news: pinNews.optional(),
  acceptance: acceptance.optional(),
  erasure: erasedThing.optional(),
  /** Left out in all lines but `zone-done`. */
  zone: wallZoneDone.optional(),
  /** Random, so that nobody can guess words or a name from the sum that the seal is reckoned with. Left out in lines of before there were seals. */
  salt: z
    .string()
    .regex(/^[0-9a-f]{32}$/)
    .nullish(),
  /** Its words, photo or signature were erased. */
  erased: lineErased.optional(),
});
export type LayEntry = z.infer<typeof layEntry>;

/** How long panes really took, cleaning included, by kind of film, against what the firm’s rates say. */
export const learnedMinutes = z.array(
  z.object({
    work: workClass,
    paneCount: z.int(),
    jobCount: z.int(),
    /** Real over expected: the median, and the middle half of the panes. */
    factor: z.number(),
    middleHalf: z.tuple([z.number(), z.number()]),
    /** What is counted with: drawn towards 1 while there are few. */
    usedFactor: z.number(),
    /** Minutes per m² that would make the rates say so, for a pane of middling size. */
    suggestedPerM2: z.number(),
  }),
);
export type LearnedMinutes = z.infer<typeof learnedMinutes>;
