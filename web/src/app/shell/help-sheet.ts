import { ChangeDetectionStrategy, Component, type ElementRef, inject, viewChild } from '@angular/core';
import { Device } from '../record/device';
import { Keys } from './keys';

/** All keys, and who is at the bench. */
@Component({
  selector: 'yp-help-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog #sheet class="m-auto max-h-[90dvh] w-[560px] max-w-[94vw] border border-ink bg-card p-6 backdrop:bg-ink/40" aria-labelledby="help-title">
      <div class="mb-3 flex items-start justify-between">
        <h2 id="help-title" class="text-xl">Keys and who is here</h2>
        <button type="button" class="btn" (click)="close()">Close</button>
      </div>
      <label class="mb-2 flex items-center gap-2"
        ><input type="checkbox" [checked]="keys.enabled()" (change)="keys.setEnabled(!keys.enabled())" /> Plain keys act when no field has the focus</label
      >
      <p class="mb-2 text-sm text-soft">In a field: Alt and the key. Enter goes to the next tape, Shift Enter back, Esc leaves the field.</p>
      <dl class="grid grid-cols-[1fr_auto_1fr_auto] items-center gap-x-3 gap-y-1 text-sm">
        @for (a of keys.actions(); track a.id) {
          <dt>{{ a.label }}</dt>
          <dd>
            @if (a.key.length === 1) {
              <input
                class="figure w-9 border border-field text-center"
                maxlength="1"
                [value]="a.key"
                [attr.aria-label]="'Key for ' + a.label"
                (change)="rekey(a.id, $event)"
              />
            } @else {
              <span class="figure">{{ a.key === 'ArrowUp' ? '↑' : '↓' }}</span>
            }
          </dd>
        }
      </dl>
      <h3 class="cap mt-5 mb-1">At the bench</h3>
      <div class="flex flex-wrap gap-2">
        @for (p of device.persons(); track p.id) {
          <button
            type="button"
            class="btn"
            [class.btn-hand]="p.id === device.person()?.id"
            [attr.aria-pressed]="p.id === device.person()?.id"
            (click)="device.choose(p)"
          >
            {{ p.name }}
          </button>
        }
      </div>
      <p class="mt-4 text-sm text-soft">Everything here can be called: <a class="underline" href="/api/docs" target="_blank" rel="noopener">the API</a>.</p>
    </dialog>
  `,
})
export class HelpSheet {
  protected readonly keys = inject(Keys);
  protected readonly device = inject(Device);
  private readonly sheet = viewChild.required<ElementRef<HTMLDialogElement>>('sheet');
  open(): void {
    this.sheet().nativeElement.showModal();
  }
  close(): void {
    this.sheet().nativeElement.close();
  }

  protected rekey(id: string, event: Event): void {
    const box = event.target as HTMLInputElement;
    if (!this.keys.change(id, box.value)) box.value = this.keys.actions().find((a) => a.id === id)!.key;
  }
}
