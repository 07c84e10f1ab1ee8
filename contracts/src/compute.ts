import * as z from 'zod';
import { alongRollMm, id, lengthMm, positiveLengthMm, unitSystem } from './quantities.js';
import { column } from './measure/column.js';
import { counter } from './measure/counter.js';
import { corrugation, dome, panel, recess, recessWay, roundCorners } from './measure/panel.js';
import { paneShape } from './measure/shape.js';
import { sign } from './measure/sign.js';
import { measureKey } from './measure/surface.js';
import { groundMaterial } from './measure/ground.js';
import { masonry, wall } from './measure/wall.js';
import { film } from './films/film.js';
import { hotAirGun } from './lay/steps.js';
import { borderSchool, jointHands, jointIndex, jointStroke } from './lay/joints.js';
import { cutSettings } from './cut/settings.js';
import { cutMethod } from './cut/allowances.js';
import { drop, layout, piece } from './cut/layout.js';
import { rollEdges } from './stock/roll.js';

/** Input of the survey computation: what was taped, nothing else. */
export const surveyInput = z.object({
  calledCrooked: z.boolean().default(false),
  /** Null: four-sided. */
  shape: paneShape.nullable().default(null),
  readings: z.array(z.object({ measure: measureKey, lengthMm: z.number().min(-10_000).max(100_000).meta({ unit: 'mm' }) })).max(40),
});
/** The verdict on the tapes, in figures and words. */
export const surveyResult = z.object({
  status: z.enum(['nothing', 'two-tapes', 'unchecked', 'agreeing', 'doubtful', 'impossible']),
  headline: z.string(),
  body: z.string(),
  outline: z.array(z.object({ x: z.number(), y: z.number() })).nullable(),
  chiSquare: z.number().nullable(),
  limit: z.number().nullable(),
  redundancy: z.int().nullable(),
  suspects: z.array(z.object({ text: z.string(), probability: z.number() })),
  ask: z.object({ measure: measureKey, text: z.string(), gainBits: z.number() }).nullable(),
  cannotCheck: z.array(z.string()),
});
export type SurveyResult = z.infer<typeof surveyResult>;

/** Input of the survey of anything that is no pane of glass: its record, as it stands in a job, and what was taped. */
export const tapedInput = z.object({
  surface: z.discriminatedUnion('kind', [column, panel, wall, counter, sign]),
  readings: z.array(z.object({ measure: measureKey, lengthMm: z.number().min(-10_000).max(100_000).meta({ unit: 'mm' }) })).max(40),
  units: unitSystem.default('mm'),
});
export type TapedInput = z.output<typeof tapedInput>;
/** The verdict on the tapes, in words; what else does not fit, with the part it is about. */
export const tapedResult = surveyResult.pick({ status: true, headline: true, body: true, outline: true, suspects: true, ask: true }).extend({
  doubts: z.array(z.object({ part: z.string().nullable(), text: z.string() })),
  numbers: z.array(z.object({ name: z.string(), value: z.string() })),
  why: z.array(z.string()),
});
export type TapedResult = z.infer<typeof tapedResult>;

/** Input of the plan for a hot-air gun: film, ground and gun, and what was read after a trial. */
export const heatInput = z.object({
  aim: z.enum(['faces', 'joints', 'relax', 'post-heat', 'warm']),
  film: film.pick({ construction: true, thicknessUm: true, temps: true }),
  material: groundMaterial.default('unknown'),
  /** Of blocks or bricks; null: an even face. */
  masonry: masonry.pick({ texture: true, jointDepthMm: true }).nullable().default(null),
  gun: hotAirGun.prefault({}),
  airC: z.number().min(-30).max(60).default(20).meta({ unit: '°C' }),
  groundC: z.number().min(-45).max(90).default(20).meta({ unit: '°C' }),
  /** Of film that lies on, after passes over a place. Null: nothing was read. */
  trial: z
    .object({
      readC: z.number().min(-60).max(400).meta({ unit: '°C' }),
      afterS: z.number().min(0).max(600).meta({ unit: 's' }),
      speedMmPerS: z.number().min(1).max(500).meta({ unit: 'mm/s' }),
      passes: z.int().min(1).max(40),
    })
    .nullable()
    .default(null),
  units: unitSystem.default('mm'),
});
export type HeatInput = z.output<typeof heatInput>;
const speedBand = z.object({ slowestMmPerS: z.number(), fastestMmPerS: z.number() }).nullable();
/** How to move the gun, in figures and words; ranges are low, expected, high. Null: the film’s maker gives no figure for that. */
export const heatResult = z
  .object({
    headline: z.string(),
    follow: z.string().nullable(),
    speedMmPerS: z.number(),
    /** Null: not from this distance. */
    passes: z.int().nullable(),
    sure: speedBand,
    expected: speedBand,
    places: z.array(z.object({ name: z.string(), isWanted: z.boolean(), peakC: z.array(z.number()).length(3) })),
    groundPeakC: z.array(z.number()).length(3),
    softS: z.number(),
    coolS: z.number().nullable(),
    howSure: z.string(),
    minds: z.array(z.string()),
    /** What the trial said; null: there was none, or it corrects the plan. */
    trial: z.string().nullable(),
    why: z.array(z.string()),
  })
  .nullable();
