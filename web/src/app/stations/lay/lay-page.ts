import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { StepDrawing, SurfaceKind } from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '@yellow-pane/core/geometry';
import { HoldButton } from '../../kit/hold-button';
import { measureOf, told, toldAll } from '@yellow-pane/core/ground';
import { readMeasure } from '../../kit/read-measure';

import { Instruments } from '../../instruments/instruments';
import { Device } from '../../record/device';
import { OneMore } from '../../record/one-more';
import { JobProgress } from '../../record/progress';
import { RecordStore } from '../../record/record.store';
import { HourNow } from './hour-now';
import { LayStore } from './lay.store';
import { clockAt, dayAt, foundWords, leftText, stateWords, timerText } from './lay-words';
import { heatAimOf, hollowWord, heatProofs, laidFace, proofText, unprovenEdges, type PaneProgress } from '@yellow-pane/core/lay';
import { FormingDrawing } from './parts/forming-drawing';
import { HeatCard } from './parts/heat-card';
import { HeatProofPanel } from './parts/heat-proof';
import { ColumnDrawing } from '../../kit/column-drawing';
import { PanelDrawing } from '../../kit/panel-drawing';
import { CounterDrawing } from '../../kit/counter-drawing';
import { WallDrawing } from '../../kit/wall-drawing';
import { LayDrawing } from './parts/lay-drawing';
import { LayNumbers } from './parts/lay-numbers';
import { LetterSheetDrawing } from '../../kit/letter-sheet';
import { SignDrawing } from '../../kit/sign-drawing';
import { PhotoButton } from '../../kit/photo-button';
import { ProblemSheet } from './parts/problem-sheet';
import { ReadySheet } from './parts/ready-sheet';
import { CorrugationCard } from './parts/corrugation-card';
import { JointCard } from './parts/joint-card';
import { CornerCard } from './parts/corner-card';
import { DomeCard } from './parts/dome-card';
import { RecessCard } from './parts/recess-card';

/** Wet film goes on at least this warm. @source common practice: 40 °F (5 °C); a film’s own figure comes first */
const COLDEST_C = 5;
/** Glass this warm dries the water under the film. @source house rule, from "still warm from the sun" */
const WARMEST_C = 32;

/** Steps that are drawn by the shrink plan. */
const formingDrawings: ReadonlySet<StepDrawing> = new Set<StepDrawing>(['forming', 'anchor-line', 'quarters']);

/** Glass colder than this gets no gun. @source common practice: 60 °F (15 °C) */
const COLDEST_FOR_GUN_C = 15;

/** A caution of more signs than this takes the room that a phone has for the words of its step. */
const LONG_CAUTION = 110;

/** Height of an outline over its width. */
function heightOf(outline: Polygon): number {
  const box = boundingBox(outline);
  return (box.maxY - box.minY) / (box.maxX - box.minX);
}

/** How each kind is shown as a whole; what is left out is decided by the surface itself. */
const lookOf: { readonly [K in SurfaceKind]: { readonly drawing?: StepDrawing; readonly isTall?: boolean } } = {
  pane: {},
  column: { drawing: 'column-round', isTall: true },
  panel: { drawing: 'panel-face', isTall: true },
  wall: { drawing: 'wall-drops', isTall: false },
  counter: { drawing: 'counter-top', isTall: false },
  sign: { drawing: 'sign-place', isTall: false },
};

