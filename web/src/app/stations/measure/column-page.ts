import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal, viewChildren } from '@angular/core';
import type { ColumnMeasure, MeasureKey } from '@yellow-pane/contracts';
import {
  askText,
  columnKeys,
  columnNumbers,
  columnVerdict,
  columnWhy,
  cutOfColumn,
  measureTitle,
  oddLength,
  oddsText,
  suspectText,
  surveyColumn,
} from '@yellow-pane/core';
import { formatDifference, formatLength, parseLength } from '@yellow-pane/core/ground';
import { ColumnDrawing } from '../../kit/column-drawing';
import { LengthField, type TypedReading } from '../../kit/length-field';
import { Why } from '../../kit/why';
import { InstrumentPanel } from '../../instruments/instrument-panel';
import { Instruments } from '../../instruments/instruments';
import { Device } from '../../record/device';
import { RecordStore } from '../../record/record.store';
import { readingPatch } from './measure.updaters';
import { ColumnDetails } from './parts/column-details';

/** Fields of a column as they stand round its drawing, in the order one walks round it. */
const groups: readonly { readonly name: string; readonly hint: string; readonly keys: readonly ColumnMeasure[] }[] = [
  { name: 'Girth', hint: 'The tape pulled round, level, at three heights.', keys: ['girthTop', 'girthMiddle', 'girthFoot'] },
  { name: 'Height', hint: 'Floor to ceiling at its four sides; the front is where people come from.', keys: ['heightFront', 'heightRight', 'heightBack', 'heightLeft'] },
  { name: 'Across', hint: 'At half height between two straightedges, square to each other. Girth alone hides an oval.', keys: ['acrossFront', 'acrossSide', 'cornerRadius'] },
  { name: 'Foot to a line hung from its top', hint: '+ where the foot stands out past the line, − where it stays back. Only where it may lean.', keys: ['plumbFront', 'plumbRight', 'plumbBack', 'plumbLeft'] },
]; // prettier-ignore

const shortNames: Readonly<Record<ColumnMeasure, string>> = { girthTop: 'Under the top', girthMiddle: 'At half height', girthFoot: 'At the foot', heightFront: 'Front', heightRight: 'Right', heightBack: 'Back', heightLeft: 'Left', acrossFront: 'From the front', acrossSide: 'From the side', cornerRadius: 'Corner radius', plumbFront: 'Front', plumbRight: 'Right', plumbBack: 'Back', plumbLeft: 'Left' }; // prettier-ignore

