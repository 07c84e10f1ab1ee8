import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import type { CutMethod } from '@yellow-pane/contracts';
import { knifeOrder, resolveAllowances, startEdge, surveySurface, type MethodFigures } from '@yellow-pane/core';
import { formatLength, parseLength } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { LayoutSearch } from '../../compute/layout-search';
import { methodNames } from '../../kit/method-names';
import { RollView } from '../../kit/roll-view';
import { Why } from '../../kit/why';
import { Device } from '../../record/device';
import { PlansStore } from '../../record/plans.store';
import { RecordStore } from '../../record/record.store';
import { PieceDrawing } from './parts/piece-drawing';

/** Cut: the pieces of one film on its rolls, the methods compared, the knife order to tick off. */
@Component({
  selector: 'yp-cut-page',
  imports: [RollView, PieceDrawing, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cut-page.html',
})
export class CutPage {
  protected readonly record = inject(RecordStore);
  protected readonly plans = inject(PlansStore);
  private readonly search = inject(LayoutSearch);
  private readonly device = inject(Device);
  protected readonly names = methodNames;
  protected readonly methods = signal<{ key: string; figures: MethodFigures[] } | null>(null);
  protected readonly shownFilmId = signal<string | null>(null);
  protected readonly settingsNote = signal('');

  /** Films that some pane of the job has. */
  protected readonly films = computed(() => {
    const doc = this.record.doc();
    return doc ? doc.films.filter((f) => doc.surfaces.some((s) => s.filmId === f.id)) : [];
  });
  protected readonly film = computed(() => {
    const films = this.films();
    return (
      films.find((f) => f.id === (this.record.surface()?.filmId ?? this.shownFilmId())) ?? films.find((f) => f.id === this.shownFilmId()) ?? films[0] ?? null
    );
  });
  protected readonly plan = computed(() => {
    const film = this.film();
    return film ? (this.plans.byFilm()[film.id] ?? null) : null;
  });
  protected readonly rolls = computed(() => (this.record.doc()?.rolls ?? []).filter((r) => r.filmId === this.film()?.id));
  protected readonly usedRolls = computed(() => {
    const used = this.rolls().filter((r) => this.plan()?.layout.rolls.some((x) => x.rollId === r.id && x.drops.length > 0));
    return used.length ? used : this.rolls().slice(0, 1);
  });
  protected readonly steps = computed(() => {
    const plan = this.plan();
    return plan ? knifeOrder(plan.layout, plan.pieces, (id) => this.rolls().find((r) => r.id === id)?.widthMm ?? 0, this.record.units(), this.isFilmUp()) : [];
  });
  protected readonly isFilmUp = computed(() => this.film()?.wound === 'liner-in');
  protected readonly startEdge = computed(() => startEdge(this.isFilmUp()));
  protected readonly nextKey = computed(() => this.steps().find((s) => !this.plans.done().has(s.key))?.key ?? null);
  protected readonly labels = computed(
    () => new Map(this.plan()?.pieces.flatMap((p) => [[p.id, p.label] as const, ...p.parts.map((x) => [x.id, x.label] as const)]) ?? []),
  );
  protected readonly lockedIds = computed(() => this.plan()?.stored?.lockedPieceIds ?? []);

  /** The selected pane with its piece, or why it has none. */
  protected readonly here = computed(() => {
    const doc = this.record.doc();
    const surface = this.record.surface();
    if (!doc || !surface) return null;
    const cut = surface.filmId
      ? this.plans
          .inputs()
          .get(surface.filmId)
          ?.cuts.find((c) => c.surface.id === surface.id)
      : undefined;
    const piece = this.plan()?.pieces.find((p) => p.id === surface.id) ?? cut?.pieces[0] ?? null;
    const joined = this.plan()?.pieces.find((p) => p.parts.some((part) => part.id === surface.id)) ?? null;
    const unplaced = this.plan()?.layout.unplaced.find((u) => u.pieceId === (joined ?? surface).id)?.reason ?? null;
    return {
      surface,
      piece,
      joined,
      unplaced,
      seenFrom: (surface.seenFrom === 'room') === this.record.otherSide() ? 'street' : 'room',
      survey: surveySurface(surface, doc).survey,
      allowances: resolveAllowances(doc, surface),
      blocked: !surface.filmId
        ? 'No film chosen for this pane. Choose one in Measure, under “Pane, frame, film”.'
        : cut && 'blocked' in cut.answer
          ? cut.answer.blocked
          : null,
      note: cut && 'piece' in cut.answer ? (cut.answer.note ?? cut.answer.piece.fallback ?? joined?.why[0] ?? null) : null,
    };
  });
  protected readonly blockedPanes = computed(() => {
    const film = this.film();
    return film ? (this.plans.inputs().get(film.id)?.cuts ?? []).filter((c) => 'blocked' in c.answer) : [];
  });

  /** Metres and money in plain words. */
  protected readonly money = computed(() => {
    const plan = this.plan();
    const doc = this.record.doc();
    if (!plan || !doc) return null;
    const { layout } = plan;
    const glassM2 = plan.pieces.reduce((s, p) => s + p.widthMm * p.heightMm, 0) / 1e6;
    const rollM2 = layout.rolls.reduce((s, r) => s + (r.usedMm * (this.rolls().find((x) => x.id === r.rollId)?.widthMm ?? 0)) / 1e6, 0);
    const saves = layout.boundCost === null ? null : layout.cost - layout.boundCost;
    const price = rollM2 > 0 ? layout.cost / rollM2 : 0;
    return {
      used: `${(layout.usedMm / 1000).toFixed(2)} m`,
      cost: this.euro(layout.cost),
      waste: `${Math.max(0, rollM2 - glassM2).toFixed(1)} m² of it is no piece, ${this.euro(Math.max(0, rollM2 - glassM2) * price)}.`,
      best:
        saves === null
          ? plan.running
            ? 'Still looking for a shorter plan …'
            : ''
          : saves < 0.005 * layout.cost || saves < 0.5
            ? 'Nothing worth a coin can be saved: this is as good as proven.'
            : `The best possible saves at most ${this.euro(saves)} more.`,
      why: [
        `Used length runs from the squared start to the last crosscut: ${layout.usedMm.toFixed(1)} mm; cost is that times the price per metre.`,
        layout.boundCost === null
          ? 'The bound is computed when the search rests.'
          : `No plan under these rules costs less than ${this.euro(layout.boundCost)} (column generation over drops, exact pricing).`,
        `Seed ${layout.seed}, ${layout.steps} steps: the same input gives the same plan.`,
      ],
    };
  });

  constructor() {
    effect(() => {
      const film = this.record.surface()?.filmId;
      if (film) untracked(() => this.shownFilmId.set(film));
    });
    effect(() => {
      const film = this.film();
      const input = film ? this.plans.inputs().get(film.id) : undefined;
      if (film && input) untracked(() => void this.compare(film.id, input.hash));
    });
  }

  private async compare(filmId: string, key: string): Promise<void> {
    const doc = this.record.doc();
    if (!doc || this.methods()?.key === filmId + key) return;
    this.methods.set({ key: filmId + key, figures: [] });
    const figures = await this.search.methods(
      { firm: doc.firm, job: doc.job, surfaces: doc.surfaces, readings: doc.readings, films: doc.films, rolls: doc.rolls, entries: [] },
      doc.job.cut,
      filmId,
    );
    if (this.methods()?.key === filmId + key) this.methods.set({ key: filmId + key, figures });
  }

  protected euro(amount: number): string {
    return new Intl.NumberFormat('en-IE', {
      style: 'currency',
      currency: this.record.doc()?.job.currency ?? 'EUR',
      maximumFractionDigits: amount < 100 ? 2 : 0,
    }).format(amount);
  }
  protected f = (mm: number): string => formatLength(mm, this.record.units());
  protected minutes = (m: number): string => (m < 100 ? `${Math.round(m)} min` : `${(m / 60).toFixed(1)} h`);
  protected finishedNames = (ids: readonly string[]): string => ids.map((id) => this.labels().get(id) ?? '').join(' · ');

  protected pickFilm(filmId: string): void {
    this.shownFilmId.set(filmId);
    const first = this.record.doc()?.surfaces.find((s) => s.filmId === filmId);
    if (first) this.record.select(first.id);
  }
  protected useMethod(method: CutMethod): void {
    const job = this.record.doc()?.job;
    if (job && job.method !== method) void this.record.set(`${methodNames[method]} for the job`, 'job', job.id, { method });
  }
  protected tick(key: string): void {
    const film = this.film();
    if (film) void this.plans.tick(film.id, key, !this.plans.done().has(key));
  }
  /** A spoiled piece: one more of this pane's piece goes onto the roll. */
  protected oneMore(): void {
    const doc = this.record.doc();
    const here = this.here();
    const person = this.device.person();
    if (!doc || !here?.piece || !person) return;
    const at = new Date().toISOString();
    const extra = { id: uuidv7(), reason: 'spoiled', at };
    void this.record.set(`One more of ${here.surface.name}`, 'surface', here.surface.id, { extraPieces: [...here.surface.extraPieces, extra] });
  }
  protected lock(): void {
    const film = this.film();
    const here = this.here();
    if (film && here?.piece) void this.plans.toggleLock(film.id, (here.joined ?? here.piece).id);
  }
  protected setPull(box: HTMLInputElement): void {
    const doc = this.record.doc();
    const read = parseLength(box.value, this.record.units());
    if (!read.ok) return this.settingsNote.set(read.message);
    this.settingsNote.set('');
    if (doc) void this.record.set('Longest pull', 'job', doc.job.id, { cut: { ...doc.job.cut, longestPullMm: read.value.lengthMm } });
  }
  /** What bench, knife and job allow, as shown. */
  protected readonly jobFields = computed(() => {
    const doc = this.record.doc();
    if (!doc) return [];
    const { cut } = doc.job;
    const a = { ...doc.firm.allowances, ...doc.job.allowances };
    const fine = (mm: number | undefined) => (this.record.units() === 'mm' ? String(Math.round((mm ?? 0) * 10) / 10) : this.f(mm ?? 0));
    return [
      { field: 'overhangMm', name: 'Overhang', value: fine(a.overhangMm) },
      { field: 'overhangTopMm', name: 'Overhang at the top', value: fine(a.overhangTopMm) },
      { field: 'edgeGapMm', name: 'Edge gap', value: fine(a.edgeGapMm) },
      { field: 'crosscutAllowanceMm', name: 'Lost per crosscut', value: fine(cut.crosscutAllowanceMm) },
      { field: 'slitAllowanceMm', name: 'Lost per slit', value: fine(cut.slitAllowanceMm) },
      { field: 'smallestStripMm', name: 'Smallest strip', value: fine(cut.smallestStripMm) },
      { field: 'largestSheetM2', name: 'Heaviest sheet, m²', value: cut.largestSheetM2 === null ? '' : String(cut.largestSheetM2) },
    ] as const;
  });
  protected setJobField(field: string, box: HTMLInputElement): void {
    const doc = this.record.doc();
    if (!doc) return;
    if (field === 'largestSheetM2') {
      const m2 = box.value.trim() === '' ? null : Number(box.value.replace(',', '.'));
      if (m2 !== null && !(m2 > 0 && m2 <= 100)) return this.settingsNote.set('The heaviest sheet is between 0 and 100 m²; leave it empty for no limit.');
      this.settingsNote.set('');
      return void this.record.set('Heaviest sheet', 'job', doc.job.id, { cut: { ...doc.job.cut, largestSheetM2: m2 } });
    }
    const read = parseLength(box.value, this.record.units());
    if (!read.ok) return this.settingsNote.set(read.message);
    const most = field === 'edgeGapMm' ? 10 : field.startsWith('overhang') || field === 'smallestStripMm' ? 300 : 50;
    if (read.value.lengthMm > most) return this.settingsNote.set(`At most ${most} mm.`);
    this.settingsNote.set('');
    const isAllowance = field.startsWith('overhang') || field === 'edgeGapMm';
    const fields = isAllowance
      ? { allowances: { ...doc.job.allowances, [field]: read.value.lengthMm } }
      : { cut: { ...doc.job.cut, [field]: read.value.lengthMm } };
    void this.record.set('Allowances of the job', 'job', doc.job.id, fields);
  }
  protected setStages(stages: string): void {
    const doc = this.record.doc();
    if (doc) void this.record.set('Cutting stages', 'job', doc.job.id, { cut: { ...doc.job.cut, stages: Number(stages) } });
  }
  protected setRoll(field: 'lengthM' | 'pricePerM', rollId: string, box: HTMLInputElement): void {
    const text = box.value.trim().replace(',', '.');
    const number = Number(text);
    if (!(number >= 0 && number <= 1000) || text === '')
      return this.settingsNote.set(field === 'lengthM' ? 'The roll has between 0 and 1000 m.' : 'A price such as 13.50.');
    this.settingsNote.set('');
    void this.record.set(field === 'lengthM' ? 'Length on the roll' : 'Price of the roll', 'roll', rollId, {
      [field]: field === 'lengthM' ? number : number.toFixed(2),
    });
  }
}
