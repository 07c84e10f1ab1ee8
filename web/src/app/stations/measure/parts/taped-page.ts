import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, signal, viewChildren } from '@angular/core';
import type { MeasureKey, Reading, Surface } from '@yellow-pane/contracts';
import { askText, measureTitle, oddLength, oddsText, suspectText, type NextTape, type Suspect, type Told } from '@yellow-pane/core';
import { formatDifference, formatLength, parseLength, type UnitSystem } from '@yellow-pane/core/ground';
import { InstrumentPanel } from '../../../instruments/instrument-panel';
import { Instruments } from '../../../instruments/instruments';
import { LengthField, type TypedReading } from '../../../kit/length-field';
import { Why } from '../../../kit/why';
import { Device } from '../../../record/device';
import { RecordStore } from '../../../record/record.store';
import { readingPatch } from '../measure.updaters';

/** Tapes that belong together, in the order one walks with the tape. */
export interface TapeGroup {
  readonly name: string;
  readonly hint: string;
  readonly keys: readonly MeasureKey[];
}

/** What a page of Measure says of tapes and of what they say to each other, whatever kind of surface they are of. */
export interface TapedView {
  readonly surface: Surface;
  readonly inForce: readonly Reading[];
  readonly isBad: boolean;
  readonly isAgreeing: boolean;
  readonly words: { readonly headline: string; readonly body: string };
  readonly suspects: readonly Suspect<readonly number[]>[];
  readonly next: NextTape | null;
  /** What else does not fit, in sentences. */
  readonly doubts?: readonly string[];
  readonly answer: { readonly blocked: string } | { readonly piece: { readonly why: readonly string[] }; readonly note: string | null } | null;
  readonly numbers: readonly { readonly name: string; readonly value: string }[];
  readonly why: readonly string[];
}

/** What is shown of a surface by what its tapes say, and what becomes of its piece. */
export const viewOf = <S extends Surface>(surface: S, told: Told, answer: TapedView['answer']): TapedView & { readonly surface: S } => ({
  ...told,
  surface,
  answer,
  isBad: (told.status === 'doubtful' || told.status === 'impossible') && !told.isSigned,
  isAgreeing: told.status === 'agreeing',
  doubts: told.doubts.map((d) => d.text),
});

const isSlipOf = (s: Suspect<readonly number[]>, key: MeasureKey): boolean => s.hypothesis.kind === 'slip' && s.hypothesis.measure === key && s.probability > 0.1; // prettier-ignore

/** Which of the tapes in force are suspected, as they are shown in a drawing. */
export const tapesShown = (keys: readonly MeasureKey[], v: Pick<TapedView, 'inForce' | 'isBad' | 'suspects'>, units: UnitSystem) =>
  keys.flatMap((key) => {
    const r = v.inForce.find((x) => x.measure === key);
    return r ? [{ key, text: formatLength(r.lengthMm, units), isDoubtful: v.isBad && v.suspects.some((s) => isSlipOf(s, key)) }] : [];
  });

