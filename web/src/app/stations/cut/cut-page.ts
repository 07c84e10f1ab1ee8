import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { CutMethod, Roll, Pane, Sign, SurfaceKind } from '@yellow-pane/contracts';
import {
  isPane,
  filmsToCut,
  isFilmUpOn,
  isForDesigns,
  knifeOrder,
  paneToPiece,
  pieceNumber,
  piecePlaces,
  resolveAllowances,
  sheetsOfSign,
  startEdge,
  surveySurface,
  type LetterSheet,
  type MethodFigures,
} from '@yellow-pane/core';
import { formatLength, formatLong, moneyText, told } from '@yellow-pane/core/ground';
import { LayoutSearch } from '../../compute/layout-search';
import { methodNames } from '@yellow-pane/core/cut';
import { BenchDrawing } from '../../kit/bench-drawing';
import { BenchList } from '../../kit/bench-list';
import { LetterSheetDrawing } from '../../kit/letter-sheet';
import { Tabs } from '../../kit/tabs';
import { Why } from '../../kit/why';
import { Device } from '../../record/device';
import { OneMore } from '../../record/one-more';
import { PlansStore } from '../../record/plans.store';
import { RecordStore } from '../../record/record.store';
import { BenchSettings } from './parts/bench-settings';
import { CostPanel } from './parts/cost-panel';
import { DesignPanel } from './parts/design-panel';
import { InHandPanel } from './parts/in-hand-panel';
import { PartDrawing } from './parts/part-drawing';
import { PieceDrawing } from './parts/piece-drawing';
import { PlotLinks } from './parts/plot-links';
import { PlanNews } from './parts/plan-news';
import { RollsPanel } from './parts/rolls-panel';
import { SeamPanel } from './parts/seam-panel';

/** Steps of the knife that are drawn in one go. */
const AT_A_TIME = 60;
const NO_FILM = 'No film chosen for this surface.';

interface Tab {
  readonly id: 'methods' | 'bench' | 'letters' | 'seam' | 'design' | 'cost' | 'hand';
  readonly name: string;
}
const common: readonly Tab[] = [
  { id: 'cost', name: 'What it costs' },
  { id: 'hand', name: 'Piece in hand' },
];
/** What there is to say of the pieces of each kind of surface. */
const tabsOf: { readonly [K in SurfaceKind]: readonly Tab[] } = {
  pane: [{ id: 'methods', name: 'Methods' }, { id: 'seam', name: 'Seams' }, { id: 'design', name: 'Design' }, ...common],
  column: [{ id: 'bench', name: 'Bench cuts' }, ...common],
  panel: [{ id: 'bench', name: 'Bench cuts' }, ...common],
  wall: [{ id: 'bench', name: 'Bench cuts' }, ...common],
  counter: [{ id: 'bench', name: 'Bench cuts' }, ...common],
  sign: [{ id: 'letters', name: 'Sheets of letters' }, ...common],
};

