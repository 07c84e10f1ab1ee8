import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, signal } from '@angular/core';
import type { LayEntry } from '@yellow-pane/contracts';
import { heatProofs, filmUnderThermometer, gunAwayS, proofText, type HeatCover } from '@yellow-pane/core/lay';
import { capital, formatRough, measureOf, told } from '@yellow-pane/core/ground';
import { farthestFor, spotMm } from '@yellow-pane/core/instruments';
import { Instruments } from '../../../instruments/instruments';
import { HeatCoverDrawing } from '../../../kit/heat-cover-drawing';
import { readMeasure } from '../../../kit/read-measure';
import { RecordStore } from '../../../record/record.store';
import { LayStore } from '../lay.store';

/** What was stretched, hand’s length by hand’s length, and what the thermometer read there once the gun was away. */
@Component({
  selector: 'yp-heat-proof',
  imports: [HeatCoverDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let c = cover();
    <div class="my-2 border border-hair bg-card p-2" data-heat-proof>
      <yp-heat-cover-drawing
        class="mx-auto max-w-[300px] [&_svg]:max-h-[210px] md:[&_svg]:max-h-[290px]"
        [cover]="c"
        [proofs]="proofs()"
        [selected]="inHand()"
        [label]="'What was stretched: ' + proofs().size + ' of ' + all().length + ' stretches read'"
        (picked)="pick($event)"
      />
      @if (c.dueC === null) {
        <p class="text-sm font-semibold">Its film’s figure is not in the library: go by its maker’s, and write it down under Films.</p>
      } @else if (here(); as h) {
        <div class="mb-1 flex items-center gap-2">
          <button type="button" class="btn min-h-12 px-3!" aria-label="The one before" (click)="move(-1)">‹</button>
          <strong class="min-w-0 flex-1 text-center text-lg leading-tight" aria-live="polite" data-in-hand>{{ h.name }}</strong>
          <button type="button" class="btn min-h-12 px-3!" aria-label="The next one" (click)="move(1)">›</button>
        </div>
        <label class="flex items-center justify-center gap-2 text-lg"
          >{{ isWhole() ? 'Its coldest place' : 'Film' }}, {{ unit()
          }}<input
            #box
            class="field figure min-h-12 w-24! text-lg"
            inputmode="decimal"
            autocomplete="off"
            [attr.aria-label]="'Film read at ' + h.name + ', ' + unit()"
            (change)="typed(box)"
        /></label>
        <label class="mt-1 flex min-h-11 items-center justify-center gap-2 text-[15px]"
          ><input type="checkbox" class="h-5 w-5" [checked]="!isWhole()" (change)="toggle()" />every hand’s length by itself</label
        >
        @if (word(); as w) {
          <p class="border-l-4 p-2 text-[15px]" [class]="w.isGood ? 'border-proof bg-proof-tint' : 'border-harm bg-harm-tint'" role="status" data-heat-word>
            {{ w.text }}
          </p>
        }
      }
      <p class="mt-1 text-[15px]" data-heat-told>{{ summary() }}</p>
      <p class="mt-1 text-sm text-soft" data-spot>{{ spot() }}</p>
      @if (isMetallic()) {
        <p class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">
          Metallic film looks colder than it is: black tape on it and read that, or type what an instrument set to 0.95 shows and it is corrected.
        </p>
      }
    </div>
  `,
})
export class HeatProofPanel {
  readonly cover = input.required<HeatCover>();
  readonly lines = input.required<readonly LayEntry[]>();
  readonly stepKey = input<string | null>(null);
  private readonly record = inject(RecordStore);
  private readonly lay = inject(LayStore);

  protected readonly proofs = computed(() => heatProofs(this.cover(), this.lines()));
  protected readonly summary = computed(() => told(proofText(this.cover(), this.proofs()), this.record.units()));
  protected readonly unit = computed(() => measureOf('temperature', this.record.units()).unit);
  /** An edge is read at its coldest place; or every hand’s length of it. */
  protected readonly isWhole = signal(true);
  private readonly chosen = signal<string | null>(null);
  /** When the stretch in hand was taken up: the gun was over the one before until then. */
  private sinceMs = 0;
  protected readonly word = signal<{ readonly text: string; readonly isGood: boolean } | null>(null);

  protected readonly all = computed(() => this.cover().edges.flatMap((e) => e.stretches.map((s, i) => ({ edge: e, stretch: s, place: i + 1 }))));
  /** The one that was picked, else the first that is not proven. */
  private readonly at = computed(() => {
    const all = this.all();
    const chosen = all.find((s) => s.stretch.key === this.chosen());
    return chosen ?? all.find((s) => !this.proofs().get(s.stretch.key)?.isProven) ?? all[0];
  });
  protected readonly here = computed(() => {
    const at = this.at();
    if (!at) return null;
    const name = capital(at.edge.name);
    const isOne = at.edge.stretches.length === 1;
    return {
      name: this.isWhole() || isOne ? name : `${name}, ${at.place} of ${at.edge.stretches.length}`,
      key: this.isWhole() ? at.edge.key : at.stretch.key,
      keys: this.isWhole() ? at.edge.stretches.map((s) => s.key) : [at.stretch.key],
    };
  });
  protected readonly inHand = computed(() => this.here()?.keys ?? []);
  private readonly film = computed(() => {
    const doc = this.record.doc();
    const surface = doc?.surfaces.find((s) => s.id === this.record.selectedId());
    return doc?.films.find((f) => f.id === surface?.filmId) ?? null;
  });
  /** How near it is held, so that no wall is read with the film. */
  protected readonly spot = computed(() => {
    const f = (mm: number) => formatRough(mm, this.record.units());
    return `Held on it for a second or two. Its spot is a twelfth of the way: ${f(spotMm(300))} from ${f(300)} off. On an edge of ${f(20)} no farther than ${f(farthestFor(20))}, or the room is read with it and it shows less.`;
  });
  protected readonly isMetallic = computed(() => filmUnderThermometer(this.film(), 100, 20) !== 100);

  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      if (r.kind === 'thermometer') void this.read(r.surfaceC);
    });
    inject(DestroyRef).onDestroy(stop);
  }

  protected pick(key: string): void {
    this.chosen.set(key);
    this.sinceMs = Date.now();
    this.word.set(null);
  }
  protected toggle(): void {
    this.isWhole.update((is) => !is);
  }
  /** To the next one, or with whole edges to the next edge. */
  protected move(by: number): void {
    const [all, at] = [this.all(), this.at()];
    if (!at) return;
    const units = this.isWhole() ? this.cover().edges.map((e) => e.stretches[0]!.key) : all.map((s) => s.stretch.key);
    const here = units.indexOf(this.isWhole() ? at.edge.stretches[0]!.key : at.stretch.key);
    this.pick(units[(here + by + units.length) % units.length]!);
  }
  protected typed(box: HTMLInputElement): void {
    const n = readMeasure(box, 'temperature', this.record.units(), { low: -40, high: 400, message: 'Between −40 and 400 °C.' });
    if (n == null) return;
    box.value = '';
    void this.read(n);
  }
  private async read(shownC: number): Promise<void> {
    const [here, { dueC }] = [this.here(), this.cover()];
    if (!here || dueC === null) return;
    const units = this.record.units();
    const film = this.film();
    const awayS = gunAwayS(film);
    if (Date.now() - this.sinceMs < 1000 * awayS)
      return void this.word.set({
        text: `Too soon: ${film?.readAfterS == null ? 'for' : `${film.name} is read`} about ${awayS} s after the gun${film?.readAfterS == null ? ' hot air still stands before the film' : ': until then hot air still stands before it'}, and is read with it. Read again.`,
        isGood: false,
      });
    const valueC = Math.round(10 * filmUnderThermometer(this.film(), shownC, this.record.doc()?.job.prepare?.typed.roomC ?? 20)) / 10;
    const isKept = await this.lay.write('reading', `${here.name}: film ${valueC.toFixed(0)} °C`, {
      reading: { what: 'film', valueC, stretch: here.key },
      stepKey: this.stepKey(),
    });
    if (!isKept) return;
    const isGood = valueC >= dueC;
    const text = isGood
      ? `${here.name}: ${valueC.toFixed(0)} °C, proven.`
      : `${here.name}: ${valueC.toFixed(0)} °C. Its figure is ${dueC} °C: once more over it, gun away, read again.`;
    this.word.set({ text: told(text, units), isGood });
    this.sinceMs = Date.now();
    // one that was too cool stays in hand
    this.chosen.set(isGood ? null : here.keys[0]!);
  }
}
