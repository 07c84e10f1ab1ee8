import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { newRoll, type CutMethod, type CutSettings, type FilmOffer, type Patch, type Roll, type Surface } from '@yellow-pane/contracts';
import {
  availableForJobMm,
  compareWithPlan,
  isFilmUpOn,
  isForDesigns,
  isTaken,
  knifeOrder,
  paneToPiece,
  piecePlaces,
  promiseNeededMm,
  resolveAllowances,
  reservedMm,
  startEdge,
  surveySurface,
  type MethodFigures,
  type MoveTarget,
  type ServesElsewhere,
} from '@yellow-pane/core';
import { formatLength, parseLength } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { LayoutSearch } from '../../compute/layout-search';
import { methodNames } from '../../kit/method-names';
import { RollView } from '../../kit/roll-view';
import { Why } from '../../kit/why';
import { Device } from '../../record/device';
import { newest, PlansStore } from '../../record/plans.store';
import { RecordStore } from '../../record/record.store';
import { CostPanel } from './parts/cost-panel';
import { DesignPanel } from './parts/design-panel';
import { InHandPanel } from './parts/in-hand-panel';
import { PartDrawing } from './parts/part-drawing';
import { PieceDrawing } from './parts/piece-drawing';
import { SeamPanel } from './parts/seam-panel';

/** Height in which one roll is drawn, px; a leftover in proportion. */
const ROLL_PX = 132;

