import type { Film, JobDocument, Layout, LayoutComputeInput, LeftoverRule, Piece, Roll } from '@yellow-pane/contracts';
import {
  availableForJobMm,
  checkLayout,
  contentHash,
  filmPlanInput,
  filmsToCut,
  finishedPieces,
  isFilmUpOn,
  knifeOrder,
  newestPlan,
  piecesCutShort,
  plotOfSurface,
  PROMPT_STEPS,
  singlePieces,
  standingPlan,
  type CutShort,
  type FilmPlanInput,
  type KnifeStep,
  type MethodFigures,
  type PlotSheet,
  type StandingPlan,
  type SurfaceCut,
} from '@yellow-pane/core';
import type { Compute } from '../../compute/runners.js';
import type { ClosingGuard } from '../../db/change.service.js';
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
  /** Sheets of letters as the plotter cuts them, by their pieces. */
  readonly letters: ReadonlyMap<string, PlotSheet>;
  readonly layout: Layout;
  readonly steps: readonly KnifeStep[];
  /** Which rests are worth keeping. */
  readonly leftovers: LeftoverRule;
  /** Whether this is what is followed: a kept or a committed plan. If not, it is a proposal that nobody has kept. */
  readonly standing: StandingPlan['is'];
  /** What of a committed plan is not as it was, in sentences. */
  readonly since: readonly string[];
}
export interface CutSheet {
  readonly doc: JobDocument;
  readonly films: readonly FilmSheet[];
  /** Pieces already cut that do not cover their panes any more. */
  readonly short: readonly CutShort[];
  readonly placeOf: (surfaceId: string) => string;
}

/**
 * A plan enters the records only when the independent checker passes it. One that comes in with its job was laid on film as it was on that day: it may since
 * have been taken, here by the job that it is a copy of; what is there now is asked when a piece of it is cut.
 */
export const planGuard: ClosingGuard = async (records, patches) => {
  const isBroughtIn = patches.some((p) => p.op === 'add' && p.kind === 'job');
  const ids = new Set(patches.flatMap((p) => (p.kind === 'plan' ? [p.id] : [])));
  if (ids.size === 0) return;
  for (const id of ids) {
    const plan = await records.find('plan', id);
    const job = plan && plan.deletedAt === null ? await records.find('job', plan.jobId) : null;
    if (!plan || !job) continue;
    const rolls = await records.rollsOfFilm(plan.filmId);
    const ids = rolls.map((r) => r.id);
    const book = { entries: await records.ofRolls('stockEntry', ids), reservations: await records.ofRolls('reservation', ids) };
    const thenMm = (rollId: string) => (isBroughtIn ? (plan.layout.rolls.find((r) => r.rollId === rollId)?.usedMm ?? 0) : 0);
    const faults = checkLayout(plan.layout, {
      pieces: plan.pieces,
      rolls: rolls.map((r) => ({
        id: r.id,
        widthMm: r.widthMm,
        availableMm: Math.max(availableForJobMm(r, book, job.id), thenMm(r.id)),
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
  }
};

/** Films of a few jobs. */
const PROPOSALS_KEPT = 24;

export class CutService {
  constructor(
    private readonly jobs: JobsService,
    private readonly compute: Compute,
  ) {}

  layout(input: LayoutComputeInput): Promise<Layout> {
    return this.compute.run('layout', input);
  }

  private readonly proposals = new Map<string, Promise<Layout>>();
  /** A layout that nobody has kept: whoever asks for the papers one after the other gets the same, laid once. */
  private proposal({ layout, pieces }: FilmPlanInput): Promise<Layout> {
    const rolls = layout.rolls.map((r) => ({ ...r, fixedDrops: [...r.fixedDrops], edges: r.edges ?? 'both', lot: r.lot ?? '' }));
    const asked: LayoutComputeInput = { ...layout, rolls, pieces: [...pieces], cutPrice: layout.cutPrice ?? 0, steps: PROMPT_STEPS };
    const key = contentHash(asked);
    const known = this.proposals.get(key) ?? this.compute.run('layout', asked);
    this.proposals.delete(key);
    this.proposals.set(key, known);
    known.catch(() => this.proposals.delete(key));
    for (const oldest of this.proposals.keys()) if (this.proposals.size > PROPOSALS_KEPT) this.proposals.delete(oldest);
    return known;
  }

  /** What the job's films come to, by the plan that stands; where there is none, by a proposal. @throws Refusal not-cuttable */
  async sheet(jobId: string): Promise<CutSheet> {
    const doc = await this.jobs.openWithMemo(jobId);
    const films: FilmSheet[] = [];
    const finished = finishedPieces(doc.plans, doc.entries, doc.rolls);
    for (const film of filmsToCut(doc)) {
      const plan = newestPlan(doc.plans, film.id);
      const input = filmPlanInput(doc, doc.job.cut, film.id, plan);
      const standing = standingPlan(plan, input, finished, doc.job.units);
      const pieces = standing.is === 'committed' ? standing.plan.pieces : input.pieces;
      if (pieces.length === 0) continue;
      const layout = standing.is !== 'none' ? standing.plan.layout : await this.proposal(input);
      const rolls = doc.rolls.filter((r) => r.filmId === film.id);
      const steps = knifeOrder(
        layout,
        pieces,
        (id) => rolls.find((r) => r.id === id)?.widthMm ?? 0,
        doc.job.units,
        (id) =>
          isFilmUpOn(
            rolls.find((r) => r.id === id),
            film,
          ),
      );
      const own = new Map(input.cuts.flatMap((c) => c.pieces).map((p) => [p.id, p]));
      const isCommitted = standing.is !== 'none' && standing.plan.status === 'committed';
      const since = standing.is === 'committed' ? standing.changes.map((c) => c.words) : [];
      const letters = new Map(
        input.cuts.flatMap(({ surface, pieces: made }) =>
          made.flatMap((p): [string, PlotSheet][] => {
            const plot = surface.kind === 'sign' ? plotOfSurface(surface, doc, film, p.id, { weeding: false, registration: false }) : null;
            return plot ? [[p.id, plot]] : [];
          }),
        ),
      );
      films.push({ film, rolls, pieces, single: singlePieces(pieces, own), cuts: input.cuts, letters, layout, steps, leftovers: doc.firm.leftovers, standing: isCommitted ? 'committed' : standing.is, since }); // prettier-ignore
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
    return this.compute.run('methods', { records: doc, settings: doc.job.cut, filmId });
  }
}
