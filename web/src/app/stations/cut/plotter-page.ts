import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, signal, untracked } from '@angular/core';
import { filmText } from '@yellow-pane/core/ground';
import { RouterLink } from '@angular/router';
import { defaultPlotSettings, plotSettings, type PlotRun, type PlotSettings, type PlotStatus } from '@yellow-pane/contracts';
import { contentHash, cutsForFilm, plotLengths, plotOfSurface } from '@yellow-pane/core';
import { Api } from '../../record/api';
import { Device } from '../../record/device';
import { RecordStore } from '../../record/record.store';

/** How often the plotter is asked while it works, ms. */
const ASK_MS = 500;
const stateNames: Record<PlotRun['state'], string> = {
  running: 'cutting',
  paused: 'paused',
  stopped: 'stopped',
  failed: 'broke off',
  interrupted: 'interrupted',
  done: 'done',
};

/** The knife plotter: a piece and its settings, progress, and what is cut against what was planned. */
@Component({
  selector: 'yp-plotter-page',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
      <section class="flex min-h-[420px] min-w-0 flex-1 flex-col p-4" aria-labelledby="plot-title">
        <div class="mb-2 flex flex-wrap items-center gap-3">
          <h2 id="plot-title" class="text-xl">Plotter</h2>
          <label class="flex items-center gap-1.5 text-sm"
            >Piece<select #which class="field w-48!" (change)="pick(which.value)">
              @for (p of pieces(); track p.id) {
                <option [value]="p.id" [selected]="p.id === pieceId()">{{ p.label }}, {{ p.film }}</option>
              }
            </select></label
          >
          <a class="text-sm underline" [routerLink]="['/jobs', record.doc()?.job?.id, 'cut']">back to Cut</a>
          <span class="ml-auto text-sm text-soft">film side up, top of the pane away from you</span>
        </div>
        @if (sheet(); as s) {
          <svg
            class="min-h-0 flex-1 border border-hair bg-paper"
            [attr.viewBox]="s.box"
            role="img"
            [attr.aria-label]="'Planned and plotted paths of ' + s.label"
          >
            <rect x="0" [attr.y]="-s.h" [attr.width]="s.w" [attr.height]="s.h" fill="#FFFEFA" stroke="#BDB6A2" [attr.stroke-width]="s.px" />
            <path [attr.d]="s.planned" fill="none" stroke="#9DB6C4" [attr.stroke-width]="s.px" />
            <path [attr.d]="s.weed" fill="none" stroke="#BDB6A2" [attr.stroke-width]="s.px" [attr.stroke-dasharray]="s.px * 5 + ' ' + s.px * 4" />
            <path [attr.d]="plottedPath()" fill="none" stroke="#1C2226" [attr.stroke-width]="s.px * 1.4" data-plotted />
          </svg>
          <p class="mt-1 text-sm text-soft">Planned light, weeding lines dashed, cut dark. {{ s.words }}</p>
        } @else {
          <p class="m-auto max-w-sm text-center">
            Nothing here is cut by a plotter. Give a frosted pane dots, marks or a figure under Cut, Design; or write on a sign in Measure.
          </p>
        }
      </section>
      <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[300px] md:border-l" aria-label="Numbers">
        <h3 class="cap">{{ status()?.machine ?? 'Looking for the plotter …' }}</h3>
        @if (run(); as r) {
          <div class="relief mt-2 border-l-4 p-3" [class]="look()" data-plot-run role="status">
            <p>
              <strong>{{ r.label }}: {{ names[r.state] }}</strong>
            </p>
            <p class="figure text-sm">{{ r.confirmedCount }} of {{ r.pathCount }} paths</p>
            <div
              class="my-1.5 h-3 border border-ink bg-card"
              role="progressbar"
              aria-label="Paths cut"
              [attr.aria-valuenow]="percent()"
              aria-valuemin="0"
              aria-valuemax="100"
            >
              <div class="h-full bg-hand" [style.width.%]="percent()"></div>
            </div>
            @if (r.message) {
              <p class="text-sm">{{ r.message }}</p>
            }
            @if (status()?.worstOffMm !== null && status()?.worstOffMm !== undefined) {
              <p class="text-sm">
                Farthest from the plan so far: <span class="figure">{{ status()!.worstOffMm!.toFixed(2) }} mm</span
                >{{ status()!.worstOffMm! > 0.5 ? '. Cut a test square, measure it, and type what 100 mm come out as.' : '.' }}
              </p>
            }
          </div>
        }
        <div class="mt-3 flex flex-wrap gap-2">
          @if (isAtWork()) {
            @if (run()!.state === 'running') {
              <button type="button" class="btn" (click)="act('pause')">Pause</button>
            } @else {
              <button type="button" class="btn btn-ink" (click)="act('resume')">Go on</button>
            }
            <button type="button" class="btn" (click)="act('stop')">Stop</button>
          } @else {
            @if (broken(); as b) {
              <button type="button" class="btn btn-ink" [disabled]="!isSameSheet()" (click)="start(b.id)">Go on at path {{ b.confirmedCount + 1 }}</button>
            }
            <button type="button" class="btn" [class.btn-ink]="!broken()" [disabled]="!sheet()" (click)="start(null)">
              {{ broken() ? 'Start afresh on new film' : 'Cut it' }}
            </button>
          }
        </div>
        @if (broken() && !isSameSheet()) {
          <p class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm">
            Design, pane or switches have changed since that run: what is cut does not fit any more. Start afresh.
          </p>
        }
        @if (note()) {
          <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm">{{ note() }}</p>
        }
        <h3 class="cap mt-5 mb-1">Settings</h3>
        <div class="grid grid-cols-2 gap-2 text-sm">
          @for (f of fields(); track f.field) {
            <label>{{ f.name }}<input #box class="field figure" [value]="f.value" (change)="set(f.field, box)" /></label>
          }
        </div>
        <label class="mt-2 flex min-h-8 items-center gap-2 text-sm"
          ><input type="checkbox" [checked]="settings().weeding" (change)="toggle('weeding')" /> lines to weed by</label
        >
        <label class="flex min-h-8 items-center gap-2 text-sm"
          ><input type="checkbox" [checked]="settings().registration" (change)="toggle('registration')" /> corner marks</label
        >
        <p class="mt-2 text-xs text-soft">
          Force and speed by a test cut on the very film: through the film, not into the liner. Keep fingers and sleeves off the carriage.
        </p>
        @if (status()?.machine === 'simulated plotter') {
          <p class="mt-3 text-sm">
            A stand-in that moves in real time. <button type="button" class="min-h-7 underline" (click)="act('jam')">Let the film jam</button>
          </p>
        }
      </aside>
    </div>
  `,
})
export class PlotterPage {
  /** From the address: the piece to begin with. */
  readonly piece = input<string | undefined>();
  protected readonly record = inject(RecordStore);
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  protected readonly names = stateNames;
  protected readonly settings = signal<PlotSettings>(defaultPlotSettings);
  protected readonly note = signal('');
  protected readonly status = signal<PlotStatus | null>(null);
  private readonly plotted = signal<PlotStatus['plotted']>([]);
  private readonly plottedFrom = signal(0);
  private readonly picked = signal<string | null>(null);

  /** Pieces that a plotter cuts, of all films. */
  protected readonly pieces = computed(() => {
    const doc = this.record.records();
    if (!doc) return [];
    return doc.films.flatMap((film) =>
      doc.surfaces.some((s) => s.filmId === film.id && (s.kind === 'sign' || (s.kind === 'pane' && s.design)))
        ? cutsForFilm(doc, film.id).flatMap(({ surface, pieces }) => pieces.filter((p) => p.isPlotted).map((p) => ({ id: p.id, label: p.label, film: film.name, surface, filmRecord: film }))) // prettier-ignore
        : [],
    );
  });
  protected readonly pieceId = computed(() => {
    const wanted = this.picked() ?? this.piece() ?? this.record.selectedId();
    return this.pieces().find((p) => p.id === wanted || p.surface.id === wanted)?.id ?? this.pieces()[0]?.id ?? null;
  });
  private readonly plan = computed(() => {
    const doc = this.record.records();
    const piece = this.pieces().find((p) => p.id === this.pieceId());
    const { weeding, registration } = this.settings();
    return doc && piece ? { piece, sheet: plotOfSurface(piece.surface, doc, piece.filmRecord, piece.id, { weeding, registration }) } : null;
  });
  protected readonly sheet = computed(() => {
    const p = this.plan();
    if (!p?.sheet) return null;
    const { sheet } = p;
    const d = (kinds: readonly string[]) => sheet.paths.filter((x) => kinds.includes(x.kind)).map((x) => line(x.points.map((q) => [q.x, q.y] as const))).join(''); // prettier-ignore
    const { cutMm, travelMm } = plotLengths(sheet);
    const minutes = (cutMm + travelMm) / this.settings().speedMmPerS / 60;
    return {
      label: p.piece.label,
      w: sheet.widthMm,
      h: sheet.heightMm,
      px: Math.max(sheet.widthMm, sheet.heightMm) / 900,
      box: `-20 ${-sheet.heightMm - 20} ${sheet.widthMm + 40} ${sheet.heightMm + 40}`,
      planned: d(['cut', 'register']),
      weed: d(['weed']),
      words: `${sheet.paths.length} paths, ${filmText(cutMm, this.record.units(), 1)} under the knife, about ${Math.max(1, Math.round(minutes))} min.`,
    };
  });
  protected readonly plottedPath = computed(() => (this.run()?.pieceId === this.pieceId() ? this.plotted().map((t) => line(t)).join('') : '')); // prettier-ignore

  /** The run that is shown: the one at work, or the last one of this piece. */
  protected readonly run = computed<PlotRun | null>(() => {
    const live = this.status()?.run ?? null;
    if (live && (live.pieceId === this.pieceId() || live.state === 'running' || live.state === 'paused')) return live;
    const kept = (this.record.doc()?.plotRuns ?? []).filter((r) => r.pieceId === this.pieceId());
    return kept.sort((a, b) => a.startedAt.localeCompare(b.startedAt)).at(-1) ?? null;
  });
  protected readonly isAtWork = computed(() => ['running', 'paused'].includes(this.status()?.run?.state ?? ''));
  protected readonly broken = computed(() => {
    const r = this.run();
    return r && r.pieceId === this.pieceId() && ['stopped', 'failed', 'interrupted'].includes(r.state) && r.confirmedCount < r.pathCount ? r : null;
  });
  protected readonly isSameSheet = computed(() => {
    const sheet = this.plan()?.sheet;
    return sheet !== null && sheet !== undefined && this.broken()?.pathsHash === contentHash(sheet.paths);
  });
  protected readonly percent = computed(() => Math.round((100 * (this.run()?.confirmedCount ?? 0)) / Math.max(1, this.run()?.pathCount ?? 1)));
  protected readonly look = computed(() => {
    const state = this.run()?.state;
    return state === 'done' ? 'border-proof bg-proof-tint' : state === 'failed' ? 'border-harm bg-harm-tint' : 'border-ink bg-tint';
  });
  protected readonly fields = computed(() => {
    const s = this.settings();
    return [
      { field: 'forceG', name: 'Force, g', value: String(s.forceG) },
      { field: 'speedMmPerS', name: 'Speed, mm/s', value: String(s.speedMmPerS) },
      { field: 'scaleX', name: '100 mm across come out as', value: comesOut(s.scaleX) },
      { field: 'scaleY', name: '100 mm along come out as', value: comesOut(s.scaleY) },
    ] as const;
  });

  constructor() {
    const timer = setInterval(() => void this.ask(), ASK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
    effect(() => {
      this.pieceId();
      untracked(() => void this.ask());
    });
  }

  private async ask(): Promise<void> {
    try {
      const before = this.status()?.run;
      const from = this.plottedFrom() + this.plotted().length;
      const now = await this.api.plotter({ query: { from } });
      if (now.run?.id !== before?.id || now.plottedCount < from) {
        this.plotted.set([]);
        this.plottedFrom.set(0);
      }
      if (now.plotted.length) {
        if (this.plotted().length === 0) this.plottedFrom.set(now.plottedFrom);
        if (now.plottedFrom === this.plottedFrom() + this.plotted().length) this.plotted.set([...this.plotted(), ...now.plotted]);
      }
      this.status.set({ ...now, plotted: [] });
    } catch (error) {
      this.note.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected pick(id: string): void {
    this.picked.set(id);
  }
  protected async start(resumeId: string | null): Promise<void> {
    const jobId = this.record.doc()?.job.id;
    const pieceId = this.pieceId();
    const person = this.device.person();
    if (!jobId || !pieceId || !person) return;
    this.note.set('');
    try {
      await this.api.plotterStart({ params: { jobId }, body: { pieceId, settings: this.settings(), personId: person.id, resumeId } });
      this.plotted.set([]);
      this.plottedFrom.set(0);
      await this.ask();
    } catch (error) {
      this.note.set(error instanceof Error ? error.message : String(error));
    }
  }
  protected async act(act: 'pause' | 'resume' | 'stop' | 'jam'): Promise<void> {
    this.note.set('');
    try {
      await this.api.plotterAct({ body: { act } });
      await this.ask();
    } catch (error) {
      this.note.set(error instanceof Error ? error.message : String(error));
    }
  }
  protected set(field: 'forceG' | 'speedMmPerS' | 'scaleX' | 'scaleY', box: HTMLInputElement): void {
    const n = Number(box.value.trim().replace(',', '.'));
    const value = field === 'scaleX' || field === 'scaleY' ? 100 / n : n;
    const read = plotSettings.safeParse({ ...this.settings(), [field]: value });
    if (!read.success)
      return this.note.set(
        field.startsWith('scale') ? 'What 100 mm come out as: between 95.3 and 105.2 mm.' : 'Force between 5 and 600 g, speed between 5 and 1500 mm/s.',
      );
    this.note.set('');
    this.settings.set(read.data);
  }
  protected toggle(field: 'weeding' | 'registration'): void {
    this.settings.set({ ...this.settings(), [field]: !this.settings()[field] });
  }
}

/** What 100 mm come out as before it is made good. */
const comesOut = (scale: number): string => (100 / scale).toFixed(2);
/** One path, y up. */
const line = (points: readonly (readonly [number, number])[]): string => `M${points.map(([x, y]) => `${x.toFixed(1)} ${(-y).toFixed(1)}`).join('L')}`;
