import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  surfaceKinds,
  cutMethod,
  edgeSchool,
  faceCare,
  glassForm,
  frameKind,
  linerSchool,
  paneTrait,
  lockSchool,
  siliconeSchool,
  stepDrawing,
  stepSet,
  stopsSchool,
  trimSchool,
  workClass,
  type ReadyRule,
  type StepRule,
  type StepSet,
} from '@yellow-pane/contracts';
import { figureOf, measureOf } from '@yellow-pane/core/ground';
import { shippedSteps, unknownFigures } from '@yellow-pane/core/lay';
import { v7 as uuidv7 } from 'uuid';
import { readNumber } from '../../kit/read-number';
import { BenchStore } from '../../record/bench.store';

const blank = (n: number): StepRule => ({
  key: `own-${n}`, title: 'A step of ours', text: '', purpose: '', good: '', tools: [], minutes: { fixed: 1, perM2: 0, perM: 0 }, wait: null, returnAfterMinutes: null, reading: 'none', drawing: 'none', mood: 'wet', caution: null,
  when: { film: [], frame: [], method: [], liner: [], lock: [], trim: [], silicone: [], stops: [], edge: [], glass: [], care: [], has: [], without: [] },
}); // prettier-ignore

const whenNames: Record<keyof StepRule['when'], string> = { film: 'film:', frame: 'frame:', method: 'cut:', liner: 'liner:', lock: 'lock:', trim: 'trim:', silicone: 'silicone:', stops: 'stops:', edge: 'edge:', glass: 'glass:', care: 'face:', has: 'with:', without: 'without:', surface: 'on:' }; // prettier-ignore

/** What a step may be kept to, and the ways there are. */
const whenChoices: { readonly what: keyof StepRule['when']; readonly name: string; readonly options: readonly string[] }[] = [
  { what: 'film', name: 'Film', options: workClass.options },
  { what: 'frame', name: 'Frame', options: frameKind.options },
  { what: 'method', name: 'Cut', options: cutMethod.options },
  { what: 'liner', name: 'Liner', options: linerSchool.options },
  { what: 'lock', name: 'Lock', options: lockSchool.options },
  { what: 'trim', name: 'Trim', options: trimSchool.options },
  { what: 'silicone', name: 'Silicone', options: siliconeSchool.options },
  { what: 'stops', name: 'Stops', options: stopsSchool.options },
  { what: 'edge', name: 'Security edge', options: edgeSchool.options },
  { what: 'glass', name: 'Glass', options: glassForm.options },
  { what: 'care', name: 'Face stands', options: faceCare.options },
  { what: 'has', name: 'With', options: paneTrait.options },
  { what: 'without', name: 'Without', options: paneTrait.options },
  { what: 'surface', name: 'On', options: Object.keys(surfaceKinds) },
];
const drawingNames: Record<StepRule['drawing'], string> = {
  'column-piece': 'piece of a column', 'column-plumb': 'hanging line', 'column-strip': 'middle strip', 'column-round': 'round a column', 'column-seam': 'seam of a column',
  'panel-face': 'face of a panel', 'panel-centre': 'centre of a panel', 'panel-edges': 'edges of a panel', 'panel-corner': 'corner of a panel', 'panel-corner-round': 'round corner of a panel', 'panel-groove': 'corner of a groove', 'panel-recess': 'recess of a panel', 'panel-corrugation': 'ribs of a sheet', 'panel-dome': 'a domed sheet',
  'wall-drops': 'drops of a wall', 'wall-plumb': 'plumb line of a wall', 'wall-level': 'level line of a wall', 'wall-inside': 'inside corner', 'wall-outside': 'outside corner', 'wall-inside-second': 'inside corner, second film', 'wall-outside-second': 'outside corner, second film', 'wall-seam': 'laps of a wall',
  'counter-top': 'a top from above', 'counter-end': 'first end of a top', 'counter-edges': 'edges of a top', 'counter-strip': 'strip of an edge', 'counter-round': 'round corner of a top', 'counter-corner': 'sharp corner of a top', 'counter-seam': 'lap on a top',
  'sign-place': 'places of letters', 'sign-weed': 'a sheet of letters', 'sign-hinge': 'hinges of a sign', 'sign-liner': 'laying from the hinge', 'sign-tape-off': 'transfer tape off', 'sign-heat': 'heat on letters',
  none: 'none', pane: 'the pane', liner: 'the liner', lock: 'the lock', light: 'light pass', corners: 'corners', trim: 'trimming', hard: 'hard pass', edges: 'edges', template: 'template', anchor: 'anchor bead',
  forming: 'fingers in order',
  'anchor-line': 'line of curved glass',
  quarters: 'four quarters',
}; // prettier-ignore

