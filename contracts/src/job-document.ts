import * as z from 'zod';
import { firm, job, person, place } from './jobs/job.js';
import { reading, surface } from './measure/surface.js';
import { film } from './films/film.js';
import { roll } from './stock/roll.js';
import { logEntry, plan } from './cut/plan.js';
import { plotRun } from './cut/plot.js';
import { stockEntry, stockView } from './stock/ledger.js';
import { layEntry } from './lay/log.js';
import { stepSet } from './lay/steps.js';
import { id, instant, unitSystem } from './quantities.js';

/** The open job: all its records, and what a person may undo or redo. */
export const jobDocument = z.object({
  revision: z.int().min(0),
  firm,
  persons: z.array(person),
  job,
  places: z.array(place),
  surfaces: z.array(surface),
  readings: z.array(reading),
  films: z.array(film),
  rolls: z.array(roll),
  /** Movements and promises of all jobs: they decide what is there. */
  stock: stockView,
  plans: z.array(plan),
  entries: z.array(logEntry),
  plotRuns: z.array(plotRun),
  /** The log of the work on the glass, in the order it came in. */
  layEntries: z.array(layEntry),
  /** The firm’s own steps, all versions; none: the shipped ones. */
  stepSets: z.array(stepSet),
  /** Label of what this person would undo or redo next; null = nothing. */
  canUndo: z.string().nullable(),
  canRedo: z.string().nullable(),
});
export type JobDocument = z.infer<typeof jobDocument>;

/** A line of the jobs list. */
export const jobSummary = z.object({
  id,
  name: z.string(),
  customer: z.string(),
  dueOn: z.iso.date().nullable(),
  units: unitSystem,
  surfaceCount: z.int(),
  measuredCount: z.int(),
  cutCount: z.int(),
  updatedAt: instant,
});
export type JobSummary = z.infer<typeof jobSummary>;
/** Some of the jobs, and how many there are of all that were asked for. */
export const jobPage = z.object({ jobs: z.array(jobSummary), total: z.int() });
export type JobPage = z.infer<typeof jobPage>;

/** A job that was deleted not long ago, and may be brought back. */
export const deletedJob = z.object({ id, name: z.string(), customer: z.string(), deletedAt: instant });
export type DeletedJob = z.infer<typeof deletedJob>;
/** What came back with a job: film promised elsewhere meanwhile is not promised twice. */
export const broughtBack = z.object({ jobId: id, promisesBack: z.int(), promisesGone: z.int() });
export type BroughtBack = z.infer<typeof broughtBack>;

/** The job file: everything of one job in documented JSON; what goes out comes in again without loss. */
export const jobFile = z.object({
  format: z.literal('yellow-pane job'),
  /** 2 added glass, exposure and what is wanted; 3 seams, designs, lots and what was taken off the stock; 4 the log of the work and the steps it was done by (photos stay on the bench); 5 curved glass; 6 what a face was felt to be, later visits, whose weather it is; 7 looks and pins after the work; 8 handed over, called back, erased; 9 surfaces of several kinds (`upgradedJobFile` brings an older one up); 10 panels among them; 11 walls; 12 counters; 13 signs; 14 walls that break, leaves side by side, which primer; 15 film read with a thermometer, the gun of the job; 16 places of a textured wall in the log; 17 drops hung turned, round corners, the angle of the gun. An older file reads with those not yet known. */
  formatVersion: z.union([
    z.literal(1),
    z.literal(2),
    z.literal(3),
    z.literal(4),
    z.literal(5),
    z.literal(6),
    z.literal(7),
    z.literal(8),
    z.literal(9),
    z.literal(10),
    z.literal(11),
    z.literal(12),
    z.literal(13),
    z.literal(14),
    z.literal(15),
    z.literal(16),
    z.literal(17),
  ]),
  writtenAt: instant,
  job,
  places: z.array(place),
  surfaces: z.array(surface),
  readings: z.array(reading),
  films: z.array(film),
  rolls: z.array(roll),
  plans: z.array(plan),
  entries: z.array(logEntry),
  /** What this job took off its rolls; brought in on another bench only with the rolls themselves. */
  stockEntries: z.array(stockEntry).default([]),
  plotRuns: z.array(plotRun).default([]),
  layEntries: z.array(layEntry).default([]),
  stepSets: z.array(stepSet).default([]),
});
export type JobFile = z.infer<typeof jobFile>;
