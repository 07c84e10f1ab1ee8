import * as z from 'zod';
import { firm, person } from './jobs/job.js';
import { film } from './films/film.js';
import { quote, rates } from './handover/quote.js';
import { roll } from './stock/roll.js';
import { stockView } from './stock/ledger.js';
import { stepSet } from './lay/steps.js';

/** What belongs to the firm and to no job: its people, its films and its rolls; its history is kept under the firm's id. */
export const benchDocument = z.object({
  revision: z.int().min(0),
  firm,
  persons: z.array(person),
  films: z.array(film),
  rolls: z.array(roll),
  stock: stockView,
  /** All versions, the newest last. */
  rates: z.array(rates),
  quotes: z.array(quote),
  /** The firm’s own steps, all versions, the newest last. */
  stepSets: z.array(stepSet),
  /** On how many panes of all jobs a film is, by the film's id; absent = none. */
  panesWithFilm: z.record(z.string(), z.int()),
  canUndo: z.string().nullable(),
  canRedo: z.string().nullable(),
});
export type BenchDocument = z.infer<typeof benchDocument>;
