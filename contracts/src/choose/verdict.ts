import * as z from 'zod';
import { id, positiveLengthMm } from '../quantities.js';
import { film } from '../films/film.js';
import { chooseSettings, exposure, glazing, want } from './glazing.js';

/** Everything that a verdict on one pane depends on, resolved. */
export const verdictInput = z.object({
  glazing,
  exposure,
  /** Which face of the build-up gets the film; `as-made`: each film on the face that it is made for. */
  filmFace: z.enum(['room', 'street', 'as-made']),
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
  revealMm: z.number().min(0).max(5000).meta({ unit: 'mm' }),
  latDeg: z.number().min(-90).max(90),
  lonDeg: z.number().min(-180).max(180),
  /** Minutes that clocks at the site are ahead of UTC, for showing hours. */
  zoneMinutes: z.number().min(-900).max(900),
  year: z.int().min(1900).max(2200),
  settings: chooseSettings,
});
export type VerdictInput = z.infer<typeof verdictInput>;
export const verdictRequest = verdictInput.extend({ films: z.array(film).max(200) });

export const grade = z.enum(['go', 'ask', 'do-not']);
export type Grade = z.infer<typeof grade>;

/** A figure with what stands behind it. */
const figures = z.object({
  visibleTransmittanceFrac: z.number(),
  visibleReflectanceOutFrac: z.number(),
  visibleReflectanceInFrac: z.number(),
  solarTransmittanceFrac: z.number(),
  solarReflectanceOutFrac: z.number(),
  absorbedFrac: z.array(z.number()),
  uvTransmittanceFrac: z.number(),
  /** Scattered share of the light that comes through. */
  hazeFrac: z.number(),
  uWPerM2K: z.number(),
  gFrac: z.number(),
});
export type GlazingFigures = z.infer<typeof figures>;

export const breakRisk = z.object({
  grade,
  reasons: z.array(z.string()),
  /** What would make it better. */
  wouldChange: z.array(z.string()),
  /** At the worst hour. */
  season: z.enum(['cold', 'hot', 'between']),
  /** Month 1–12 and clock hour of the worst hour. */
  month: z.int(),
  hour: z.number(),
  paneIndex: z.int(),
  centreC: z.number(),
  edgeC: z.number(),
  differenceK: z.number(),
  stressMPa: z.number(),
  strengthMPa: z.number(),
  /** The same difference without film. */
  bareDifferenceK: z.number(),
  hottestPaneC: z.number(),
  /** The day of the worst hour, every half hour: clock hour, centre of the worst pane, its edge, and the centre at which the edge would be at its limit. */
  day: z.array(z.object({ hour: z.number(), centreC: z.number(), edgeC: z.number(), limitC: z.number() })),
});
export type BreakRisk = z.infer<typeof breakRisk>;

export const sight = z.object({
  /** Contrast left to somebody who looks in from the street, or out of the room; 0–1. */
  inwardsFrac: z.number(),
  outwardsFrac: z.number(),
  inwards: z.enum(['clear', 'shapes', 'hidden']),
  outwards: z.enum(['clear', 'shapes', 'hidden']),
  /** How near behind the film a person, or a face, must be to be made out from outside, m; 0: never, null: at any distance. */
  personWithinM: z.number().nullable(),
  faceWithinM: z.number().nullable(),
});
export type Sight = z.infer<typeof sight>;

/** What one film does to one pane; `film` null is the bare glass. */
export const filmVerdict = z.object({
  filmId: id.nullable(),
  /** The face it was judged on. */
  face: z.enum(['room', 'street']),
  grade,
  /** Why it is not a plain go, the weightiest first. */
  reasons: z.array(z.string()),
  wouldChange: z.array(z.string()),
  figures: figures.nullable(),
  /** Against the bare pane. */
  glareLessFrac: z.number().nullable(),
  heatLessFrac: z.number().nullable(),
  fadingLessFrac: z.number().nullable(),
  keepsLimit: z.boolean().nullable(),
  breakRisk: breakRisk.nullable(),
  day: sight.nullable(),
  night: sight.nullable(),
  /** Outside over inside light at which the view turns. */
  tipsAtRatio: z.number().nullable(),
  score: z.number(),
  /** How the score came about. */
  wants: z.array(z.object({ want, weightFrac: z.number(), metFrac: z.number(), words: z.string(), rule: z.string() })),
});
export type FilmVerdict = z.infer<typeof filmVerdict>;

/** Heat let in over a clear day, W per m² of glass. */
export const heatDay = z.object({
  month: z.int(),
  points: z.array(z.object({ hour: z.number(), sunWPerM2: z.number(), bareWPerM2: z.number(), litFrac: z.number() })),
  bareWhPerM2: z.number(),
});
export type HeatDay = z.infer<typeof heatDay>;

export const paneVerdict = z.object({
  bare: filmVerdict,
  /** Best first; unsuitable ones last. */
  films: z.array(filmVerdict),
  heatDay,
  open: z.array(z.object({ what: z.string(), settle: z.string(), assumed: z.string() })),
  /** What the reader must know before relying on it. */
  cautions: z.array(z.string()),
});
export type PaneVerdict = z.infer<typeof paneVerdict>;
