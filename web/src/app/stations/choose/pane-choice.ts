import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  want,
  type BreakRisk,
  type Exposure,
  type FaceFound,
  type Film,
  type FilmVerdict,
  type Glazing,
  type LightLevels,
  type PaneVerdict,
  type Sight,
  type Want,
} from '@yellow-pane/contracts';
import { panesOf, enclosingRectangle, resolveAllowances, surveySurface } from '@yellow-pane/core';
import {
  exposureWords,
  figuresLine,
  figuresWhy,
  glazingWords,
  gradeWords,
  heatDayText,
  hidingText,
  lightPresets,
  scoreWhy,
  sightText,
  sightWhy,
  wantWords,
  worstHourText,
} from '@yellow-pane/core/choose';
import { contentHash, figureOf, measureOf, told, toldAll, zoneMinutesAt, type Coordinates } from '@yellow-pane/core/ground';
import { materialText, type Material } from '@yellow-pane/core/handover';
import { v7 as uuidv7 } from 'uuid';
import { VerdictSearch } from '../../compute/verdict-search';
import { bearingName } from '../../kit/compass';
import { FilmSwatch } from '../../kit/film-swatch';
import { GlassSection, type SectionPane } from '../../kit/glass-section';
import { readMeasure } from '../../kit/read-measure';
import { readNumber } from '../../kit/read-number';
import { LineChart, type Curve } from '../../kit/line-chart';
import { SiteField } from '../../kit/site-field';
import { Why } from '../../kit/why';
import { RecordStore } from '../../record/record.store';
import {
  choicePatches,
  exposurePatches,
  feltPatches,
  filmsToOffer,
  glazingPatches,
  panesInScope,
  settingsOf,
  settingsPatches,
  tapWant,
  verdictInputOf,
  type Scope,
} from './choose.updaters';
import { compareRows } from './compare-rows';
import { GlassEditor } from './parts/glass-editor';
import { ShrinkPanel } from './parts/shrink-panel';
import { WholeJob } from './parts/whole-job';

type Tab = 'heat' | 'pane' | 'sight' | 'compare';
interface Candidate {
  readonly film: Film;
  readonly verdict: FilmVerdict;
  readonly price: string;
  readonly priceWhy: string;
  readonly why: string;
}

