import { ChangeDetectionStrategy, Component, computed, inject, type Type } from '@angular/core';
import { NgComponentOutlet } from '@angular/common';
import type { SurfaceKind } from '@yellow-pane/contracts';
import { RecordStore } from '../../record/record.store';
import { ColumnPage } from './column-page';
import { PanePage } from './pane-page';

/** What Measure shows of each kind of surface. */
const pageOfKind: { readonly [K in SurfaceKind]: Type<unknown> } = { pane: PanePage, column: ColumnPage };

/** Measure: the tapes of the selected surface, and what they say to each other. */
@Component({
  selector: 'yp-measure-page',
  imports: [NgComponentOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<ng-container *ngComponentOutlet="page()" />`,
})
export class MeasurePage {
  private readonly record = inject(RecordStore);
  protected readonly page = computed(() => pageOfKind[this.record.surface()?.kind ?? 'pane']);
}
