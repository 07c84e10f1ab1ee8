import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  borderSchool,
  jointHands,
  edgeSchool,
  formingSchool,
  linerSchool,
  lockSchool,
  postHeatSchool,
  siliconeSchool,
  stopsSchool,
  trimSchool,
  type LaySettings,
  type LayEntry,
  type Surface,
} from '@yellow-pane/contracts';
import { hrefOf } from '../../../record/api';
import { formatRough, filmText, told } from '@yellow-pane/core/ground';
import { schoolNames } from '@yellow-pane/core/form';
import { formedAt, isDrySurface } from '@yellow-pane/core/measure';
import { lockNames } from '@yellow-pane/core/lay';
import { readNumber } from '../../../kit/read-number';
import { Why } from '../../../kit/why';
import { Device } from '../../../record/device';
import { RecordStore } from '../../../record/record.store';
import { LayStore } from '../lay.store';
import { clockAt, lineText } from '../lay-words';

const schools = [
  { field: 'lock', name: 'Lock', options: lockSchool.options.map((v) => ({ value: v, name: lockNames[v] })), costs: 'T and line: quick. Cross and X: surest on wide panes, two strokes more.' }, // prettier-ignore
  { field: 'liner', name: 'Liner', options: linerSchool.options.map((v) => ({ value: v, name: v === 'halves' ? 'off in two halves' : 'pulled down' })), costs: 'Halves: for tall panes and dust. Pulled down: quicker, one person.' }, // prettier-ignore
  { field: 'trim', name: 'Trim', options: trimSchool.options.map((v) => ({ value: v, name: v === 'corner' ? 'from a top corner' : 'from the middles' })), costs: 'From a corner: fewer starts. From the middles: no pull towards a corner.' }, // prettier-ignore
  { field: 'silicone', name: 'Silicone', options: siliconeSchool.options.map((v) => ({ value: v, name: v === 'stays' ? 'stays' : 'cut out, run again' })), costs: 'Cut out: film holds at the edge; a second visit.' }, // prettier-ignore
  { field: 'stops', name: 'Stops', options: stopsSchool.options.map((v) => ({ value: v, name: v === 'stay' ? 'stay' : 'taken off' })), costs: 'Off: no line of light, film under the bead; slower, and the pane is loose.' }, // prettier-ignore
  { field: 'edge', name: 'Security edge', options: edgeSchool.options.map((v) => ({ value: v, name: v === 'anchored' ? 'anchored' : 'free, with a gap' })), costs: 'Anchored: holds at the edge, where free film fails first; a bead to cure.' }, // prettier-ignore
  { field: 'forming', name: 'Forming', options: [{ value: '', name: 'as recommended' }, ...formingSchool.options.map((v) => ({ value: v, name: schoolNames[v] }))], costs: 'Curved glass only. What each costs on a pane stands in Choose.' }, // prettier-ignore
  { field: 'postHeat', name: 'Heat through', options: postHeatSchool.options.map((v) => ({ value: v, name: v === 'before-trim' ? 'before it is trimmed' : 'after it is trimmed' })), costs: 'Before: what pulls back does so before the knife comes; it cools first. After: no wait, and the cut edge is heated with it. Severe curves are heated at once, either way.' }, // prettier-ignore
  { field: 'jointBorder', name: 'Border on joints', options: borderSchool.options.map((v) => ({ value: v, name: v === 'left-open' ? 'open until its course is done' : 'all of it set first' })), costs: 'Open: no air is ever shut in. All set first: the film hangs surely, and every joint has to be pierced.' }, // prettier-ignore
  { field: 'jointHands', name: 'On joints', options: jointHands.options.map((v) => ({ value: v, name: v === 'one' ? 'one person' : 'two, one at each end' })), costs: 'Two: about half the time; each part keeps its own way out, so neither ever shuts the other’s air in, whoever is quicker.' }, // prettier-ignore
  { field: 'way', name: 'Taps', options: [{ value: 'one-tap', name: 'one for each pane' }, { value: 'step-by-step', name: 'step by step' }], costs: '' }, // prettier-ignore
] as const;

