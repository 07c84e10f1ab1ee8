import { CdkTableModule } from '@angular/cdk/table';
import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Film } from '@yellow-pane/contracts';
import { figureOf, formatDifference, measureOf, temperatureText, told, filmText, lengthPrice } from '@yellow-pane/core/ground';
import { BenchBar } from '../../kit/bench-bar';
import { FilmSwatch } from '../../kit/film-swatch';
import { Api, ApiProblem } from '../../record/api';
import { BenchStore } from '../../record/bench.store';
import { Device } from '../../record/device';
import { FilmForm } from './film-form';
import { constructionWords, kindWords, purposes, shownFilms, sortValue, type PurposeId, type SortKey } from './film-words';

const referenceWords = { none: 'the film alone', 'clear-3': '3 mm clear glass', 'clear-6': '6 mm clear glass' } as const;
const share = (x: number | null | undefined): string => (x === null || x === undefined ? '–' : `${Math.round(x * 1000) / 10} %`);

/** Films: the library, searched, sorted, compared side by side, brought in and out. */
@Component({
  selector: 'yp-films-page',
  imports: [BenchBar, FilmForm, CdkTableModule, FilmSwatch, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'flex h-dvh flex-col' },
  template: `
    <yp-bench-bar [firm]="bench.doc()?.firm?.name ?? ''" />
    <main class="flex min-h-0 flex-1 flex-col md:flex-row">
      <section class="flex min-h-0 min-w-0 flex-1 flex-col px-4 pt-4" aria-labelledby="films-title">
        <div class="mb-2 flex flex-wrap items-center gap-2">
          <h1 id="films-title" class="mr-2 text-2xl">Films</h1>
          <input #find class="field w-56!" type="search" placeholder="Search name, kind, note" aria-label="Search films" (input)="query.set(find.value)" />
          <span class="ml-auto flex flex-wrap gap-2 text-sm">
            <button type="button" class="btn" [disabled]="!bench.doc()?.canUndo" (click)="bench.reverse('undo')">Undo</button>
            <button type="button" class="btn btn-hand" (click)="form.set({ old: null })">New film</button>
            <a class="btn" href="/api/films.csv" target="_blank" rel="noopener">CSV</a>
            <a class="btn" href="/api/films" target="_blank" rel="noopener">JSON</a>
            <label class="btn cursor-pointer focus-within:outline-3"
              >Bring films in<input type="file" accept=".csv,.json,text/csv,application/json" class="sr-only" (change)="bringIn($event)"
            /></label>
          </span>
        </div>
        <div class="mb-2 flex flex-wrap gap-1.5 text-sm" role="group" aria-label="What it is for">
          @for (p of purposes; track p.id) {
            <button type="button" class="btn" [class.btn-hand]="p.id === purpose()" [attr.aria-pressed]="p.id === purpose()" (click)="purpose.set(p.id)">
              {{ p.name }}
            </button>
          }
          <span class="ml-auto self-center text-soft">{{ shown().length }} films</span>
        </div>
        @if (note(); as n) {
          <div role="alert" class="mb-2 max-h-40 overflow-y-auto border-l-4 border-ink bg-tint p-3 text-sm whitespace-pre-line">
            {{ n }}
            @if (waiting()) {
              <div class="mt-2 flex gap-2">
                <button type="button" class="btn" (click)="again('skip')">Leave those that are here</button>
                <button type="button" class="btn btn-ink" (click)="again('new-version')">Make new versions of them</button>
              </div>
            }
          </div>
        }
        <div class="min-h-0 flex-1 overflow-auto pb-4" tabindex="-1">
          @if (bench.doc()) {
            <table cdk-table [dataSource]="shown()" [trackBy]="byId" class="w-full border-collapse bg-card text-sm">
              <ng-container cdkColumnDef="pick">
                <th cdk-header-cell *cdkHeaderCellDef class="bg-paper p-2"><span class="sr-only">Compare</span></th>
                <td cdk-cell *cdkCellDef="let f" class="p-2">
                  <input type="checkbox" class="size-4.5" [checked]="picked().includes(f.id)" [attr.aria-label]="'Compare ' + f.name" (change)="pick(f.id)" />
                </td>
              </ng-container>
              <ng-container cdkColumnDef="swatch">
                <th cdk-header-cell *cdkHeaderCellDef class="bg-paper"><span class="sr-only">Look</span></th>
                <td cdk-cell *cdkCellDef="let f" class="w-10 py-1"><yp-film-swatch [film]="f" [size]="30" class="align-middle" /></td>
              </ng-container>
              @for (c of columns(); track c.key) {
                <ng-container [cdkColumnDef]="c.key">
                  <th
                    cdk-header-cell
                    *cdkHeaderCellDef
                    scope="col"
                    class="bg-paper p-2"
                    [class]="c.isNumber ? 'text-right' : 'text-left'"
                    [attr.aria-sort]="sort().key === c.key ? (sort().isDown ? 'descending' : 'ascending') : 'none'"
                  >
                    <button type="button" class="min-h-6 font-bold whitespace-nowrap" (click)="sortBy(c.key)">
                      {{ c.name }} <span aria-hidden="true">{{ sort().key === c.key ? (sort().isDown ? '↓' : '↑') : '' }}</span>
                    </button>
                  </th>
                  <td cdk-cell *cdkCellDef="let f" class="p-2" [class]="c.isNumber ? 'figure text-right' : ''">
                    @if (c.key === 'name') {
                      <button type="button" class="text-left font-semibold underline decoration-hair underline-offset-2" (click)="openId.set(f.id)">
                        {{ f.name }}
                      </button>
                      @if (f.version > 1) {
                        <span class="text-soft"> version {{ f.version }}</span>
                      }
                    } @else {
                      {{ cell(c.key, f) }}
                    }
                  </td>
                </ng-container>
              }
              <tr cdk-header-row *cdkHeaderRowDef="shownColumns; sticky: true" class="bg-paper"></tr>
              <tr cdk-row *cdkRowDef="let f; columns: shownColumns" class="border-b border-hair" [class.bg-tint]="f.id === openId()"></tr>
              <tr *cdkNoDataRow>
                <td class="p-6 text-center text-soft" [attr.colspan]="shownColumns.length">
                  @if (bench.doc()!.films.length) {
                    No film fits. Take a word away, or look under another purpose.
                  } @else {
                    <p class="mx-auto max-w-md">
                      No film is in the library yet. Type your first one from its sheet, bring a list in, or begin with typical films: tints, mirrors, security,
                      frost. Their figures are from memory and say so; put your maker’s in their place before you promise anything.
                    </p>
                    <p class="mt-3 flex flex-wrap justify-center gap-2">
                      <button type="button" class="btn btn-ink" (click)="starter()">Begin with typical films</button>
                    </p>
                  }
                </td>
              </tr>
            </table>
          } @else {
            <p class="text-soft" aria-busy="true">{{ bench.failed() ?? 'Looking for the films …' }}</p>
          }
        </div>
      </section>
      <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[380px] md:border-l" aria-label="Film" tabindex="-1">
        @if (form(); as f) {
          <yp-film-form [old]="f.old" [units]="units()" (made)="add($event)" (left)="form.set(null)" />
        } @else if (picked().length > 1) {
          <div class="mb-2 flex items-center justify-between">
            <h2 class="text-lg">Side by side</h2>
            <button type="button" class="btn text-sm" (click)="picked.set([])">Done</button>
          </div>
          <ng-container [ngTemplateOutlet]="sheet" [ngTemplateOutletContext]="{ $implicit: compared() }" />
        } @else if (opened(); as f) {
          <div class="mb-2 flex items-start gap-3">
            <yp-film-swatch [film]="f" [size]="64" />
            <div>
              <h2 class="text-lg">{{ f.name }}</h2>
              <p class="text-sm text-soft">
                {{ kindWords[f.kind] }}{{ f.construction ? ', ' + constructionWords[f.construction] : '' }} · version {{ f.version
                }}{{ f.retiredAt ? ' · retired' : '' }}
              </p>
              <p class="text-sm">{{ f.note }}</p>
            </div>
          </div>
          <ng-container [ngTemplateOutlet]="sheet" [ngTemplateOutletContext]="{ $implicit: [f] }" />
          <h3 class="cap mt-3 mb-1">Sold as</h3>
          <ul class="text-sm">
            @for (o of f.offers; track o.widthMm) {
              <li class="figure flex justify-between border-b border-hair py-0.5">
                <span>{{ sizeOf(o) }}</span><span>{{ o.pricePerRoll }} a roll · {{ perLength(o.pricePerM) }}</span>
              </li>
            } @empty {
              <li class="text-soft">No size is entered.</li>
            }
          </ul>
          <p class="mt-3 text-sm">
            {{ panes(f) ? 'On ' + panes(f) + ' panes. It cannot vanish; it can be retired: no new pane gets it.' : 'On no pane yet.' }}
          </p>
          <button type="button" class="btn mt-2 mr-2 text-sm" (click)="form.set({ old: f })">Change its sheet</button>
          <button type="button" class="btn mt-2 text-sm" (click)="retire(f)">{{ f.retiredAt ? 'Take it back into use' : 'Retire it' }}</button>
        } @else {
          <p class="text-soft">Pick a film to see its sheet, or tick up to three to see them side by side.</p>
        }
        @if (bench.refusal(); as r) {
          <p role="alert" class="mt-3 border-l-4 border-ink bg-tint p-3">{{ r }}</p>
        }
      </aside>
    </main>
    <ng-template #sheet let-films>
      <table class="w-full text-sm">
        <caption class="sr-only">
          Values
        </caption>
        @if (films.length > 1) {
          <thead>
            <tr>
              <td></td>
              @for (f of films; track f.id) {
                <th scope="col" class="p-1 text-right align-bottom">
                  <yp-film-swatch [film]="f" [size]="36" /><span class="block">{{ f.name }}</span>
                </th>
              }
            </tr>
          </thead>
        }
        <tbody>
          @for (row of rows; track row.name) {
            <tr class="border-b border-hair">
              <th scope="row" class="py-0.5 text-left font-normal">{{ row.name }}</th>
              @for (f of films; track f.id) {
                <td class="figure py-0.5 pl-2 text-right">{{ row.of(f) }}</td>
              }
            </tr>
          }
        </tbody>
      </table>
    </ng-template>
  `,
})
export class FilmsPage {
  protected readonly bench = inject(BenchStore);
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  protected readonly purposes = purposes;
  protected readonly kindWords = kindWords;
  protected readonly constructionWords = constructionWords;
  protected readonly query = signal('');
  protected readonly purpose = signal<PurposeId>('all');
  protected readonly sort = signal<{ key: SortKey; isDown: boolean }>({ key: 'name', isDown: false });
  protected readonly picked = signal<readonly string[]>([]);
  protected readonly openId = signal<string | null>(null);
  protected readonly note = signal('');
  protected readonly waiting = signal<unknown>(null);
  /** The sheet being filled in; `old` null: a new film. */
  protected readonly form = signal<{ old: Film | null } | null>(null);

