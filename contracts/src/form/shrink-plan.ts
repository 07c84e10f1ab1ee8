import * as z from 'zod';
import { defaultAllowances, edgeGapMm } from '../cut/allowances.js';
import { id, unitSystem } from '../quantities.js';
import { bowPlace, curvedPane, formingSchool, lubrication, zoneKind } from './curved.js';

const mm = z.number().meta({ unit: 'mm' });
const frac = z.number();
const point = z.object({ x: mm, y: mm });

/** What it takes to lay a film on a curved pane. */
export const formGrade = z.enum(['lies-down', 'easy', 'care', 'beyond']);
export type FormGrade = z.infer<typeof formGrade>;

/** What decides a shrink plan besides the curve itself. */
export const shrinkInput = z.object({
  curved: curvedPane,
  /** The pane in the plane of its corners by its tapes, lower left corner at the origin, anticlockwise, curves as chords. Not looked at with a point cloud. */
  outline: z.array(point).min(3).max(1000),
  film: z.object({
    id,
    name: z.string(),
    /** What it can shrink along and across the roll, %; null = its sheet says nothing. */
    shrink: z.object({ alongPct: z.number().min(0).max(60), acrossPct: z.number().min(0).max(60) }).nullable(),
    thicknessUm: z.number(),
    /** It gives way to a pull: cast and urethane films. */
    stretches: z.boolean(),
    isOutside: z.boolean(),
    /** It takes light away: no such film on lookout glass unless the authority allows it. */
    darkens: z.boolean().default(true),
  }),
  /** Other films that could be taken instead. */
  others: z
    .array(z.object({ id, name: z.string(), alongPct: z.number().min(0).max(60) }))
    .max(60)
    .default([]),
  isLookout: z.boolean().default(false),
  /** Laminated by the glass record, whatever the stamp. */
  isLaminated: z.boolean().default(false),
  edgeGapMm: edgeGapMm.default(defaultAllowances.edgeGapMm),
  widestRollMm: z.number().min(0).max(5000).nullable().default(null).meta({ unit: 'mm' }),
  units: unitSystem.default('mm'),
  /** The firm's way of forming; null = as recommended. */
  firmSchool: formingSchool.nullable().default(null),
  /** Step of the threads. A drag asks for less than a plan. */
  stepMm: z.number().min(5).max(60).default(20).meta({ unit: 'mm' }),
});
export type ShrinkInput = z.infer<typeof shrinkInput>;

export const plannedFinger = z.object({
  side: z.enum(['above', 'below']),
  number: z.int(),
  foot: point,
  root: point,
  alongMm: mm,
  baseMm: mm,
  lengthMm: mm,
  slackMm: mm,
  needFrac: frac,
  foldMm: mm,
  partOf: z.int(),
});
export type PlannedFinger = z.infer<typeof plannedFinger>;

export const edgePlan = z.object({
  /** Film that has to go along this edge, and the range of it (two sigma). */
  slackMm: mm,
  lowMm: mm,
  highMm: mm,
  /** The most that a stretch one finger wide has to lose, its range, and where. */
  peakFrac: frac,
  peakHighFrac: frac,
  peakLowFrac: frac,
  peakAlongMm: mm,
  /** The least: below nothing it would have to stretch. */
  leastFrac: frac,
  fingers: z.array(plannedFinger),
});
export type EdgePlan = z.infer<typeof edgePlan>;

/** One thread of film: where on the pane (x, y, z), how far from the anchor, and what it has lost there. */
const meshPoint = z.tuple([mm, mm, mm, mm, frac]);
export const meshStation = z.object({ alongMm: mm, up: z.array(meshPoint), down: z.array(meshPoint) });
export type MeshStation = z.infer<typeof meshStation>;

export const methodCard = z.object({
  school: formingSchool,
  name: z.string(),
  /** What it would do on this pane. */
  text: z.string(),
  heats: z.int(),
  minutes: z.number(),
  gunMm: z.tuple([z.number(), z.number()]),
  gunDeg: z.number().nullable(),
  risk: z.string(),
  badWhen: z.string(),
  /** Why not here; null = it can be done here. */
  notHere: z.string().nullable(),
  isRecommended: z.boolean(),
  why: z.string(),
});
export type MethodCard = z.infer<typeof methodCard>;

export const lubricationCard = z.object({ kind: lubrication, text: z.string(), badWhen: z.string(), isRecommended: z.boolean() });
export type LubricationCard = z.infer<typeof lubricationCard>;