/** Measure, of a column: its tapes, and what they say to each other. */
@Component({
  selector: 'yp-column-page',
  imports: [ColumnDetails, ColumnDrawing, InstrumentPanel, LengthField, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
        <section class="flex min-w-0 shrink-0 flex-col px-4 pt-3 md:flex-1 md:shrink md:overflow-y-auto" aria-labelledby="column-title">
          <div class="mb-2 flex flex-wrap items-center justify-between gap-2">
            <h2 id="column-title" class="text-xl">{{ v.surface.name }}</h2>
            <div class="flex gap-1.5 text-sm" role="group" aria-label="Its section">
              @for (s of sections; track s.id) {
                <button
                  type="button"
                  class="btn"
                  [class.btn-hand]="s.id === v.surface.section"
                  [attr.aria-pressed]="s.id === v.surface.section"
                  (click)="setSection(s.id)"
                >
                  {{ s.name }}
                </button>
              }
            </div>
          </div>
          <div class="grid gap-5 sm:grid-cols-[minmax(0,230px)_minmax(0,1fr)] [&_svg]:mx-auto [&_svg]:max-w-[230px]">
            @if (v.survey.body; as body) {
              <yp-column-drawing [body]="body" [units]="record.units()" [tapes]="v.tapes" [label]="v.surface.name + ' from the front and from above'" />
            } @else {
              <p class="self-center border border-dashed border-field p-4 text-center text-soft">Girth and height draw it.</p>
            }
            <div class="grid content-start gap-4 pb-4 xl:grid-cols-2">
              @for (g of v.groups; track g.name) {
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
        </section>
        <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[276px] md:border-l xl:w-[316px]" aria-label="Numbers" tabindex="-1">
          <h3 class="cap mb-2">What the tapes say to each other</h3>
          <div class="relief mb-3 border-l-4 p-3.5" [class]="v.look" data-verdict aria-live="polite">
            <p>
              <strong>{{ v.words.headline }}</strong> {{ v.words.body }}
            </p>
            @if (v.ask; as ask) {
              <button type="button" class="btn btn-ink mt-3 whitespace-normal!" (click)="goTo(ask.measure)">{{ ask.text }}</button>
            }
          </div>
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
                </li>
              }
            </ul>
          }
          @if (v.numbers.length) {
            <h3 class="cap mt-3 mb-1">The column</h3>
            <dl class="mb-2">
              @for (n of v.numbers; track n.name) {
                <div class="flex justify-between gap-3 border-b border-hair py-1">
                  <dt>{{ n.name }}</dt>
                  <dd class="figure text-right">{{ n.value }}</dd>
                </div>
              }
            </dl>
          }
          <yp-why [lines]="v.why" />
          <details class="mt-2 border-t border-hair pt-2">
            <summary #laser class="cap cursor-pointer">Laser meter</summary>
            <p class="mt-1 text-sm text-soft">A shot goes into the height or width that has the hand.</p>
            @defer (on interaction(laser)) {
              <yp-instrument-panel [kinds]="['laser']" />
            }
          </details>
          <details class="mt-2 border-t border-hair pt-2" open>
            <summary class="cap cursor-pointer">What it is, film, allowances</summary>
            <yp-column-details class="mt-2 block" [surface]="v.surface" />
          </details>
        </aside>
      </div>
    }
  `,
})
export class ColumnPage {
  protected readonly record = inject(RecordStore);
  private readonly device = inject(Device);
  protected readonly sections = [
    { id: 'round', name: 'Round' },
    { id: 'square', name: 'Square' },
  ] as const;
  protected readonly active = signal<ColumnMeasure | null>(null);
  private readonly fields = viewChildren(LengthField);

  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      const key = this.active();
      if (r.kind !== 'laser' || !key || !/^(height|across)/.test(key)) return;
      const typed = `${r.lengthMm} mm`;
      const read = parseLength(typed, 'mm');
      if (!read.ok) return;
      this.save(key, { ...read.value, typed }, 'laser');
      this.walk(key, false);
    });
    inject(DestroyRef).onDestroy(stop);
  }

  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.column(), this.record.units()];
    if (!doc || !surface) return null;
    const { survey, inForce, isSigned } = surveyColumn(surface, doc);
    const isBad = survey.status === 'doubtful' && !isSigned;
    const film = doc.films.find((f) => f.id === surface.filmId);
    const answer = film ? cutOfColumn(surface, doc, film).answer : null;
    const blamed = survey.suspects.filter((s) => s.hypothesis.kind !== 'no-slip');
    const isSuspect = (key: MeasureKey) => isBad && blamed.some((s) => s.hypothesis.kind === 'slip' && s.hypothesis.measure === key && s.probability > 0.1);
    const known = columnKeys(surface.section);
    return {
      surface,
      survey,
      groups: groups.map((g) => ({
        ...g,
        fields: g.keys
          .filter((key) => known.includes(key))
          .map((key) => {
            const r = inForce.find((x) => x.measure === key);
            return {
              key,
              title: measureTitle(key),
              short: shortNames[key],
              value: r ? (r.unit === units ? r.typed : formatLength(r.lengthMm, units)) : '',
              isSigned: key.startsWith('plumb'),
              odd: (mm: number) => oddLength(key, mm, units),
              isDoubtful: isSuspect(key),
              isInherited: r !== undefined && r.surfaceId !== surface.id,
            };
          }),
      })),
      tapes: columnKeys(surface.section).flatMap((key) => {
        const r = inForce.find((x) => x.measure === key);
        return r ? [{ key, text: formatLength(r.lengthMm, units), isDoubtful: isSuspect(key) }] : [];
      }),
      words: columnVerdict(survey, units),
      look: isBad ? 'border-ink bg-tint' : survey.status === 'agreeing' ? 'border-proof bg-proof-tint' : 'border-hair bg-paper',
      ask: isBad && survey.next ? { measure: survey.next.measure as ColumnMeasure, text: askText(survey.next.measure, survey.next.isRetape) } : null,
      cut: !answer
        ? { text: 'No film chosen for this column: it is not on the roll.', isBlocked: false }
        : 'blocked' in answer
          ? { text: answer.blocked, isBlocked: true }
          : answer.note
            ? { text: answer.note, isBlocked: false }
            : null,
      suspects: isBad
        ? blamed.map((s) => ({
            text: suspectText(s, units),
            slip: s.hypothesis.kind === 'slip' ? `${s.slipMm >= 0 ? '+' : '−'}${formatDifference(Math.abs(s.slipMm), units)}, ` : '',
            odds: oddsText(s.probability),
          }))
        : [],
      numbers: survey.body ? columnNumbers(survey.body, units) : [],
      why: [...columnWhy(survey), ...(answer && 'piece' in answer ? answer.piece.why : [])],
    };
  });

  private readonly keys = computed(() => this.view()?.groups.flatMap((g) => g.fields.map((f) => f.key)) ?? []);
  protected goTo(key: ColumnMeasure): void {
    this.fields()[this.keys().indexOf(key)]?.focus();
  }
  protected walk(key: ColumnMeasure, back: boolean): void {
    const at = this.keys().indexOf(key) + (back ? -1 : 1);
    const next = this.keys()[at];
    if (next) this.goTo(next);
    else if (!back) this.record.step(1);
  }
  protected save(key: ColumnMeasure, typed: Pick<TypedReading, 'typed' | 'unit' | 'lengthMm'>, instrument: 'tape' | 'laser' = 'tape'): void {
    const [doc, surface, person] = [this.record.records(), this.record.column(), this.device.person()];
    if (!doc || !surface || !person) return;
    const { inForce } = surveyColumn(surface, doc);
    void this.record.change(`${measureTitle(key)} of ${surface.name}`, [
      readingPatch(surface, key, typed, inForce, { personId: person.id, at: new Date().toISOString() }, instrument),
    ]);
  }
  protected withdraw(key: ColumnMeasure): void {
    const [doc, surface] = [this.record.records(), this.record.column()];
    if (!doc || !surface) return;
    const own = surveyColumn(surface, doc).inForce.find((r) => r.measure === key && r.surfaceId === surface.id);
    if (own)
      void this.record.set(`Take back ${measureTitle(key).toLowerCase()} of ${surface.name}`, 'reading', own.id, { withdrawnAt: new Date().toISOString() });
  }
  protected setSection(section: 'round' | 'square'): void {
    const s = this.record.column();
    if (s && s.section !== section) void this.record.set(`${s.name} is ${section}`, 'surface', s.id, { section });
  }
}