/** The tapes of a surface round its drawing, and what they say to each other. Its drawing and what only its kind has come from the kind’s own page. */
@Component({
  selector: 'yp-taped-page',
  imports: [InstrumentPanel, LengthField, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let v = view();
    <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
      <section class="flex min-w-0 shrink-0 flex-col px-4 pt-3 md:flex-1 md:shrink md:overflow-y-auto" aria-labelledby="taped-title">
        <div class="mb-2 flex flex-wrap items-center justify-between gap-2">
          <h2 id="taped-title" class="text-xl">{{ v.surface.name }}</h2>
          <ng-content select="[head]" />
        </div>
        <div
          class="grid gap-5 [&_svg]:mx-auto"
          [class]="isWide() ? '[&_svg]:max-w-[620px]' : 'sm:grid-cols-[minmax(0,230px)_minmax(0,1fr)] [&_svg]:max-w-[230px]'"
        >
          <div class="min-w-0"><ng-content select="[drawing]" /></div>
          <div class="grid content-start gap-4 pb-4" [class]="isWide() ? 'sm:grid-cols-2 xl:grid-cols-3' : 'xl:grid-cols-2'">
            @for (g of groups(); track g.name) {
              <fieldset class="min-w-0">
                <legend class="cap">{{ g.name }}</legend>
                <p class="mb-1.5 text-sm text-soft">{{ g.hint }}</p>
                @for (f of g.fields; track f.key) {
                  <div class="mb-1 grid grid-cols-[minmax(0,1fr)_112px] items-center gap-2">
                    <span class="text-sm" aria-hidden="true">{{ f.short }}</span>
                    <yp-length-field
                      [attr.data-measure]="f.key"
                      [label]="f.title"
                      [value]="f.value"
                      [units]="record.units()"
                      [signed]="f.isSigned"
                      [doubtful]="f.isDoubtful"
                      [inherited]="f.isInherited"
                      [odd]="f.odd"
                      (committed)="save(f.key, $event)"
                      (cleared)="withdraw(f.key)"
                      (next)="walk(f.key, $event)"
                      (focused)="active.set(f.key)"
                    />
                  </div>
                }
              </fieldset>
            }
          </div>
        </div>
        <ng-content select="[below]" />
      </section>
      <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[276px] md:border-l xl:w-[316px]" aria-label="Numbers" tabindex="-1">
        <h3 class="cap mb-2">What the tapes say to each other</h3>
        <div class="relief mb-3 border-l-4 p-3.5" [class]="look()" data-verdict aria-live="polite">
          <p>
            <strong>{{ v.words.headline }}</strong> {{ v.words.body }}
          </p>
          @if (ask(); as a) {
            <button type="button" class="btn btn-ink mt-3 whitespace-normal!" (click)="goTo(a.measure)">{{ a.text }}</button>
          }
        </div>
        @if (cut(); as c) {
          <p class="mb-3 border-l-4 p-2 text-sm" [class]="c.isBlocked ? 'border-harm bg-harm-tint' : 'border-hair bg-paper'" data-cut-note>{{ c.text }}</p>
        }
        @if (suspects().length || v.doubts?.length) {
          <h3 class="cap mb-1">What may have happened</h3>
          <ul class="mb-3 text-sm">
            @for (s of suspects(); track s.text) {
              <li class="border-b border-hair py-1">
                {{ s.text }} <span class="text-soft">({{ s.slip }}{{ s.odds }})</span>
              </li>
            }
            @for (d of v.doubts ?? []; track $index) {
              <li class="border-b border-hair py-1" data-doubt>{{ d }}</li>
            }
          </ul>
        }
        @if (v.numbers.length) {
          <h3 class="cap mt-3 mb-1">Figures</h3>
          <dl class="mb-2">
            @for (n of v.numbers; track n.name) {
              <div class="flex justify-between gap-3 border-b border-hair py-1">
                <dt>{{ n.name }}</dt>
                <dd class="figure text-right">{{ n.value }}</dd>
              </div>
            }
          </dl>
        }
        <yp-why [lines]="why()" />
        <details class="mt-2 border-t border-hair pt-2">
          <summary #laser class="cap cursor-pointer">Laser meter</summary>
          <p class="mt-1 text-sm text-soft">A shot goes into the height or width that has the hand.</p>
          @defer (on interaction(laser)) {
            <yp-instrument-panel [kinds]="['laser']" />
          }
        </details>
        <details class="mt-2 border-t border-hair pt-2" open>
          <summary class="cap cursor-pointer">What it is, film, allowances</summary>
          <ng-content select="[details]" />
        </details>
      </aside>
    </div>
  `,
})
export class TapedPage {
  readonly view = input.required<TapedView>();
  readonly taped = input.required<readonly TapeGroup[]>();
  readonly shortNames = input.required<Readonly<Partial<Record<MeasureKey, string>>>>();
  /** What lies along is drawn above its fields, not beside them. */
  readonly isWide = input(false);
  /** Measures that may be nought or negative. */
  readonly signedKeys = input<RegExp>(/^plumb/);
  /** What a laser meter can be shot at. */
  readonly laserKeys = input<RegExp>(/^(height|across|width|diagonal)/);
  /** What the surface is called where no film was chosen for it. */
  readonly kindName = input.required<string>();

  protected readonly record = inject(RecordStore);
  private readonly device = inject(Device);
  protected readonly active = signal<MeasureKey | null>(null);
  private readonly fields = viewChildren(LengthField);

  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      const key = this.active();
      if (r.kind !== 'laser' || !key || !this.laserKeys().test(key)) return;
      const typed = `${r.lengthMm} mm`;
      const read = parseLength(typed, 'mm');
      if (!read.ok) return;
      this.save(key, { ...read.value, typed }, 'laser');
      this.walk(key, false);
    });
    inject(DestroyRef).onDestroy(stop);
  }

  private readonly blamed = computed(() => (this.view().isBad ? this.view().suspects.filter((s) => s.hypothesis.kind !== 'no-slip') : []));
  protected readonly groups = computed(() => {
    const [v, units] = [this.view(), this.record.units()];
    return this.taped().map((g) => ({
      ...g,
      fields: g.keys.map((key) => {
        const r = v.inForce.find((x) => x.measure === key);
        return {
          key,
          title: measureTitle(key),
          short: this.shortNames()[key] ?? measureTitle(key),
          value: r ? (r.unit === units ? r.typed : formatLength(r.lengthMm, units)) : '',
          isSigned: this.signedKeys().test(key),
          odd: (mm: number) => oddLength(key, mm, units),
          isDoubtful: this.blamed().some((s) => isSlipOf(s, key)),
          isInherited: r !== undefined && r.surfaceId !== v.surface.id,
        };
      }),
    }));
  });
  protected readonly look = computed(() => (this.view().isBad ? 'border-ink bg-tint' : this.view().isAgreeing ? 'border-proof bg-proof-tint' : 'border-hair bg-paper')); // prettier-ignore
  protected readonly ask = computed(() => {
    const { isBad, next } = this.view();
    return isBad && next ? { measure: next.measure, text: askText(next.measure, next.isRetape) } : null;
  });
  protected readonly cut = computed(() => {
    const { answer } = this.view();
    if (!answer) return { text: `No film chosen for this ${this.kindName()}: it is not on the roll.`, isBlocked: false };
    if ('blocked' in answer) return { text: answer.blocked, isBlocked: true };
    return answer.note ? { text: answer.note, isBlocked: false } : null;
  });
  protected readonly suspects = computed(() => {
    const units = this.record.units();
    return this.blamed().map((s) => ({
      text: suspectText(s, units),
      slip: s.hypothesis.kind === 'slip' ? `${s.slipMm >= 0 ? '+' : '−'}${formatDifference(Math.abs(s.slipMm), units)}, ` : '',
      odds: oddsText(s.probability),
    }));
  });
  protected readonly why = computed(() => {
    const { why, answer } = this.view();
    return [...why, ...(answer && 'piece' in answer ? answer.piece.why : [])];
  });

  private readonly keys = computed(() => this.groups().flatMap((g) => g.fields.map((f) => f.key)));
  protected goTo(key: MeasureKey): void {
    this.fields()[this.keys().indexOf(key)]?.focus();
  }
  protected walk(key: MeasureKey, back: boolean): void {
    const at = this.keys().indexOf(key) + (back ? -1 : 1);
    const next = this.keys()[at];
    if (next) this.goTo(next);
    else if (!back) this.record.step(1);
  }
  protected save(key: MeasureKey, typed: Pick<TypedReading, 'typed' | 'unit' | 'lengthMm'>, instrument: 'tape' | 'laser' = 'tape'): void {
    const [{ surface, inForce }, person] = [this.view(), this.device.person()];
    if (!person) return;
    void this.record.change(`${measureTitle(key)} of ${surface.name}`.slice(0, 120), [
      readingPatch(surface, key, typed, inForce, { personId: person.id, at: new Date().toISOString() }, instrument),
    ]);
  }
  protected withdraw(key: MeasureKey): void {
    const { surface, inForce } = this.view();
    const own = inForce.find((r) => r.measure === key && r.surfaceId === surface.id);
    if (own)
      void this.record.set(`Take back ${measureTitle(key).toLowerCase()} of ${surface.name}`.slice(0, 120), 'reading', own.id, {
        withdrawnAt: new Date().toISOString(),
      });
  }
}
