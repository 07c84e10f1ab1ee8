import type { Film, JobDocument, Layout, LayoutComputeInput, Piece, Plan, Roll } from '@yellow-pane/contracts';
import { cutMethod } from '@yellow-pane/contracts';
import {
  checkLayout,
  filmPlanInput,
  knifeOrder,
  preCutOutline,
  resolveAllowances,
  PROMPT_STEPS,
  type KnifeStep,
  type MethodFigures,
  type Polygon,
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
  readonly pieces: readonly Piece[];
  readonly cuts: readonly SurfaceCut[];
  readonly layout: Layout;
  readonly steps: readonly KnifeStep[];
  /** The stored plan if it still holds; a fresh one otherwise. */
  readonly isStored: boolean;
}
export interface CutSheet {
  readonly doc: JobDocument;
  readonly films: readonly FilmSheet[];
  readonly placeOf: (surfaceId: string) => string;
  /** True corners of pre-cut pieces, as surveyed. */
  readonly outlineOf: (surfaceId: string) => Polygon | null;
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
  const faults = checkLayout(plan.layout, {
    pieces: plan.pieces,
    rolls: rolls.map((r) => ({ id: r.id, widthMm: r.widthMm, availableMm: r.lengthM * 1000 - r.leadInMm, pricePerM: Number(r.pricePerM) })),
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
            rolls: input.layout.rolls.map((r) => ({ ...r, fixedDrops: [...r.fixedDrops] })),
            pieces: [...input.pieces],
            steps: PROMPT_STEPS,
          });
      const rolls = doc.rolls.filter((r) => r.filmId === film.id);
      const steps = knifeOrder(layout, input.pieces, (id) => rolls.find((r) => r.id === id)?.widthMm ?? 0, doc.job.units, film.wound === 'liner-in');
      films.push({ film, rolls, pieces: input.pieces, cuts: input.cuts, layout, steps, isStored });
    }
    if (films.length === 0) throw new Refusal('not-cuttable', 'There is nothing that can be cut yet: no pane has both its tapes and a film.');
    const place = new Map(doc.places.map((p) => [p.id, p.name]));
    const surface = new Map(doc.surfaces.map((s) => [s.id, s]));
    return {
      doc,
      films,
      placeOf: (id) => place.get(surface.get(id)?.placeId ?? '') ?? '',
      outlineOf: (id) => {
        const cut = films.flatMap((f) => f.cuts).find((c) => c.surface.id === id);
        return cut && cut.method === 'pre-cut' && cut.survey.outline
          ? preCutOutline({ survey: cut.survey, allowances: resolveAllowances(doc, cut.surface) })
          : null;
      },
    };
  }

  async methods(jobId: string, filmId: string): Promise<MethodFigures[]> {
    const doc = await this.jobs.open(jobId);
    return this.compute.run('methods', { calls: cutMethod.options.map((m) => [doc, doc.job.cut, filmId, m]) });
  }
}
