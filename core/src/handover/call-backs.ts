import type { CallBack, Job, LayEntry } from '@yellow-pane/contracts';
import { causeName, pinsOf } from '../check/index.js';
import { linesInForce } from '../lay/index.js';

/** The records that calls are read from. */
interface CallRecords {
  readonly job: Pick<Job, 'id' | 'name' | 'customer' | 'address'>;
  readonly surfaces: readonly { readonly id: string; readonly name: string; readonly filmId: string | null }[];
  readonly films: readonly { readonly id: string; readonly name: string }[];
  readonly persons: readonly { readonly id: string; readonly name: string }[];
  readonly layEntries: readonly LayEntry[];
}
const DAY_MS = 86_400_000;

/** Calls of a job's customer, each with what is known of its pane: film, lot, who laid it, what was put down to what since. They are listed, never counted by person. */
export function callBacksOf({ job, surfaces, films, persons, layEntries }: CallRecords): CallBack[] {
  const lines = linesInForce(layEntries);
  return lines
    .filter((e) => e.kind === 'called')
    .map((e): CallBack => {
      const surface = surfaces.find((s) => s.id === e.surfaceId);
      const own = lines.filter((l) => l.surfaceId === e.surfaceId && e.surfaceId !== null);
      const laid = own.findLast((l) => l.kind === 'pane-done' && l.occurredAt < e.occurredAt);
      const causes = pinsOf(own, null).flatMap((p) => (p.causeKey ? [causeName(p.causeKey)] : []));
      return {
        entryId: e.id,
        jobId: job.id,
        job: job.name,
        customer: job.customer,
        address: job.address,
        pane: surface?.name ?? '',
        calledAt: e.occurredAt,
        says: e.text,
        film: films.find((f) => f.id === surface?.filmId)?.name ?? '',
        lot: own.findLast((l) => l.roll && l.occurredAt < e.occurredAt)?.roll?.lot ?? '',
        laidBy: persons.find((p) => p.id === laid?.personId)?.name ?? '',
        daysAfterLaying: laid ? Math.floor((Date.parse(e.occurredAt) - Date.parse(laid.occurredAt)) / DAY_MS) : null,
        causes: [...new Set(causes)],
      };
    });
}