  /** What the bench is measured in. */
  protected readonly units = computed(() => this.bench.doc()?.firm.units ?? 'mm');
  protected readonly columns = computed((): readonly { key: SortKey; name: string; isNumber: boolean }[] => [
    { key: 'name', name: 'Name', isNumber: false },
    { key: 'kind', name: 'What it is', isNumber: false },
    { key: 'thickness', name: measureOf('thickness', this.units()).unit, isNumber: true },
    { key: 'light', name: 'Light', isNumber: true },
    { key: 'sun', name: 'Sun', isNumber: true },
    { key: 'haze', name: 'Haze', isNumber: true },
    { key: 'price', name: `per ${measureOf('area', this.units()).unit}`, isNumber: true },
  ]);
  protected readonly shownColumns = ['pick', 'swatch', ...this.columns().map((c) => c.key)];
  protected readonly shown = computed(() => shownFilms(this.bench.doc()?.films ?? [], this.query(), this.purpose(), this.sort().key, this.sort().isDown));
  protected readonly opened = computed(
    () => this.bench.doc()?.films.find((f) => f.id === this.openId()) ?? this.shown().find((f) => f.optics) ?? this.shown()[0] ?? null,
  );
  protected readonly compared = computed(() => this.picked().flatMap((id) => this.bench.doc()?.films.filter((f) => f.id === id) ?? []));
  protected readonly rows: readonly { name: string; of: (f: Film) => string }[] = [
    { name: 'rated on', of: (f) => (f.optics ? referenceWords[f.optics.ratedOn] : 'not entered') },
    { name: 'light through', of: (f) => share(f.optics?.visible.transmittanceFrac) },
    { name: 'light back, glass side', of: (f) => share(f.optics?.visible.reflectanceGlassSideFrac) },
    { name: 'light back, free side', of: (f) => share(f.optics?.visible.reflectanceFreeSideFrac) },
    { name: 'sun through', of: (f) => share(f.optics?.solar.transmittanceFrac) },
    { name: 'sun back, glass side', of: (f) => share(f.optics?.solar.reflectanceGlassSideFrac) },
    { name: 'sun soaked up', of: (f) => share(f.optics?.solar.absorptanceGlassSideFrac) },
    { name: 'ultraviolet through', of: (f) => share(f.optics?.uvTransmittanceFrac) },
    { name: 'haze', of: (f) => share(f.hazeFrac) },
    { name: 'emissivity', of: (f) => (f.emissivityFrac === null ? '–' : f.emissivityFrac.toFixed(2)) },
    { name: 'thickness', of: (f) => told(`${f.thicknessUm} µm`, this.units()) },
    { name: 'goes on', of: (f) => ({ inside: 'room face', outside: 'street face', either: 'either face', 'not-on-glass': 'walls, furniture' })[f.mounting] },
    { name: 'wound', of: (f) => ({ 'liner-out': 'liner out', 'liner-in': 'liner in', unknown: 'not known' })[f.wound] },
    { name: 'may be turned', of: (f) => ({ none: 'any way', 'two-way': 'end for end', 'one-way': 'not at all' })[f.direction] },
    { name: 'shrinks along / across', of: (f) => (f.shrink ? `${f.shrink.alongPct} / ${-f.shrink.acrossPct || 0} %` : '–') },
    { name: 'pattern repeat', of: (f) => (f.patternRepeatMm ? formatDifference(f.patternRepeatMm, this.units()) : '–') },
    {
      name: 'applied at',
      of: (f) =>
        f.temps?.applyMinC != null ? `${this.degrees(f.temps.applyMinC)} … ${f.temps.applyMaxC == null ? '?' : this.degrees(f.temps.applyMaxC)}` : '–',
    },
    { name: 'post-heat', of: (f) => (f.temps?.postHeatC != null ? this.degrees(f.temps.postHeatC) : '–') },
    { name: 'stretches to', of: (f) => (f.stretchMaxPct === null ? '–' : `${f.stretchMaxPct} %`) },
    { name: 'read after', of: (f) => (f.readAfterS === null ? '–' : `${f.readAfterS} s`) },
    { name: 'stands at most', of: (f) => (f.temps?.limitC != null ? this.degrees(f.temps.limitC) : '–') },
    { name: 'drying', of: (f) => f.drying ?? '–' },
  ];
  protected sizeOf = (o: Film['offers'][number]): string =>
    this.units() === 'in' ? `${formatDifference(o.widthMm, 'in')} × ${filmText(o.lengthM * 1000, 'in')}` : `${o.widthMm} mm × ${o.lengthM} m`;
  protected perLength(pricePerM: string): string {
    const { figure, unit } = lengthPrice(Number(pricePerM), this.units());
    return `${figure} /${unit}`;
  }
  private degrees = (c: number): string => temperatureText(c, this.units());
  protected byId = (_: number, f: Film): string => f.id;

