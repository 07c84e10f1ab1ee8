import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { toSignal } from '@angular/core/rxjs-interop';
import { map, startWith } from 'rxjs';
import { Device } from '../record/device';
import { JobProgress } from '../record/progress';
import { JobStream } from '../record/job-stream';
import { PlansStore } from '../record/plans.store';
import { RecordStore } from '../record/record.store';
import { SkipToWork } from '../kit/skip-to-work';
import { Logo } from '../kit/logo';
import { FilmSheet } from './film-sheet';
import { HelpSheet } from './help-sheet';
import { JobSheet } from './job-sheet';
import { Keys } from './keys';
import { RollStrip } from './roll-strip';
import { Rooms } from './rooms';

/** Keys that take the person to another pane or stage. */
const leavesThePane = new Set(['measure', 'choose', 'cut', 'prepare', 'lay', 'check', 'hand-over', 'up', 'down', 'new', 'copy']);

/** The open job: the stages on a tape at the top, the rooms on the left, the stage at hand, the roll along the bottom. */
@Component({
  selector: 'yp-workspace',
  imports: [SkipToWork, RouterOutlet, RouterLink, RouterLinkActive, Logo, Rooms, RollStrip, HelpSheet, JobSheet, FilmSheet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'onKey($event)', '(window:beforeunload)': 'beforeUnload($event)', class: 'block h-dvh' },
  template: `
    <div class="flex h-full flex-col">
      <yp-skip-to-work />
      <header class="flex shrink-0 flex-wrap items-stretch border-b border-line bg-card lg:h-14 lg:flex-nowrap" [class.max-md:hidden]="isAtGlass()">
        <a routerLink="/" class="flex h-12 items-center gap-2 pr-3 pl-4 font-bold lg:h-auto lg:pr-4" aria-label="Yellow Pane: all jobs"
          ><yp-logo /><span class="hidden lg:inline">Yellow Pane</span></a
        >
        <div class="flex min-w-0 flex-1 flex-col justify-center pr-2 lg:flex-none lg:pr-5 lg:pl-4 xl:pl-8">
          <h1 class="truncate text-[15px] leading-tight">{{ doc()?.job?.name ?? '' }}</h1>
          <p class="truncate text-xs leading-tight text-soft">
            <span class="max-sm:hidden">{{ doc()?.surfaces?.length ?? 0 }} {{ doc()?.surfaces?.length === 1 ? 'surface' : 'surfaces' }} · </span
            ><button type="button" class="min-h-6 underline" (click)="openJob()">Job details</button>
          </p>
        </div>
        <nav
          aria-label="Stages"
          class="tape order-last flex h-14 w-full min-w-0 items-stretch overflow-hidden border-t border-line pl-2 lg:order-none lg:h-auto lg:w-auto lg:flex-1 lg:border-x lg:border-t-0"
        >
          @for (s of stages(); track s.path) {
            <a
              [routerLink]="s.path"
              routerLinkActive="tape-here"
              ariaCurrentWhenActive="page"
              queryParamsHandling="preserve"
              class="relative flex min-w-0 flex-auto flex-col px-1 pt-1.5 whitespace-nowrap sm:flex-1 sm:px-1.5 hover:bg-glass lg:max-w-28 xl:px-3"
            >
              <span class="text-[15px] leading-tight max-[389px]:text-[13px]">{{ s.name }}</span>
              <span class="figure truncate text-xs leading-tight text-soft">{{ s.count }}</span>
            </a>
          }
        </nav>
        <div class="flex items-center gap-1 px-2 sm:gap-2 sm:px-3">
          <button
            type="button"
            class="min-h-9 px-2 disabled:text-field"
            [disabled]="!record.canUndo()"
            (click)="record.reverse('undo', false)"
            [attr.title]="record.canUndo() ? 'Undo: ' + record.canUndo() : 'Nothing to undo'"
          >
            Undo
          </button>
          <button
            type="button"
            class="hidden min-h-9 px-2 disabled:text-field sm:block"
            [disabled]="!record.canRedo()"
            (click)="record.reverse('redo', false)"
            [attr.title]="record.canRedo() ? 'Redo: ' + record.canRedo() : 'Nothing to redo'"
          >
            Redo
          </button>
          <button
            type="button"
            class="figure min-h-9 px-1 text-sm"
            (click)="record.toggleUnits()"
            [attr.aria-label]="'Lengths in ' + (record.units() === 'mm' ? 'millimetres' : 'inches') + ', switch'"
          >
            {{ record.units() }}
          </button>
          <span role="status" class="text-sm" [class]="saveLook()"
            ><span aria-hidden="true">{{ record.save() === 'saved' ? '●' : '○' }}</span
            ><span class="max-sm:sr-only"> {{ saveText() }}</span></span
          >
          <button type="button" class="min-h-8 min-w-8 border border-line text-sm" (click)="openHelp()" aria-label="Help and keys">?</button>
        </div>
      </header>

      @if (record.failed(); as failed) {
        <main class="m-auto max-w-md p-8 text-center">
          <h2 class="text-xl">This job does not open</h2>
          <p class="my-3">{{ failed }}</p>
          <button type="button" class="btn btn-ink" (click)="record.open(jobId())">Try again</button>
          <a routerLink="/" class="btn ml-2">All jobs</a>
        </main>
      } @else if (doc()) {
        <div class="flex min-h-0 flex-1">
          <yp-rooms class="hidden w-[244px] shrink-0 border-r border-hair lg:flex" [class.flex!]="roomsOpen()" />
          <main class="min-h-0 min-w-0 flex-1 overflow-hidden"><router-outlet /></main>
        </div>
        @if (!isCut() && !isAtGlass()) {
          <yp-roll-strip class="hidden shrink-0 md:block" />
        }
        <button type="button" class="btn m-2 lg:hidden" [class.max-md:hidden]="isAtGlass()" (click)="roomsOpen.set(!roomsOpen())">
          {{ roomsOpen() ? 'Back to the pane' : 'All panes' }}
        </button>
      } @else {
        <main class="m-auto text-soft" aria-busy="true">Opening the job …</main>
      }
    </div>

    @if (record.refusal(); as text) {
      <div role="alert" class="fixed right-4 bottom-16 z-40 max-w-sm border-l-4 border-ink bg-tint p-4 shadow">
        <p class="mb-2">{{ text }}</p>
        <button type="button" class="btn" (click)="record.dismiss()">All right</button>
      </div>
    }
    @if (record.ask(); as ask) {
      <div role="alertdialog" aria-label="Undo needs a yes" class="fixed right-4 bottom-16 z-40 max-w-sm border-l-4 border-ink bg-tint p-4 shadow">
        <p class="mb-2">{{ ask.text }}</p>
        <button type="button" class="btn btn-ink mr-2" (click)="record.reverse(ask.way, true)">Yes, go ahead</button>
        <button type="button" class="btn" (click)="record.dismiss()">Leave it</button>
      </div>
    }
    @defer (when wantsJob()) {
      <yp-job-sheet />
    }
    @defer (when wantsHelp()) {
      <yp-help-sheet />
    }
    @defer (when record.filmSheet()) {
      <yp-film-sheet />
    }
  `,
  styles: `
    .tape {
      background-image:
        repeating-linear-gradient(90deg, var(--color-field) 0 1px, transparent 1px 11.2px),
        repeating-linear-gradient(90deg, var(--color-ink) 0 1px, transparent 1px 112px);
      background-size:
        100% 6px,
        100% 13px;
      background-position:
        8px 100%,
        8px 100%;
      background-repeat: no-repeat;
    }
    .tape-here {
      font-weight: 700;
    }
    .tape-here::after {
      content: '';
      position: absolute;
      inset: auto 0 0 0;
      height: 14px;
      background: var(--color-hand);
      border: 1px solid var(--color-ink);
      border-bottom: 0;
    }
  `,
})
export class Workspace {
  readonly jobId = input.required<string>();
  protected readonly record = inject(RecordStore);
  private readonly progress = inject(JobProgress);
  protected readonly plans = inject(PlansStore);
  private readonly keys = inject(Keys);
  private readonly router = inject(Router);
  protected readonly device = inject(Device);
  protected readonly wantsHelp = signal(false);
  private readonly help = viewChild(HelpSheet);
  protected openHelp(): void {
    this.wantsHelp.set(true);
    this.help()?.open();
  }
  protected readonly wantsJob = signal(false);
  private readonly jobSheet = viewChild(JobSheet);
  protected openJob(): void {
    this.wantsJob.set(true);
    this.jobSheet()?.open();
  }
  private readonly injector = inject(Injector);
  private readonly rooms = viewChild(Rooms);
  protected readonly roomsOpen = signal(false);
  protected readonly doc = this.record.doc;