/** Lay: for wet hands, on a ladder. One tap a pane, or step by step. */
@Component({
  selector: 'yp-lay-page',
  imports: [
    RouterLink,
    ColumnDrawing,
    CounterDrawing,
    FormingDrawing,
    HeatCard,
    HeatProofPanel,
    HoldButton,
    LayDrawing,
    LayNumbers,
    LetterSheetDrawing,
    PanelDrawing,
    PhotoButton,
    ProblemSheet,
    ReadySheet,
    CorrugationCard,
    CornerCard,
    DomeCard,
    JointCard,
    RecessCard,
    SignDrawing,
    WallDrawing,
  ],
  providers: [LayStore, HourNow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './lay-page.html',
  host: { class: 'block h-full' },
})
export class LayPage {
  protected readonly record = inject(RecordStore);
  protected readonly lay = inject(LayStore);
  protected readonly device = inject(Device);
  protected readonly sheet = signal<'none' | 'panes' | 'problem' | 'ready' | 'more'>('none');
  /** Step by step for this pane, whatever the job does. */
  private readonly stepwise = signal<string | null>(null);
  protected readonly isStepwise = computed(() => {
    const here = this.lay.here();
    return this.lay.settings().way === 'step-by-step' || here?.surface.id === this.stepwise();
  });
  private readonly hour = inject(HourNow);
  /** Whether this is a good hour for the pane in hand; of no more matter once it is laid. */
  protected readonly hourNow = computed(() => {
    const here = this.lay.here();
    const glass = this.lay.glass();
    return here && glass && here.progress.state !== 'done' ? toldAll(this.hour.of(glass), this.record.units()) : null;
  });
  protected seen(key: string, surfaceId: string): void {
    this.lay.over.update((list) => list.filter((w) => w.key !== key));
    this.pick(surfaceId);
  }
  protected readonly stateWords = stateWords;
  protected readonly leftText = leftText;
  protected readonly foundWords = foundWords;
  protected readonly faces = ['plain', 'coated', 'lines', 'grit', 'grit-agreed'] as const;
  /** What nobody knows of the face, with one tap a pane; null: it is known, or a step asks. */
  protected readonly faceAsked = computed(() => {
    const [view, steps] = [this.view(), this.lay.steps()];
    if (!view || view.isDone) return null;
    const asks = steps.find((s) => s.reading === 'face');
    return asks && (!view.step || view.step.reading === 'face') ? asks.text.split('. ')[0]! + '.' : null;
  });
  /** How far a pane is, in a word or two; a laid pane that somebody has to come back to says when. */
  protected stateText(p: PaneProgress): string {
    const [first] = p.returns;
    return first ? `laid, back ${this.dayText(first.dueAt)}` : stateWords[p.state];
  }
  protected dayText(iso: string): string {
    return dayAt(iso, this.record.doc()?.job.zone ?? 'Etc/UTC');
  }

  private readonly progress = inject(JobProgress);
  /** What the knife has made of the pane in hand, where that is not simply its piece: too small since, asked for again, not cut at all. */
  protected readonly cutWord = computed(() => {
    const [doc, here] = [this.record.doc(), this.lay.here()];
    if (!doc || !here || here.progress.state === 'done') return null;
    const { id, name, extraPieces } = here.surface;
    const short = this.progress.short().find((s) => s.surfaceId === id);
    if (short) return { text: short.words, isHarm: true, short: short.isAsked ? null : short };
    // once the work has begun the piece is in hand, or on the glass
    if (this.progress.bySurface().get(id)?.isCut || (here.progress.done.size > 0 && extraPieces.length === 0)) return null;
    const text = extraPieces.length
      ? `A new piece of ${name} is asked for and not cut yet.`
      : `The piece of ${name} is not ticked as cut yet: hold it ${this.lay.glass() ? 'against the glass before anything gets wet' : 'up, liner on, before anything sticks'}.`;
    return { text, isHarm: false, short: null };
  });
  protected readonly oneMore = inject(OneMore);
  /** The panel in hand, at the step at which film goes into its recesses. */
  protected readonly recessed = computed(() => {
    const [step, here] = [this.isStepwise() ? this.lay.step() : null, this.lay.here()];
    return step?.drawing === 'panel-recess' && here?.surface.kind === 'panel' && here.surface.recesses.length > 0 ? here.surface : null;
  });
  /** The domed sheet in hand, at the step at which film goes over it. */
  protected readonly domed = computed(() => {
    const [step, here] = [this.isStepwise() ? this.lay.step() : null, this.lay.here()];
    return step?.drawing === 'panel-dome' && here?.surface.kind === 'panel' && here.surface.dome ? here.surface : null;
  });
  /** The board in hand, at the step at which film goes over its round corners. */
  protected readonly cornered = computed(() => {
    const [step, here] = [this.isStepwise() ? this.lay.step() : null, this.lay.here()];
    return step?.drawing?.startsWith('panel-corner') && here?.surface.kind === 'panel' && here.surface.corners ? here.surface : null;
  });
  /** The textured wall in hand, at the steps at which its faces and joints are pressed. */
  protected readonly jointed = computed(() => {
    const [step, here] = [this.isStepwise() ? this.lay.step() : null, this.lay.here()];
    const isThere = step?.key === 'wall-faces' || step?.key === 'wall-joints';
    return isThere && here?.surface.kind === 'wall' && here.surface.masonry ? here.surface : null;
  });
  /** The sheet in hand, at the step at which film goes over its ribs. */
  protected readonly ribbed = computed(() => {
    const [step, here] = [this.isStepwise() ? this.lay.step() : null, this.lay.here()];
    return step?.drawing === 'panel-corrugation' && here?.surface.kind === 'panel' && here.surface.corrugation ? here.surface : null;
  });
  /** What the gun is for at the step in hand, on what is laid dry. */
  protected readonly heatAim = computed(() => {
    const [step, here] = [this.isStepwise() ? this.lay.step() : null, this.lay.here()];
    return step && here && here.surface.kind !== 'pane' ? heatAimOf(step.key) : null;
  });
  protected readonly unprovenReasons = ['No thermometer here', 'Read, not written down', 'On a later visit', 'Not stretched there'];
  /** What is about to be called done though not all of it was proven hot. */
  private readonly whyAsked = signal<{ readonly what: 'step' | 'surface'; readonly text: string; readonly surfaceId: string } | null>(null);
  /** Asked of the surface in hand: who goes on to another one has not answered. */
  protected readonly whyUnproven = computed(() => (this.whyAsked()?.surfaceId === this.lay.here()?.surface.id ? this.whyAsked() : null));
  /** What is done is written down; what was stretched and not proven hot, only with a word of reason. */
  protected finish(what: 'step' | 'surface'): void {
    const [here, cover] = [this.lay.here(), this.lay.heatCover()];
    const isAsked = what === 'surface' || (this.lay.step()?.reading === 'film' && !this.lay.lookedAt());
    if (here && cover && cover.dueC !== null && isAsked && here.progress.state !== 'done') {
      const proofs = heatProofs(cover, this.lay.lines());
      if (unprovenEdges(cover, proofs).length)
        return this.whyAsked.set({ what, text: told(proofText(cover, proofs), this.record.units()), surfaceId: here.surface.id });
    }
    void (what === 'surface' ? this.lay.done() : this.lay.stepDone());
  }
  /** To the step at which it is heated and read, whatever the way the job is laid. */
  protected async readNow(): Promise<void> {
    this.whyAsked.set(null);
    await this.toSteps();
    const step = this.lay.steps().find((s) => s.reading === 'film');
    if (step && this.lay.next()?.key !== step.key) this.lay.lookedAt.set(step.key);
  }
  protected async finishAnyway(reason: string): Promise<void> {
    const why = this.whyUnproven();
    if (!why || reason.trim() === '') return;
    this.whyAsked.set(null);
    const text = `not proven hot: ${reason.trim()}`;
    await (why.what === 'surface' ? this.lay.done(text) : this.lay.stepDone(text));
  }

  protected readonly view = computed(() => {
    const here = this.lay.here();
    const [pane, column, panel, wall, counter, sign, glass] = [this.lay.pane(), this.lay.column(), this.lay.panel(), this.lay.wall(), this.lay.counter(), this.lay.sign(), this.lay.glass()]; // prettier-ignore
    if (!here || !(pane ?? column ?? panel ?? wall ?? counter ?? sign)) return null;
    const look = lookOf[here.surface.kind];
    const step = this.isStepwise() ? this.lay.step() : null;
    const caution = this.cautionOf(step);
    const film = this.record.doc()?.films.find((f) => f.id === here.surface.filmId);
    const roll = this.lay.roll();
    return {
      here,
      pane,
      column,
      panel,
      wall,
      counter,
      sign,
      refusal: pane?.refusal ?? null,
      ask: (pane ?? column?.figures ?? panel?.figures ?? wall?.figures ?? counter?.figures ?? sign?.figures)?.ask ?? null,
      step,
      isDone: here.progress.state === 'done',
      isStopped: here.progress.state === 'stopped',
      film: film?.name ?? '',
      roll: roll ? `roll ${roll.label}${roll.lot ? `, lot ${roll.lot}` : ''}` : 'no cut plan names its roll',
      face: laidFace(here.surface),
      seenFrom: (glass?.filmFace === 'room') !== this.record.otherSide() ? 'the room' : 'the street',
      drawing: step?.drawing ?? look.drawing ?? (here.progress.state === 'done' ? 'edges' : glass?.curved ? 'forming' : 'pane'),
      blockers: caution,
      isCautionLong: step !== null && (caution?.length ?? 0) > LONG_CAUTION,
      /** A tall pane stands beside its words. */
      isTall: look.isTall ?? (pane !== null && heightOf(pane.outline) > 1.05),
    };
  });
  /** The shrink plan of the curved pane in hand, for the steps that are drawn by it. */
  protected readonly formPlan = computed(() => (formingDrawings.has(this.view()?.drawing ?? 'pane') ? this.lay.formed() : null));
  /** Forming is done and drawn from outside, the quarters from the face that gets the film. */
  protected readonly isMirrored = computed(() => {
    const v = this.view();
    const glass = this.lay.glass();
    return v && glass ? glass.seenFrom !== (v.drawing === 'quarters' ? glass.filmFace : 'street') : false;
  });
  /** Strokes of the quarters, in the plane of the shrink plan. */
  protected readonly quarterStrokes = computed(() => {
    const [glass, plan] = [this.lay.glass(), this.plan()];
    if (!glass?.curved || !plan) return [];
    const flip = glass.filmFace === glass.seenFrom ? 1 : -1;
    return (plan.passes.find((p) => p.name === 'light')?.strokes ?? []).map((s) => ({
      path: s.path.map((p) => ({ x: flip * p.x, y: p.y })),
      isLane: s.how === 'pull',
    }));
  });
  /** What heat and water have to mind on this pane, at the steps that bring them. */
  protected readonly heatKeepsOff = computed(() => (this.view()?.drawing === 'forming' ? (this.formPlan()?.keepClear ?? []) : []));
  protected readonly plan = computed(() => {
    const answer = this.lay.strokes();
    return answer?.ok ? answer.plan : null;
  });
  protected readonly segments = computed(
    () =>
    this.isStepwise() && this.lay.here()
      ? this.lay.steps().map((s) => (s.key === this.lay.step()?.key ? 'bg-hand' : this.lay.here()!.progress.done.has(s.key) ? 'bg-proof' : 'bg-hair'))
      : this.rowsHere().map((r) => (r.surface.id === this.record.selectedId() ? 'bg-hand' : r.progress.state === 'done' ? 'bg-proof' : r.progress.state === 'stopped' ? 'bg-harm' : 'bg-hair')), // prettier-ignore
  );
  private readonly rowsHere = computed(() => {
    const place = this.lay.here()?.place;
    return this.lay.rows().filter((r) => r.place === place);
  });
  protected readonly places = computed(() => {
    const byPlace = new Map<string, ReturnType<typeof this.lay.rows>>();
    for (const r of this.lay.rows()) byPlace.set(r.place, [...(byPlace.get(r.place) ?? []), r]);
    return [...byPlace].map(([name, rows]) => ({ name, rows, done: rows.filter((r) => r.progress.state === 'done').length }));
  });
  protected readonly isReadyOpen = computed(() => {
    const asked = new Set(this.lay.siteLines().filter((e) => e.kind === 'ready').map((e) => e.stepKey)); // prettier-ignore
    return this.lay.doneCount() === 0 && (this.lay.set()?.ready ?? []).some((r) => !asked.has(r.key));
  });
  protected readonly timer = computed(() => {
    const began = this.lay.stepBeganMs();
    return began === null ? null : timerText(this.lay.nowMs() + this.device.clockOffsetMs - began);
  });
  /** Where the lines are. */
  protected readonly kept = computed(() => {
    const n = this.lay.queue.waiting();
    if (this.lay.queue.beingKept() > 0) return { dot: '○', text: 'keeping it here …', look: 'text-heat-text' };
    if (n === 0) return { dot: '●', text: 'all at the bench', look: 'text-proof' };
    return { dot: '○', text: `${n} kept here, ${this.lay.queue.isReached() ? 'on the way' : 'waiting for the bench'}`, look: 'text-heat-text' };
  });
  protected readonly lastDone = computed(() => {
    const rows = this.lay.rows().filter((r) => r.progress.doneAt !== null && r.surface.id !== this.record.selectedId());
    return rows.sort((a, b) => b.progress.doneAt!.localeCompare(a.progress.doneAt!))[0] ?? null;
  });
  protected readonly conflict = computed(() => {
    const c = this.lay.here()?.progress.conflict;
    if (!c) return null;
    const say = (e: typeof c.first) => ({
      entry: e,
      text: `${this.nameOf(e.personId)}: ${e.kind === 'problem' ? 'something is wrong' : 'done'}, ${this.clock(e.occurredAt)}`,
    });
    return [say(c.first), say(c.second)] as const;
  });
  protected readonly lastReading = computed(() => this.lay.lines().find((e) => e.kind === 'reading')?.reading ?? null);
  protected readonly tempUnit = computed(() => measureOf('temperature', this.record.units()).unit);
  protected readonly readingWords = computed(() => toldAll(this.readingInC(), this.record.units()));
  private readonly readingInC = computed(() => {
    const r = this.lastReading();
    const film = this.record.doc()?.films.find((f) => f.id === this.lay.here()?.surface.filmId);
    const [low, high] = [film?.temps?.applyMinC ?? COLDEST_C, film?.temps?.applyMaxC ?? WARMEST_C];
    if (!r) return null;
    if (this.view()?.step?.reading === 'hollow') {
      if (r.what !== 'hollow') return null;
      const { text, isGood } = hollowWord(r.valueC);
      return { text, look: isGood ? 'border-proof bg-proof-tint' : 'border-harm bg-harm-tint' };
    }
    // before the gun is on it is the glass that counts, not what the film tacks at
    if (this.view()?.step?.key.startsWith('form-'))
      return r.valueC < COLDEST_FOR_GUN_C
        ? {
            text: `${r.valueC.toFixed(0)} °C: no gun yet. Cold glass cracks: warm the whole pane evenly to ${COLDEST_FOR_GUN_C} °C, read again.`,
            look: 'border-harm bg-harm-tint',
          }
        : { text: `${r.valueC.toFixed(0)} °C: warm enough for the gun, if it is tempered and whole.`, look: 'border-proof bg-proof-tint' };
    if (r.valueC < low) return { text: `${r.valueC.toFixed(0)} °C is too cold: ${low} °C at least, or it never tacks.`, look: 'border-harm bg-harm-tint' };
    if (r.valueC > high) return { text: `${r.valueC.toFixed(0)} °C is too warm: shade it from outside, wait, read again.`, look: 'border-harm bg-harm-tint' };
    return { text: `${r.valueC.toFixed(0)} °C is good.`, look: 'border-proof bg-proof-tint' };
  });

  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      if (r.kind === 'thermometer' && this.readsHere()) void this.read(r.surfaceC);
    });
    const destroyed = inject(DestroyRef);
    destroyed.onDestroy(stop);
    this.keepAwake(destroyed);
    // the walk begins where something can be laid; after that a person goes where they like
    let isBegun = false;
    effect(() => {
      const rows = this.lay.rows();
      if (isBegun || rows.length === 0) return;
      isBegun = true;
      if (!rows.some((r) => r.surface.id === this.record.selectedId())) this.record.select(rows[0]!.surface.id);
    });
  }

  /** The screen stays on while this page is seen. */
  private keepAwake(destroyed: DestroyRef): void {
    let lock: { release(): Promise<void> } | null = null;
    const ask = async () => {
      if (document.visibilityState === 'visible' && navigator.wakeLock) lock = await navigator.wakeLock.request('screen').catch(() => null);
    };
    void ask();
    document.addEventListener('visibilitychange', ask);
    destroyed.onDestroy(() => {
      document.removeEventListener('visibilitychange', ask);
      void lock?.release().catch(() => undefined);
    });
  }

  /** With one tap a pane there is no step to hang a caution on: the ones that hurt most stand here. */
  private cautionOf(step: { caution: string | null } | null): string | null {
    if (step) return step.caution;
    // one tap a pane: the caution of its gravest step, the gun before the knife; what forbids it all stands by itself
    const steps = this.lay.steps();
    const gravest = steps.find((s) => s.tools.includes('heat gun')) ?? steps.find((s) => s.key.startsWith('trim'));
    return gravest?.caution?.replace(this.lay.pane()?.refusal ?? '', '').trim() || null;
  }
  protected clock(iso: string): string {
    return clockAt(iso, this.record.doc()?.job.zone ?? 'Etc/UTC');
  }
  protected nameOf(personId: string): string {
    return this.device.persons().find((p) => p.id === personId)?.name ?? 'somebody';
  }
  protected async toSteps(): Promise<void> {
    const here = this.lay.here();
    if (!here) return;
    this.stepwise.set(here.surface.id);
    await this.lay.begin();
  }
  protected toOneTap(): void {
    this.stepwise.set(null);
  }
  protected back(): void {
    const steps = this.lay.steps();
    const at = this.lay.stepNumber() - 1;
    if (at > 0) this.lay.lookedAt.set(steps[at - 1]!.key);
    else this.toOneTap();
  }
  protected pick(surfaceId: string): void {
    this.lay.lookedAt.set(null);
    this.record.select(surfaceId);
    this.sheet.set('none');
  }
  protected closeProblem(isLeft: boolean): void {
    this.sheet.set('none');
    if (isLeft) this.lay.goOn();
  }
  protected async takeBack(surfaceId: string): Promise<void> {
    const doc = this.record.doc();
    const line = doc?.layEntries.filter((e) => e.surfaceId === surfaceId && e.kind === 'pane-done').at(-1);
    if (line) await this.lay.correct(line, 'not laid after all');
    this.record.select(surfaceId);
  }
  /** What the step in hand asks the thermometer for. */
  protected readonly readsHere = computed(() => {
    const reading = this.view()?.step?.reading;
    return reading === 'glass' ? 'Glass' : reading === 'hollow' ? 'Coldest hollow' : null;
  });
  protected readTyped(box: HTMLInputElement): void {
    const n = readMeasure(box, 'temperature', this.record.units(), { low: -40, high: 120, message: 'Between −40 and 120 °C.' });
    if (n != null) void this.read(n);
  }
  private async read(valueC: number): Promise<void> {
    const what = this.view()?.step?.reading === 'hollow' ? 'hollow' : 'glass';
    const text = `${what === 'hollow' ? 'Coldest hollow' : 'Glass'} ${valueC.toFixed(1)} °C`;
    await this.lay.write('reading', text, { reading: { what, valueC }, stepKey: this.lay.step()?.key ?? null });
  }
  protected async note(box: HTMLInputElement): Promise<void> {
    const text = box.value.trim();
    if (text && (await this.lay.write('note', 'A note', { text }))) box.value = '';
  }
  protected async photo(blob: Blob): Promise<void> {
    await this.lay.write('photo', 'A photo', { stepKey: this.lay.step()?.key ?? null }, blob);
  }
  /** One of two lines that cannot both be right is taken back by a person, never by the program. */
  protected async settle(wrong: Parameters<LayStore['correct']>[0]): Promise<void> {
    await this.lay.correct(wrong, 'settled between two people');
  }
}
