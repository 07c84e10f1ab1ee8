import type { Film, JobDocument, Layout, LayoutComputeInput, LeftoverRule, Piece, Plan, Roll } from '@yellow-pane/contracts';
import { cutMethod } from '@yellow-pane/contracts';
import {
  availableForJobMm,
  checkLayout,
  filmPlanInput,
  isFilmUpOn,
  knifeOrder,
  piecesCutShort,
  type CutShort,
  PROMPT_STEPS,
  type KnifeStep,
  type MethodFigures,
  type SurfaceCut,
} from '@yellow-pane/core';
import type { Compute } from '../../compute/runners.js';
import type { RecordGuard } from '../../db/change.service.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';

/** Everything a cut sheet says about one film. */
export interface FilmSheet {
  readonly film: Film;
  readonly rolls: readonly Roll[];
  /** As laid on the roll: shaped pieces may be joined two by two. */
  readonly pieces: readonly Piece[];
  /** One by one, as they go onto the glass. */
  readonly single: readonly Piece[];
  readonly cuts: readonly SurfaceCut[];
  readonly layout: Layout;
  readonly steps: readonly KnifeStep[];
  /** Which rests are worth keeping. */
  readonly leftovers: LeftoverRule;
  /** The stored plan if it still holds; a fresh one otherwise. */
  readonly isStored: boolean;
}
export interface CutSheet {
  readonly doc: JobDocument;
  readonly films: readonly FilmSheet[];
  /** Pieces already cut that do not cover their panes any more. */
  readonly short: readonly CutShort[];
  readonly placeOf: (surfaceId: string) => string;
}

/** The newest plan of a film. */
export const currentPlan = (doc: Pick<JobDocument, 'plans'>, filmId: string): Plan | undefined =>
  doc.plans.filter((p) => p.filmId === filmId).sort((a, b) => b.updatedAt.localeCompare(a.updatedAt))[0];

/** A plan enters the records only when the independent checker passes it. */
export const planGuard: RecordGuard = async (records, kind, record) => {
  if (kind !== 'plan') return;
  const plan = record as unknown as Plan;
  if (plan.deletedAt !== null) return;
  const job = await records.find('job', plan.jobId);
  if (!job) throw new Refusal('job-not-found');
  const rolls = (await records.all('roll')).filter((r) => r.filmId === plan.filmId);
  const book = { entries: await records.all('stockEntry'), reservations: await records.all('reservation') };
  const faults = checkLayout(plan.layout, {
    pieces: plan.pieces,
    rolls: rolls.map((r) => ({
      id: r.id,
      widthMm: r.widthMm,
      availableMm: availableForJobMm(r, book, job.id),
      pricePerM: Number(r.pricePerM),
      edges: r.edges,
      lot: r.lot,
    })),
    settings: job.cut,
  });
  if (faults.length)
    throw new Refusal(
      'plan-refused',
      `This cut plan does not pass the check: ${faults[0]}`,
      faults.map((message, i) => ({ path: `fault ${i + 1}`, message })),
    );
};

export class CutService {
  constructor(
    private readonly jobs: JobsService,
    private readonly compute: Compute,
  ) {}

  layout(input: LayoutComputeInput): Promise<Layout> {
    return this.compute.run('layout', input);
  }

  /** What the job's films come to, by the stored plan where its input is unchanged. @throws Refusal not-cuttable */
  async sheet(jobId: string): Promise<CutSheet> {
    const doc = await this.jobs.open(jobId);
    const films: FilmSheet[] = [];
    for (const film of doc.films) {
      const plan = currentPlan(doc, film.id);
      const input = filmPlanInput(doc, doc.job.cut, film.id, plan);
      if (input.pieces.length === 0) continue;
      const isStored = plan !== undefined && plan.inputHash === input.hash;
      const layout = isStored
        ? plan.layout
        : await this.compute.run('layout', {
            ...input.layout,
            rolls: input.layout.rolls.map((r) => ({ ...r, fixedDrops: [...r.fixedDrops], edges: r.edges ?? 'both', lot: r.lot ?? '' })),
            pieces: [...input.pieces],
            cutPrice: input.layout.cutPrice ?? 0,
            steps: PROMPT_STEPS,
          });
      const rolls = doc.rolls.filter((r) => r.filmId === film.id);
      const steps = knifeOrder(
        layout,
        input.pieces,
        (id) => rolls.find((r) => r.id === id)?.widthMm ?? 0,
        doc.job.units,
        (id) =>
          isFilmUpOn(
            rolls.find((r) => r.id === id),
            film,
          ),
      );
      const own = new Map(input.cuts.flatMap((c) => c.pieces).map((p) => [p.id, p]));
      const single = input.pieces.flatMap((p) => (p.parts.length ? p.parts.flatMap((part) => own.get(part.id) ?? []) : [p]));
      films.push({ film, rolls, pieces: input.pieces, single, cuts: input.cuts, layout, steps, leftovers: doc.firm.leftovers, isStored });
    }
    if (films.length === 0) throw new Refusal('not-cuttable', 'There is nothing that can be cut yet: no pane has both its tapes and a film.');
    const place = new Map(doc.places.map((p) => [p.id, p.name]));
    const surface = new Map(doc.surfaces.map((s) => [s.id, s]));
    return {
      doc,
      films,
      short: piecesCutShort(doc, doc.job.units),
      placeOf: (id) => place.get(surface.get(id)?.placeId ?? '') ?? '',
    };
  }

  async methods(jobId: string, filmId: string): Promise<MethodFigures[]> {
    const doc = await this.jobs.open(jobId);
    return this.compute.run('methods', { calls: cutMethod.options.map((m) => [doc, doc.job.cut, filmId, m]) });
  }
}