  private readonly url = toSignal(
    this.router.events.pipe(
      map(() => this.router.url),
      startWith(this.router.url),
    ),
    { initialValue: this.router.url },
  );
  /** On a phone the stages at the glass have the whole screen. */
  protected readonly isAtGlass = computed(() => /\/(lay|check)(\?|$)/.test(this.url()));
  protected readonly isCut = computed(() => /\/cut(\?|$)/.test(this.url()));
  protected readonly stages = computed(() => [
    { path: 'measure', name: 'Measure', count: `${this.progress.isKnown() ? this.progress.measuredCount() : '…'} of ${this.doc()?.surfaces.length ?? 0}` },
    { path: 'choose', name: 'Choose', count: `${this.doc()?.surfaces.filter((s) => s.filmId).length ?? 0}` },
    { path: 'cut', name: 'Cut', count: String(this.progress.cutCount()) },
    { path: 'prepare', name: 'Prepare', count: this.doc()?.job.prepare?.loaded.length ? `${this.doc()!.job.prepare!.loaded.length} in the van` : '–' },
    { path: 'lay', name: 'Lay', count: String(this.progress.laidCount()) },
    { path: 'check', name: 'Check', count: this.progress.openPinCount() ? `${this.progress.openPinCount()} open` : `${this.progress.clearCount()} clear` },
    { path: 'hand-over', name: 'Hand over', count: String(this.progress.handedOverCount()) },
  ]);
  protected readonly saveText = computed(
    () =>
      ({ saved: 'saved', saving: 'saving', waiting: 'kept here, waiting for the bench', unsafe: 'not kept: stay on this page', refused: 'not taken' })[
        this.record.save()
      ],
  );
  protected readonly saveLook = computed(() => (this.record.save() === 'saved' ? 'text-proof' : 'text-heat-text'));

