import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, type Type } from '@angular/core';
import { NgComponentOutlet } from '@angular/common';
import type { SurfaceKind } from '@yellow-pane/contracts';
import { RecordStore } from '../../record/record.store';
import { PanePage } from './pane-page';

/** A page that is there at once, or comes when its kind is first taken up: the first page of a job carries glass alone. */
type Page = { readonly now: Type<unknown> } | { readonly later: () => Promise<Type<unknown>> };

/** What Measure shows of each kind of surface. */
const pageOfKind: { readonly [K in SurfaceKind]: Page } = {
  pane: { now: PanePage },
  column: { later: () => import('./column-page').then((m) => m.ColumnPage) },
  panel: { later: () => import('./panel-page').then((m) => m.PanelPage) },
  wall: { later: () => import('./wall-page').then((m) => m.WallPage) },
  counter: { later: () => import('./counter-page').then((m) => m.CounterPage) },
  sign: { later: () => import('./sign-page').then((m) => m.SignPage) },
};

/** Measure: the tapes of the selected surface, and what they say to each other. */
@Component({
  selector: 'yp-measure-page',
  imports: [NgComponentOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (page(); as shown) {
      <ng-container *ngComponentOutlet="shown" />
    } @else {
      <p class="p-8 text-soft" aria-busy="true">It comes …</p>
    }
  `,
})
export class MeasurePage {
  private readonly record = inject(RecordStore);
  private readonly kind = computed<SurfaceKind>(() => this.record.surface()?.kind ?? 'pane');
  private readonly loaded = signal<Partial<Record<SurfaceKind, Type<unknown>>>>({});
  protected readonly page = computed(() => {
    const page = pageOfKind[this.kind()];
    return 'now' in page ? page.now : (this.loaded()[this.kind()] ?? null);
  });

  constructor() {
    effect(() => {
      const kind = this.kind();
      const page = pageOfKind[kind];
      if ('later' in page) void page.later().then((type) => this.loaded.update((l) => ({ ...l, [kind]: type })));
    });
  }
}
