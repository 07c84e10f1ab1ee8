import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal, viewChild } from '@angular/core';
import type { MeasureKey } from '@yellow-pane/contracts';
import { isBow, measureTitle, readingsHash, surveySurface } from '@yellow-pane/core';
import { parseLength } from '@yellow-pane/core/ground';
import { Why } from '../../kit/why';
import type { TypedReading } from '../../kit/length-field';
import { InstrumentPanel } from '../../instruments/instrument-panel';
import { Instruments } from '../../instruments/instruments';
import { Device } from '../../record/device';
import { OneMore } from '../../record/one-more';
import { JobProgress } from '../../record/progress';
import { RecordStore } from '../../record/record.store';
import { readingPatch } from './measure.updaters';
import { paneView } from './pane-view';
import { CurveLeaf } from './parts/curve-leaf';
import { ShapeBar } from './parts/shape-bar';
import { OpeningDrawing } from './parts/opening-drawing';
import { SurfaceDetails } from './parts/surface-details';

/** Measure, of a pane of glass: its tapes, and what they say to each other. */
@Component({
  selector: 'yp-pane-page',
  imports: [CurveLeaf, InstrumentPanel, OpeningDrawing, ShapeBar, SurfaceDetails, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (isCurve()) {
      @defer (on immediate) {
        <yp-curve-leaf (toOutline)="leaf.set('outline')" />
      } @placeholder {
        <p class="p-8 text-soft" aria-busy="true">The curve comes …</p>
      }
    } @else if (view(); as v) {
      <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
        <section class="flex min-h-[460px] min-w-0 flex-1 flex-col" aria-labelledby="pane-title">
          <div class="flex flex-wrap items-center justify-between gap-2 px-4 pt-3">
            <h2 id="pane-title" class="text-xl">{{ v.surface.name }}</h2>
            <div class="flex flex-wrap gap-2 text-sm">
              <button type="button" class="btn" (click)="record.toggleSide()" [attr.aria-pressed]="record.otherSide()">Seen from the {{ seenFrom() }}</button>
              @if (v.surface.curved) {
                <div class="flex gap-1.5" role="group" aria-label="Curved glass">
                  <button type="button" class="btn" aria-pressed="false" (click)="leaf.set('curve')">Curve</button>
                  <button type="button" class="btn btn-hand" aria-pressed="true">Outline</button>
                </div>
              }
              @if (v.surface.shape) {
                <!-- every tape of a shape is shown -->
              } @else if (v.isAll) {
                <button type="button" class="btn" (click)="large.set(!large())" [attr.aria-pressed]="large()">
                  {{ large() ? 'Draw it true' : 'Draw crookedness ×5' }}
                </button>
              } @else {
                <button type="button" class="btn" (click)="askAll()">Tape all eight</button>
              }
            </div>
          </div>
          <yp-shape-bar class="px-4 pt-2" [surface]="v.surface" />
          <yp-opening-drawing
            class="min-h-0 flex-1"
            [surface]="v.surface"
            [survey]="v.survey"
            [readings]="v.inForce"
            [keys]="v.keys"
            [units]="record.units()"
            [mirrored]="record.otherSide()"
            [times]="large() && v.isAll ? 5 : 1"
            [offsetMm]="v.offsetMm"
            (typed)="save($event.key, $event.reading)"
            (cleared)="withdraw($event)"
            (finished)="goOn()"
          />
        </section>

        <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[276px] xl:w-[316px] md:border-l" aria-label="Numbers" tabindex="-1">
          <h3 class="cap mb-2">What the tapes say to each other</h3>
          <div class="relief mb-3 border-l-4 p-3.5" [class]="v.look" data-verdict aria-live="polite">
            <p>
              <strong>{{ v.words.headline }}</strong> {{ v.words.body }}
            </p>
            @if (v.quoted) {
              <p class="mt-1" data-quoted>{{ v.quoted }}</p>
            }
            @if (v.ask; as ask) {
              <div class="mt-3 flex flex-wrap gap-2">
                <button type="button" class="btn btn-ink whitespace-normal!" (click)="goTo(ask.measure)">{{ ask.text }}</button>
                @if (ask.isRetape) {
                  <button type="button" class="btn" data-same (click)="sameAgain(ask.measure)">Same again</button>
                }
                @if (!v.surface.doubtLater) {
                  <button type="button" class="btn" (click)="later()">Later</button>
                }
              </div>
            }
            @if (v.survey.status === 'impossible') {
              <button type="button" class="btn mt-2" data-start-again (click)="startAgain()">Start this pane again</button>
            }
            @if (v.isSigned) {
              <button type="button" class="btn mt-2" (click)="unsign()">Take the signature back</button>
            }
          </div>
          @for (s of short(); track s.part) {
            <div class="mb-3 border-l-4 border-harm bg-harm-tint p-2 text-sm" role="status" data-cut-short>
              <p>{{ s.words }} {{ s.serves?.words }}</p>
              @if (!s.isAsked) {
                <button type="button" class="btn mt-2" (click)="oneMore.for(s)">One more of it</button>
              }
              @if (s.serves; as elsewhere) {
                <button type="button" class="btn mt-2" (click)="oneMore.serveElsewhere(elsewhere, s)">Use the cut one for {{ elsewhere.forLabel }}</button>
              }
            </div>
          }
          @if (v.cut; as cut) {
            <p class="mb-3 border-l-4 p-2 text-sm" [class]="cut.isBlocked ? 'border-harm bg-harm-tint' : 'border-hair bg-paper'" data-cut-note>
              {{ cut.text }}
            </p>
          }
          @if (v.suspects.length) {
            <h3 class="cap mb-1">What may have happened</h3>
            <ul class="mb-3 text-sm">
              @for (s of v.suspects; track s.text) {
                <li class="border-b border-hair py-1">
                  {{ s.text }} <span class="text-soft">({{ s.slip }}{{ s.odds }})</span>
                  @if (s.canSign) {
                    <button type="button" class="btn mt-1 block!" (click)="sign(s.key, s.text)">I believe this one: sign</button>
                  }
                </li>
              }
            </ul>
          }
          @if (v.rows.length) {
            <table class="mb-2 w-full">
              <caption class="sr-only">
                Readings in force, and how far each is from the adjusted shape
              </caption>
              <tbody>
                @for (r of v.rows; track r.key) {
                  <tr class="border-b border-hair">
                    <th scope="row" class="py-1 text-left" [class]="r.isSuspect ? 'font-bold' : 'font-normal'">{{ r.name }}</th>
                    <td class="figure py-1 text-right whitespace-nowrap" [class.font-semibold]="r.isSuspect">{{ r.typed }}</td>
                    <td class="figure w-16 py-1 text-right text-soft">{{ r.residual }}</td>
                  </tr>
                }
              </tbody>
            </table>
          }
          @if (v.facts.length) {
            <h3 class="cap mt-3 mb-1">The opening</h3>
            <dl class="mb-2">
              @for (f of v.facts; track f.name) {
                <div class="flex justify-between gap-3 border-b border-hair py-1">
                  <dt>{{ f.name }}</dt>
                  <dd class="figure text-right">{{ f.value }}</dd>
                </div>
              }
            </dl>
          }
          <yp-why [lines]="v.why" />
          <label class="mt-2 flex min-h-8 items-center gap-2 text-sm"
            ><input type="checkbox" [checked]="v.surface.calledCrooked" (change)="callCrooked(!v.surface.calledCrooked)" /> It looks crooked</label
          >
          <details class="mt-2 border-t border-hair pt-2">
            <summary #laser class="cap cursor-pointer">Laser meter</summary>
            <p class="mt-1 text-sm text-soft">A shot goes into the field that has the hand; then the hand goes on.</p>
            @defer (on interaction(laser)) {
              <yp-instrument-panel [kinds]="['laser']" />
            }
          </details>
          <details class="mt-2 border-t border-hair pt-2">
            <summary #pane class="cap cursor-pointer">Pane, frame, film</summary>
            @defer (on interaction(pane)) {
              <yp-surface-details class="mt-2 block" [surface]="v.surface" />
            }
          </details>
        </aside>
      </div>
    } @else {
      <div class="m-auto max-w-sm p-8 text-center">
        <h2 class="text-xl">No pane yet</h2>
        <p class="mt-2">Press n, or “New pane” on the left. Then tape its largest width and its largest height.</p>
      </div>
    }
  `,
})
export class PanePage {
  protected readonly record = inject(RecordStore);
  private readonly device = inject(Device);
  protected readonly large = signal(false);
  /** Panes for which all eight tapes were asked for here. */
  private readonly askedAll = signal<ReadonlySet<string>>(new Set());
  private readonly drawing = viewChild(OpeningDrawing);

  /** Of curved glass: its bows, or its outline. */
  protected readonly leaf = signal<'curve' | 'outline'>('curve');
  protected readonly isCurve = computed(() => this.record.pane()?.curved != null && this.leaf() === 'curve');

  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      const key = this.drawing()?.activeKey();
      if (r.kind !== 'laser' || !key || isBow(key) || !this.view()?.keys.includes(key)) return;
      const typed = `${r.lengthMm} mm`;
      const read = parseLength(typed, 'mm');
      if (!read.ok) return;
      this.save(key, { ...read.value, typed }, 'laser');
      this.drawing()?.walk(key, false);
    });
    inject(DestroyRef).onDestroy(stop);
  }

  protected readonly seenFrom = computed(() => {
    const side = this.record.pane()?.seenFrom ?? 'room';
    return this.record.otherSide() ? (side === 'room' ? 'street' : 'room') : side;
  });

  protected readonly view = computed(() => {
    const [doc, surface] = [this.record.records(), this.record.pane()];
    return doc && surface ? paneView(surface, doc, this.record.units(), this.askedAll().has(surface.id)) : null;
  });

  private readonly progress = inject(JobProgress);
  /** Its pieces that are cut and do not cover it any more. */
  protected readonly short = computed(() => this.progress.short().filter((s) => s.surfaceId === this.record.selectedId()));
  protected readonly oneMore = inject(OneMore);

  protected askAll(): void {
    const id = this.record.selectedId();
    if (!id) return;
    this.askedAll.update((all) => new Set([...all, id]));
    this.drawing()?.focusOn('widthTop');
  }
  /** After the last tape: to the first of the next pane, or, where the tapes disagree, to the one that is to be taken again. */
  protected goOn(): void {
    const here = this.view();
    if (here?.ask) return this.goTo(here.ask.measure);
    this.record.step(1);
    const next = this.view();
    // the hand goes with the person: tape after tape, pane after pane
    if (next && next.surface.id !== here?.surface.id) this.goTo(next.keys[0]!);
  }
  protected goTo(key: MeasureKey): void {
    this.drawing()?.focusOn(key);
  }
  protected save(key: MeasureKey, typed: Pick<TypedReading, 'typed' | 'unit' | 'lengthMm'>, instrument: 'tape' | 'laser' = 'tape'): void {
    const doc = this.record.records();
    const surface = this.record.pane();
    const person = this.device.person();
    if (!doc || !surface || !person) return;
    const { inForce } = surveySurface(surface, doc);
    void this.record.change(`${measureTitle(key, surface.shape)} of ${surface.name}`, [
      readingPatch(surface, key, typed, inForce, { personId: person.id, at: new Date().toISOString() }, instrument),
    ]);
  }
  /** All its own tapes are taken back in one go; undo brings them back. */
  protected startAgain(): void {
    const v = this.view();
    if (!v) return;
    const withdrawnAt = new Date().toISOString();
    const own = v.inForce.filter((r) => r.surfaceId === v.surface.id);
    void this.record.change(
      `Start ${v.surface.name} again`,
      own.map((r) => ({ op: 'set', kind: 'reading', id: r.id, field: 'withdrawnAt', value: withdrawnAt })),
    );
  }
  /** Taped again, and it is the same: a second reading that counts, so that the doubt moves on. */
  protected sameAgain(key: MeasureKey): void {
    const r = this.view()?.inForce.find((x) => x.measure === key);
    if (r) this.save(key, { typed: r.typed, unit: r.unit, lengthMm: r.lengthMm });
  }
  protected withdraw(key: MeasureKey): void {
    const doc = this.record.records();
    const surface = this.record.pane();
    if (!doc || !surface) return;
    const own = surveySurface(surface, doc).inForce.find((r) => r.measure === key && r.surfaceId === surface.id);
    if (own)
      void this.record.set(`Take back ${measureTitle(key, surface.shape).toLowerCase()} of ${surface.name}`, 'reading', own.id, {
        withdrawnAt: new Date().toISOString(),
      });
  }
  protected unsign(): void {
    const s = this.record.pane();
    if (s) void this.record.set(`Take the signature of ${s.name} back`, 'surface', s.id, { signed: null });
  }
  protected sign(believes: string, words: string): void {
    const doc = this.record.records();
    const surface = this.record.pane();
    const person = this.device.person();
    if (!doc || !surface || !person) return;
    const { inForce } = surveySurface(surface, doc);
    void this.record.set(`Sign ${surface.name}: ${words}`.slice(0, 120), 'surface', surface.id, {
      signed: { personId: person.id, at: new Date().toISOString(), readingsHash: readingsHash(inForce), believes },
    });
  }
  protected later(): void {
    const s = this.record.pane();
    if (s) void this.record.set(`Put off the doubt of ${s.name}`, 'surface', s.id, { doubtLater: true });
    this.record.step(1);
  }
  protected callCrooked(is: boolean): void {
    const s = this.record.pane();
    if (s) void this.record.set(`${is ? 'Call' : 'Do not call'} ${s.name} crooked`, 'surface', s.id, { calledCrooked: is });
  }
}
