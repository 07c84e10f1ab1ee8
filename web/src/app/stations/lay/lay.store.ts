import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { FaceFound, LayEntry, LayKind, ShrinkInput, ShrinkPlan, Surface } from '@yellow-pane/contracts';
import {
  cutOfColumn,
  isPane,
  layoutOnWall,
  OFF_ARRIS_MM,
  resolveDry,
  sheetsOfSign,
  shrinkRequestOf,
  surveyColumn,
  surveyCounter,
  surveyPanel,
  surveySign,
  surveyWall,
  tackedFirst,
  wrappedRounds,
} from '@yellow-pane/core';
import { contentHash, formatLength } from '@yellow-pane/core/ground';
import {
  columnFigures,
  counterFigures,
  signFigures,
  panelFigures,
  wallFigures,
  cornersToLay,
  defaultLay,
  heatCoverOf,
  isOfThisVisit,
  layPaneOf,
  layProgress,
  linesInForce,
  nextStep,
  rollOfPane,
  sheetOfSurface,
  squeegeeOfSurface,
  stepSetOf,
  type PaneProgress,
  type Step,
} from '@yellow-pane/core/lay';
import { ShrinkSearch } from '../../compute/shrink-search';
import { LayQueue } from '../../record/lay-queue';
import { RecordStore } from '../../record/record.store';
import { Bell } from './bell';

/** A wait that had no more left at the last tick than this has run out; timers of a page in the background may come a minute late. */
const RING_WITHIN_MS = 90_000;

/** A pane of the walk, and how far it has come. */
export interface LayPaneRow {
  readonly surface: Surface;
  readonly place: string;
  readonly progress: PaneProgress;
}
/** Something that runs by itself on a pane. */
export interface RunningWait {
  readonly surface: Surface;
  readonly what: string;
  readonly minutesLeft: number;
  /** Tells one wait from another. */
  readonly key: string;
}

/** The work on the glass: panes in walking order, the one in hand, its steps, what waits, and what is written down. */
@Injectable()
export class LayStore {
  private readonly record = inject(RecordStore);
  readonly queue = inject(LayQueue);
  /** Ticks, so that waits run down; what counts is in the log. */
  readonly nowMs = signal(Date.now());
  /** Why the last tap was not kept. */
  readonly trouble = signal<string | null>(null);
  /** A place of a textured wall that is tapped done by itself, at the steps that go place by place. */
  readonly placeInHand = signal<{ readonly name: string; readonly done: () => void } | null>(null);
  /** The step that is looked at, when it is not the next one: one may look back. */
  readonly lookedAt = signal<string | null>(null);