/** Beside the drawing at the bench: the steps of this pane, how the job is laid, the strokes in figures, and the log. */
@Component({
  selector: 'yp-lay-numbers',
  imports: [Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="cap mb-2">Steps of {{ lay.here()?.surface?.name ?? 'this pane' }}, about {{ minutes() }} min</h3>
    <ol class="mb-3 text-sm">
      @for (s of lay.allSteps(); track s.key; let i = $index) {
        <li>
          <button
            type="button"
            class="flex w-full items-baseline gap-2 border-b border-hair py-1 text-left hover:bg-glass"
            [class.bg-tint]="lay.step()?.key === s.key"
            [attr.aria-current]="lay.step()?.key === s.key ? 'step' : null"
            [attr.data-step]="s.key"
            (click)="lay.lookedAt.set(s.key)"
          >
            <span class="figure w-5 shrink-0 text-right text-soft">{{ lay.here()?.progress?.done?.has(s.key) ? '✓' : i + 1 }}</span>
            <span class="flex-1">{{ s.title }}{{ s.returnAfterMinutes === null ? '' : ' (later visit)' }}</span
            ><span class="figure text-soft">{{ s.minutes.toFixed(1) }}</span>
          </button>
        </li>
      }
    </ol>
    @if (lay.here(); as here) {
      <a class="mb-3 inline-block text-sm underline" target="_blank" rel="noopener" [href]="runSheet(here.surface)">Print this run sheet</a>
    }
    @if (strokes(); as s) {
      <h3 class="cap mb-1">Strokes</h3>
      <p class="text-sm" data-strokes>{{ s.text }}</p>
      <yp-why [lines]="s.why" />
    }
    <h3 class="cap mt-3 mb-1">How this job is laid</h3>
    <div class="grid grid-cols-[5.5rem_1fr] items-center gap-x-2 gap-y-1.5 text-sm">
      @for (f of schoolsHere(); track f.field) {
        <label [attr.for]="'lay-' + f.field">{{ f.name }}</label>
        <select class="field" #pick [id]="'lay-' + f.field" [attr.title]="f.costs || null" (change)="set(f.name, f.field, pick.value)">
          @for (o of f.options; track o.value) {
            <option [value]="o.value" [selected]="(lay.settings()[f.field] ?? '') === o.value">{{ o.name }}</option>
          }
        </select>
      }
      @if (lay.glass()) {
        <label for="lay-blade">Blade, mm</label>
        <input
          id="lay-blade"
          #blade
          class="field figure"
          inputmode="decimal"
          placeholder="what fits"
          [value]="lay.settings().bladeMm ?? ''"
          (change)="number('bladeMm', blade, 25, 900, true)"
        />
        <label for="lay-overlap">Overlap, mm</label>
        <input
          id="lay-overlap"
          #overlap
          class="field figure"
          inputmode="decimal"
          [value]="lay.settings().overlapMm"
          (change)="number('overlapMm', overlap, 5, 200, false)"
        />
      }
    </div>
    <h3 class="cap mt-4 mb-1">Log of this pane</h3>
    @for (e of lay.lines(); track e.id) {
      <p class="flex items-baseline gap-2 border-b border-hair py-1 text-sm" data-line>
        <span class="figure text-soft">{{ clock(e) }}</span><span class="flex-1"
          >{{ text(e) }} <span class="text-soft">{{ who(e) }}{{ e.receivedAt ? '' : ', on its way' }}</span></span
        >
        @if (e.photo) {
          <a class="underline" [href]="photo(e.photo)" target="_blank">see</a>
        }
        <button type="button" class="underline" [attr.aria-label]="'Take back: ' + text(e)" (click)="lay.correct(e, 'taken back')">take back</button>
      </p>
    } @empty {
      <p class="text-sm text-soft">Nothing yet.</p>
    }
  `,
  host: { class: 'block' },
})
export class LayNumbers {
  /** Most schools are about glass; off it how one taps, and, where edges are wrapped and trimmed, when they are heated through. */
  protected readonly schoolsHere = computed(() => {
    const [isGlass, here] = [this.lay.glass() !== null, this.lay.here()?.surface];
    const { edges, hollows } = here && isDrySurface(here) ? formedAt(here) : { edges: false, hollows: false };
    const isJointed = here?.kind === 'wall' && here.masonry !== null;
    const isTrimmedAtEdges = edges || hollows;
    return this.schools.filter(
      (f) => f.field === 'way' || (f.field === 'postHeat' ? isTrimmedAtEdges : f.field === 'jointBorder' || f.field === 'jointHands' ? isJointed : isGlass),
    );
  });
  protected readonly lay = inject(LayStore);
  private readonly record = inject(RecordStore);
  private readonly device = inject(Device);
  protected readonly schools = schools;
  protected runSheet = (s: Pick<Surface, 'id' | 'jobId'>): string => hrefOf('runSheetPdf', { params: { jobId: s.jobId }, query: { surfaceId: s.id } });
  protected photo = (photo: string): string => hrefOf('photo', { params: { photo } });
  protected readonly minutes = computed(() => Math.round(this.lay.sheet()?.minutes ?? 0));
  private readonly titles = computed(() => new Map(this.lay.allSteps().map((s) => [s.key, s.title])));

  protected readonly strokes = computed(() => {
    const answer = this.lay.strokes();
    if (!answer) return null;
    if (!answer.ok) return { text: answer.why, why: [] as string[] };
    const { plan } = answer;
    const mm = (v: number) => formatRough(v, this.record.units());
    const settings = this.lay.settings();
    const isFormed = this.lay.glass()?.curved != null;
    return {
      text: `${plan.strokeCount} strokes, ${filmText(plan.lengthMm, this.record.units(), 0)} of blade, about ${plan.minutes.toFixed(1)} min; blade ${mm(plan.bladeMm)}, overlap ${mm(settings.overlapMm)} or more. Nothing stays unpressed.`,
      why: [
        isFormed
          ? 'Film that was formed and trimmed: out from its line in four quarters, left and right above it, left and right below, then hard in the same order, every edge bumped: common practice. Lengths are those in the plane of the corners.'
          : 'Lock, light pass from the middle outwards and stopping ½ in (13 mm) short of the frame, corners, trim, hard pass to the cut edges, every edge bumped: common practice.',
        `Every stroke is narrowed by half the overlap, and what is then left of the pane is worked out exactly: ${plan.missedMm2.light.toFixed(0)} and ${plan.missedMm2.hard.toFixed(0)} mm² (light and hard pass; under 25 is rounding at bends). A plan that leaves more is not offered.`,
        'Speeds of the blade are house figures; logged times take their place.',
      ],
    };
  });

  protected clock(e: LayEntry): string {
    return clockAt(e.occurredAt, this.record.doc()?.job.zone ?? 'Etc/UTC');
  }
  protected text(e: LayEntry): string {
    return told(lineText(e, this.titles()), this.record.units());
  }
  protected who(e: LayEntry): string {
    return this.device.persons().find((p) => p.id === e.personId)?.name ?? '';
  }
  protected set(name: string, field: keyof LaySettings, value: unknown): void {
    const job = this.record.doc()?.job;
    if (job) void this.record.set(`${name} of the laying`, 'job', job.id, { lay: { ...this.lay.settings(), [field]: value === '' ? null : value } });
  }
  protected number(field: 'bladeMm' | 'overlapMm', box: HTMLInputElement, low: number, high: number, mayBeEmpty: boolean): void {
    const n = readNumber(box, { low, high, mayBeEmpty, message: `Between ${low} and ${high} mm.` });
    if (n !== undefined) this.set(field === 'bladeMm' ? 'Blade' : 'Overlap', field, n);
  }
}
