import * as z from 'zod';
import { id, instant, words } from '../quantities.js';
import { cutMethod } from '../cut/allowances.js';
import { frameKind } from '../measure/pane.js';
import { workClass } from '../handover/work-class.js';
import { borderSchool, jointHands } from './joints.js';
import { formingSchool, lubrication } from '../form/curved.js';

/** Least overlap of strokes. @source common practice says only "strokes overlap"; 1 in (25 mm) is a house rule */
export const strokeOverlapMm = z.number().min(5).max(200).default(25).meta({ unit: 'mm' });

/** Where installers disagree about laying; each is a way that works. */
export const linerSchool = z.enum(['halves', 'pulled-down']);
export const lockSchool = z.enum(['tee', 'cross', 'x', 'centre-line']);
export const trimSchool = z.enum(['corner', 'centre']);
export const siliconeSchool = z.enum(['stays', 'cut-out']);
export const stopsSchool = z.enum(['stay', 'off']);
export const edgeSchool = z.enum(['edge-gap', 'anchored']);

/** Flat; curved with film on the room side, formed outside and laid inside; curved with film on the outside. */
export const glassForm = z.enum(['flat', 'curved', 'curved-outside']);
export type GlassForm = z.infer<typeof glassForm>;

/** The hot-air gun that a job is worked with, and how far from the film it is held. @source widths and watts of hand guns: common practice */
export const hotAirGun = z.object({
  nozzleMm: z.number().min(4).max(80).default(34).meta({ unit: 'mm' }),
  setC: z.number().min(50).max(700).default(538).meta({ unit: '°C' }),
  powerW: z.number().min(200).max(3600).default(2000).meta({ unit: 'W' }),
  distanceMm: z.number().min(5).max(400).default(25).meta({ unit: 'mm' }),
  /** Between its stream and the face: 90 is straight on. */
  angleDeg: z.number().min(30).max(90).default(90).meta({ unit: '°' }),
});
export type HotAirGun = z.infer<typeof hotAirGun>;

/** How a job is laid. */
/** What was stretched is heated through before its edge is trimmed, or after: installers differ. */
export const postHeatSchool = z.enum(['before-trim', 'after-trim']);
export const laySettings = z.object({
  liner: linerSchool.default('halves'),
  lock: lockSchool.default('tee'),
  trim: trimSchool.default('corner'),
  silicone: siliconeSchool.default('stays'),
  stops: stopsSchool.default('stay'),
  /** Security film: its edge stands free, or is anchored to the frame. */
  edge: edgeSchool.default('edge-gap'),
  /** How film is formed on curved glass; null: as it is recommended for the pane. */
  forming: formingSchool.nullable().default(null),
  lubrication: lubrication.nullable().default(null),
  /** One tap for each pane, or every step. */
  way: z.enum(['one-tap', 'step-by-step']).default('one-tap'),
  /** Null: the widest pressing blade in the van that clears the frame. */
  bladeMm: z.number().min(25).max(900).nullable().default(null).meta({ unit: 'mm' }),
  overlapMm: strokeOverlapMm,
  gun: hotAirGun.prefault({}),
  postHeat: postHeatSchool.default('before-trim'),
  /** Film on joints: its border. */
  jointBorder: borderSchool.default('left-open'),
  jointHands: jointHands.default('one'),
});
export type LaySettings = z.infer<typeof laySettings>;
export const defaultLaySettings: LaySettings = laySettings.parse({});

/** What may touch the face: a blade, a blade one way only, the soft pad; `ask`: nobody knows yet. */
export const faceCare = z.enum(['blade', 'one-way', 'pad', 'ask']);

/** What of a surface and its pieces asks for steps of its own. */
export const paneTrait = z.enum([
  'corners',
  'round',
  'seam-overlap',
  'seam-butt',
  'seam-double-cut',
  'bands',
  'plotted',
  'cut-outs',
  'grooves',
  'recesses',
  'corrugated',
  'domed',
  'formed-in',
  'wraps',
  'corners-wrapped',
  'hardware',
  'seam-dry',
  'both-faces',
  'swings',
  'corner-inside',
  'corner-inside-second',
  'corner-outside',
  'corner-outside-second',
  'openings',
  'double-cut',
  'lies-level',
  'masonry',
  'patch',
  'corners-round',
  'edge-strip',
  'at-wall',
  'at-joint',
  'canvas',
  'textured',
  'smooth-ground',
  'hinge-top',
  'hinge-middle',
  'more-sheets',
  'cold',
  'cold-hollows',
]);
export type PaneTrait = z.infer<typeof paneTrait>;

