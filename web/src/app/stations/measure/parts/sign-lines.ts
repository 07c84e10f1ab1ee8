import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { letterFace, letterText, signLine, type LetterFace, type Sign, type SignLine } from '@yellow-pane/contracts';
import { lineName } from '@yellow-pane/core';
import { v7 as uuidv7 } from 'uuid';
import { figureOfFile } from '../../../kit/svg-figure';
import { readNumber } from '../../../kit/read-number';
import { Api } from '../../../record/api';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** What each shipped face is called: by its strokes. */
const faceNames: Readonly<Record<LetterFace, string>> = {
  plain: 'even strokes',
  heavy: 'heavy strokes',
  pitched: 'fixed pitch',
  'pitched-heavy': 'fixed pitch, heavy',
};
const alignNames: Readonly<Record<SignLine['align'], string>> = { left: 'its left end', middle: 'its middle', right: 'its right end' };
type Letters = Extract<SignLine, { is: 'letters' }>;

/** Room between two lines, as a share of their capitals. @source common practice of setting type: a line and a half */
const LEADING = 1.5;
const roundTo = (mm: number, step: number): number => Math.round(mm / step) * step;

/** What is written on a sign: each line set in a shipped face, or a figure of an SVG file, with its height and its place. */
@Component({
  selector: 'yp-sign-lines',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="cap mb-1">What stands on it</h3>
    <form class="mb-2 flex flex-wrap items-center gap-2 text-sm" (submit)="$event.preventDefault(); addLetters(text)">
      <input #text class="field w-52!" maxlength="60" aria-label="A new line of letters" placeholder="TERN POINT" />
      <button class="btn btn-ink" [disabled]="isBusy() || surface().lines.length >= most">Set these letters</button>
      <label class="btn cursor-pointer"
        >A figure, from an SVG file<input #file type="file" accept=".svg,image/svg+xml" class="sr-only" (change)="addFigure(file)"
      /></label>
    </form>
    @if (message()) {
      <p role="alert" class="mb-2 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
    @for (r of rows(); track r.line.id) {
      <section class="mb-2 border-l-4 p-2" [class]="r.doubts.length ? 'border-ink bg-tint' : 'border-hair bg-card'" [attr.aria-label]="r.name" data-line>
        <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
          @if (r.letters; as l) {
            <input #words class="field w-36!" maxlength="60" aria-label="What is written" [value]="l.text" (change)="reset(l, { text: words.value }, words)" />
            <select #face class="field w-auto!" aria-label="Face" (change)="reset(l, { face: faceOf(face.value) })">
              @for (f of faces; track f.id) {
                <option [value]="f.id" [selected]="f.id === l.face">{{ f.name }}</option>
              }
            </select>
            <label class="flex items-center gap-1"
              >space<input
                #space
                class="field figure w-12!"
                aria-label="Space between letters, % of a capital"
                [value]="l.spacing"
                (change)="respace(l, space)"
              />%</label
            >
          } @else {
            <strong>{{ r.name }}</strong>
          }
          <label class="flex items-center gap-1"
            >placed by<select #align class="field w-auto!" (change)="put(r.line, { align: alignOf(align.value) })">
              @for (a of aligns; track a.id) {
                <option [value]="a.id" [selected]="a.id === r.line.align">{{ a.name }}</option>
              }
            </select></label
          >
          <button type="button" class="btn ml-auto px-2!" [attr.aria-label]="'Delete ' + r.name" (click)="remove(r.line)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="r.lengths" [of]="r.name" (changed)="place(r.line, $event.field, $event.mm)" />
        @for (d of r.doubts; track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @empty {
      <p class="mb-2 text-sm text-soft">Nothing yet. Type a line of letters; it is set as it will be cut, each stroke looked at.</p>
    }
  `,
})
export class SignLines {
  readonly surface = input.required<Sign>();
  /** Of its ground, mm; null: nobody taped it. */
  readonly ground = input.required<{ readonly widthMm: number; readonly heightMm: number } | null>();
  /** What does not fit, of which line, in sentences. */
  readonly doubts = input.required<readonly { readonly part: string | null; readonly text: string }[]>();
  private readonly record = inject(RecordStore);
  private readonly api = inject(Api);
  protected readonly most = 8;
  protected readonly message = signal('');
  protected readonly isBusy = signal(false);
  protected readonly faces = Object.entries(faceNames).map(([id, name]) => ({ id, name }));
  protected readonly aligns = Object.entries(alignNames).map(([id, name]) => ({ id, name }));
  protected faceOf = (v: string): LetterFace => letterFace.catch('plain').parse(v);
  protected alignOf = (v: string): SignLine['align'] => (v === 'left' || v === 'right' ? v : 'middle');

  protected readonly rows = computed(() =>
    this.surface().lines.map((line, i, all) => ({
      line,
      letters: line.is === 'letters' ? line : null,
      name: all.filter((l) => lineName(l) === lineName(line)).length > 1 ? `${lineName(line)}, ${i + 1}` : lineName(line),
      lengths: [
        { field: 'heightMm', name: line.is === 'letters' ? 'Capitals, high' : 'High', mm: line.heightMm, is: 'size' },
        { field: 'baselineMm', name: 'Stands above the foot', mm: line.baselineMm, is: 'place' },
        { field: 'atMm', name: `${alignNames[line.align]} from the left`.replace(/^i/, 'I'), mm: line.atMm, is: 'place' },
      ] satisfies PartLength[],
      doubts: this.doubts().flatMap((d) => (d.part === line.id ? [d.text] : [])),
    })),
  );

  /** Where a new line comes: in the middle, under what is there. */
  private placeFor(heightMm: number): Pick<SignLine, 'baselineMm' | 'atMm' | 'align'> {
    const ground = this.ground() ?? { widthMm: 2000, heightMm: 600 };
    const low = Math.min(...this.surface().lines.map((l) => l.baselineMm));
    const baselineMm = Number.isFinite(low) ? low - LEADING * heightMm : (ground.heightMm - heightMm) / 2;
    return { align: 'middle', atMm: roundTo(ground.widthMm / 2, this.mark()), baselineMm: Math.max(0, roundTo(baselineMm, this.mark())) };
  }
  /** A mark of the tape, and the step that heights of letters go by. */
  private readonly mark = computed(() => (this.record.units() === 'in' ? 25.4 / 16 : 1));
  private readonly step = computed(() => (this.record.units() === 'in' ? 25.4 / 2 : 5));
  private firstHeight(): number {
    return this.surface().lines.at(-1)?.heightMm ?? Math.max(this.step(), roundTo((this.ground()?.heightMm ?? 600) / 4, this.step()));
  }

  protected async addLetters(box: HTMLInputElement): Promise<void> {
    const text = box.value.trim();
    const heightMm = this.firstHeight();
    const set = await this.set({ text, face: 'heavy', spacing: 0 });
    if (!set) return;
    box.value = '';
    this.write(`Letters on ${this.surface().name}`, (lines) => [...lines, { is: 'letters', id: uuidv7(), text, face: 'heavy', spacing: 0, heightMm, ...this.placeFor(heightMm), ...set }]); // prettier-ignore
  }
  protected async addFigure(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    if (!file) return;
    const read = await figureOfFile(file);
    box.value = '';
    if ('message' in read) return this.message.set(read.message);
    const heightMm = this.firstHeight();
    const what = file.name.replace(/\.svg$/i, '').slice(0, 40) || 'Figure';
    this.write(`Figure on ${this.surface().name}`, (lines) => [...lines, { is: 'figure', id: uuidv7(), what, svgPath: read.path, heightMm, ...this.placeFor(heightMm) }]); // prettier-ignore
  }
  /** Letters are set anew where what is written, its face or its spaces change. */
  protected async reset(line: Letters, change: Partial<Pick<Letters, 'text' | 'face' | 'spacing'>>, box?: HTMLInputElement): Promise<void> {
    const next = { text: line.text, face: line.face, spacing: line.spacing, ...change };
    const set = await this.set({ ...next, text: next.text.trim() });
    if (set) this.put(line, { ...next, text: next.text.trim(), ...set });
    else if (box) box.value = line.text;
  }
  protected respace(line: Letters, box: HTMLInputElement): void {
    const spacing = readNumber(box, { low: -5, high: 60, message: 'Space between letters: −5 to 60 % of a capital.' });
    if (typeof spacing === 'number') void this.reset(line, { spacing });
  }
  private async set(asked: Pick<Letters, 'text' | 'face' | 'spacing'>): Promise<Pick<Letters, 'svgPath' | 'capUnits'> | null> {
    this.message.set('');
    const said = letterText.safeParse(asked.text);
    if (!said.success) {
      this.message.set(said.error.issues[0]!.message);
      return null;
    }
    this.isBusy.set(true);
    try {
      return await this.api.computeLettering({ body: asked });
    } catch (error) {
      this.message.set(error instanceof Error ? error.message : String(error));
      return null;
    } finally {
      this.isBusy.set(false);
    }
  }

  protected put(line: SignLine, change: Partial<Letters>): void {
    this.write(`${lineName(line)} on ${this.surface().name}`, (lines) => lines.map((l) => (l.id === line.id ? ({ ...l, ...change } as SignLine) : l)));
  }
  protected place(line: SignLine, field: string, mm: number | null): void {
    if (mm !== null) this.put(line, { [field]: mm });
  }
  protected remove(line: SignLine): void {
    this.write(`Delete ${lineName(line)}`, (lines) => lines.filter((l) => l.id !== line.id));
  }
  /** By what is written now, which may be more than when letters were asked for. */
  private write(label: string, change: (lines: readonly SignLine[]) => SignLine[]): void {
    const s = this.surface();
    const lines = change(s.lines);
    const read = signLine.array().max(this.most).safeParse(lines);
    if (!read.success) return this.message.set(read.error.issues[0]!.message);
    void this.record.set(label.slice(0, 120), 'surface', s.id, { lines });
  }
}
