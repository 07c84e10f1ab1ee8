import { ChangeDetectionStrategy, Component, type ElementRef, input, model, viewChildren } from '@angular/core';

/** One of several leaves that share a place. */
export interface Tab<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
}

/**
 * A row of tabs; the panel belongs to the page and takes its name from `{prefix}-{id}`.
 * Arrows, Home and End go from tab to tab. @source WAI-ARIA authoring practices, tabs with automatic activation
 */
@Component({
  selector: 'yp-tabs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="flex flex-wrap gap-x-4 border-b border-hair text-sm" role="tablist" [attr.aria-label]="label()">
      @for (t of tabs(); track t.id) {
        <button
          #button
          type="button"
          role="tab"
          class="min-h-9 border-b-4 px-1"
          [id]="prefix() + '-' + t.id"
          [class]="selected() === t.id ? 'border-hand font-bold' : 'border-transparent'"
          [attr.aria-selected]="selected() === t.id"
          [attr.aria-controls]="prefix() + '-panel'"
          [tabindex]="selected() === t.id ? 0 : -1"
          (click)="selected.set(t.id)"
          (keydown)="walk($event)"
        >
          {{ t.name }}
        </button>
      }
    </div>
  `,
  host: { class: 'block' },
})
export class Tabs<Id extends string> {
  readonly tabs = input.required<readonly Tab<Id>[]>();
  readonly selected = model.required<Id>();
  readonly label = input.required<string>();
  readonly prefix = input.required<string>();
  private readonly buttons = viewChildren<ElementRef<HTMLButtonElement>>('button');

  protected walk(event: KeyboardEvent): void {
    const all = this.tabs();
    const at = all.findIndex((t) => t.id === this.selected());
    const to = { ArrowRight: (at + 1) % all.length, ArrowLeft: (at + all.length - 1) % all.length, Home: 0, End: all.length - 1 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    this.selected.set(all[to]!.id);
    this.buttons()[to]!.nativeElement.focus();
  }
}