/** Cut: the pieces of one film on its rolls, the methods compared, the knife order to tick off. */
@Component({
  selector: 'yp-cut-page',
  imports: [RollView, PieceDrawing, PartDrawing, Why, SeamPanel, DesignPanel, CostPanel, InHandPanel, RouterLink],
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
  protected readonly tabs = [
    { id: 'methods', name: 'Methods' },
    { id: 'seam', name: 'Seams' },
    { id: 'design', name: 'Design' },
    { id: 'cost', name: 'What it costs' },
    { id: 'hand', name: 'Piece in hand' },
  ] as const;
  protected readonly tab = signal<(typeof this.tabs)[number]['id']>('methods');
  /** Which of several pieces of the pane is shown. */
  protected readonly part = signal(0);
  protected readonly dragNote = signal('');
  protected readonly moveNote = signal('');

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
    const film = this.film();
    const roll = (id: string) => this.rolls().find((r) => r.id === id);
    return plan && film
      ? knifeOrder(
          plan.layout,
          plan.pieces,
          (id) => roll(id)?.widthMm ?? 0,
          this.record.units(),
          (id) => isFilmUpOn(roll(id), film),
        )
      : [];
  });
  /** Roll by roll, as a person takes them from the rack. */
  protected readonly stepsByRoll = computed(() => {
    const film = this.film();
    const out: { roll: Roll; startEdge: string; steps: ReturnType<typeof knifeOrder> }[] = [];
    for (const s of this.steps()) {
      const roll = this.rolls().find((r) => r.id === s.rollId);
      if (!roll || !film) continue;
      const last = out.at(-1);
      if (last?.roll.id === roll.id) last.steps.push(s);
      else out.push({ roll, startEdge: startEdge(isFilmUpOn(roll, film)), steps: [s] });
    }
    return out;
  });
  protected readonly canDesign = computed(() => {
    const film = this.film();
    return film !== null && isForDesigns(film);
  });
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
    const planned = this.plan()?.pieces.filter((p) => p.surfaceId === surface.id && p.parts.length === 0) ?? [];
    const pieces = planned.length ? planned : (cut?.pieces ?? []);
    const part = Math.min(this.part(), Math.max(0, pieces.length - 1));
    const piece = pieces[part] ?? null;
    const joined = this.plan()?.pieces.find((p) => p.parts.some((x) => x.id === surface.id)) ?? null;
    const unplaced = this.plan()?.layout.unplaced.find((u) => u.pieceId === (joined ?? piece ?? surface).id)?.reason ?? null;
    return {
      surface,
      piece,
      pieces,
      part,
      places: pieces.length > 1 || piece?.isPlotted ? this.placesOf(surface) : [],
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
  private placesOf(surface: Surface): ReturnType<typeof piecePlaces> {
    const doc = this.record.doc();
    const film = doc?.films.find((f) => f.id === surface.filmId);
    return doc && film ? piecePlaces(paneToPiece(surface, doc, film)) : [];
  }

  /** Panes that are on no roll, each with the reason. */
  protected readonly notLaid = computed(() => {
    const film = this.film();
    const plan = this.plan();
    if (!film) return [];
    const blocked = (this.plans.inputs().get(film.id)?.cuts ?? []).flatMap((c) =>
      'blocked' in c.answer ? [{ id: c.surface.id, surfaceId: c.surface.id, name: c.surface.name, why: c.answer.blocked }] : [],
    );
    const unplaced = (plan?.layout.unplaced ?? []).flatMap((u) => {
      const piece = plan!.pieces.find((p) => p.id === u.pieceId);
      return piece ? [{ id: piece.id, surfaceId: piece.surfaceId, name: piece.label, why: u.reason }] : [];
    });
    return [...blocked, ...unplaced];
  });

  /** The rolls of this film as the plan and the stock have them: those cut from first. */
  protected readonly rollLines = computed(() => {
    const doc = this.record.doc();
    const film = this.film();
    const plan = this.plan();
    if (!doc || !film || !plan) return [];
    const widest = Math.max(...this.rolls().map((r) => r.widthMm));
    return this.usedRolls().map((roll) => {
      const usedMm = plan.layout.rolls.find((r) => r.rollId === roll.id)?.usedMm ?? 0;
      const promisedMm = reservedMm(roll.id, doc.stock.reservations) - reservedMm(roll.id, doc.stock.reservations, doc.job.id);
      const wound = roll.wound ?? film.wound;
      return {
        roll,
        usedMm,
        availableMm: availableForJobMm(roll, doc.stock, doc.job.id),
        othersMm: reservedMm(roll.id, doc.stock.reservations, doc.job.id),
        promisedMm,
        isPromiseOff: Math.abs(promisedMm - promiseNeededMm(plan, roll, doc.stock, doc.job.id)) > 1,
        // the record knows at once; what is shown of the plan follows a moment later
        isTaken: isTaken(newest(doc.plans, film.id), roll.id),
        // a length worked out from diameters is only sure within two standard deviations
        sureM:
          roll.lengthSigmaM > 0 && usedMm > availableForJobMm(roll, doc.stock, doc.job.id) - 2000 * roll.lengthSigmaM
            ? (availableForJobMm(roll, doc.stock, doc.job.id) / 1000 - 2 * roll.lengthSigmaM).toFixed(1)
            : null,
        face: wound === 'unknown' ? 'face up not known: try two tape tabs' : wound === 'liner-in' ? 'lies film up' : 'lies liner up',
        px: Math.max(54, Math.round((ROLL_PX * roll.widthMm) / widest)),
      };
    });
  });
  protected readonly idleRolls = computed(() => {
    const own = this.plan()?.stored?.id;
    const idle = this.rolls().filter((r) => !this.usedRolls().includes(r) && (r.fromPlanId === null || r.fromPlanId !== own));
    return idle.length ? `${idle.map((r) => r.label).join(', ')} ${idle.length === 1 ? 'is' : 'are'} not needed` : 'everything of this film is used';
  });

  /** What a re-measure made of a committed plan. */
  protected readonly replan = computed(() => {
    const film = this.film();
    const plan = this.plan();
    const input = film ? this.plans.inputs().get(film.id) : undefined;
    return film && plan?.isStale && plan.stored && input
      ? compareWithPlan(plan.stored, input, this.plans.finished(), this.record.units(), film.direction !== 'none')
      : null;
  });
  /** Film that is missing, and what it is sold in. */
  protected readonly shortage = computed(() => {
    const plan = this.plan();
    const film = this.film();
    if (!plan || !film || plan.layout.shortMm === 0) return null;
    const { shortMm, shortWidthMm } = plan.layout;
    const ids = new Set(plan.layout.unplaced.filter((u) => u.reason.includes('more of')).map((u) => u.pieceId));
    const names = plan.pieces.filter((p) => ids.has(p.id)).map((p) => p.label);
    return {
      words: `${(shortMm / 1000).toFixed(1)} m of ${this.f(shortWidthMm ?? 0)} are missing, for ${names.slice(0, 6).join(', ')}${names.length > 6 ? ` and ${names.length - 6} more` : ''}.`,
      offers: film.offers.filter((o) => shortWidthMm !== null && o.widthMm >= shortWidthMm - 1).slice(0, 2),
    };
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
      this.record.selectedId();
      untracked(() => {
        this.part.set(0);
        if (film) this.shownFilmId.set(film);
      });
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
      { firm: doc.firm, job: doc.job, surfaces: doc.surfaces, readings: doc.readings, films: doc.films, rolls: doc.rolls, stock: doc.stock, entries: [] },
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
    if (film) void this.plans.tick(film.id, key, !this.plans.done().has(key)).then((why) => this.settingsNote.set(why ?? ''));
  }
  /** A spoiled piece: one more of this pane's piece goes onto the roll. */
  protected oneMore(): void {
    const doc = this.record.doc();
    const here = this.here();
    const person = this.device.person();
    if (!doc || !here?.piece || !person) return;
    const at = new Date().toISOString();
    const extra = { id: uuidv7(), reason: 'spoiled', at, part: here.pieces.length > 1 ? here.part : null };
    void this.record.set(`One more of ${here.piece.label}`, 'surface', here.surface.id, { extraPieces: [...here.surface.extraPieces, extra] });
    // asked for while the knife is at work: planned anew from what is in the van, and booked off at once
    const film = this.film();
    if (film && this.plan()?.stored?.status === 'committed') this.plans.replan(film.id, true);
  }
  /** A piece that was cut wrong goes to another pane; its own pane gets a new one. */
  protected serve(s: ServesElsewhere): void {
    const doc = this.record.doc();
    const wrong = doc?.surfaces.find((x) => x.id === s.pieceId.split('.')[0]);
    if (!doc) return;
    const patches: Patch[] = [{ op: 'set', kind: 'surface', id: s.forSurfaceId, field: 'servedById', value: s.pieceId }];
    const extra = { id: uuidv7(), reason: `serves ${s.forLabel}`, at: new Date().toISOString(), part: null };
    if (wrong?.filmId) patches.push({ op: 'set', kind: 'surface', id: wrong.id, field: 'extraPieces', value: [...wrong.extraPieces, extra] });
    void this.record.change(`${s.label} serves ${s.forLabel}`, patches);
  }
  protected serveNoMore(): void {
    const s = this.record.surface();
    if (s) void this.record.set(`${s.name} gets its own piece`, 'surface', s.id, { servedById: null });
  }
  /** A roll that is planned on and still has to be ordered. */
  protected order(offer: FilmOffer): void {
    const film = this.film();
    if (!film) return;
    const number = this.rolls().filter((r) => r.isToOrder).length + 1;
    const { widthMm, lengthM } = offer;
    const pricePerM = (Number(offer.pricePerRoll) / lengthM).toFixed(4);
    const value = newRoll({ id: uuidv7(), filmId: film.id, label: `to order ${number}`, widthMm, lengthM, pricePerM, isToOrder: true });
    void this.record.change(`Plan on a new roll of ${film.name}`, [{ op: 'add', kind: 'roll', id: value.id, value }]);
  }

  /** While a piece is carried over the roll: what it would do there; when it is let go: it is done, or the reason why not. */
  protected drag(rollId: string, e: { pieceId: string; dropIndex: number | null; isDone: boolean }): void {
    const to: MoveTarget = { rollId, dropIndex: e.dropIndex };
    this.dragNote.set('');
    if (e.isDone) void this.move(e.pieceId, to);
    else this.dragNote.set(this.saidOf(e.pieceId, to));
  }
  protected byKeys(e: { pieceId: string; by: -1 | 1 | 'end' | 'turn' }): void {
    const at = this.plan()?.layout.rolls.flatMap((r) => r.drops.map((d, i) => ({ rollId: r.rollId, i, d }))).find(({ d }) => d.columns.some((c) => c.rows.some((w) => w.pieces.some((p) => p.pieceId === e.pieceId)))); // prettier-ignore
    if (!at) return;
    const turned = at.d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces)).find((p) => p.pieceId === e.pieceId)!.turn % 180 !== 0;
    if (e.by === 'turn') void this.move(e.pieceId, { rollId: at.rollId, dropIndex: at.i, isTurned: !turned });
    else if (e.by === 'end') void this.move(e.pieceId, { rollId: at.rollId, dropIndex: null });
    else if (at.i + e.by >= 0) void this.move(e.pieceId, { rollId: at.rollId, dropIndex: at.i + e.by });
  }
  /** To another roll or leftover, onto a drop of its own there. */
  protected moveTo(box: HTMLSelectElement): void {
    const here = this.here();
    const rollId = box.value;
    box.value = '';
    if (here?.piece && rollId) void this.move((here.joined ?? here.piece).id, { rollId, dropIndex: null });
  }
  private async move(pieceId: string, to: MoveTarget): Promise<void> {
    const film = this.film();
    if (!film) return;
    const words = this.saidOf(pieceId, to);
    const refused = await this.plans.move(film.id, pieceId, to);
    this.moveNote.set(refused ?? `Moved and locked: ${words}.`);
  }
  /** What a move would do, in waste and money, or why it cannot be. */
  private saidOf(pieceId: string, to: MoveTarget): string {
    const film = this.film();
    const tried = film ? this.plans.tryMove(film.id, pieceId, to) : null;
    if (!tried) return '';
    if (!tried.ok) return tried.message;
    const m = tried.usedDeltaMm / 1000;
    if (Math.abs(m) < 0.0005 && Math.abs(tried.moneyDelta) < 0.005) return 'costs nothing';
    return `${m >= 0 ? 'takes' : 'saves'} ${Math.abs(m).toFixed(2)} m, ${tried.moneyDelta >= 0 ? '+' : '−'}${this.euro(Math.abs(tried.moneyDelta))}`;
  }

  protected setCut(label: string, part: Partial<CutSettings>): void {
    const doc = this.record.doc();
    if (doc) void this.record.set(label, 'job', doc.job.id, { cut: { ...doc.job.cut, ...part } });
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
}
