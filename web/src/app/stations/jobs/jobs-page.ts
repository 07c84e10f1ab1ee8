import { afterNextRender, ChangeDetectionStrategy, Component, Injector, viewChild, type ElementRef, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { DELETED_DAYS, STILL_DUE_DAYS, type DeletedJob, type DueJob, type JobPage, type JobSummary, type Patch, type UnitSystem } from '@yellow-pane/contracts';
import { BenchBar } from '../../kit/bench-bar';
import { Api, ApiProblem } from '../../record/api';
import { Device } from '../../record/device';
import { Sender } from '../../record/sender';

const DAY_MS = 86_400_000;
/** Jobs that are shown at first, and so many more each time. */
const PAGE = 50;
/** What the bench gives at once at most. */
const MOST_AT_ONCE = 200;
/** A rest in typing. */
const TYPING_MS = 150;

/** All jobs, the next due first. */
@Component({
  selector: 'yp-jobs-page',
  imports: [RouterLink, BenchBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-bench-bar [firm]="device.firm()?.name ?? ''" />
    <main class="mx-auto max-w-4xl p-6">
      <div class="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1 class="text-2xl">Jobs</h1>
        <div class="flex gap-2">
          <a class="btn" routerLink="/call-backs">Calls after the work</a>
          <label class="btn cursor-pointer focus-within:outline-3"
            >Open a job file<input type="file" accept=".json,application/json" class="sr-only" (change)="bringIn($event)"
          /></label>
          <button type="button" class="btn btn-hand" (click)="begin()" [attr.aria-expanded]="starting()">New job</button>
        </div>
      </div>
      @if (starting()) {
        <form
          class="relief mb-4 grid gap-3 border border-field bg-card p-4 sm:grid-cols-[2fr_2fr_1fr_auto] sm:items-end"
          (submit)="$event.preventDefault(); start(name.value, customer.value, units.value)"
        >
          <label class="text-sm">Job<input #name class="field" required maxlength="120" placeholder="Harbour office" /></label>
          <label class="text-sm">Customer<input #customer class="field" maxlength="120" /></label>
          <label class="text-sm"
            >Tapes in<select #units class="field">
              <option value="mm">mm</option>
              <option value="in">inches</option>
            </select></label
          >
          <button class="btn btn-ink">Start</button>
        </form>
      }
      @if (deleted(); as gone) {
        <div role="status" class="mb-4 flex flex-wrap items-center gap-3 border-l-4 border-ink bg-tint p-3">
          “{{ gone.name }}” is deleted. Its promises of film are lifted.
          <button type="button" class="btn" (click)="bringBack(gone)">Undo</button>
        </div>
      }
      @if (message()) {
        <div role="alert" class="mb-4 border-l-4 border-ink bg-tint p-3 whitespace-pre-line">{{ message() }}</div>
      }
      <section class="mb-5 min-h-11 border border-line bg-card" aria-label="To come back to" data-due>
        @for (d of due(); track d.jobId) {
          <p class="border-b border-hair px-4 py-2 last:border-b-0">
            <a class="font-bold underline" [routerLink]="['/jobs', d.jobId, 'check']">{{ d.job }}</a>:
            @if (d.now.length) {
              <span> <strong>look today</strong> at {{ panesText(d.now) }}</span>
            }
            @if (d.week.length) {
              <span class="text-soft"> {{ d.now.length ? '· ' : '' }}this week {{ panesText(d.week) }}</span>
            }
          </p>
        } @empty {
          <p class="px-4 py-2 text-soft">{{ due() ? 'No laid pane waits for a look this week.' : 'Looking which laid panes are due …' }}</p>
        }
      </section>
      @if (page(); as list) {
        @if (list.total > few || search()) {
          <label class="mb-3 flex flex-wrap items-center gap-3 text-sm"
            >Find<input
              class="field max-w-80 flex-1"
              type="search"
              maxlength="120"
              placeholder="Job, customer, street or lot"
              [value]="search()"
              (input)="find($any($event.target).value)"
            /><span class="figure text-soft" aria-live="polite">{{ foundText() }}</span></label
          >
        }
        <ul class="space-y-3">
          @for (j of list.jobs; track j.id) {
            @if (isFirstOfPast(j)) {
              <li><h2 class="mt-6 text-base text-soft">Earlier jobs</h2></li>
            }
            <li class="relative">
              <a [routerLink]="['/jobs', j.id, 'measure']" class="relief block border border-line bg-card p-4 hover:bg-glass">
                <div class="flex flex-wrap items-baseline justify-between gap-x-4">
                  <h2 class="text-lg">{{ j.name }}</h2>
                  <span class="text-sm" [class.font-bold]="dueSoon(j)">{{ dueText(j) }}</span>
                </div>
                <p class="mb-2 text-sm text-soft">{{ j.customer || 'No customer named' }}</p>
                <dl class="flex gap-8 pr-16 text-sm">
                  <div>
                    <dt class="text-soft">Surfaces</dt>
                    <dd class="figure">{{ j.surfaceCount }}</dd>
                  </div>
                  <div class="flex-1">
                    <dt class="text-soft">Measured</dt>
                    <dd class="flex items-center gap-3">
                      <span class="figure">{{ j.measuredCount }}</span><span class="h-2 flex-1 border border-line bg-paper"
                        ><span class="block h-full bg-wet" [style.width.%]="share(j.measuredCount, j)"></span
                      ></span>
                    </dd>
                  </div>
                  <div class="flex-1">
                    <dt class="text-soft">Cut</dt>
                    <dd class="flex items-center gap-3">
                      <span class="figure">{{ j.cutCount }}</span><span class="h-2 flex-1 border border-line bg-paper"
                        ><span class="block h-full bg-proof" [style.width.%]="share(j.cutCount, j)"></span
                      ></span>
                    </dd>
                  </div>
                </dl>
              </a>
              <button type="button" class="absolute right-4 bottom-3 min-h-7 px-1 text-sm underline" [attr.aria-label]="'Delete ' + j.name" (click)="remove(j)">
                Delete
              </button>
            </li>
          } @empty {
            <li class="border border-dashed border-field p-8 text-center">
              @if (search()) {
                No job, customer, street or lot holds “{{ search() }}”.
              } @else {
                No job yet. Start one: a name is enough, the tapes come next.
              }
            </li>
          }
        </ul>
        @if (list.jobs.length < list.total) {
          <button type="button" class="btn mt-3 w-full" [disabled]="isLoading()" (click)="more()">{{ moreText() }}</button>
        }
        @if (bin().length) {
          <details class="mt-6" data-bin>
            <summary class="cursor-pointer py-1 underline">Deleted in the last {{ days30 }} days: {{ bin().length }}</summary>
            <ul class="mt-2">
              @for (j of bin(); track j.id) {
                <li class="flex flex-wrap items-center gap-3 border-b border-hair py-1.5">
                  <span class="font-semibold">{{ j.name }}</span><span class="text-sm text-soft">{{ j.customer }}, deleted {{ j.deletedAt.slice(0, 10) }}</span>
                  <button type="button" class="btn ml-auto" [attr.aria-label]="'Bring back ' + j.name" (click)="fromBin(j)">Bring back</button>
                </li>
              }
            </ul>
          </details>
        }
      } @else if (!message()) {
        <p class="text-soft" aria-busy="true">Looking for the jobs …</p>
      }
    </main>
  `,
})
export class JobsPage {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly device = inject(Device);
  protected readonly page = signal<JobPage | null>(null);
  protected readonly search = signal('');
  protected readonly isLoading = signal(false);
  /** So many are found by looking. */
  protected readonly few = 8;
  protected readonly foundText = computed(() => {
    const n = this.page()?.total ?? 0;
    return this.search() ? `${n} found` : `${n} jobs`;
  });
  protected readonly moreText = computed(() => {
    const list = this.page()!;
    return `${Math.min(PAGE, list.total - list.jobs.length)} more of ${list.total}`;
  });
  /** The first one whose day is long past stands under a heading of its own. */
  protected isFirstOfPast = (j: JobSummary): boolean => this.firstPastId() === j.id;
  private readonly firstPastId = computed(() => {
    const list = this.page()?.jobs ?? [];
    const past = list.findIndex((j) => this.isPast(j));
    return past > 0 ? list[past]!.id : null;
  });
  /** Laid panes that somebody has to come back to; it comes after the list, for it takes longer. */
  protected readonly due = signal<readonly DueJob[] | null>(null);
  protected panesText(visits: readonly { readonly pane: string }[]): string {
    const names = [...new Set(visits.map((v) => v.pane))];
    return names.length > 8 ? `${names.slice(0, 8).join(', ')} and ${names.length - 8} more` : names.join(', ');
  }
  protected readonly message = signal('');
  protected readonly starting = signal(false);
  private readonly nameBox = viewChild<ElementRef<HTMLInputElement>>('name');
  private readonly injector = inject(Injector);
  /** The form of a new job, with the pen in its first field: Enter, the name, Enter. */
  protected begin(): void {
    this.starting.set(!this.starting());
    afterNextRender(() => this.nameBox()?.nativeElement.focus(), { injector: this.injector });
  }
  /** Jobs that were deleted not long ago. */
  protected readonly bin = signal<DeletedJob[]>([]);
  protected readonly days30 = DELETED_DAYS;
  /** The job deleted last, as long as this page is open. */
  protected readonly deleted = signal<JobSummary | null>(null);
  private readonly sender = inject(Sender);
  private readonly today = computed(() => new Date().toISOString().slice(0, 10));

  constructor() {
    void this.refresh();
  }

  private async refresh(): Promise<void> {
    try {
      // as many as were shown before
      const limit = Math.min(MOST_AT_ONCE, Math.max(PAGE, this.page()?.jobs.length ?? 0));
      const [page, bin] = await Promise.all([this.api.jobs({ query: this.asked(0, limit) }), this.api.deletedJobs(), this.device.connect()]);
      this.page.set(page);
      this.bin.set(bin);
      void this.hearDue();
    } catch (error) {
      this.message.set((error as Error).message);
    }
  }

  /** Nobody waits for it: the list is there before. */
  private async hearDue(): Promise<void> {
    this.due.set(await this.api.due().catch(() => []));
  }

  private asked = (offset: number, limit: number) => ({ offset, limit, ...(this.search() ? { search: this.search() } : {}) });

  /** While somebody types; what was typed since decides. */
  protected find(words: string): void {
    this.search.set(words.trim());
    clearTimeout(this.typing);
    this.typing = setTimeout(() => void this.load(0), TYPING_MS);
  }
  private typing: ReturnType<typeof setTimeout> | undefined;
  protected more(): void {
    void this.load(this.page()?.jobs.length ?? 0);
  }
  private async load(offset: number): Promise<void> {
    const words = this.search();
    this.isLoading.set(true);
    try {
      const { jobs, total } = await this.api.jobs({ query: this.asked(offset, PAGE) });
      if (words !== this.search()) return;
      const before = offset ? (this.page()?.jobs ?? []) : [];
      const known = new Set(before.map((j) => j.id));
      this.page.set({ jobs: [...before, ...jobs.filter((j) => !known.has(j.id))], total });
      this.message.set('');
    } catch (error) {
      this.message.set((error as Error).message);
    } finally {
      this.isLoading.set(false);
    }
  }

  protected share = (part: number, j: JobSummary): number => (j.surfaceCount ? (100 * part) / j.surfaceCount : 0);
  private days = (j: JobSummary): number | null => (j.dueOn ? Math.round((Date.parse(j.dueOn) - Date.parse(this.today())) / DAY_MS) : null);
  private isPast = (j: JobSummary): boolean => (this.days(j) ?? 0) < -STILL_DUE_DAYS;
  protected dueSoon = (j: JobSummary): boolean => (this.days(j) ?? 99) <= 1 && !this.isPast(j);
  protected dueText(j: JobSummary): string {
    const days = this.days(j);
    if (days === null) return 'no date';
    if (days < 0) return `was due ${j.dueOn}`;
    return days === 0 ? 'due today' : days === 1 ? 'due tomorrow' : `due ${j.dueOn}`;
  }

  protected async start(name: string, customer: string, units: string): Promise<void> {
    if (!name.trim()) return;
    try {
      const person = this.device.person() ?? (await this.device.connect());
      const job = await this.api.createJob({ body: { name, customer, units: units as UnitSystem, personId: person.id, deviceId: this.device.id } });
      await this.device.connect();
      await this.router.navigate(['/jobs', job.id, 'measure']);
    } catch (error) {
      this.message.set((error as Error).message);
    }
  }

  /** Asks nothing: it can be undone. What the job was promised is free again. */
  protected async remove(j: JobSummary): Promise<void> {
    try {
      const person = this.device.person() ?? (await this.device.connect());
      const doc = await this.api.job({ params: { jobId: j.id }, query: { personId: person.id, deviceId: this.device.id } });
      const deletedAt = new Date().toISOString();
      const gone = (kind: 'job' | 'reservation', id: string): Patch => ({ op: 'set', kind, id, field: 'deletedAt', value: deletedAt });
      const promises = doc.stock.reservations.filter((r) => r.jobId === j.id && !r.deletedAt);
      const patches = [...promises.map((r) => gone('reservation', r.id)), gone('job', j.id)];
      await this.sender.change(j.id, `Delete ${j.name}`, patches, () => doc.revision, () => undefined); // prettier-ignore
      this.deleted.set(j);
      this.message.set('');
    } catch (error) {
      this.message.set((error as Error).message);
    }
    await this.refresh();
  }
  protected async bringBack(j: JobSummary): Promise<void> {
    try {
      await this.sender.reverse(j.id, 'undo', false, () => undefined);
      this.deleted.set(null);
    } catch (error) {
      this.message.set((error as Error).message);
    }
    await this.refresh();
  }

  /** Also after a reload, and whoever deleted it. */
  protected async fromBin(j: DeletedJob): Promise<void> {
    try {
      const person = this.device.person() ?? (await this.device.connect());
      const { promisesGone } = await this.api.bringBackJob({ params: { jobId: j.id }, body: { personId: person.id, deviceId: this.device.id } });
      if (this.deleted()?.id === j.id) this.deleted.set(null);
      this.message.set(
        promisesGone
          ? `“${j.name}” is back. ${promisesGone === 1 ? 'One promise of film is' : `${promisesGone} promises of film are`} not: that film was promised or cut elsewhere meanwhile. Commit its plan again in Cut.`
          : '',
      );
    } catch (error) {
      this.message.set((error as Error).message);
    }
    await this.refresh();
  }

  protected async bringIn(event: Event): Promise<void> {
    const box = event.target as HTMLInputElement;
    const file = box.files?.[0];
    if (!file) return;
    try {
      const person = this.device.person() ?? (await this.device.connect());
      const done = await this.api.importJob({ query: { personId: person.id, deviceId: this.device.id }, body: JSON.parse(await file.text()) as unknown });
      this.message.set(done.isCopy ? 'That job is already here: it came in as a copy.' : '');
      await this.refresh();
    } catch (error) {
      const faults = error instanceof ApiProblem ? error.faults.map((f) => `\n${f.path}: ${f.message}`).join('') : '';
      this.message.set(error instanceof SyntaxError ? `${file.name} does not read as JSON. Nothing was brought in.` : (error as Error).message + faults);
    }
    box.value = '';
  }
}