  readonly settings = computed(() => this.record.doc()?.job.lay ?? defaultLay);
  readonly set = computed(() => {
    const doc = this.record.doc();
    return doc ? stepSetOf(doc.job.firmId, doc.stepSets, doc.layEntries) : null;
  });
  private readonly progress = computed(() => {
    const doc = this.record.records();
    return doc ? layProgress(doc) : new Map<string, PaneProgress>();
  });
  readonly rows = computed<LayPaneRow[]>(() => {
    const doc = this.record.records();
    const progress = this.progress();
    return (doc?.surfaces ?? []).flatMap((surface) => {
      const p = progress.get(surface.id);
      return p ? [{ surface, progress: p, place: doc!.places.find((x) => x.id === surface.placeId)?.name ?? '' }] : [];
    });
  });
  readonly doneCount = computed(() => this.rows().filter((r) => r.progress.state === 'done').length);
  readonly here = computed(() => this.rows().find((r) => r.surface.id === this.record.selectedId()) ?? null);
  /** The surface in hand where it is a pane of glass. */
  readonly glass = computed(() => {
    const here = this.here();
    return here && isPane(here.surface) ? here.surface : null;
  });
  /** The pane’s own figures, and its outline as seen from the face that is worked on. */
  readonly pane = computed(() => {
    const [doc, glass] = [this.record.records(), this.glass()];
    return doc && glass ? layPaneOf(glass, doc) : null;
  });
  /** The column in hand with its pieces, which its steps are drawn by. */
  readonly column = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    if (!doc || here?.surface.kind !== 'column') return null;
    const { surface } = here;
    const film = doc.films.find((f) => f.id === surface.filmId);
    const { body } = surveyColumn(surface, doc).survey;
    const figures = columnFigures(surface, doc);
    return film && body && figures ? { body, figures, pieces: cutOfColumn(surface, doc, film).pieces } : null;
  });
  /** The panel in hand, which its steps are drawn by. */
  readonly panel = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    if (!doc || here?.surface.kind !== 'panel') return null;
    const { surface } = here;
    const { outline } = surveyPanel(surface, doc).survey.face;
    const figures = panelFigures(surface, doc);
    return outline && figures ? { surface, outline, figures, school: resolveDry(doc, surface).corner } : null;
  });
  /** The wall in hand with its drops, which its steps are drawn by. */
  readonly wall = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    if (!doc || here?.surface.kind !== 'wall') return null;
    const { surface } = here;
    const film = doc.films.find((f) => f.id === surface.filmId);
    const { body, corners } = surveyWall(surface, doc).survey;
    const figures = wallFigures(surface, doc);
    return film && body && figures
      ? { surface, body, corners, figures, layout: layoutOnWall(surface, doc, film), cornerFigures: cornersToLay(surface, doc) }
      : null;
  });
  /** The counter in hand, which its steps are drawn by. */
  readonly counter = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    if (!doc || here?.surface.kind !== 'counter') return null;
    const { surface } = here;
    const { body, edge } = surveyCounter(surface, doc).survey;
    const figures = counterFigures(surface, doc);
    const dry = resolveDry(doc, surface);
    const girthMm = edge?.girthMm ?? 0;
    const f = (mm: number) => formatLength(mm, doc.job.units);
    return body && figures
      ? {
          surface,
          body,
          figures,
          school: dry.corner,
          first: tackedFirst(surface.sides),
          edge: { onTop: f(dry.lapMm), edge: f(girthMm), under: f(dry.returnMm), ruler: f(OFF_ARRIS_MM) },
          rounds: wrappedRounds(body, surface.sides, girthMm, dry, doc.films.find((x) => x.id === surface.filmId) ?? null),
        }
      : null;
  });
  /** The sign in hand with its sheets, which its steps are drawn by. */
  readonly sign = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    if (!doc || here?.surface.kind !== 'sign') return null;
    const { surface } = here;
    const film = doc.films.find((f) => f.id === surface.filmId);
    const { ground, marks } = surveySign(surface, doc).survey;
    const figures = signFigures(surface, doc);
    return film && ground && figures ? { surface, ground, marks, figures, sheets: sheetsOfSign(surface, doc, film) } : null;
  });
  /** What of the surface in hand was stretched and wants its figure; null: nothing, or it has no such step. */
  readonly heatCover = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    return doc && here && this.allSteps().some((s) => s.reading === 'film') ? heatCoverOf(here.surface, doc) : null;
  });
  readonly sheet = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    return doc && here ? sheetOfSurface(here.surface, doc) : null;
  });
  private readonly search = inject(ShrinkSearch);
  private readonly made = signal<{ key: string; plan: ShrinkPlan | null } | null>(null);
  private readonly shrinkInput = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    const glass = this.glass();
    const film = doc?.films.find((f) => f.id === here?.surface.filmId);
    const asked = doc && glass?.curved && film ? shrinkRequestOf(glass, { ...doc, job: { ...doc.job, units: this.record.units() } }, film) : null;
    return asked && 'input' in asked ? asked.input : null;
  });
  /** The shrink plan of the curved pane in hand; null: it is flat, or not worked out yet. */
  readonly formed = computed(() => {
    const [input, made] = [this.shrinkInput(), this.made()];
    return input && made?.key === contentHash(input) ? made.plan : null;
  });
  readonly strokes = computed(() => {
    const [doc, glass] = [this.record.records(), this.glass()];
    return doc && glass ? squeegeeOfSurface(glass, doc, this.formed()) : null;
  });
  /** All steps, those of later visits last in the list as they stand in it. */
  readonly allSteps = computed<readonly Step[]>(() => this.sheet()?.steps ?? []);
  /** Steps of this visit. */
  readonly steps = computed<readonly Step[]>(() => this.allSteps().filter(isOfThisVisit));
  readonly next = computed(() => (this.here() ? nextStep(this.steps(), this.here()!.progress.done) : null));
  readonly step = computed(() => this.allSteps().find((s) => s.key === this.lookedAt()) ?? this.next());
  readonly stepNumber = computed(() => this.steps().findIndex((s) => s.key === this.step()?.key) + 1);
  /** Lines about the pane in hand, newest first. */
  readonly lines = computed(() => this.linesOf(this.here()?.surface.id ?? null));
  readonly siteLines = computed(() => this.linesOf(null));
  readonly waits = computed<RunningWait[]>(() => {
    const now = this.nowMs();
    return this.rows()
      .flatMap((r) =>
        r.progress.waits
          .map((w) => ({ surface: r.surface, what: w.what, minutesLeft: (Date.parse(w.until) - now) / 60_000, key: `${r.surface.id}/${w.what}/${w.until}` }))
          .filter((w) => w.minutesLeft > 0),
      )
      .sort((a, b) => a.minutesLeft - b.minutesLeft);
  });
  /** Waits that ran out while this page was open, until somebody looks. */
  readonly over = signal<readonly RunningWait[]>([]);
  readonly roll = computed(() => {
    const [doc, here] = [this.record.records(), this.here()];
    return doc && here ? rollOfPane(here.surface.id, doc) : null;
  });
  /** When the step in hand began: with the line before it. */
  readonly stepBeganMs = computed(() => {
    const last = this.lines().find((e) => e.kind === 'begin' || e.kind === 'step-done' || e.kind === 'mended');
    return last ? Date.parse(last.occurredAt) : null;
  });

  constructor() {
    effect(() => {
      const input = this.shrinkInput();
      if (input) untracked(() => void this.planForm(input));
    });
    void this.queue.start();
    const bell = inject(Bell);
    const timer = setInterval(() => {
      const running = this.waits();
      this.nowMs.set(Date.now());
      const still = new Set(this.waits().map((w) => w.key));
      // one that was taken back meanwhile is not over
      const over = running.filter((w) => !still.has(w.key) && w.minutesLeft * 60_000 <= RING_WITHIN_MS);
      if (over.length === 0) return;
      this.over.update((list) => [...list, ...over]);
      bell.ring();
    }, 1000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  private async planForm(input: ShrinkInput): Promise<void> {
    const key = contentHash(input);
    if (this.made()?.key === key) return;
    const made = await this.search.plan(input);
    this.made.set({ key, plan: made.ok ? made.value : null });
  }

  private linesOf(surfaceId: string | null): LayEntry[] {
    return linesInForce((this.record.doc()?.layEntries ?? []).filter((e) => e.surfaceId === surfaceId || e.kind === 'correction'))
      .filter((e) => e.surfaceId === surfaceId && e.kind !== 'correction')
      .reverse();
  }

  /** Writes one line down. @returns whether it is safe here */
  async write(kind: LayKind, label: string, more: Partial<LayEntry> = {}, photo: Blob | null = null): Promise<boolean> {
    const surface = this.here()?.surface ?? null;
    const set = this.set();
    if (!set) return false;
    try {
      await this.queue.add(label, { kind, surfaceId: surface?.id ?? null, stepSetId: set.id, ...more }, photo);
      this.trouble.set(null);
      return true;
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
      return false;
    }
  }

  /** The pane is laid; on to the next one of the walk that is not. @param text a word that belongs to it */
  async done(text = ''): Promise<void> {
    const here = this.here();
    if (!here) return;
    const roll = this.roll();
    const isKept = await this.write('pane-done', `${here.surface.name} is laid`, { roll: roll && { rollId: roll.id, lot: roll.lot }, text });
    if (isKept) this.goOn();
  }
  goOn(): void {
    const rows = this.rows();
    const at = rows.findIndex((r) => r.surface.id === this.record.selectedId());
    const next = [...rows.slice(at + 1), ...rows.slice(0, at)].find((r) => r.progress.state === 'not-begun' || r.progress.state === 'in-hand');
    this.lookedAt.set(null);
    if (next) this.record.select(next.surface.id);
  }

  /** A step is done; with the last one the pane is. */
  async stepDone(text = ''): Promise<void> {
    const [here, step] = [this.here(), this.next()];
    if (!here || !step) return;
    if (this.lookedAt()) return void this.lookedAt.set(null);
    const isLast = this.steps().filter((s) => !here.progress.done.has(s.key)).length === 1;
    if (!(await this.write('step-done', `${here.surface.name}: ${step.title}`, { stepKey: step.key, text }))) return;
    if (isLast) await this.done();
  }
  /** A step of a later visit is done: the bead is in, the stops are back. */
  async returnDone(key: string, title: string): Promise<void> {
    const here = this.here();
    if (here) await this.write('step-done', `${here.surface.name}: ${title}`, { stepKey: key });
  }
  /** What the face turned out to be, before anything hard touches it. */
  async found(what: FaceFound, words: string): Promise<void> {
    const here = this.here();
    if (here) await this.write('found', `${here.surface.name}: ${words}`, { found: what, stepKey: this.step()?.key ?? null });
  }
  async begin(): Promise<void> {
    const here = this.here();
    if (here?.progress.state === 'not-begun') await this.write('begin', `${here.surface.name} is in hand`);
  }
  /** Takes a line back with a further one. */
  async correct(line: LayEntry, why: string): Promise<void> {
    await this.write('correction', 'Take a line back', { surfaceId: line.surfaceId, correctsId: line.id, text: why });
  }
}