/** The steps of laying as this firm works: reworded, reordered, added; every change is a new version, and running jobs keep theirs. */
@Component({
  selector: 'yp-steps-panel',
  imports: [CdkDrag, CdkDragHandle, CdkDropList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-2 flex flex-wrap items-center gap-3">
      <h2 class="cap">Steps of laying, version {{ current().version }}</h2>
      @if (draft()) {
        <button type="button" class="btn btn-ink" (click)="keep()">Keep as version {{ nextVersion() }}</button>
        <button type="button" class="btn" (click)="draft.set(null)">Leave it</button>
      } @else {
        <button type="button" class="btn" (click)="change()">Change the steps</button>
      }
    </div>
    <p class="mb-2 text-sm text-soft">
      Jobs that have begun keep the version they began with. In the words, {{ '{edgeGap}' }}, {{ '{edgeStop}' }}, {{ '{overhang}' }}, {{ '{blade}' }},
      {{ '{lock}' }}, {{ '{film}' }}, {{ '{gun}' }} and {{ '{care}' }} stand for the figures of the pane; {{ '{13 mm}' }} and {{ '{25 to 50 mm}' }} are told in
      the units of the job.
    </p>
    @if (fault()) {
      <p role="alert" class="mb-2 border-l-4 border-ink bg-tint p-3">{{ fault() }}</p>
    }
    <ol class="border-t border-hair" cdkDropList (cdkDropListDropped)="move($event)" [cdkDropListDisabled]="!draft()">
      @for (s of steps(); track s.key; let i = $index) {
        <li cdkDrag class="border-b border-hair bg-card" [attr.data-rule]="s.key">
          <div class="flex items-center gap-2 py-1">
            @if (draft()) {
              <span cdkDragHandle class="cursor-grab px-1 text-soft" title="Drag to its place" aria-hidden="true">≡</span>
              <button type="button" class="px-1" [disabled]="i === 0" [attr.aria-label]="'Up: ' + s.title" (click)="shift(i, -1)">↑</button>
              <button type="button" class="px-1" [disabled]="i === steps().length - 1" [attr.aria-label]="'Down: ' + s.title" (click)="shift(i, 1)">↓</button>
            }
            <span class="figure w-6 text-right text-soft">{{ i + 1 }}</span>
            <button type="button" class="flex-1 text-left" [attr.aria-expanded]="opened() === s.key" (click)="opened.set(opened() === s.key ? null : s.key)">
              {{ s.title }}
            </button>
            <span class="text-sm text-soft">{{ forWhom(s) }}</span>
            @if (draft()) {
              <button type="button" class="px-2 text-sm underline" [attr.aria-label]="'Take out: ' + s.title" (click)="takeOut(s.key)">take out</button>
            }
          </div>
          @if (opened() === s.key) {
            @if (draft()) {
              <div class="grid gap-2 pb-3 pl-9 text-sm md:grid-cols-2">
                <label class="md:col-span-2"
                  >Title<input #t class="field" maxlength="80" [value]="s.title" (change)="edit(s.key, { title: t.value.trim() })"
                /></label>
                <label class="md:col-span-2"
                  >What to do<textarea #x class="field" rows="2" maxlength="500" [value]="s.text" (change)="edit(s.key, { text: x.value.trim() })"></textarea>
                </label>
                <label>Why<input #p class="field" maxlength="240" [value]="s.purpose" (change)="edit(s.key, { purpose: p.value.trim() })" /></label>
                <label>What is right<input #g class="field" maxlength="240" [value]="s.good" (change)="edit(s.key, { good: g.value.trim() })" /></label>
                <label
                  >Tools, by commas<input #o class="field" maxlength="300" [value]="s.tools.join(', ')" (change)="edit(s.key, { tools: list(o.value) })"
                /></label>
                <label
                  >Caution<input #c class="field" maxlength="300" [value]="s.caution ?? ''" (change)="edit(s.key, { caution: c.value.trim() || null })"
                /></label>
                <label>Minutes, any pane<input #m class="field figure" [value]="s.minutes.fixed" (change)="minutes(s, 'fixed', m)" /></label>
                <label
                  >and for each {{ unitOf('perArea')
                  }}<input #q class="field figure" [value]="perOf(s.minutes.perM2, 'perArea')" (change)="minutes(s, 'perM2', q)"
                /></label>
                <label
                  >and for each {{ unitOf('perLength') }} of edge<input
                    #e
                    class="field figure"
                    [value]="perOf(s.minutes.perM, 'perLength')"
                    (change)="minutes(s, 'perM', e)"
                /></label>
                <label
                  >Drawing<select #d class="field" (change)="edit(s.key, { drawing: asDrawing(d.value) })">
                    @for (o of drawings; track o) {
                      <option [value]="o" [selected]="s.drawing === o">{{ drawingNames[o] }}</option>
                    }
                  </select></label
                >
                <label
                  >Hands<select #h class="field" (change)="edit(s.key, { mood: asMood(h.value) })">
                    @for (o of moods; track o) {
                      <option [value]="o" [selected]="s.mood === o">{{ o }}</option>
                    }
                  </select></label
                >
                <label class="flex items-center gap-2"
                  ><input type="checkbox" #r [checked]="s.reading === 'glass'" (change)="edit(s.key, { reading: r.checked ? 'glass' : 'none' })" /> asks how
                  warm the glass is</label
                >
                <label>Then wait, min (empty: none)<input #w class="field figure" [value]="s.wait?.minutes ?? ''" (change)="wait(s, w)" /></label>
                <label
                  >On a later visit, days after it is laid (empty: same visit)<input
                    #l
                    class="field figure"
                    [value]="s.returnAfterMinutes === null ? '' : s.returnAfterMinutes / 1440"
                    (change)="later(s, l)"
                /></label>
                <fieldset class="md:col-span-2">
                  <legend>Only for panes with (nothing ticked: any)</legend>
                  @for (c of whenChoices; track c.what) {
                    <div class="flex flex-wrap items-center gap-x-3 py-0.5">
                      <span class="w-24 text-soft">{{ c.name }}</span>
                      @for (o of c.options; track o) {
                        <label class="flex items-center gap-1"
                          ><input type="checkbox" [checked]="has(s, c.what, o)" (change)="toggle(s, c.what, o)" />{{ o.replaceAll('-', ' ') }}</label
                        >
                      }
                    </div>
                  }
                </fieldset>
              </div>
            } @else {
              <div class="pb-3 pl-9 text-sm">
                <p>{{ s.text }}</p>
                <p class="text-soft">{{ s.purpose }} Right: {{ s.good }}</p>
                @if (s.caution) {
                  <p class="border-l-4 border-harm bg-harm-tint p-2">{{ s.caution }}</p>
                }
              </div>
            }
          }
        </li>
      }
    </ol>
    @if (draft()) {
      <button type="button" class="btn mt-2" (click)="add()">Add a step</button>
    }
    <h3 class="cap mt-4 mb-1">Asked before the first pane</h3>
    @for (q of ready(); track q.key) {
      <div class="flex flex-wrap items-center gap-2 border-b border-hair py-1 text-sm" [attr.data-ready]="q.key">
        @if (draft()) {
          <input #t class="field min-w-0 flex-1" maxlength="160" aria-label="Question" [value]="q.text" (change)="editReady(q.key, { text: t.value.trim() })" />
          <input
            #c
            class="field min-w-0 flex-1"
            maxlength="240"
            aria-label="Its caution"
            placeholder="caution, if it has one"
            [value]="q.caution ?? ''"
            (change)="editReady(q.key, { caution: c.value.trim() || null })"
          />
          <button type="button" class="px-2 underline" [attr.aria-label]="'Take out: ' + q.text" (click)="takeOutReady(q.key)">take out</button>
        } @else {
          <span>{{ q.text }}</span>
          @if (q.caution) {
            <span class="text-soft">{{ q.caution }}</span>
          }
        }
      </div>
    }
    @if (draft()) {
      <button type="button" class="btn mt-2" (click)="addReady()">Add a question</button>
    }
  `,
  host: { class: 'block' },
})
export class StepsPanel {
  private readonly bench = inject(BenchStore);
  protected readonly draft = signal<readonly StepRule[] | null>(null);
  private readonly draftReady = signal<readonly ReadyRule[]>([]);
  protected readonly opened = signal<string | null>(null);
  protected readonly whenChoices = whenChoices;
  protected readonly drawings = stepDrawing.options;
  protected readonly drawingNames = drawingNames;
  protected readonly moods = ['dry', 'wet', 'look'] as const;
  protected readonly fault = signal('');
  protected readonly current = computed<StepSet>(() => {
    const doc = this.bench.doc();
    return doc?.stepSets.at(-1) ?? shippedSteps(doc?.firm.id ?? '');
  });
  protected readonly nextVersion = computed(() => this.current().version + 1);
  protected readonly steps = computed(() => this.draft() ?? this.current().steps);
  protected readonly ready = computed(() => (this.draft() ? this.draftReady() : this.current().ready));

  /** For which panes it is there, in few words. */
  protected forWhom(s: StepRule): string {
    return (Object.entries(s.when) as [keyof StepRule['when'], readonly string[]][])
      .filter(([, only]) => only.length > 0)
      .map(([what, only]) => `${whenNames[what]} ${only.map((o) => o.replaceAll('-', ' ')).join(' or ')}`)
      .join(', ');
  }
  protected change(): void {
    this.draft.set(this.current().steps);
    this.draftReady.set(this.current().ready);
  }
  protected asDrawing = (v: string) => v as StepRule['drawing'];
  protected asMood = (v: string) => v as StepRule['mood'];
  protected has(s: StepRule, what: keyof StepRule['when'], option: string): boolean {
    return ((s.when[what] ?? []) as readonly string[]).includes(option);
  }
  protected toggle(s: StepRule, what: keyof StepRule['when'], option: string): void {
    // as it is now: the page may not have been drawn since the last tick
    const { when } = this.draft()?.find((x) => x.key === s.key) ?? s;
    const only = (when[what] ?? []) as readonly string[];
    this.edit(s.key, { when: { ...when, [what]: only.includes(option) ? only.filter((o) => o !== option) : [...only, option] } });
  }
  protected editReady(key: string, fields: Partial<ReadyRule>): void {
    this.draftReady.update((d) => d.map((q) => (q.key === key ? { ...q, ...fields } : q)));
  }
  protected takeOutReady(key: string): void {
    const gone = this.draftReady().find((q) => q.key === key);
    this.fault.set(gone?.caution ? `That question carried a caution: “${gone.caution}” Write it where it still bites.` : '');
    this.draftReady.update((d) => d.filter((q) => q.key !== key));
  }
  protected addReady(): void {
    this.draftReady.update((d) => [...d, { key: `own-${Date.now() % 1_000_000}`, text: 'A question of ours', caution: null }]);
  }
  protected list(text: string): string[] {
    return text.split(',').map((t) => t.trim()).filter(Boolean); // prettier-ignore
  }
  private readonly units = computed(() => this.bench.doc()?.firm.units ?? 'mm');
  protected unitOf = (kind: 'perArea' | 'perLength'): string => measureOf(kind, this.units()).unit;
  protected perOf = (minutes: number, kind: 'perArea' | 'perLength'): string => figureOf(minutes, kind, this.units());
  protected edit(key: string, fields: Partial<StepRule>): void {
    this.draft.update((d) => d && d.map((s) => (s.key === key ? { ...s, ...fields } : s)));
  }
  protected minutes(s: StepRule, part: 'fixed' | 'perM2' | 'perM', box: HTMLInputElement): void {
    const n = readNumber(box, { low: 0, high: 600, message: 'Between 0 and 600 min.' });
    const kind = part === 'perM2' ? 'perArea' : part === 'perM' ? 'perLength' : null;
    if (n != null) this.edit(s.key, { minutes: { ...s.minutes, [part]: kind ? measureOf(kind, this.units()).from(n) : n } });
  }
  protected later(s: StepRule, box: HTMLInputElement): void {
    const n = readNumber(box, { low: 0, high: 200, mayBeEmpty: true, message: 'Days, or empty.' });
    if (n !== undefined) this.edit(s.key, { returnAfterMinutes: n === null ? null : Math.round(n * 1440) });
  }
  protected wait(s: StepRule, box: HTMLInputElement): void {
    const n = readNumber(box, { low: 1, high: 400_000, mayBeEmpty: true, message: 'At least a minute, or empty.' });
    if (n !== undefined) this.edit(s.key, { wait: n === null ? null : { minutes: n, what: s.wait?.what ?? s.title } });
  }
  protected move(event: CdkDragDrop<unknown>): void {
    this.draft.update((d) => {
      if (!d) return d;
      const next = [...d];
      moveItemInArray(next, event.previousIndex, event.currentIndex);
      return next;
    });
  }
  protected shift(i: number, by: 1 | -1): void {
    this.draft.update((d) => {
      if (!d) return d;
      const next = [...d];
      moveItemInArray(next, i, i + by);
      return next;
    });
  }
  protected takeOut(key: string): void {
    const caution = this.draft()?.find((s) => s.key === key)?.caution;
    this.fault.set(caution ? `That step carried a caution: “${caution}” Write it into another step where it still bites.` : '');
    this.draft.update((d) => d && d.filter((s) => s.key !== key));
  }
  protected add(): void {
    const fresh = blank(Date.now() % 1_000_000);
    this.draft.update((d) => d && [...d, fresh]);
    this.opened.set(fresh.key);
  }

  /** A new version; what cannot be kept is named, and nothing is lost. */
  protected async keep(): Promise<void> {
    const [doc, steps] = [this.bench.doc(), this.draft()];
    if (!doc || !steps) return;
    const set: StepSet = { ...this.current(), id: uuidv7(), firmId: doc.firm.id, version: this.nextVersion(), replacesId: this.current().id, note: '', ready: [...this.draftReady()], steps: [...steps], createdAt: new Date().toISOString() }; // prettier-ignore
    const read = stepSet.safeParse(set);
    const stray = steps.map((s) => ({ s, name: unknownFigures(s)[0] })).find((x) => x.name);
    if (stray) return this.fault.set(`“{${stray.name}}” in “${stray.s.title}” stands for nothing: use one of the names above.`);
    if (!read.success) {
      const [issue] = read.error.issues;
      if (issue!.path[0] === 'ready') return this.fault.set(`A question before the first pane: ${issue!.message}`);
      const at = steps[Number(issue!.path[1])];
      return this.fault.set(`${at ? `“${at.title}”: ` : ''}${issue!.message}`);
    }
    if (await this.bench.change(`Steps of laying, version ${set.version}`, [{ op: 'add', kind: 'stepSet', id: set.id, value: set }])) {
      this.draft.set(null);
      this.fault.set('');
    }
  }
}
