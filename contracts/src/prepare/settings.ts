import * as z from 'zod';
import { id } from '../quantities.js';

/** What stands before a facade, as sketched from the glass: a bearing from true north and how high it reaches above level there. */
export const horizonPoint = z.object({
  bearingDeg: z.number().min(0).lt(360).meta({ unit: '°' }),
  heightDeg: z.number().min(0).max(90).meta({ unit: '°' }),
});
export type HorizonPoint = z.infer<typeof horizonPoint>;

/** How the slip is mixed. */
export const slipSchool = z.enum(['soap-drops', 'shampoo-gallon', 'shampoo-bottle', 'concentrate']);
export type SlipSchool = z.infer<typeof slipSchool>;

/** What thins the primer that a ground gets. */
export const primerSchool = z.enum(['water', 'solvent']);
export type PrimerSchool = z.infer<typeof primerSchool>;

/** What goes onto a surface before the film. */
export const washKind = z.enum(['cleaner', 'alcohol', 'detergent']);
export type WashKind = z.infer<typeof washKind>;

/** What was read or typed instead of what the weather service says; null: as the service says. */
export const typedConditions = z.object({
  airC: z.number().min(-40).max(55).nullable().default(null),
  humidityPct: z.number().min(1).max(100).nullable().default(null),
  cloudPct: z.number().min(0).max(100).nullable().default(null),
  windMPerS: z.number().min(0).max(60).nullable().default(null),
  roomC: z.number().min(-30).max(60).nullable().default(null),
  roomHumidityPct: z.number().min(1).max(100).nullable().default(null),
});
export type TypedConditions = z.infer<typeof typedConditions>;

/** What a job says about its day of work. */
export const prepareSettings = z.object({
  /** Day that the work is planned for; null: the due day. */
  on: z.iso.date().nullable().default(null),
  sky: z.enum(['as-forecast', 'clear', 'changing']).default('as-forecast'),
  typed: typedConditions.prefault({}),
  /** Day on which the newest of them was read or typed, by the clock at the site; null: nobody said. */
  typedOn: z.iso.date().nullable().default(null),
  /** Where no weather service is connected: go by weather that the bench makes up, for trying it. */
  madeUpWeather: z.boolean().default(false),
  horizon: z.array(horizonPoint).max(40).default([]),
  school: slipSchool.default('soap-drops'),
  primer: primerSchool.default('water'),
  bottleMl: z.number().min(50).max(25_000).default(946).meta({ unit: 'ml' }),
  /** Slip that goes onto each square metre: glass, film and film again. */
  slipMlPerM2: z.number().min(20).max(3000).default(350).meta({ unit: 'ml/m²' }),
  /** Walls and panels to be washed that day. */
  wallM2: z.number().min(0).max(100_000).default(0).meta({ unit: 'm²' }),
  /** Isopropyl alcohol as it comes, by volume. */
  alcoholPct: z.number().min(70).max(100).default(99).meta({ unit: '%' }),
  /** Places that are worked on that day; null: the whole job. */
  placeIds: z.array(id).max(400).nullable().default(null),
  /** Lines of the kit list that are in the van. */
  loaded: z.array(z.string().max(60)).max(200).default([]),
  /** Lines of which there is too little: to be fetched. */
  short: z.array(z.string().max(60)).max(200).default([]),
});
export type PrepareSettings = z.infer<typeof prepareSettings>;
export const defaultPrepareSettings: PrepareSettings = prepareSettings.parse({});
