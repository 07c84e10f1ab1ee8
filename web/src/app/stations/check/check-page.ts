import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  checkStateWords,
  defaultAcceptance,
  dryOutline,
  dryStateWords,
  farText,
  pinNamesOf,
  pinStateWords,
  type CheckDry,
  type CheckPane,
} from '@yellow-pane/core/check';
import { layPaneOf } from '@yellow-pane/core/lay';
import { RecordStore } from '../../record/record.store';
import { CheckStore } from './check.store';
import { dayOf, untilText } from './check-words';
import { DryPanel } from './parts/dry-panel';
import { DryingPanel } from './parts/drying-panel';
import { PinDrawing } from './parts/pin-drawing';
import { PinPanel } from './parts/pin-panel';
import { PinPicker, type Picked } from './parts/pin-picker';

/** From the width on at which the style sheet has its middle size. */
const WIDE = typeof matchMedia === 'function' ? matchMedia('(min-width: 768px)') : null;

const stateLook: Record<CheckPane['state'], string> = {
  seen: 'border-harm bg-harm-tint',
  late: 'border-harm bg-harm-tint',
  due: 'border-ink bg-hand',
  drying: 'border-wet bg-wet-tint',
  clear: 'border-proof bg-proof-tint',
};

/** Check: looked at as the trade looks, pinned where it is seen, put down to what it likely is. Made for a phone at the window; the bench sees the same. */
@Component({
  selector: 'yp-check-page',
  imports: [RouterLink, DryPanel, DryingPanel, PinDrawing, PinPanel, PinPicker],
  providers: [CheckStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './check-page.html',
  host: { class: 'block h-full' },
})
export class CheckPage {
  protected readonly record = inject(RecordStore);
  protected readonly check = inject(CheckStore);
  protected readonly sheet = signal<'none' | 'panes' | 'pick'>('none');
  protected readonly chosen = signal<{ xFrac: number; yFrac: number } | null>(null);
  protected readonly said = signal<string | null>(null);
  protected readonly stateLook = stateLook;
  protected readonly stateWords = computed(() => (this.check.wet() ? checkStateWords : dryStateWords));
  protected readonly pinNames = computed(() => pinNamesOf(this.check.patient()));
  protected readonly pinStateWords = pinStateWords;
  private readonly zone = computed(() => this.record.doc()?.job.zone ?? 'Etc/UTC');
  protected readonly outline = computed(() => {
    const [doc, here] = [this.record.records(), this.check.here()];
    if (!doc || !here) return null;
    return here.surface.kind === 'pane' ? (layPaneOf(here.surface, doc)?.outline ?? null) : dryOutline(here.surface, doc);
  });
  /** One looks from the room unless one has gone round. */
  protected readonly fromStreet = computed(() => this.check.wet() !== null && this.record.otherSide());
  /** The outline is that of the face that was worked on. */
  protected readonly mirrored = computed(() => (this.check.wet()?.surface.filmFace === 'street') !== this.fromStreet());
  protected readonly far = computed(() => farText((this.record.doc()?.firm.acceptance ?? defaultAcceptance).distanceMm, this.record.units()));
  /** How one looks at film that was laid dry. @source common practice: bubbles of a soft hand show a day later in the sun; a pass of heat shows hidden air at once */
  protected readonly dryHow = computed(() => {
    const here = this.check.here();
    if (!here || this.check.wet()) return null;
    const unrolled = here.surface.kind === 'column' ? ' Drawn unrolled: its front is the middle, the seam at both sides.' : '';
    return `Aslant against the light, then over all of it with a gloved hand; edges and grooves with a finger.${here.state === 'drying' ? ' What is pressed too softly shows tomorrow, in the sun.' : ''}${unrolled}`;
  });
  protected readonly place = computed(() => this.check.rows().find((r) => r.pane === this.check.here())?.place ?? '');
  protected readonly kept = computed(() => {
    const { queue } = this.check;
    const waiting = queue.waiting() + queue.beingKept();
    if (queue.beingKept()) return { dot: '○', text: 'being kept', look: 'text-heat-text' };
    return waiting
      ? { dot: '○', text: `${waiting} kept here, waiting for the bench`, look: 'text-heat-text' }
      : { dot: '●', text: 'saved', look: 'text-proof' };
  });

  /** Beside the pane there is room for what is known of it; on a phone it comes below. */
  protected readonly isWide = signal(WIDE?.matches ?? true);

  constructor() {
    const look = () => this.isWide.set(WIDE?.matches ?? true);
    WIDE?.addEventListener('change', look);
    inject(DestroyRef).onDestroy(() => WIDE?.removeEventListener('change', look));
    // with each laid pane, and when the bench is in reach again, the days behind the drying are asked for anew
    const asked = computed(() => {
      const doc = this.record.doc();
      return doc ? `${doc.job.id}/${this.check.panes().map((p) => p.laidAt).join()}/${doc.job.prepare?.typed.roomC ?? ''}/${this.check.queue.isReached()}` : null;
    }); // prettier-ignore
    effect(() => {
      if (!asked()) return;
      untracked(() => void this.check.weather.hear(this.record.doc()!.job.id));
    });
    // coming in with a pane that is not laid: the first one that somebody has to look at; whoever picks such a pane later is told
    let hasCome = false;
    effect(() => {
      const rows = this.check.rows();
      if (hasCome || !rows.length) return;
      hasCome = true;
      if (!this.check.here()) untracked(() => this.record.select(rows[0]!.pane.surface.id));
    });
    effect(() => {
      this.record.selectedId();
      untracked(() => {
        this.check.pinId.set(null);
        this.chosen.set(null);
        this.said.set(null);
        this.sheet.set('none');
      });
    });
  }

  protected day(iso: string): string {
    return dayOf(iso, this.zone());
  }
  protected dueText(pane: CheckPane | CheckDry): string {
    const [first] = pane.due;
    const words = 'clock' in pane ? checkStateWords : dryStateWords;
    if (pane.state === 'clear' || !first) return words[pane.state];
    const when = untilText(first.dueAt, this.check.nowMs());
    return pane.state === 'drying'
      ? `${words.drying}, look ${when}`
      : pane.state === 'seen'
        ? `${pane.pins.filter((p) => p.state === 'open').length} pinned`
        : words[pane.state];
  }
  protected pick(id: string): void {
    this.record.select(id);
    this.sheet.set('none');
  }
  protected choose(at: { xFrac: number; yFrac: number }): void {
    this.chosen.set(at);
    this.check.pinId.set(null);
    this.sheet.set('pick');
  }
  protected openPin(id: string): void {
    this.chosen.set(null);
    this.sheet.set('none');
    this.check.pinId.set(id);
  }
  protected leavePicker(): void {
    this.chosen.set(null);
    this.sheet.set('none');
  }
  protected async pinDown({ pin, photo }: { readonly pin: Picked; readonly photo: Blob | null }): Promise<void> {
    const at = this.chosen();
    if (!at) return;
    await this.check.pinDown({ ...pin, at, seenFrom: this.fromStreet() ? 'street' : 'room' }, photo);
    this.leavePicker();
  }
  protected async looked(water: 'none' | 'some' | 'much'): Promise<void> {
    if (await this.check.looked(water))
      this.said.set(!this.check.wet() ? 'Kept: looked over.' : water === 'none' ? 'Kept: no water left.' : 'Kept. The drying clock has learnt from it.');
  }
}
