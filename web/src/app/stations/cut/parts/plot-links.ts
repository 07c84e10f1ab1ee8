import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Piece, Surface } from '@yellow-pane/contracts';
import { plotLengths, plotOfSurface } from '@yellow-pane/core';
import { filmText } from '@yellow-pane/core/ground';
import { hrefOf } from '../../../record/api';
import { RecordStore } from '../../../record/record.store';

/** The pieces of a surface that a plotter cuts: how much there is under the knife, and the way to it. */
@Component({
  selector: 'yp-plot-links',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (p of plots(); track p.id) {
      <p class="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <span>{{ p.words }}</span>
        <a class="btn" [href]="p.hpgl" download>HP-GL</a><a class="btn" [href]="p.dxf" download>DXF</a
        ><a class="btn btn-ink" [routerLink]="['/jobs', p.jobId, 'plotter']" [queryParams]="{ piece: p.id }">To the plotter</a>
      </p>
    }
  `,
})
export class PlotLinks {
  readonly surface = input.required<Surface>();
  readonly pieces = input.required<readonly Piece[]>();
  private readonly record = inject(RecordStore);
  protected readonly plots = computed(() => {
    const doc = this.record.records();
    const film = doc?.films.find((f) => f.id === this.surface().filmId);
    if (!doc || !film) return [];
    return this.pieces().flatMap((p) => {
      const sheet = p.isPlotted ? plotOfSurface(this.surface(), doc, film, p.id, { weeding: true, registration: true }) : null;
      if (!sheet) return [];
      const words = `${p.label}: ${sheet.paths.length} paths, ${filmText(plotLengths(sheet).cutMm, this.record.units(), 1)} under the knife.`;
      const params = { jobId: doc.job.id, pieceId: p.id };
      return [{ id: p.id, jobId: doc.job.id, hpgl: hrefOf('plotHpgl', { params }), dxf: hrefOf('plotDxf', { params }), words }];
    });
  });
}
