import { ChangeDetectionStrategy, Component, computed, effect, inject, output, signal, untracked, viewChild } from '@angular/core';
import type { BowPlace, ShrinkInput, ShrinkPlan, Pane } from '@yellow-pane/contracts';
import { curvedOf, missingBows, outlineOfCurved, shrinkRequestOf, surveySurface } from '@yellow-pane/core';
import { contentHash } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { ShrinkSearch } from '../../../compute/shrink-search';
import type { TypedReading } from '../../../kit/length-field';
import { Device } from '../../../record/device';
import { RecordStore } from '../../../record/record.store';
import { bowSlots, withBow, withoutBow, type BowSlot } from '../curve.updaters';
import { CurveDrawing } from './curve-drawing';
import { CurvePanel } from './curve-panel';

/** The curve of a pane: every straightedge on its drawing, and beside it what they say to each other. */
@Component({
  selector: 'yp-curve-leaf',
  imports: [CurveDrawing, CurvePanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (curve(); as k) {
      <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
        <section class="flex min-h-[460px] min-w-0 flex-1 flex-col" aria-labelledby="curve-title">
          <div class="flex flex-wrap items-center justify-between gap-2 px-4 pt-3">
            <h2 id="curve-title" class="text-xl">{{ k.surface.name }}</h2>
            <div class="flex gap-1.5 text-sm" role="group" aria-label="Curved glass">
              <button type="button" class="btn btn-hand" aria-pressed="true">Curve</button>
              <button type="button" class="btn" aria-pressed="false" (click)="toOutline.emit()">Outline</button>
            </div>
          </div>
          @if (k.outline; as outline) {
            <yp-curve-drawing
              class="min-h-0 flex-1"
              [outline]="outline"
              [curved]="k.curved"
              [slots]="k.slots"
              [out]="k.out"
              [units]="record.units()"
              [name]="k.surface.name"
              [inherited]="k.inherits"
              (typed)="saveBow($event.slot, $event.reading)"
              (cleared)="dropBow($event)"
            />
          } @else {
            <div class="relief m-auto max-w-sm border-l-4 border-hair bg-card p-4">
              <p>No outline yet. Tape its widths and heights on the leaf “Outline”, or bring in a point cloud.</p>
              <button type="button" class="btn mt-2" (click)="toOutline.emit()">To the outline</button>
            </div>
          }
        </section>
        <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[276px] xl:w-[316px] md:border-l" aria-label="Numbers" tabindex="-1">
          <yp-curve-panel [surface]="k.surface" [curved]="k.curved" [plan]="plan()" [missing]="k.missing" (asked)="askBow($event)" />
        </aside>
      </div>
    }
  `,
  host: { class: 'block h-full' },
})
export class CurveLeaf {
  protected readonly record = inject(RecordStore);
  private readonly device = inject(Device);
  readonly toOutline = output<void>();
  /** A place where somebody wants to lay the straightedge next. */
  private readonly wanted = signal<{ surfaceId: string; place: BowPlace } | null>(null);
  private readonly search = inject(ShrinkSearch);
  private readonly curveDrawing = viewChild(CurveDrawing);
  private readonly made = signal<{ key: string; surfaceId: string; plan: ShrinkPlan | null } | null>(null);
  private readonly request = computed(() => {
    const [doc, s] = [this.record.records(), this.record.pane()];
    const film = doc?.films.find((f) => f.id === s?.filmId) ?? doc?.films[0];
    return doc && s?.curved && film ? shrinkRequestOf(s, { ...doc, job: { ...doc.job, units: this.record.units() } }, film) : null;
  });
  private readonly input = computed(() => {
    const r = this.request();
    return r && 'input' in r ? r.input : null;
  });
  protected readonly plan = computed(() => (this.input() && this.made()?.surfaceId === this.record.selectedId() ? this.made()!.plan : null));
  protected readonly curve = computed(() => {
    const [doc, s] = [this.record.records(), this.record.pane()];
    if (!doc || !s?.curved) return null;
    const survey = (x: Pane) => surveySurface(x, doc).survey;
    const curved = curvedOf(s, doc, survey)!;
    const outline = outlineOfCurved(survey(s), curved);
    const wanted = this.wanted();
    const place = wanted?.surfaceId === s.id ? wanted.place : (this.plan()?.nextBow?.place ?? null);
    return {
      surface: s,
      curved,
      outline,
      slots: outline && !curved.cloud ? bowSlots(outline, curved, place) : [],
      out: new Set(this.plan()?.suspects.map((x) => x.bowId) ?? []),
      inherits: s.curved.bows.length === 0 && curved.bows.length > 0,
      missing: missingBows(curved),
    };
  });

  protected saveBow(slot: BowSlot, typed: TypedReading): void {
    const [s, person, k] = [this.record.pane(), this.device.person(), this.curve()];
    if (!s?.curved || !person || !k) return;
    // a pane measured like another takes its bows over with the first of its own
    const from = k.inherits ? { ...s.curved, bows: k.curved.bows.map((b) => ({ ...b, id: uuidv7() })) } : s.curved;
    const old = slot.bow && k.inherits ? (from.bows[k.curved.bows.findIndex((b) => b.id === slot.bow!.id)] ?? null) : slot.bow;
    const curved = withBow(from, { ...slot, bow: old }, typed, { personId: person.id, at: new Date().toISOString() });
    if (this.wanted()?.surfaceId === s.id) this.wanted.set(null);
    void this.record.set(`Bow of ${s.name}`, 'surface', s.id, { curved });
  }
  protected dropBow(slot: BowSlot): void {
    const s = this.record.pane();
    if (s?.curved && slot.bow) void this.record.set(`No bow of ${s.name}`, 'surface', s.id, { curved: withoutBow(s.curved, slot.bow.id) });
  }
  protected askBow(place: BowPlace): void {
    const id = this.record.selectedId();
    if (!id) return;
    this.wanted.set({ surfaceId: id, place });
    const slot = this.curve()?.slots.at(-1);
    if (slot) this.curveDrawing()?.focusOn(slot.key);
  }
  private async weighBows(input: ShrinkInput, key: string, surfaceId: string): Promise<void> {
    const made = await this.search.plan(input);
    if (this.input() && contentHash(this.input()) === key) this.made.set({ key, surfaceId, plan: made.ok ? made.value : null });
  }

  constructor() {
    effect(() => {
      const [input, id] = [this.input(), this.record.selectedId()];
      untracked(() => {
        const key = input ? contentHash(input) : '';
        if (input && id && this.made()?.key !== key) void this.weighBows(input, key, id);
      });
    });
  }
}
