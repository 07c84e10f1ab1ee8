import type { BenchDocument } from './bench-document.js';
import type { JobDocument } from './job-document.js';
import type { StockView } from './stock/ledger.js';

/** Where records of a kind stand in a document: a list of it, a list in its stock, or the one record of its kind. */
type ListName<D> = { [K in keyof D]: D[K] extends readonly { id: string }[] ? K : never }[keyof D] & string;
type Seat<D> = ListName<D> | `stock.${ListName<StockView>}` | 'the job itself' | 'the firm itself' | null;
export type SeatInJob = Seat<JobDocument>;
export type SeatInBench = Seat<BenchDocument>;

/** What is known of a kind of record, once for the bench, the page and the files. */
interface KindOfRecord {
  /** What the interface calls one, with its article. */
  readonly words: string;
  /** `firm`: changed in the firm's name only. `job`: of exactly one job. `both`: of the firm, and the work of a job brings and changes it too. */
  readonly of: 'firm' | 'job' | 'both';
  readonly inJob: SeatInJob;
  readonly inBench: SeatInBench;
  /** Tells what happened: no step of undo. */
  readonly isFact?: true;
  /** It stands as it was written, but for these fields; and the sentence for whoever sets another. */
  readonly stands?: { readonly but: readonly string[]; readonly sentence?: string };
}

/**
 * Every kind of record that a change may touch; their schemas are `recordSchemas`. A new kind is added here; whatever else has to know of it no longer compiles until it does.
 */
export const recordKinds = {
  firm: { words: 'a firm', of: 'firm', inJob: 'the firm itself', inBench: 'the firm itself' },
  person: { words: 'a person', of: 'firm', inJob: 'persons', inBench: 'persons' },
  job: { words: 'a job', of: 'both', inJob: 'the job itself', inBench: null },
  place: { words: 'a room', of: 'job', inJob: 'places', inBench: null },
  surface: { words: 'a surface', of: 'job', inJob: 'surfaces', inBench: null },
  reading: {
    words: 'a reading',
    of: 'job',
    inJob: 'readings',
    inBench: null,
    stands: { but: ['withdrawnAt', 'deletedAt'], sentence: 'A reading is never overwritten: add a new one that supersedes it.' },
  },
  film: {
    words: 'a film',
    of: 'both',
    inJob: 'films',
    inBench: 'films',
    stands: { but: ['retiredAt'], sentence: 'A film version stands as it is: add a new version.' },
  },
  roll: { words: 'a roll', of: 'both', inJob: 'rolls', inBench: 'rolls' },
  plan: { words: 'a cut plan', of: 'job', inJob: 'plans', inBench: null },
  logEntry: { words: 'a line of the log', of: 'job', inJob: 'entries', inBench: null, isFact: true, stands: { but: [] } },
  rates: {
    words: 'rates',
    of: 'firm',
    inJob: null,
    inBench: 'rates',
    stands: { but: [], sentence: 'Rates stand as they were used: add a new version.' },
  },
  quote: { words: 'a price', of: 'both', inJob: null, inBench: 'quotes' },
  stockEntry: {
    words: 'an entry of the stock',
    of: 'both',
    inJob: 'stock.entries',
    inBench: 'stock.entries',
    stands: { but: ['deletedAt'], sentence: 'What was booked stands: book the difference.' },
  },
  reservation: {
    words: 'a promise of film',
    of: 'both',
    inJob: 'stock.reservations',
    inBench: 'stock.reservations',
    stands: { but: ['deletedAt'], sentence: 'A promise stands or is lifted: make a new one.' },
  },
  plotRun: { words: 'a run of the plotter', of: 'job', inJob: 'plotRuns', inBench: null, isFact: true },
  stepSet: {
    words: 'steps',
    of: 'both',
    inJob: 'stepSets',
    inBench: 'stepSets',
    stands: { but: [], sentence: 'A version of the steps stands as it was worked by: add a new version.' },
  },
  layEntry: { words: 'a line of the log', of: 'job', inJob: 'layEntries', inBench: null, isFact: true, stands: { but: [] } },
} as const satisfies Record<string, KindOfRecord>;

export type RecordKind = keyof typeof recordKinds;
/** Kinds of which each record belongs to one job and to no other. */
export type KindOfOneJob = { [K in RecordKind]: (typeof recordKinds)[K]['of'] extends 'job' ? K : never }[RecordKind];

export const allKinds = Object.keys(recordKinds) as [RecordKind, ...RecordKind[]];
/** What is known of one kind, whatever it is. */
export const kindOf = (kind: RecordKind): KindOfRecord => recordKinds[kind];
