import * as z from 'zod';
import { id } from '../quantities.js';
import { weatherDay } from '../instruments/weather.js';
import { slipSchool, washKind } from './settings.js';

const workWindow = z.object({
  fromHour: z.number(),
  toHour: z.number(),
  grade: z.enum(['good', 'marginal', 'wrong']),
  cause: z.enum(['sun', 'warm', 'cold', 'dew', 'frost', 'wind', 'rain']).nullable(),
  why: z.string(),
});

/** The day of a job: the weather, and for each facade the hours in which wet work is good, marginal or wrong. */
export const jobDay = z.object({
  weather: weatherDay,
  bands: z.array(
    z.object({
      key: z.string(),
      name: z.string(),
      facadeDeg: z.number().nullable(),
      isIndoors: z.boolean(),
      surfaceIds: z.array(id),
      windows: z.array(workWindow),
      best: workWindow.nullable(),
      /** What has to be said before there is a verdict. */
      missing: z.string().nullable(),
      /** Hour by hour: the face that is worked on, the dew point before it, the sun on it. */
      glass: z.array(z.object({ hour: z.number(), faceC: z.number(), dewC: z.number(), sunWPerM2: z.number() })),
    }),
  ),
});
export type JobDay = z.infer<typeof jobDay>;

/** What has to be in the van: a line each, with its reason and, where the work can hurt somebody, a caution. */
export const kitLines = z.array(
  z.object({
    key: z.string(),
    what: z.string(),
    howMuch: z.string(),
    why: z.string(),
    caution: z.string().nullable(),
    isLoaded: z.boolean(),
    isShort: z.boolean(),
  }),
);
export type KitLines = z.infer<typeof kitLines>;

export const slipRequest = z.object({
  school: slipSchool,
  areaM2: z.number().min(0).max(100_000).meta({ unit: 'm²' }),
  glassC: z.number().min(-20).max(80).meta({ unit: '°C' }),
  bottleMl: z.number().min(50).max(25_000).meta({ unit: 'ml' }),
  slipMlPerM2: z.number().min(20).max(3000).meta({ unit: 'ml/m²' }),
  /** A bottle that is already mixed. */
  inBottle: z
    .object({ slipMl: z.number().min(1).max(25_000), additiveMl: z.number().min(0).max(25_000) })
    .nullable()
    .default(null),
});
export type SlipRequest = z.infer<typeof slipRequest>;

const mixCorrection = z.object({ strength: z.number(), pourOutMl: z.number(), addWaterMl: z.number(), addAdditiveMl: z.number(), words: z.string() });
/** What goes into each filling, and how a wrong one is put right. */
export const slipAnswer = z.object({
  doseMlPerL: z.number(),
  totalMl: z.number(),
  fillingCount: z.number(),
  waterMl: z.number(),
  additiveMl: z.number(),
  additiveText: z.string(),
  correction: mixCorrection.nullable(),
});
export type SlipAnswer = z.infer<typeof slipAnswer>;

export const washRequest = z.object({
  kind: washKind,
  areaM2: z.number().min(0).max(100_000).meta({ unit: 'm²' }),
  bottleMl: z.number().min(50).max(25_000).meta({ unit: 'ml' }),
  /** Of the additive as it comes. */
  strengthPct: z.number().min(1).max(100).default(100).meta({ unit: '%' }),
  /** A bottle that is already mixed. */
  inBottle: z
    .object({ mixMl: z.number().min(1).max(25_000), additiveMl: z.number().min(0).max(25_000) })
    .nullable()
    .default(null),
});
export type WashRequest = z.infer<typeof washRequest>;
export const washAnswer = slipAnswer.extend({ after: z.string(), caution: z.string() });
export type WashAnswer = z.infer<typeof washAnswer>;