export type HeatResult = z.infer<typeof heatResult>;

/** Input of the stretch of film in a recess. */
export const recessInput = z.object({
  recess: recess.omit({ id: true, fromLeftMm: true, fromFootMm: true, way: true }).superRefine((r, ctx) => {
    const narrow = Math.min(r.acrossMm, r.upMm);
    if (2 * Math.max(r.slopeMm, r.cornerMm) > narrow || 2 * r.slopeMm >= narrow)
      ctx.addIssue({ code: 'custom', path: ['slopeMm'], message: 'Its walls or its round corners are wider than half of it: no field is left.' });
    if (Math.max(r.acrossMm, r.upMm) > 5000 || narrow < 10 || r.depthMm > Math.min(300, narrow / 2))
      ctx.addIssue({
        code: 'custom',
        path: ['acrossMm'],
        message: 'A recess is reckoned with from 10 mm to 5 m wide and high, and to 300 mm deep and no deeper than half of its width.',
      });
  }),
  film: film.pick({ stretchMaxPct: true }),
  units: unitSystem.default('mm'),
});
export type RecessInput = z.output<typeof recessInput>;
/** What comes of each order in which film is brought in, the one to choose, and what it means for the film. */
export const recessResult = z.object({
  is: z.enum(['goes', 'slit', 'inlay', 'unknown']),
  headline: z.string(),
  doing: z.array(z.string()),
  minds: z.array(z.string()),
  ways: z.array(
    z.object({
      way: recessWay,
      name: z.string(),
      isBest: z.boolean(),
      /** Share of the slack that is fed in before it is tacked. */
      fedFrac: z.number(),
      largestPct: z.number(),
      /** A fold so wide is left over at each corner. */
      foldMm: z.number(),
    }),
  ),
  /** Of the best order, on a mesh twice as fine. */
  finerPct: z.number(),
  why: z.array(z.string()),
});
export type RecessAnswer = z.infer<typeof recessResult>;

/** Input of the stretch of film over a corrugated sheet. */
export const corrugationInput = z.object({
  corrugation: corrugation.omit({ run: true }),
  film: film.pick({ stretchMaxPct: true }),
  units: unitSystem.default('mm'),
});
export type CorrugationInput = z.output<typeof corrugationInput>;
/** How much more film its ribs take, and how far it stretches by each way of laying it. */
export const corrugationResult = z.object({
  /** Why it has no such section; null: it has. */
  doubt: z.string().nullable(),
  /** Film from crest to crest. */
  girthMm: z.number(),
  /** Film that is more than the sheet is wide, as a share of its width. */
  moreFrac: z.number(),
  bridgedPct: z.number(),
  pressedPct: z.number(),
  is: z.enum(['goes', 'feed', 'unknown']),
  headline: z.string(),
  doing: z.array(z.string()),
  minds: z.array(z.string()),
  why: z.array(z.string()),
});
export type CorrugationAnswer = z.infer<typeof corrugationResult>;

/** Input of how film lies on a domed sheet. */
export const domeInput = z.object({
  dome,
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
  film: film.pick({ stretchMaxPct: true }),
  units: unitSystem.default('mm'),
});
export type DomeInput = z.output<typeof domeInput>;
/** What is left over where film is laid from the middle outwards, how far it stretches drawn on or tacked round first, and what that means for it. */
export const domeResult = z.object({
  /** Why there is no such dome; null: there is. */
  doubt: z.string().nullable(),
  is: z.enum(['lies', 'draw', 'darts', 'unknown']),
  /** Film over its middle, from arris to arris. */
  overAcrossMm: z.number(),
  overUpMm: z.number(),
  /** On a hand’s length of its border, at the worst place, and all round. */
  leftOverMm: z.number(),
  allRoundMm: z.number(),
  drawnPct: z.number(),
  tackedPct: z.number(),
  darts: z.int(),
  headline: z.string(),
  doing: z.array(z.string()),
  minds: z.array(z.string()),
  why: z.array(z.string()),
});
export type DomeAnswer = z.infer<typeof domeResult>;

/** Input of how film goes over a corner where two wrapped edges meet. */
export const wrappedCornerInput = z.object({
  corner: roundCorners,
  thicknessMm: z.number().positive().max(500).meta({ unit: 'mm' }),
  /** On to the back, past its far arris; 0: it ends there. */
  returnMm: lengthMm.default(0),
  film: film.pick({ stretchMaxPct: true }),
  units: unitSystem.default('mm'),
});
export type WrappedCornerInput = z.output<typeof wrappedCornerInput>;
/** How far film is stretched that is drawn over it without a cut, and how far down it gets within its figure. */
export const wrappedCornerResult = z.object({
  is: z.enum(['draws', 'folds']),
  /** At the end of its arris, of its edge, of its way; null: it comes to the middle of the round, and no film does. */
  arrisPct: z.number(),
  edgePct: z.number(),
  largestPct: z.number().nullable(),
  /** From where the flat face ends. */
  reachMm: z.number(),
  /** Flat film on all of that way. */
  filmMm: z.number(),
  headline: z.string(),
  doing: z.array(z.string()),
  minds: z.array(z.string()),
  why: z.array(z.string()),
});
export type WrappedCornerAnswer = z.infer<typeof wrappedCornerResult>;