  constructor() {
    void this.bench.load();
  }

  protected cell(key: SortKey, f: Film): string {
    const v = sortValue[key](f);
    if (v === null) return '–';
    if (key === 'light' || key === 'sun' || key === 'haze') return `${Math.round(Number(v) * 100)} %`;
    if (key === 'price') return (Number(v) * measureOf('area', this.units()).from(1)).toFixed(2);
    return key === 'thickness' ? figureOf(Number(v), 'thickness', this.units()) : String(v);
  }
  protected panes = (f: Film): number => this.bench.doc()?.panesWithFilm[f.id] ?? 0;
  protected sortBy(key: SortKey): void {
    this.sort.update((s) => ({ key, isDown: s.key === key ? !s.isDown : false }));
  }
  protected pick(id: string): void {
    this.picked.update((now) => (now.includes(id) ? now.filter((x) => x !== id) : [...now, id].slice(-3)));
  }
  protected retire(f: Film): void {
    const retiredAt = f.retiredAt ? null : new Date().toISOString();
    void this.bench.change(`${retiredAt ? 'Retire' : 'Take back'} ${f.name}`, [{ op: 'set', kind: 'film', id: f.id, field: 'retiredAt', value: retiredAt }]);
  }

  protected add(film: Film): void {
    this.form.set(null);
    this.openId.set(film.id);
    void this.bench.change(film.version > 1 ? `${film.name}, version ${film.version}` : `New film ${film.name}`, [
      { op: 'add', kind: 'film', id: film.id, value: film },
    ]);
  }

