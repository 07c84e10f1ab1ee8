import * as z from 'zod';
import { id, instant } from '../quantities.js';
import { layout, piece } from './layout.js';

/** A cut plan of one film in one job. Draft: re-planned when its input changes. Committed: frozen, the knife follows it. */
export const plan = z.object({
  id,
  jobId: id,
  filmId: id,
  status: z.enum(['draft', 'committed']),
  /** Hash of the resolved input; another hash means stale. */
  inputHash: z.string(),
  coreVersion: z.string(),
  pieces: z.array(piece),
  layout,
  lockedPieceIds: z.array(z.string()),
  /** A person put a piece where it lies; not the search. */
  isByHand: z.boolean().default(false),
  /** Rolls whose film has been taken off the stock for this plan. */
  takenRollIds: z.array(id).default([]),
  updatedAt: instant,
  deletedAt: instant.nullable(),
});
export type Plan = z.infer<typeof plan>;

/** A physical fact: never undone, only corrected by a further entry. */
export const logEntry = z.object({
  id,
  jobId: id,
  at: instant,
  personId: id,
  kind: z.enum(['cut-done', 'cut-undone', 'plan-committed', 'piece-spoiled']),
  planId: id.nullable(),
  /** Key of the knife step that was made (`cut-done`, `cut-undone`). */
  stepKey: z.string().nullable(),
  surfaceId: id.nullable(),
  note: z.string().max(400),
});
export type LogEntry = z.infer<typeof logEntry>;
