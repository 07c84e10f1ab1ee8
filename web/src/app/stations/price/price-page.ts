import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { defaultCutSettings, type Film, type JobDocument, type Patch, type Quote, type QuoteLine, type QuotePrice } from '@yellow-pane/contracts';
import { figureOf, formatLength, measureOf, parseLength } from '@yellow-pane/core/ground';
import { priceQuote, resurvey } from '@yellow-pane/core/handover';
import { v7 as uuidv7 } from 'uuid';
import { BenchBar } from '../../kit/bench-bar';
import { FilmSwatch } from '../../kit/film-swatch';
import { Api, hrefOf } from '../../record/api';
import { PageMemo } from '../../record/page-memo';
import { BenchStore } from '../../record/bench.store';
import { Device } from '../../record/device';
import { smallPhoto } from './photo';
import { filmsByWish, newQuote, nextLine, offerable, quoteSummary, toggleFilm } from './price.updaters';

/** Price at the window: photo, width × height × count, film, price; on a phone, in five minutes. */
@Component({
  selector: 'yp-price-page',
  imports: [BenchBar, FilmSwatch],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-bench-bar [firm]="bench.doc()?.firm?.name ?? ''" />
    <main class="mx-auto max-w-5xl p-4">
      @if (quote(); as q) {
        <div class="mb-3 flex items-center justify-between gap-2">
          <button type="button" class="btn" (click)="openId.set(null)">All prices</button>
          <span class="text-sm text-soft">{{ summary(q) }}</span>
        </div>
        <div class="grid gap-5 md:grid-cols-2">
          <section aria-labelledby="windows">
            <div class="grid grid-cols-2 gap-2 text-sm">
              <label
                >Customer<input #customer class="field" maxlength="120" [value]="q.customer" (change)="set('Customer', { customer: customer.value.trim() })"
              /></label>
              <label>Where<input #site class="field" maxlength="240" [value]="q.site" (change)="set('Site', { site: site.value.trim() })" /></label>
            </div>
            <div class="mt-2 flex items-end gap-2 text-sm">
              <label class="w-28"
                >{{ way().unit }} there<input #km class="field figure" inputmode="decimal" [value]="wayThere(q.kmThere)" (change)="setKm(km)"
              /></label>
              <label class="btn flex-1 cursor-pointer focus-within:outline-3"
                >{{ q.photo ? 'Another photo' : 'Photo' }}<input type="file" accept="image/*" capture="environment" class="sr-only" (change)="photo($event)"
              /></label>
              @if (q.photo) {
                <img [src]="q.photo" alt="The window as photographed" class="h-14 border border-line" />
              }
            </div>
            <h2 id="windows" class="cap mt-4 mb-1">Windows</h2>
            @for (l of q.lines; track l.id) {
              <div class="mb-2 border border-hair bg-card p-2">
                <div class="flex items-center gap-2">
                  <input
                    #name
                    class="field flex-1"
                    aria-label="What it is"
                    maxlength="60"
                    [value]="l.name"
                    (change)="name.value.trim() && line(l, { name: name.value.trim() })"
                  />
                  <span class="figure whitespace-nowrap">{{ f(l.widthMm) }} × {{ f(l.heightMm) }}</span>
                  <span class="flex items-center"
                    ><button type="button" class="btn px-3!" aria-label="One less" [disabled]="l.count < 2" (click)="line(l, { count: l.count - 1 })">−</button>
                    <span class="figure w-8 text-center">{{ l.count }}</span>
                    <button type="button" class="btn px-3!" aria-label="One more" (click)="line(l, { count: l.count + 1 })">+</button></span
                  >
                </div>
                <div class="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
                  <input
                    #place
                    class="field w-28!"
                    aria-label="Room"
                    placeholder="room"
                    maxlength="80"
                    [value]="l.place"
                    (change)="line(l, { place: place.value.trim() })"
                  />
                  <select #reach class="field w-auto!" aria-label="Reached from" (change)="line(l, { reach: $any(reach.value) })">
                    <option value="floor" [selected]="l.reach === 'floor'">from the floor</option>
                    <option value="ladder" [selected]="l.reach === 'ladder'">from a ladder</option>
                    <option value="tower" [selected]="l.reach === 'tower'">from a tower</option>
                  </select>
                  <label class="flex min-h-11 items-center gap-1.5 md:min-h-8"
                    ><input type="checkbox" class="size-5" [checked]="l.hasOldFilm" (change)="line(l, { hasOldFilm: !l.hasOldFilm })" /> old film off</label
                  >
                  <label class="flex min-h-11 items-center gap-1.5 md:min-h-8"
                    ><input type="checkbox" class="size-5" [checked]="l.hasProudSilicone" (change)="line(l, { hasProudSilicone: !l.hasProudSilicone })" />
                    silicone</label
                  >
                  <button type="button" class="ml-auto min-h-11 underline md:min-h-8" (click)="set('Take a window off', { lines: without(q, l) })">
                    take off
                  </button>
                </div>
              </div>
            }
            <form class="flex items-end gap-2" (submit)="$event.preventDefault(); addLine(w, h, n)">
              <label class="flex-1 text-sm"
                >Width<input #w class="field figure min-h-11!" inputmode="text" autocomplete="off" [placeholder]="units() === 'mm' ? '900' : '35 1/2'"
              /></label>
              <label class="flex-1 text-sm"
                >Height<input #h class="field figure min-h-11!" inputmode="text" autocomplete="off" [placeholder]="units() === 'mm' ? '1200' : '47 1/4'"
              /></label>
              <label class="w-16 text-sm">How many<input #n class="field figure min-h-11!" inputmode="numeric" value="1" /></label>
              <button class="btn btn-ink min-h-11!">Add</button>
            </form>
            @if (note()) {
              <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm">{{ note() }}</p>
            }
          </section>
          <section aria-labelledby="price">
            <h2 id="price" class="cap mb-1">Price</h2>
            @for (p of prices(); track p.price.filmId) {
              <div class="relief mb-2 border bg-card p-3" [class]="p.price.filmId === q.acceptedFilmId ? 'border-ink bg-tint' : 'border-line'" data-price>
                <div class="flex items-center gap-3">
                  <yp-film-swatch [film]="p.film" />
                  <strong class="flex-1">{{ p.film.name }}</strong>
                  @if (!p.price.fault) {
                    <span class="figure text-xl font-semibold">{{ money(p.price.totalMinor) }}</span>
                  }
                </div>
                @if (p.price.fault) {
                  <p class="mt-1 text-sm text-heat-text">{{ p.price.fault }}</p>
                } @else {
                  <details class="mt-1 text-sm">
                    <summary class="min-h-11 cursor-pointer py-2.5 underline md:min-h-8 md:py-0">What it is made of (not on the customer’s paper)</summary>
                    <table class="mt-1 w-full">
                      <caption class="sr-only">
                        Make-up of the price
                      </caption>
                      <tbody>
                        @for (l of p.price.makeUp; track l.name) {
                          <tr class="border-b border-hair">
                            <th scope="row" class="py-0.5 text-left font-normal">
                              {{ l.name }} <span class="text-soft">{{ l.how }}</span>
                            </th>
                            <td class="figure text-right">{{ money(l.amountMinor) }}</td>
                            <td class="figure pl-2 text-right text-soft">{{ l.taxPct ? '+ ' + money(l.taxMinor) : '' }}</td>
                          </tr>
                        }
                        <tr>
                          <th scope="row" class="py-0.5 text-left font-normal">Tax, line by line</th>
                          <td></td>
                          <td class="figure pl-2 text-right">{{ money(p.price.taxMinor) }}</td>
                        </tr>
                      </tbody>
                    </table>
                    <p class="text-soft">{{ p.price.hours.toFixed(1) }} hours in all.</p>
                  </details>
                  @if (q.status === 'draft') {
                    <button type="button" class="btn btn-hand mt-2 w-full" (click)="accept(p.film)">The customer says yes to this one</button>
                  }
                }
              </div>
            } @empty {
              <p class="border border-dashed border-field p-4 text-center text-soft">
                {{ q.lines.length ? 'Pick a film below; its price stands here at once.' : 'Add a window first: rounded tapes are fine.' }}
              </p>
            }
            @if (survey(); as r) {
              <div class="mb-2 border-l-4 border-hair bg-card p-2 text-sm" data-moved>
                <p>
                  Quoted <span class="figure">{{ money(r.quoted.totalMinor) }}</span>, as surveyed now
                  <span class="figure">{{ money(r.now.totalMinor) }}</span>{{ r.moved.length ? ':' : ': nothing moved.' }}
                </p>
                <ul>
                  @for (m of r.moved; track m.name) {
                    <li>
                      {{ m.name }} {{ m.kind === 'gone' ? 'is not there any more' : m.kind === 'new' ? 'came to it' : '' }}
                      <span class="figure">{{ sizeText(m.fromMm) }}{{ m.fromMm && m.toMm ? ' → ' : '' }}{{ sizeText(m.toMm) }}</span>
                    </li>
                  }
                </ul>
              </div>
            }
            <div class="mb-3 flex flex-wrap gap-2 text-sm">
              @if (priced()) {
                <a class="btn" [href]="quotePdf(q)" target="_blank" rel="noopener">Quote for the customer</a>
              }
              @if (q.jobId) {
                <button type="button" class="btn btn-ink" (click)="goToJob(q.jobId)">Open the job</button>
              }
            </div>
            @if (q.status === 'draft') {
              <h2 class="cap mb-1">Films to offer, at most three</h2>
              <div data-films>
                @for (g of wishes(); track g.name) {
                  <details class="border-b border-hair">
                    <summary class="flex min-h-11 cursor-pointer items-center justify-between">
                      <span>{{ g.name }}</span><span class="text-sm text-soft">{{ chosenIn(q, g.films) || g.films.length + ' films' }}</span>
                    </summary>
                    <div class="grid gap-1 pb-2 sm:grid-cols-2">
                      @for (film of g.films; track film.id) {
                        <button
                          type="button"
                          class="flex min-h-11 items-center gap-2 border px-2 text-left text-sm"
                          [class]="q.filmIds.includes(film.id) ? 'border-ink bg-tint font-semibold' : 'border-line bg-card'"
                          [attr.aria-pressed]="q.filmIds.includes(film.id)"
                          (click)="set('Films offered', { filmIds: toggle(q.filmIds, film.id) })"
                        >
                          <yp-film-swatch [film]="film" [size]="24" />{{ film.name }}
                        </button>
                      }
                    </div>
                  </details>
                }
              </div>
            }
          </section>
        </div>
      } @else {
        <div class="mb-4 flex items-center justify-between gap-3">
          <h1 class="text-2xl">Price</h1>
          <button type="button" class="btn btn-hand" [disabled]="!bench.doc()" (click)="start()">New price</button>
        </div>
        @if (bench.doc(); as doc) {
          <ul class="space-y-2">
            @for (q of listed(); track q.id) {
              <li>
                <button
                  type="button"
                  class="relief flex w-full items-center justify-between gap-3 border border-line bg-card p-3 text-left hover:bg-glass"
                  (click)="openId.set(q.id)"
                >
                  <span
                    ><strong>{{ q.customer || 'No customer named' }}</strong> <span class="text-soft">{{ q.site }}</span><span
                      class="block text-sm text-soft"
                      >{{ summary(q) }}</span
                    ></span
                  >
                  <span class="text-sm" [class]="q.status === 'accepted' ? 'font-bold text-proof' : 'text-soft'">{{
                    q.status === 'accepted' ? 'said yes' : 'open'
                  }}</span>
                </button>
              </li>
            } @empty {
              <li class="border border-dashed border-field p-8 text-center">
                No price yet. At the customer’s window: a photo, rounded tapes, a film, and there it is.
              </li>
            }
          </ul>
        } @else {
          <p class="text-soft" aria-busy="true">{{ bench.failed() ?? 'Looking …' }}</p>
        }
      }
      @if (bench.waiting() !== 'nothing') {
        <p role="status" class="mt-3 border-l-4 border-ink bg-tint p-3" data-waiting>
          {{
            bench.waiting() === 'kept'
              ? '○ Kept on this device, waiting for the bench.'
              : '○ The bench does not answer and this browser keeps nothing: stay on this page.'
          }}
        </p>
      }
      @if (bench.refusal(); as r) {
        <p role="alert" class="mt-3 border-l-4 border-ink bg-tint p-3">{{ r }}</p>
      }
    </main>
  `,
})
export class PricePage {
  protected readonly bench = inject(BenchStore);
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  private readonly router = inject(Router);
  protected readonly openId = signal<string | null>(null);
  protected readonly note = signal('');
  protected summary = (q: Pick<Quote, 'lines'>): string => quoteSummary(q, this.units());
  protected readonly toggle = toggleFilm;

  protected readonly units = computed(() => this.bench.doc()?.firm.units ?? 'mm');
  protected readonly listed = computed(() => [...(this.bench.doc()?.quotes ?? [])].sort((a, b) => b.createdAt.localeCompare(a.createdAt)));
  protected readonly quote = computed(() => this.bench.doc()?.quotes.find((q) => q.id === this.openId()) ?? null);
  protected readonly wishes = computed(() => filmsByWish(offerable(this.bench.doc()?.films ?? [])));
  protected chosenIn = (q: Quote, films: readonly Film[]): string =>
    films
      .filter((f) => q.filmIds.includes(f.id))
      .map((f) => f.name)
      .join(', ');
  protected readonly prices = computed(() => {
    const [doc, q] = [this.bench.doc(), this.quote()];
    const rates = doc?.rates.find((r) => r.id === q?.ratesId);
    if (!doc || !q || !rates || q.lines.length === 0) return [];
    return q.filmIds.flatMap((id): { film: Film; price: QuotePrice }[] => {
      const film = doc.films.find((f) => f.id === id);
      return film ? [{ film, price: priceQuote(q, film, rates, doc.firm.allowances, defaultCutSettings) }] : [];
    });
  });
  protected readonly priced = computed(() => this.prices().some((p) => p.price.fault === null));

  /** The job that an accepted quote became, as it stands now. */
  private readonly job = signal<JobDocument | null>(null);
  private readonly memo = inject(PageMemo);
  /** What the survey made of the quote. */
  protected readonly survey = computed(() => {
    const [doc, q, job] = [this.bench.doc(), this.quote(), this.job()];
    const rates = doc?.rates.find((r) => r.id === q?.ratesId);
    const film = doc?.films.find((f) => f.id === q?.acceptedFilmId);
    return doc && q && job && job.job.id === q.jobId && rates && film ? resurvey(q, film, rates, doc.firm, { ...job, memo: this.memo }) : null;
  });
  protected sizeText = (mm: { widthMm: number; heightMm: number } | null): string => (mm ? `${this.f(mm.widthMm)} × ${this.f(mm.heightMm)}` : '');

  constructor() {
    void this.bench.load();
    effect(() => {
      const jobId = this.quote()?.jobId;
      if (jobId) untracked(() => void this.loadJob(jobId));
    });
  }

  private async loadJob(jobId: string): Promise<void> {
    const person = this.device.person() ?? (await this.device.connect());
    // a job that was deleted since has nothing to compare with
    this.job.set(await this.api.job({ params: { jobId }, query: { personId: person.id, deviceId: this.device.id } }).catch(() => null));
  }

  protected f = (mm: number): string => formatLength(mm, this.units());
  protected money = (minor: number): string =>
    new Intl.NumberFormat('en-IE', { style: 'currency', currency: this.quote()?.currency ?? 'EUR' }).format(minor / 100);
  protected quotePdf = (q: Quote): string => hrefOf('quotePdf', { params: { quoteId: q.id } });
  protected without = (q: Quote, l: QuoteLine): QuoteLine[] => q.lines.filter((x) => x.id !== l.id);

  protected async start(): Promise<void> {
    const doc = this.bench.doc();
    const q = doc && newQuote(doc, uuidv7(), new Date().toISOString());
    if (!q) return this.note.set('Enter the firm’s rates first, under Firm.');
    this.openId.set(q.id);
    await this.bench.change('New price', [{ op: 'add', kind: 'quote', id: q.id, value: q }]);
  }
  protected set(label: string, fields: Partial<Quote>): void {
    const q = this.quote();
    if (q && q.status === 'draft')
      void this.bench.change(
        label,
        Object.entries(fields).map(([field, value]): Patch => ({ op: 'set', kind: 'quote', id: q.id, field, value })),
      );
  }
  protected line(l: QuoteLine, part: Partial<QuoteLine>): void {
    const q = this.quote();
    if (q) this.set('Change a window', { lines: q.lines.map((x) => (x.id === l.id ? { ...x, ...part } : x)) });
  }
  protected readonly way = computed(() => measureOf('way', this.units()));
  protected wayThere = (km: number): string => figureOf(km, 'way', this.units());
  protected setKm(box: HTMLInputElement): void {
    const n = Math.round(this.way().from(Number(box.value.trim().replace(',', '.'))) * 1000) / 1000;
    if (!(n >= 0 && n <= 5000)) return this.note.set(`The way there: between 0 and ${Math.floor(this.way().to(5000))} ${this.way().unit}.`);
    this.note.set('');
    this.set('Travel', { kmThere: n });
  }
  protected addLine(w: HTMLInputElement, h: HTMLInputElement, n: HTMLInputElement): void {
    const q = this.quote();
    if (!q) return;
    const [width, height] = [parseLength(w.value, this.units()), parseLength(h.value, this.units())];
    const count = Number(n.value);
    if (!width.ok) return this.note.set(`Width: ${width.message}`);
    if (!height.ok) return this.note.set(`Height: ${height.message}`);
    if (!(Number.isInteger(count) && count >= 1 && count <= 500)) return this.note.set('How many: a whole number from 1 to 500.');
    this.note.set('');
    this.set('One window more', {
      lines: [...q.lines, nextLine(q.lines, uuidv7(), { widthMm: width.value.lengthMm, heightMm: height.value.lengthMm, count })],
    });
    w.value = h.value = '';
    n.value = '1';
    w.focus();
  }
  protected async photo(event: Event): Promise<void> {
    const box = event.target as HTMLInputElement;
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    try {
      this.set('Photo', { photo: await smallPhoto(file) });
    } catch {
      this.note.set('This picture does not open. Take another one.');
    }
  }
  protected async accept(film: Film): Promise<void> {
    const q = this.quote();
    const person = this.device.person();
    if (!q || !person) return;
    try {
      const { jobId } = await this.api.acceptQuote({ params: { quoteId: q.id }, body: { filmId: film.id, personId: person.id, deviceId: this.device.id } });
      await this.device.connect();
      await this.bench.load();
      await this.goToJob(jobId);
    } catch (error) {
      this.note.set((error as Error).message);
    }
  }
  protected goToJob = (jobId: string): Promise<boolean> => this.router.navigate(['/jobs', jobId, 'measure']);
}
