import * as z from 'zod';
import { id, instant, words } from '../quantities.js';

/** SHA-256 in hexadecimal. @source FIPS 180-4 */
const sha256Hex = z.string().regex(/^[0-9a-f]{64}$/);

/** Panes handed over at once: what the customer saw of the record when signing, so that later it can be told what came after. */
export const acceptance = z.object({
  /** Sum over all that follows: printed on the paper. */
  seal: sha256Hex,
  /** What stood of each pane that no line of the log says: outline, film, roll. */
  panes: z
    .array(z.object({ surfaceId: id, sha256: sha256Hex }))
    .min(1, 'Which panes are handed over?')
    .max(2000),
  /** Lines of the log that it was made over. */
  lineIds: z.array(id).max(40_000),
});
export type Acceptance = z.infer<typeof acceptance>;

/** What is erased: the words, photo and signature of a line, or the customer's name and address of the whole job. */
export const erasedThing = z.discriminatedUnion('what', [z.object({ what: z.literal('line'), entryId: id }), z.object({ what: z.literal('customer') })]);
export type ErasedThing = z.infer<typeof erasedThing>;

/** Stands in a line of the log in place of what was erased. */
export const lineErased = z.object({
  at: instant,
  /** The line of the log that says who and why. */
  byEntryId: id,
  /** What the seal is reckoned with instead: a sum over what stood there and a random salt that is gone too. */
  commitment: sha256Hex,
});

export const eraseRequest = z.object({
  thing: erasedThing,
  why: words(300).min(3, 'Say why: who asked for it, and when.'),
  personId: id,
  deviceId: id,
});
export type EraseRequest = z.infer<typeof eraseRequest>;
/** What was done, and what still holds it. */
export const eraseAnswer = z.object({
  erasedLineCount: z.int(),
  photoGone: z.boolean(),
  /** Whether nothing of what was there before is left in the files of the database; on a server that is its operator’s. */
  isOffTheDisk: z.boolean(),
  /** Backups written before: they hold it until they are dropped. */
  olderBackups: z.array(z.string()),
});
export type EraseAnswer = z.infer<typeof eraseAnswer>;

/** How a seal stands now. */
export const sealCheck = z.object({
  entryId: id,
  signedBy: z.string(),
  signedAt: instant,
  seal: sha256Hex,
  verdict: z.enum(['unchanged', 'added', 'erased', 'changed']),
  /** In sentences. */
  says: z.array(z.string()),
});
export type SealCheck = z.infer<typeof sealCheck>;

/** A call of the customer after the work. */
export const callBack = z.object({
  entryId: id,
  jobId: id,
  job: z.string(),
  customer: z.string(),
  address: z.string(),
  pane: z.string(),
  calledAt: instant,
  says: z.string(),
  film: z.string(),
  lot: z.string(),
  /** Who laid the pane; not a mark. */
  laidBy: z.string(),
  daysAfterLaying: z.number().nullable(),
  causes: z.array(z.string()),
});
export type CallBack = z.infer<typeof callBack>;

/** Laid panes of a job that somebody has to come back to: what is due now, and what within a week. */
export const dueJob = z.object({
  jobId: id,
  job: z.string(),
  /** One line for each pane and reason. */
  now: z.array(z.object({ surfaceId: id, pane: z.string(), what: z.string() })),
  week: z.array(z.object({ surfaceId: id, pane: z.string(), what: z.string(), on: z.iso.date() })),
});
export type DueJob = z.infer<typeof dueJob>;