const curveColors = ['#C2501C', '#3E6E8E', '#2C7550'];
/** Choose: which film on this glass, will the glass stand it, what does the customer gain, what does it cost. */
@Component({
  selector: 'yp-pane-choice',
  imports: [RouterLink, NgTemplateOutlet, GlassEditor, ShrinkPanel, WholeJob, GlassSection, LineChart, FilmSwatch, SiteField, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pane-choice.html',
})
export class PaneChoice {
  protected readonly record = inject(RecordStore);
  private readonly search = inject(VerdictSearch);
  protected readonly words = glazingWords;
  protected readonly gradeNames = gradeWords;
  protected readonly gradeLook = { go: 'text-proof', ask: 'text-heat-text', 'do-not': 'text-harm' } as const;
  protected readonly scope = signal<Scope>('place');
  protected readonly editing = signal(false);
  protected readonly tab = signal<Tab>('heat');
  protected readonly candidateId = signal<string | null>(null);
  protected readonly compareIds = signal<readonly string[]>([]);
  private readonly judged = signal<{ key: string; verdict: PaneVerdict } | null>(null);
  private readonly costs = signal<ReadonlyMap<string, Material>>(new Map());
  private asked = '';
  private costed = '';

  protected readonly surface = this.record.pane;
  private readonly isIndoors = computed(() => this.surface()?.exposure?.isIndoors ?? false);
  /** Of curved glass: can it be formed, or what light and heat do. */
  protected readonly part = signal<'forming' | 'light'>('forming');
  protected readonly isForming = computed(() => this.surface()?.curved != null && this.part() === 'forming');
  private readonly size = computed(() => {
    const [doc, s] = [this.record.records(), this.surface()];
    const box = doc && s ? enclosingRectangle(surveySurface(s, doc).survey) : null;
    return box ? { widthMm: box.widthMm, heightMm: box.heightMm } : { widthMm: 1000, heightMm: 1200 };
  });
  private readonly input = computed(() => {
    const [doc, s] = [this.record.doc(), this.surface()];
    if (!doc || !s) return null;
    const year = new Date().getFullYear();
    const summer = new Date(Date.UTC(year, (doc.job.latDeg ?? 50) >= 0 ? 6 : 0, 1));
    return verdictInputOf(doc, s, this.size(), year, zoneMinutesAt(doc.job.zone, summer));
  });
  protected readonly films = computed(() => {
    const doc = this.record.doc();
    return doc ? filmsToOffer(doc) : [];
  });
  private readonly key = computed(() => (this.input() ? contentHash([this.input(), this.films().map((f) => f.id)]) : ''));
  protected readonly verdict = computed(() => (this.judged()?.key === this.key() ? toldAll(this.judged()!.verdict, this.record.units()) : null));

  /** Panes the next edit is for. */
  protected readonly inScope = computed(() => {
    const [doc, s] = [this.record.doc(), this.surface()];
    return doc && s ? panesInScope(doc, s, this.scope()) : [];
  });
  protected readonly scopes = computed(() => {
    const [doc, s] = [this.record.doc(), this.surface()];
    if (!doc || !s) return [];
    const count = (scope: Scope) => panesInScope(doc, s, scope).length;
    const place = doc.places.find((p) => p.id === s.placeId)?.name ?? 'this room';
    return [
      { scope: 'pane' as const, name: s.name, n: 1 },
      { scope: 'group' as const, name: `${count('group')} like it`, n: count('group') },
      { scope: 'place' as const, name: `${place.split(' · ').at(-1)} (${count('place')})`, n: count('place') },
      {
        scope: 'facade' as const,
        name: `${s.exposure?.facadeDeg != null ? bearingName(s.exposure.facadeDeg) : ''} side (${count('facade')})`,
        n: count('facade'),
      },
    ].filter((x) => x.scope === 'pane' || (x.n > 1 && !(x.scope === 'facade' && (s.exposure?.isIndoors || s.exposure?.facadeDeg == null))));
  });
  protected readonly scopeName = computed(() => (this.inScope().length === 1 ? this.surface()!.name : `${this.inScope().length} panes`));

  protected readonly standing = computed(() => {
    const e = this.surface()?.exposure;
    return e ? exposureWords(e, e.facadeDeg === null ? null : bearingName(e.facadeDeg)) : 'not yet said where it stands';
  });
  protected readonly section = computed(() => {
    const g = this.surface()?.glazing;
    return {
      panes: (g?.panes ?? []).map((p): SectionPane => ({
        thicknessMm: p.thicknessMm ?? 6,
        isTinted: !['clear', 'low-iron'].includes(p.tint),
        isLaminated: p.kind === 'laminated',
        isWired: p.kind === 'wired',
        coatedFace: p.coating === 'none' ? null : p.coatingFace,
      })),
      cavities: (g?.cavities ?? []).map((c) => c.widthMm ?? 12),
    };
  });

  protected readonly candidates = computed<Candidate[]>(() => {
    const v = this.verdict();
    if (!v) return [];
    const byId = new Map(this.films().map((f) => [f.id, f]));
    return v.films.flatMap((verdict): Candidate[] => {
      const film = byId.get(verdict.filmId!);
      if (!film) return [];
      const cost = this.costs().get(film.id);
      const why =
        verdict.grade === 'do-not'
          ? verdict.reasons[0]!
          : verdict.wants
              .slice(0, 2)
              .map((w) => w.words)
              .join(', ') ||
            verdict.reasons[0] ||
            figuresLine(verdict.figures);
      const priceWhy = materialText(cost, this.inScope().length, film.offers.length, this.record.units());
      return [{ film, verdict, why, priceWhy, price: !cost ? '' : !cost.offer ? 'no price' : cost.tooWide ? 'needs a seam' : this.money(cost.cost) }];
    });
  });
  protected readonly candidate = computed(() => {
    const list = this.candidates();
    const own = this.surface()?.filmId;
    return list.find((c) => c.film.id === this.candidateId()) ?? list.find((c) => c.film.id === own) ?? list[0] ?? null;
  });
  protected readonly toChoose = computed(() => this.inScope().some((s) => s.filmId !== this.candidate()?.film.id));

  protected readonly wants = computed(() => {
    const [doc, s] = [this.record.doc(), this.surface()];
    const order = doc && s ? settingsOf(doc, s).wants : [];
    return want.options.map((w) => ({ want: w, words: wantWords[w], place: order.indexOf(w) + 1 }));
  });
  private readonly settings = computed(() => settingsOf(this.record.doc()!, this.surface()!));
  protected readonly limitText = computed(() =>
    this.settings().leastVisibleFrac === null ? '' : String(Math.round(this.settings().leastVisibleFrac! * 1000) / 10),
  );
  protected readonly limitCount = computed(() => {
    const list = this.verdict()?.films.filter((f) => f.keepsLimit !== null) ?? [];
    return list.length ? `${list.filter((f) => f.keepsLimit).length} of ${list.length} films do` : '';
  });

  constructor() {
    effect(() => {
      const [input, key] = [this.input(), this.key()];
      if (input) untracked(() => void this.judge(input, key));
    });
    effect(() => {
      this.record.selectedId();
      untracked(() => {
        this.candidateId.set(null);
        this.editing.set(false);
        if (!this.scopes().some((x) => x.scope === this.scope())) this.scope.set('pane');
      });
    });
    effect(() => {
      const [panes, films] = [this.inScope(), this.films()];
      if (panes.length)
        untracked(() =>
          this.price(
            panes.map((s) => s.id),
            films,
          ),
        );
    });
  }

  private async judge(input: NonNullable<ReturnType<typeof this.input>>, key: string): Promise<void> {
    if (this.asked === key) return;
    this.asked = key;
    const verdict = await this.search.judge(input, this.films());
    if (this.asked === key) this.judged.set({ key, verdict });
  }

  /** What each film costs for the panes at hand, laid out on the widths it is sold in. */
  private price(ids: readonly string[], films: readonly Film[]): void {
    const doc = this.record.records();
    const key = contentHash([ids, films.map((f) => f.id)]);
    if (!doc || key === this.costed) return;
    this.costed = key;
    const sizes = panesOf(doc.surfaces)
      .filter((s) => ids.includes(s.id))
      .flatMap((s) => {
        const box = enclosingRectangle(surveySurface(s, doc).survey);
        return box ? [{ widthMm: box.widthMm, heightMm: box.heightMm, count: 1 }] : [];
      });
    this.costs.set(new Map());
    const on = films.filter((f) => f.mounting !== 'not-on-glass' && f.offers.length > 0);
    const allowances = resolveAllowances(doc, this.surface()!);
    void this.search.costs(sizes, on, allowances, doc.job.cut, (id, material) => {
      if (this.costed === key) this.costs.update((m) => new Map(m).set(id, material));
    });
  }

  private money = (amount: number): string =>
    new Intl.NumberFormat('en-IE', { style: 'currency', currency: this.record.doc()?.job.currency ?? 'EUR', maximumFractionDigits: 0 }).format(amount);
  protected pct = (x: number): string => `${Math.round(x * 100)} %`;
  protected line = (v: FilmVerdict): string => figuresLine(v.figures);

  /** How the figures of the film at hand came about. */
  protected readonly figuresWhy = computed(() => {
    const c = this.candidate();
    return c ? figuresWhy(c.film, c.verdict.figures) : [];
  });

  protected readonly tabs = computed(() => [
    { id: 'heat' as const, name: 'Heat over the day' },
    { id: 'pane' as const, name: 'Pane and edge' },
    { id: 'sight' as const, name: 'Who sees whom' },
    ...(this.compareIds().length ? [{ id: 'compare' as const, name: `Compare ${this.compareIds().length}` }] : []),
  ]);
  protected readonly shownTab = computed<Tab>(() => (this.tabs().some((t) => t.id === this.tab()) ? this.tab() : 'heat'));

  private readonly shown = computed(() => {
    const picked = this.compareIds().flatMap((id) => this.candidates().filter((c) => c.film.id === id));
    const here = this.candidate();
    return picked.length ? picked : here ? [here] : [];
  });
  protected readonly heatCurves = computed<Curve[]>(() => {
    const v = this.verdict();
    if (!v?.bare.figures) return [];
    const at = (share: number) => v.heatDay.points.map((p) => ({ x: p.hour, y: p.bareWPerM2 * share }));
    const bareG = v.bare.figures.gFrac;
    return [
      ...this.shown().flatMap((c, i): Curve[] =>
        c.verdict.figures ? [{ name: c.film.name, color: curveColors[i]!, points: at(c.verdict.figures.gFrac / bareG) }] : [],
      ),
      { name: 'bare glass', color: '#F4B400', width: 2.5, points: at(1), fill: 'rgba(244,180,0,0.16)' },
    ];
  });
  protected readonly heatWords = computed(() => {
    const [v, c] = [this.verdict(), this.candidate()];
    if (!v) return '';
    return heatDayText(v.heatDay, this.isIndoors(), c && { name: c.film.name, heatLessFrac: c.verdict.heatLessFrac });
  });
  protected readonly paneCurves = computed<Curve[]>(() => {
    const r = this.candidate()?.verdict.breakRisk;
    if (!r) return [];
    const { to } = this.temperature();
    const at = (pick: (p: BreakRisk['day'][number]) => number) => r.day.map((p) => ({ x: p.hour, y: to(pick(p)) }));
    return [
      { name: 'limit of this edge', color: '#B3261E', dash: [6, 4], points: at((p) => p.limitC) },
      { name: 'middle of the pane', color: '#C2501C', width: 2.5, points: at((p) => p.centreC) },
      { name: 'edge under the frame', color: '#3E6E8E', points: at((p) => p.edgeC) },
    ];
  });
  protected worstDay = (r: BreakRisk): string => told(worstHourText(r), this.record.units());

  protected readonly sights = computed(() => {
    const c = this.candidate();
    if (!c?.verdict.day || !c.verdict.night) return [];
    const l = this.settings().light;
    const say = (s: Sight) => sightText(s, this.isIndoors());
    return [
      {
        when: 'By day',
        ...say(c.verdict.day),
        outLux: l.dayOutsideLux,
        inLux: l.dayInsideLux,
        time: 'day' as const,
        outField: 'dayOutsideLux' as const,
        inField: 'dayInsideLux' as const,
      },
      {
        when: 'At night',
        ...say(c.verdict.night),
        outLux: l.nightOutsideLux,
        inLux: l.nightInsideLux,
        time: 'night' as const,
        outField: 'nightOutsideLux' as const,
        inField: 'nightInsideLux' as const,
      },
    ];
  });
  protected readonly sightWhy = sightWhy;
  protected tipWords = (v: FilmVerdict): string => hidingText(v, this.record.units());

  protected readonly compared = computed(() => [{ id: 'bare', name: 'bare glass' }, ...this.shown().map((c) => ({ id: c.film.id, name: c.film.name }))]);
  protected readonly compareRows = computed(() => {
    const v = this.verdict();
    return v ? compareRows(v.bare, this.shown()) : [];
  });

  /** How the price and the place in the list came about. */
  protected scoreWhy = (c: Candidate): string[] => [...(c.priceWhy ? [`Film: ${c.priceWhy}`] : []), ...scoreWhy(c.verdict)];

  protected toggleCompare(id: string): void {
    const now = this.compareIds();
    this.compareIds.set(now.includes(id) ? now.filter((x) => x !== id) : [...now, id].slice(-3));
    if (this.compareIds().length > 1) this.tab.set('compare');
  }
  private label = (what: string): string => `${what}: ${this.scopeName()}`;
  protected setGlass(g: Glazing): void {
    // whoever has begun to describe the glass goes on until they say they are done
    this.editing.set(true);
    void this.record.change(this.label('Glass'), glazingPatches(this.inScope(), g));
  }
  protected setFelt(found: FaceFound): void {
    void this.record.change(this.label('The face, felt by hand'), feltPatches(this.inScope(), found));
  }
  protected setExposure(part: Partial<Exposure>): void {
    void this.record.change(this.label('Where it stands'), exposurePatches(this.inScope(), part));
  }
  protected tap(w: Want): void {
    void this.record.change(this.label('What is wanted'), settingsPatches(this.record.doc()!, this.inScope(), { wants: tapWant(this.settings().wants, w) }));
  }
  protected setLimit(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 0, high: 100, mayBeEmpty: true, message: 'Between 0 and 100 %; leave it empty when no limit holds here.' });
    if (n === undefined) return;
    const leastVisibleFrac = n === null ? null : Math.round(n * 10) / 1000;
    void this.record.change(this.label('Least light'), settingsPatches(this.record.doc()!, this.inScope(), { leastVisibleFrac }));
  }
  protected setLux(field: keyof LightLevels, box: HTMLInputElement): void {
    const n = readNumber(box, { low: 0, high: 150_000, message: 'Between 0 and 150 000 lx.' });
    if (n == null) return;
    const light = { ...this.settings().light, [field]: n };
    void this.record.change(this.label('Light levels'), settingsPatches(this.record.doc()!, this.inScope(), { light }));
  }
  protected readonly climate = computed(() => this.settings().climate);
  protected readonly temperature = computed(() => measureOf('temperature', this.record.units()));
  protected degrees = (c: number): string => figureOf(c, 'temperature', this.record.units());
  protected setPlace(at: Coordinates | null): void {
    const job = this.record.doc()?.job;
    if (job) void this.record.set('Place of the job', 'job', job.id, { latDeg: at?.latDeg ?? null, lonDeg: at?.lonDeg ?? null });
  }
  protected setClimate(field: 'hotC' | 'coldC' | 'insideC', box: HTMLInputElement, low: number, high: number): void {
    const n = readMeasure(box, 'temperature', this.record.units(), { low, high, message: `Between ${low} and ${high} °C.` });
    if (n != null)
      void this.record.change(this.label('Climate'), settingsPatches(this.record.doc()!, this.inScope(), { climate: { ...this.climate(), [field]: n } }));
  }
  protected presets = (time: 'day' | 'night') => lightPresets.filter((p) => p.time === time);
  protected usePreset(time: 'day' | 'night', box: HTMLSelectElement): void {
    const found = lightPresets.find((p) => p.name === box.value);
    box.value = '';
    if (!found) return;
    const { outsideLux, insideLux } = found;
    const part = time === 'day' ? { dayOutsideLux: outsideLux, dayInsideLux: insideLux } : { nightOutsideLux: outsideLux, nightInsideLux: insideLux };
    void this.record.change(this.label('Light levels'), settingsPatches(this.record.doc()!, this.inScope(), { light: { ...this.settings().light, ...part } }));
  }
  protected choose(film: Film): void {
    const patches = choicePatches(this.inScope(), film, this.record.doc()?.rolls ?? [], uuidv7);
    void this.record.change(`${film.name} for ${this.scopeName()}`, patches);
  }
}
