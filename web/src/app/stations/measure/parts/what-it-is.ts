import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Counter, Panel, Sign } from '@yellow-pane/contracts';
import { RecordStore } from '../../../record/record.store';

/** What a surface is among those of its kind, one press each. */
@Component({
  selector: 'yp-what-it-is',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="flex flex-wrap gap-1.5 text-sm" role="group" [attr.aria-label]="label()">
      @for (w of whats(); track w.what) {
        <button type="button" class="btn" [class.btn-hand]="w.isOn" [attr.aria-pressed]="w.isOn" (click)="set(w.what, w.name)">{{ w.name }}</button>
      }
    </div>
  `,
})
export class WhatItIs {
  readonly surface = input.required<Counter | Panel | Sign>();
  readonly names = input.required<Readonly<Record<string, string>>>();
  readonly label = input('What it is');
  private readonly record = inject(RecordStore);
  protected readonly whats = computed(() => Object.entries(this.names()).map(([what, name]) => ({ what, name, isOn: what === this.surface().what })));

  protected set(what: string, name: string): void {
    const s = this.surface();
    if (s.what !== what) void this.record.set(`${s.name}: ${name}`.slice(0, 120), 'surface', s.id, { what });
  }
}