/** Cut: the pieces of one film on its rolls, the methods compared, the knife order to tick off. */
@Component({
  selector: 'yp-cut-page',
  imports: [
    BenchDrawing,
    BenchList,
    PieceDrawing,
    PartDrawing,
    Why,
    SeamPanel,
    DesignPanel,
    LetterSheetDrawing,
    PlotLinks,
    CostPanel,
    InHandPanel,
    PlanNews,
    RollsPanel,
    BenchSettings,
    Tabs,
    RouterLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cut-page.html',
})
export class CutPage {
  protected readonly record = inject(RecordStore);
  protected readonly plans = inject(PlansStore);
  private readonly search = inject(LayoutSearch);
  private readonly device = inject(Device);
  private readonly pieceAgain = inject(OneMore);
  protected readonly names = methodNames;
  protected readonly methods = signal<{ key: string; figures: MethodFigures[] } | null>(null);
  private readonly pullCost = signal<{ key: string; money: number | null } | null>(null);
  /** What the longest pull costs on this film, where it is worth telling. */
  protected readonly pullWords = computed(() => {
    const [cost, methods, plan] = [this.pullCost(), this.methods(), this.plan()];
    if (!cost || cost.key !== methods?.key || !plan) return '';
    if (cost.money === null) return 'Pulls twice as long would take pieces that this bench has no room for.';
    if (cost.money < Math.max(1, 0.002 * plan.layout.cost)) return '';
    return `Pulls twice as long would save about ${this.euro(cost.money)} on this film.`;
  });
  protected readonly shownFilmId = signal<string | null>(null);
  /** Why a step could not be ticked. */
  protected readonly tickNote = signal('');
  protected readonly tabs = computed(() => tabsOf[this.record.surface()?.kind ?? 'pane']);
  protected readonly openTab = signal<Tab['id']>('methods');
  /** The tab that is open, or the first where this kind of surface has not that one. */
  protected readonly tab = computed(() => (this.tabs().some((t) => t.id === this.openTab()) ? this.openTab() : this.tabs()[0]!.id));
  /** Which of several pieces of the pane is shown. */
  protected readonly part = signal(0);

  /** Films that some pane of the job has, or that the knife follows a plan of. */
  protected readonly films = computed(() => {
    const doc = this.record.doc();
    return doc ? filmsToCut(doc) : [];
  });
  protected readonly film = computed(() => {
    const films = this.films();
    const of = (id: string | null | undefined) => films.find((f) => f.id === id);
    // the film of the pane in hand is shown with it; one that was picked may have no pane any more
    return of(this.shownFilmId()) ?? of(this.record.surface()?.filmId) ?? films[0] ?? null;
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
  /** How many steps of a long list are drawn by now: the rest follows while the page already answers. */
  private readonly listed = signal(AT_A_TIME);
  /** Roll by roll, as a person takes them from the rack. */
  protected readonly stepsByRoll = computed(() => {
    const film = this.film();
    const out: { roll: Roll; startEdge: string; steps: ReturnType<typeof knifeOrder> }[] = [];
    for (const s of this.steps().slice(0, this.listed())) {
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
  /** Another plan may be on its way: of what was changed last, or searched. */
  protected readonly isBusy = computed(() => this.plans.isBehind() || this.plans.sought().includes(this.film()?.id ?? ''));
  protected readonly lockedIds = computed(() => this.plan()?.stored?.lockedPieceIds ?? []);

  /** The selected pane with its piece, or why it has none. */
  protected readonly here = computed(() => {
    const doc = this.record.records();
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
      places: isPane(surface) && (pieces.length > 1 || piece?.isPlotted) ? this.placesOf(surface) : [],
      joined,
      unplaced,
      // what only letters have: the sheet they are on
      sheet: surface.kind === 'sign' && piece ? this.sheetOf(surface, piece.id) : null,
      // what only glass has: its outline on the drawing, seen from one side
      glass: isPane(surface)
        ? {
            pane: surface,
            seenFrom: (surface.seenFrom === 'room') === this.record.otherSide() ? 'street' : 'room',
            survey: surveySurface(surface, doc).survey,
            allowances: resolveAllowances(doc, surface),
          }
        : null,
      blocked: !surface.filmId ? NO_FILM : cut && 'blocked' in cut.answer ? cut.answer.blocked : null,
      note: cut && 'piece' in cut.answer ? (cut.answer.note ?? cut.answer.piece.fallback ?? joined?.why[0] ?? null) : null,
    };
  });
  private sheetOf(surface: Sign, pieceId: string): LetterSheet | null {
    const doc = this.record.records();
    const film = doc?.films.find((f) => f.id === surface.filmId);
    return doc && film ? (sheetsOfSign(surface, doc, film)[pieceNumber(surface, pieceId)] ?? null) : null;
  }
  private placesOf(surface: Pane): ReturnType<typeof piecePlaces> {
    const doc = this.record.records();
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

  protected readonly idleRolls = computed(() => {
    const own = this.plan()?.stored?.id;
    const idle = this.rolls().filter((r) => !this.usedRolls().includes(r) && (r.fromPlanId === null || r.fromPlanId !== own));
    return idle.length ? `${idle.map((r) => r.label).join(', ')} ${idle.length === 1 ? 'is' : 'are'} not needed` : 'everything of this film is used';
  });

  /** Metres and money in plain words. */
  protected readonly money = computed(() => {
    const plan = this.plan();
    const doc = this.record.doc();
    if (!plan || !doc) return null;
    const { layout } = plan;
    const isLeftOut = new Set(layout.unplaced.map((u) => u.pieceId));
    const glassM2 = plan.pieces.reduce((s, p) => s + (isLeftOut.has(p.id) ? 0 : p.widthMm * p.heightMm), 0) / 1e6;
    const rollM2 = layout.rolls.reduce((s, r) => s + (r.usedMm * (this.rolls().find((x) => x.id === r.rollId)?.widthMm ?? 0)) / 1e6, 0);
    const saves = layout.boundCost === null ? null : layout.cost - layout.boundCost;
    const price = rollM2 > 0 ? layout.cost / rollM2 : 0;
    return {
      used: formatLong(layout.usedMm, this.record.units()),
      cost: this.euro(layout.cost),
      waste: `${told(`${Math.max(0, rollM2 - glassM2).toFixed(1)} m²`, this.record.units())} of it is no piece, ${this.euro(Math.max(0, rollM2 - glassM2) * price)}.`,
      best:
        saves === null
          ? plan.running
            ? 'Still looking for a shorter plan …'
            : ''
          : saves < 0.005 * layout.cost || saves < 0.5
            ? 'No plan of these pieces on these rolls costs noticeably less: that is proven.'
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

  /** Methods side by side; the one in hand with the figures of the plan that is shown, which was searched longer. */
  protected readonly compared = computed(() => {
    const [job, plan] = [this.record.doc()?.job, this.plan()];
    return (this.methods()?.figures ?? []).map((m) => {
      const own =
        m.method === job?.method && plan && !plan.isStale && plan.layout.usedMm > 0 ? { usedM: plan.layout.usedMm / 1000, cost: plan.layout.cost } : {};
      const shown = { ...m, ...own };
      return { ...shown, used: formatLong(1000 * shown.usedM, this.record.units()) };
    });
  });

  constructor() {
    effect(() => {
      if (this.listed() < this.steps().length) setTimeout(() => this.listed.update((n) => n + AT_A_TIME));
    });
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
    const doc = this.record.records();
    if (!doc || this.methods()?.key === filmId + key) return;
    this.methods.set({ key: filmId + key, figures: [] });
    const { memo: _memo, ...plain } = doc;
    const figures = await this.search.methods(plain, doc.job.cut, filmId);
    if (this.methods()?.key !== filmId + key) return;
    this.methods.set({ key: filmId + key, figures });
    const pullCost = await this.search.pullCost(plain, filmId);
    if (this.methods()?.key === filmId + key) this.pullCost.set({ key: filmId + key, money: pullCost });
  }

  protected euro(amount: number): string {
    return moneyText(amount, this.record.doc()?.job.currency ?? 'EUR', amount >= 100);
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
  protected anyWayRound(): void {
    const doc = this.record.doc();
    if (doc) void this.record.set('Pieces may lie any way round', 'job', doc.job.id, { cut: { ...doc.job.cut, oneDirection: false } });
  }

  protected tick(key: string): void {
    const film = this.film();
    if (film) void this.plans.tick(film.id, key, !this.plans.done().has(key)).then((why) => this.tickNote.set(why ?? ''));
  }
  /** A spoiled piece: one more of this pane's piece goes onto the roll. */
  protected oneMore(): void {
    const here = this.here();
    if (!here?.piece || !this.device.person()) return;
    // one more of a piece that is itself one more is one more of what that was
    const { extraPieces } = here.surface;
    const again = extraPieces.find((e) => e.id === here.piece!.id);
    const isOfSeveral = here.pieces.length - extraPieces.filter((e) => here.pieces.some((p) => p.id === e.id)).length > 1;
    this.pieceAgain.ask(here.surface.id, again ? again.part : isOfSeveral ? here.part : null, here.piece.label, 'spoiled');
    // asked for while the knife is at work: planned anew from what is in the van, and booked off at once
    const film = this.film();
    if (film && this.plan()?.stored?.status === 'committed') void this.plans.replan(film.id, true);
  }
  /** To another roll or leftover, onto a drop of its own there. */
  protected moveTo(box: HTMLSelectElement): void {
    const here = this.here();
    const film = this.film();
    const rollId = box.value;
    box.value = '';
    if (film && here?.piece && rollId)
      void this.plans.move(film.id, (here.joined ?? here.piece).id, { rollId, dropIndex: null }).then((why) => this.tickNote.set(why ?? ''));
  }
  protected serveNoMore(): void {
    const s = this.record.surface();
    if (s) void this.record.set(`${s.name} gets its own piece`, 'surface', s.id, { servedById: null });
  }
  protected lock(): void {
    const film = this.film();
    const here = this.here();
    if (film && here?.piece) void this.plans.toggleLock(film.id, (here.joined ?? here.piece).id);
  }
}