/** For which panes a step is there; an empty list asks nothing. */
export const stepWhen = z.object({
  film: z.array(workClass).max(3).default([]),
  frame: z.array(frameKind).max(5).default([]),
  method: z.array(cutMethod).max(5).default([]),
  liner: z.array(linerSchool).max(2).default([]),
  lock: z.array(lockSchool).max(4).default([]),
  trim: z.array(trimSchool).max(2).default([]),
  silicone: z.array(siliconeSchool).max(2).default([]),
  stops: z.array(stopsSchool).max(2).default([]),
  edge: z.array(edgeSchool).max(2).default([]),
  glass: z.array(glassForm).max(3).default([]),
  care: z.array(faceCare).max(4).default([]),
  /** Kinds of surface it is for. Left out: panes of glass, as all steps once were. */
  surface: z
    .array(z.enum(['pane', 'column', 'panel', 'wall', 'counter', 'sign']))
    .max(6)
    .optional(),
  /** One of these has to be there. Left out in versions of before. */
  has: z.array(paneTrait).max(8).optional(),
  /** None of these may be there. Left out: nothing is in its way. */
  without: z.array(paneTrait).max(8).optional(),
});
export type StepWhen = z.infer<typeof stepWhen>;

/** What is drawn beside a step, on this pane’s own outline. */
export const stepDrawing = z.enum([
  'none',
  'pane',
  'liner',
  'lock',
  'light',
  'corners',
  'trim',
  'hard',
  'edges',
  'template',
  'anchor',
  'forming',
  'anchor-line',
  'quarters',
  'column-piece',
  'column-plumb',
  'column-strip',
  'column-round',
  'column-seam',
  'panel-face',
  'panel-centre',
  'panel-edges',
  'panel-corner',
  'panel-corner-round',
  'panel-groove',
  'panel-recess',
  'panel-corrugation',
  'panel-dome',
  'wall-drops',
  'wall-plumb',
  'wall-level',
  'wall-inside',
  'wall-inside-second',
  'wall-outside',
  'wall-outside-second',
  'wall-seam',
  'counter-top',
  'counter-end',
  'counter-edges',
  'counter-strip',
  'counter-round',
  'counter-corner',
  'counter-seam',
  'sign-place',
  'sign-weed',
  'sign-hinge',
  'sign-liner',
  'sign-tape-off',
  'sign-heat',
]);
export type StepDrawing = z.infer<typeof stepDrawing>;

/** What a step asks for: how warm the glass is, what its face feels like, how hot film got, stretch by stretch, or how warm a bare hollow is. */
export const stepReading = z.enum(['none', 'glass', 'face', 'film', 'hollow']);

const minutes = z.number().min(0).max(600).meta({ unit: 'min' });
/**
 * One step as the firm writes it. In title and text `{edgeGap}`, `{edgeStop}`, `{overhang}`, `{blade}`, `{lock}`, `{film}`, `{gun}`, `{care}` stand for the figures of the pane; a length such as `{13 mm}` or `{25 to 50 mm}` is told in the units of the job.
 */
export const stepRule = z.object({
  key: z.string().regex(/^[a-z0-9-]{1,40}$/, 'a short name of small letters, figures and dashes'),
  title: words(80).min(1, 'A step needs a title.'),
  text: words(500),
  purpose: words(240),
  /** What it looks like when it is right. */
  good: words(240),
  tools: z.array(words(60)).max(10),
  /** Expected: so long for any pane, more for each m² of it and each m of its edge. */
  minutes: z.object({ fixed: minutes, perM2: minutes, perM: minutes }),
  /** A wait that begins when the step is done. */
  wait: z.object({ minutes: z.number().min(1).max(400_000).meta({ unit: 'min' }), what: words(120) }).nullable(),
  /** Done on a later visit, so long after the pane was laid at the earliest; null: on the same one. */
  returnAfterMinutes: z.number().min(0).max(400_000).nullable().default(null).meta({ unit: 'min' }),
  /** A reading the step asks for. */
  reading: stepReading,
  drawing: stepDrawing,
  mood: z.enum(['dry', 'wet', 'look']),
  /** One line, shown where it bites. */
  caution: words(300).nullable(),
  when: stepWhen,
});
export type StepRule = z.infer<typeof stepRule>;

/** A thing to be asked before the first pane is touched. */
export const readyRule = z.object({ key: z.string().regex(/^[a-z0-9-]{1,40}$/), text: words(160).min(1), caution: words(240).nullable() });
export type ReadyRule = z.infer<typeof readyRule>;

/** One immutable version of the firm’s steps. A running job keeps the version that its first entry was logged with. */
export const stepSet = z
  .object({
    id,
    firmId: id,
    version: z.int().min(1),
    replacesId: id.nullable(),
    /** What was changed, in the firm’s words. */
    note: words(200),
    ready: z.array(readyRule).max(40),
    steps: z.array(stepRule).min(1).max(200),
    createdAt: instant,
  })
  .refine((s) => new Set(s.steps.map((x) => x.key)).size === s.steps.length, { path: ['steps'], message: 'Two steps have the same key.' });
export type StepSet = z.infer<typeof stepSet>;
