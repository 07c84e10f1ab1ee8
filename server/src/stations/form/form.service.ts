import type { CloudRequest, PaneCloud, ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import { panesOf, shrinkRequestOf } from '@yellow-pane/core';
import type { Compute } from '../../compute/runners.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';
import type { FormingSheetDocument, PrintedForm } from './forming-sheet-pdf.js';

/** Shrink plans of curved glass, point clouds, and the sheet that is taken to the pane. */
export class FormService {
  constructor(
    private readonly jobs: JobsService,
    private readonly compute: Compute,
  ) {}

  /** @throws Refusal bad-input with the sentence that says what these measures lack */
  async plan(input: ShrinkInput): Promise<ShrinkPlan> {
    const made = await this.compute.run('shrink', input);
    if (!made.ok) throw new Refusal('bad-input', made.message, [{ path: 'body.curved', message: made.message }]);
    return made.value;
  }

  async cloud(asked: CloudRequest): Promise<PaneCloud> {
    if ((asked.text === null) === (asked.base64 === null)) {
      const message = 'Send the file either as text or, a binary one, as base64.';
      throw new Refusal('bad-input', message, [{ path: 'body', message }]);
    }
    const made = await this.compute.run('cloud', asked);
    if (!made.ok) throw new Refusal('bad-input', made.message, [{ path: asked.text === null ? 'body.base64' : 'body.text', message: made.message }]);
    return made.value;
  }

  /** @throws Refusal not-formable when no curved pane can be planned */
  async document(jobId: string, surfaceId: string | undefined): Promise<FormingSheetDocument> {
    const doc = await this.jobs.openWithMemo(jobId);
    const panes: PrintedForm[] = [];
    let why: string | null = null;
    for (const surface of panesOf(doc.surfaces)) {
      if (surfaceId !== undefined && surface.id !== surfaceId) continue;
      const film = doc.films.find((f) => f.id === surface.filmId);
      if (!surface.curved || surface.deletedAt || !film) continue;
      const asked = shrinkRequestOf(surface, doc, film)!;
      if ('blocked' in asked) {
        why = `${surface.name}: ${asked.blocked}`;
        continue;
      }
      const plan = await this.compute.run('shrink', asked.input);
      if (plan.ok)
        panes.push({
          name: surface.name,
          place: doc.places.find((p) => p.id === surface.placeId)?.name ?? '',
          film: film.name,
          seat: asked.input.curved.seat,
          plan: plan.value,
        });
      else why = `${surface.name}: ${plan.message}`;
    }
    if (panes.length === 0) throw new Refusal('not-formable', why ?? undefined);
    return { job: doc.job.name, customer: doc.job.customer, units: doc.job.units, panes };
  }
}
