import { ChangeDetectionStrategy, Component, computed, inject, type Type } from '@angular/core';
import { NgComponentOutlet } from '@angular/common';
import type { SurfaceKind } from '@yellow-pane/contracts';
import { RecordStore } from '../../record/record.store';
import { DryChoice } from './dry-choice';
import { PaneChoice } from './pane-choice';

/** What Choose shows of each kind of surface. */
const pageOfKind: { readonly [K in SurfaceKind]: Type<unknown> } = {
  pane: PaneChoice,
  column: DryChoice,
  panel: DryChoice,
  wall: DryChoice,
  counter: DryChoice,
  sign: DryChoice,
};

/** Choose: which film goes on the selected surface, and why. */
@Component({
  selector: 'yp-choose-page',
  imports: [NgComponentOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<ng-container *ngComponentOutlet="page()" />`,
})
export class ChoosePage {
  private readonly record = inject(RecordStore);
  protected readonly page = computed(() => pageOfKind[this.record.surface()?.kind ?? 'pane']);
}