  protected async bringIn(event: Event): Promise<void> {
    const box = event.target as HTMLInputElement;
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    const text = await file.text();
    try {
      await this.send(/\.json$/i.test(file.name) ? (JSON.parse(text) as unknown) : text, 'ask');
    } catch {
      this.note.set(`${file.name} does not read as JSON. Nothing was brought in.`);
    }
  }
  /** Films as the trade has them, no maker's: a sheet that ships with the app. */
  protected async starter(): Promise<void> {
    const sheet = await fetch('starter-films.csv').then((r) => (r.ok ? r.text() : null), () => null); // prettier-ignore
    if (sheet === null) return this.note.set('The sheet of typical films cannot be fetched just now. Try again, or type your first film.');
    await this.send(sheet, 'skip');
  }
  protected again(same: 'skip' | 'new-version'): void {
    void this.send(this.waiting(), same);
  }
  private async send(body: unknown, same: 'ask' | 'skip' | 'new-version'): Promise<void> {
    const person = this.device.person() ?? (await this.device.connect());
    this.waiting.set(null);
    try {
      const done = await this.api.importFilms({ query: { personId: person.id, deviceId: this.device.id, same }, body });
      await this.device.connect();
      await this.bench.load();
      this.note.set(`${done.added} films came in, ${done.renewed} became new versions, ${done.skipped} were left as they are.`);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      this.note.set([error.message, ...error.faults.map((f) => `${f.path}: ${f.message}`)].join('\n'));
      if (error.code === 'films-known') this.waiting.set(body);
    }
  }
}