  constructor() {
    // fetched when it is first asked for, and then it opens
    effect(() => {
      const sheet = this.help();
      untracked(() => sheet?.open());
    });
    effect(() => {
      const sheet = this.jobSheet();
      untracked(() => sheet?.open());
    });
    effect(() => {
      const id = this.jobId();
      untracked(() => void this.record.open(id));
    });
    // every screen of a job follows it live: what a colleague does appears by itself
    const stream = inject(JobStream);
    let follows: { jobId: string; stop: () => void } | null = null;
    effect(() => {
      const jobId = this.doc()?.job.id;
      if (!jobId || follows?.jobId === jobId) return;
      follows?.stop();
      follows = { jobId, stop: stream.follow(jobId) };
    });
    inject(DestroyRef).onDestroy(() => follows?.stop());
    effect(() => {
      this.record.selectedId();
      this.roomsOpen.set(false);
    });
    // a job with curved glass will ask for plans; what makes them is fetched when the page has come to rest
    const hasCurved = computed(() => this.doc()?.surfaces.some((s) => s.kind === 'pane' && s.curved) ?? false);
    effect(() => {
      if (!hasCurved()) return;
      setTimeout(() => void import('../compute/shrink-search').then(({ ShrinkSearch }) => this.injector.get(ShrinkSearch).ready()).catch(() => undefined), 400);
    });
  }

  /** Asks before the page goes only where something would really be lost. */
  protected beforeUnload(event: BeforeUnloadEvent): void {
    if (this.record.save() === 'unsafe') event.preventDefault();
  }

  /** To another pane; where it is measured and nothing is typed yet, straight into its first field. */
  private toPane(go: () => unknown): void {
    void Promise.resolve(go()).then(() =>
      afterNextRender(
        () => {
          const first = document.querySelector<HTMLInputElement>('[data-measure] input');
          if (first?.value === '' && !document.querySelector('dialog[open]')) first.focus();
        },
        { injector: this.injector },
      ),
    );
  }
  protected onKey(event: KeyboardEvent): void {
    const action = this.keys.actionFor(event);
    if (!action) return;
    event.preventDefault();
    const go = (stage: string) => void this.router.navigate(['jobs', this.jobId(), stage], { queryParamsHandling: 'preserve' });
    const acts: Record<string, () => void> = {
      measure: () => go('measure'),
      choose: () => go('choose'),
      cut: () => go('cut'),
      prepare: () => go('prepare'),
      lay: () => go('lay'),
      check: () => go('check'),
      'hand-over': () => go('hand-over'),
      up: () => this.toPane(() => this.record.step(-1)),
      down: () => this.toPane(() => this.record.step(1)),
      new: () => this.toPane(() => this.rooms()?.addPane()),
      copy: () => this.toPane(() => this.rooms()?.addLike()),
      side: () => this.record.toggleSide(),
      units: () => this.record.toggleUnits(),
      undo: () => void this.record.reverse('undo', false),
      redo: () => void this.record.reverse('redo', false),
      find: () => this.rooms()?.focusFind(),
      help: () => this.openHelp(),
    };
    // a figure that still stands in a field is handed on before the page changes under it
    if (leavesThePane.has(action) && document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
    acts[action]?.();
  }
}