const rollToCut = z.object({
  id,
  widthMm: positiveLengthMm,
  availableMm: alongRollMm,
  pricePerM: z.number().min(0),
  fixedDrops: z.array(drop).default([]),
  edges: rollEdges.default('both'),
  lot: z.string().max(40).default(''),
});
/** Input of the layout computation. Same input, seed and steps: same plan. */
export const layoutInput = z.object({
  filmId: id,
  rolls: z.array(rollToCut).max(40),
  pieces: z.array(piece).max(2000),
  settings: cutSettings,
  seed: z.int().default(20),
  steps: z.int().min(0).max(50_000).default(1500),
  /** What one knife cut costs in minutes: film and minutes are weighed together. */
  cutPrice: z.number().min(0).max(1000).default(0),
});
export type LayoutComputeInput = z.infer<typeof layoutInput>;
export const layoutResult = layout;

export const methodFigures = z.object({
  method: cutMethod,
  usedM: z.number(),
  cost: z.number(),
  trims: z.int(),
  minutes: z.number(),
  /** Those minutes at the firm's hour rate. */
  workCost: z.number(),
  fallbackCount: z.int(),
  blockedCount: z.int(),
  unplacedCount: z.int(),
});

const jointSide = z.enum(['free', 'closed']);
const placeMm = z.number().min(-1000).max(60_000).meta({ unit: 'mm' });
/** Input of an order for the joints beneath one panel; places from the left end and the foot of the wall. */
export const jointsInput = z.object({
  masonry,
  wall: z.object({ widthMm: positiveLengthMm, heightMm: positiveLengthMm }),
  panel: z.object({ leftMm: placeMm, rightMm: placeMm, footMm: placeMm, topMm: placeMm }),
  borders: z.object({ left: jointSide, right: jointSide, foot: jointSide, top: jointSide }),
  obstacles: z
    .array(z.object({ leftMm: placeMm, footMm: placeMm, widthMm: lengthMm, heightMm: lengthMm, isOpen: z.boolean() }))
    .max(60)
    .default([]),
  goesRound: z.boolean().default(false),
  border: borderSchool.default('left-open'),
  hands: jointHands.default('one'),
  /** Whether rolling straight through a crossing presses it shut. */
  rule: z.enum(['strict', 'lenient']).default('strict'),
  film: film.pick({ stretchMaxPct: true }).nullable().default(null),
  /** An order of one’s own, to be judged; empty: only the plan is asked. */
  strokes: z.array(jointStroke).max(4000).default([]),
  units: unitSystem.default('mm'),
});
export type JointsInput = z.output<typeof jointsInput>;

const onWall = z.object({ xMm: z.number(), yMm: z.number() });
export const jointsResult = z.object({
  /** Why nothing is planned; null: it is. */
  doubt: z.string().nullable(),
  fit: z.object({ is: z.enum(['lies', 'goes', 'bridges', 'unknown']), stretchPct: z.number(), text: z.string() }),
  /** Pieces of joint between two crossings, and all of their length. */
  segments: z.array(z.object({ way: z.enum(['bed', 'head']), a: jointIndex, b: jointIndex, lengthMm: z.number() })),
  nodes: z.array(onWall.extend({ is: z.enum(['crossing', 'exit', 'end']) })),
  lengthM: z.number(),
  zones: z.array(
    z.object({
      band: z.int(),
      /** Of two people whose place it is; null: one works alone. */
      hand: z.enum(['left', 'right']).nullable(),
      fromMm: z.number(),
      toMm: z.number(),
      minutes: z.number(),
      gunKwh: z.number(),
      lanes: z.array(z.object({ from: onWall, to: onWall })),
      strokes: z.array(z.object({ stroke: jointStroke, path: z.array(onWall) })),
      doing: z.array(z.string()),
    }),
  ),
  pierces: z.array(onWall.extend({ segments: z.array(jointIndex), text: z.string() })),
  walkMm: z.number(),
  leastWalkMm: z.number(),
  walking: z.string(),
  /** What all of the border set first would shut in here. */
  setFirst: z.string(),
  /** On the order that was sent; null: none was. */
  verdict: z
    .object({
      isClean: z.boolean(),
      text: z.string(),
      trapped: z.array(z.object({ segment: jointIndex, atStroke: z.int(), why: z.enum(['dead-end', 'cut-off', 'sealed', 'from-start']) })),
    })
    .nullable(),
});
export type JointsAnswer = z.infer<typeof jointsResult>;
