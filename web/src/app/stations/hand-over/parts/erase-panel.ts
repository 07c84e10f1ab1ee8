import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { ErasedThing, LayEntry } from '@yellow-pane/contracts';
import { HoldButton } from '../../../kit/hold-button';
import { RecordStore } from '../../../record/record.store';
import { HandOverStore } from '../hand-over.store';

const kindWords: Partial<Record<LayEntry['kind'], string>> = {
  signed: 'signature before the work',
  accepted: 'signature of the hand-over',
  photo: 'photo',
  called: 'call',
  note: 'note',
};

/** A customer may ask that what is personal goes: a photo, a name, a signature, words. Who erased it, when and why stays. */
@Component({
  selector: 'yp-erase-panel',
  imports: [HoldButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary class="cursor-pointer py-1 text-lg font-bold">Erase something personal</summary>
      <p class="mt-1 text-sm">
        When a customer asks for it. It goes from the records, their history, the journal and every export to come, and cannot be undone. What was sealed stays
        provable.
      </p>
      @if (store.erased(); as e) {
        <p role="status" class="mt-2 border-l-4 border-proof bg-proof-tint p-2 text-sm" data-erased>
          Erased.{{ e.photoGone ? ' The photo is deleted.' : '' }}
          {{ e.isOffTheDisk ? '' : ' On the disk of the database it goes when the database tidies up.' }}
          @if (e.olderBackups.length) {
            {{ e.olderBackups.length === 1 ? '1 backup' : e.olderBackups.length + ' backups' }} made before still hold it until they are dropped, the oldest
            first: {{ e.olderBackups.slice(0, 3).join(', ') }}{{ e.olderBackups.length > 3 ? ' …' : '' }}
          }
        </p>
      }
      @if (thing(); as t) {
        <div class="mt-2 border border-field p-3">
          <p class="mb-2 text-sm font-bold">{{ name() }}</p>
          <label class="mb-2 block text-sm">Who asked for it, and when<input #why class="field" maxlength="300" (input)="reason.set(why.value)" /></label>
          <yp-hold-button class="min-h-14" look="bg-harm-tint border-harm! font-bold" [disabled]="reason().trim().length < 3" (held)="erase(t)"
            >Hold to erase for good</yp-hold-button
          >
          <button type="button" class="btn mt-2" (click)="thing.set(null)">Leave it</button>
        </div>
      } @else {
        <ul class="mt-2 border-t border-hair text-sm">
          @if (customer()) {
            <li class="flex items-center gap-2 border-b border-hair py-1">
              <span class="min-w-0 flex-1">Customer’s name and address: {{ customer() }}</span>
              <button type="button" class="btn" (click)="pick({ what: 'customer' }, 'Customer’s name and address')">Erase</button>
            </li>
          }
          @for (e of lines(); track e.id) {
            <li class="flex items-center gap-2 border-b border-hair py-1" data-personal>
              <span class="min-w-0 flex-1 break-words">{{ textOf(e) }}</span>
              <button type="button" class="btn" (click)="pick({ what: 'line', entryId: e.id }, textOf(e))">Erase</button>
            </li>
          } @empty {
            <li class="py-1 text-soft">No words, photos or signatures stand in the log.</li>
          }
        </ul>
        @if (store.personal().length > lines().length) {
          <button type="button" class="btn mt-2" (click)="most.set(most() + 20)">{{ store.personal().length - lines().length }} more</button>
        }
        @for (e of store.erasures(); track e.id) {
          <p class="border-b border-hair py-1 text-sm text-soft">
            {{ day(e.occurredAt) }}: {{ who(e) }} erased {{ e.erasure?.what === 'customer' ? 'the customer’s name and address' : 'a line' }}. {{ e.text }}
          </p>
        }
      }
    </details>
  `,
  host: { class: 'block' },
})
export class ErasePanel {
  protected readonly store = inject(HandOverStore);
  private readonly record = inject(RecordStore);
  protected readonly thing = signal<ErasedThing | null>(null);
  protected readonly name = signal('');
  protected readonly reason = signal('');
  protected readonly most = signal(8);
  protected readonly lines = computed(() => this.store.personal().slice(0, this.most()));
  protected readonly customer = computed(() => {
    const job = this.record.doc()?.job;
    return [job?.customer, job?.address].filter(Boolean).join(', ');
  });

  protected day(iso: string): string {
    return new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: this.record.doc()?.job.zone ?? 'Etc/UTC' });
  }
  protected who(e: LayEntry): string {
    return this.record.doc()?.persons.find((p) => p.id === e.personId)?.name ?? 'somebody';
  }
  protected textOf(e: LayEntry): string {
    const pane = this.record.doc()?.surfaces.find((s) => s.id === e.surfaceId)?.name;
    const what = kindWords[e.kind] ?? 'line';
    const words = [e.signature?.name, e.text].filter(Boolean).join(': ');
    return `${this.day(e.occurredAt)}${pane ? `, ${pane}` : ''}, ${what}${e.photo && e.kind !== 'photo' ? ' with a photo' : ''}${words ? `: ${words.slice(0, 80)}` : ''}`;
  }
  protected pick(thing: ErasedThing, name: string): void {
    this.store.erased.set(null);
    this.reason.set('');
    this.name.set(name);
    this.thing.set(thing);
  }
  protected async erase(thing: ErasedThing): Promise<void> {
    if (await this.store.erase(thing, this.reason().trim())) this.thing.set(null);
  }
}