export const shrinkPlan = z.object({
  /** Why no film is formed here at all; all else is told all the same. */
  refused: z.string().nullable(),
  grade: formGrade,
  /** With the least and the most that the measures leave. */
  gradeRange: z.tuple([formGrade, formGrade]),
  capacityFrac: frac,
  anchor: z.object({
    /** Balanced: an H, its height found. Arch: across the top. Through, forced: as chosen. Middle: an H with nothing to balance, half way. */
    kind: z.enum(['balanced', 'arch', 'through', 'forced', 'middle']),
    leftMm: mm,
    middleMm: mm,
    rightMm: mm,
    /** How sure the height of a balanced one is (two sigma); null for a chosen one. */
    sureToMm: mm.nullable(),
    /** Short straightedges were laid upright at the lower and at the upper edge, or the pane came as a cloud: only then is the height's range a promise. */
    edgesSeen: z.boolean(),
    line: z.array(point),
    tiltMmPerM: z.number(),
  }),
  above: edgePlan,
  below: edgePlan,
  /** What the balanced line asks for on its worse edge; null where there is none. */
  balanced: z.object({ leftMm: mm, middleMm: mm, rightMm: mm, worstMm: mm }).nullable(),
  /** What the half-way line would have asked for. */
  halfWay: z.object({ heightMm: mm, aboveMm: mm, belowMm: mm, fingers: z.int() }),
  /** Slack by three tapes and the half-way line; null without both middle bows. */
  quickMm: mm.nullable(),
  outline: z.array(point),
  /** Where the film will lie in the end, on the pane. */
  finished: z.array(point),
  mesh: z.array(meshStation),
  flat: z.object({
    /** The finished outline before the film is shrunk, x along the roll, y across, anchor at 0. */
    outline: z.array(point),
    piece: z.object({ widthMm: mm, heightMm: mm }),
    fitsRoll: z.boolean().nullable(),
    mayTurn: z.boolean(),
  }),
  forming: z.object({ raiseMm: mm, pastSidesMm: mm, gripMm: mm, aboveMm: mm, belowMm: mm, text: z.string() }),
  methods: z.array(methodCard),
  lubrications: z.array(lubricationCard),
  school: formingSchool,
  /** Fingers in the order they are worked, by the school in hand. */
  order: z.array(z.object({ side: z.enum(['above', 'below']), number: z.int() })),
  /** Zones that heat has to mind: what is to be done about each, and where it lies with the room round it, on the pane and on the flat film. */
  keepClear: z.array(
    z.object({
      zoneId: z.string(),
      kind: zoneKind,
      name: z.string(),
      heatMm: mm.nullable(),
      text: z.string(),
      /** Film led past it to fingers beside, and film that has no way round. */
      ledMm: mm,
      stuckMm: mm,
      /** Places in the order of work of the fingers beside it. */
      beside: z.array(z.int()),
      ring: z.array(z.tuple([mm, mm, mm])),
      flatRing: z.array(point),
    }),
  ),
  advice: z.array(z.string()),
  summary: z.array(z.string()),
  cautions: z.array(z.string()),
  /** Bows that do not go with the others, and what they should read; null: deeper than any pane bends, so nobody asked the others. */
  suspects: z.array(z.object({ bowId: z.string(), text: z.string(), expectedMm: mm.nullable(), slipFrac: frac, isOut: z.boolean() })),
  checks: z.array(z.object({ bowId: z.string(), expectedMm: mm, sigmaMm: mm, off: z.number(), isOut: z.boolean() })),
  nextBow: z.object({ place: bowPlace, narrowsFrac: frac, text: z.string() }).nullable(),
  /** Radius of the tightest bend each way, m; null = as good as flat. */
  radiusM: z.object({ across: z.number().nullable(), upright: z.number().nullable() }),
});
export type ShrinkPlan = z.infer<typeof shrinkPlan>;

export const cloudRequest = z.object({
  fileName: z.string().max(120),
  /** XYZ text, or PLY; binary as base64. */
  text: z.string().max(7_900_000).nullable().default(null),
  base64: z.string().max(7_900_000).nullable().default(null),
  /** Null: guessed from its size. */
  unit: z.enum(['mm', 'm', 'in']).nullable().default(null),
  clicks: z
    .tuple([z.array(z.number()).length(3), z.array(z.number()).length(3), z.array(z.number()).length(3)])
    .nullable()
    .default(null),
});
export type CloudRequest = z.infer<typeof cloudRequest>;
