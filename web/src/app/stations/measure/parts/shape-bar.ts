import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { cornerLetter, cornerPlace, cutOut, newCurvedPane, newShape, type CornerLetter, type CutOut, type PaneShape, type Pane } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../../../record/record.store';
import { shapeNames } from '../measure.updaters';
import { CutOuts } from './cut-outs';
import type { Drawing } from './drawing-file';

type Choice = keyof typeof shapeNames;
/** Units to choose from when a drawing does not say. */
const drawingUnits = [
  { name: 'millimetres', mmPerUnit: 1 },
  { name: 'centimetres', mmPerUnit: 10 },
  { name: 'metres', mmPerUnit: 1000 },
  { name: 'inches', mmPerUnit: 25.4 },
] as const;
/** What outline a pane has, and what is cut out of it. */
@Component({
  selector: 'yp-shape-bar',
  imports: [CutOuts],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
      <label class="flex items-center gap-1.5"
        >Outline<select #kind class="field w-44!" (change)="setKind($any(kind.value))">
          @for (k of kinds(); track k) {
            <option [value]="k" [selected]="k === (s.shape?.kind ?? 'four-sided')">{{ names[k] }}</option>
          }
        </select></label
      >
      @if (isArch()) {
        <label class="flex min-h-8 items-center gap-1.5"
          ><input type="checkbox" [checked]="s.shape!.hasLegs" (change)="put({ hasLegs: !s.shape!.hasLegs })" /> straight sides below it</label
        >
      }
      @if (s.shape?.kind === 'quarter') {
        <label class="flex items-center gap-1.5"
          >right angle at the<select #at class="field w-32!" (change)="put({ corner: $any(at.value) })">
            @for (c of cornerPlaces; track c) {
              <option [value]="c" [selected]="c === s.shape!.corner">{{ c.replace('-', ' ') }}</option>
            }
          </select></label
        >
      }
      @if (s.shape?.kind === 'polygon') {
        <label class="flex items-center gap-1.5"
          >corners<select #n class="field w-16!" (change)="put({ corners: +n.value, inward: [] })">
            @for (c of counts; track c) {
              <option [value]="c" [selected]="c === s.shape!.corners">{{ c }}</option>
            }
          </select></label
        >
        <span class="flex items-center gap-1" role="group" aria-label="Corners that point inwards"
          >inwards
          @for (l of letters(); track l) {
            <button
              type="button"
              class="min-h-7 min-w-7 border"
              [class]="s.shape!.inward.includes(l) ? 'border-ink bg-tint font-semibold' : 'border-line bg-card'"
              [attr.aria-pressed]="s.shape!.inward.includes(l)"
              (click)="toggleInward(l)"
            >
              {{ l }}
            </button>
          }
        </span>
      }
      <label class="flex min-h-8 items-center gap-1.5"
        ><input type="checkbox" [checked]="s.curved !== null" (change)="setCurved(s.curved === null)" /> curved glass</label
      >
      <label class="min-h-8 cursor-pointer py-1 underline decoration-field"
        >Outline from a drawing (DXF)<input #file type="file" accept=".dxf,application/dxf" class="sr-only" (change)="readFile(file)"
      /></label>
      <label class="flex items-center gap-1.5"
        >Cut-out<select #what class="field w-28!" (change)="addCutOut(what)">
          <option value="">add …</option>
          @for (w of whats; track w) {
            <option [value]="w">{{ w }}</option>
          }
        </select></label
      >
    </div>
    @if (drawing()) {
      <div class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm" role="alertdialog" aria-label="Units of the drawing">
        The drawing does not say its units. One unit is
        @for (u of units; track u.name) {
          <button type="button" class="btn ml-1.5" (click)="bringIn(u.mmPerUnit)">{{ u.name }}</button>
        }
      </div>
    }
    @if (message()) {
      <p role="alert" class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
    @if (s.cutOuts.length) {
      @defer (on immediate) {
        <yp-cut-outs [surface]="s" [isFresh]="fresh() === s.id" />
      }
    }
  `,
  host: { class: 'block' },
})
export class ShapeBar {
  readonly surface = input.required<Pane>();
  private readonly record = inject(RecordStore);
  /** The pane to which a cut-out was just added: its sizes stand open. */
  protected readonly fresh = signal<string | null>(null);
  protected readonly names = shapeNames;
  protected readonly whats = cutOut.shape.what.options;
  protected readonly counts = [3, 4, 5, 6, 7, 8];
  /** A drawing is brought in as a file; it cannot be picked. */
  protected readonly kinds = computed(() => (Object.keys(shapeNames) as Choice[]).filter((k) => k !== 'drawn' || this.surface().shape?.kind === 'drawn'));
  protected readonly isArch = computed(() => this.surface().shape?.kind.startsWith('arch') ?? false);
  protected readonly cornerPlaces = cornerPlace.options;
  protected readonly letters = computed(() => cornerLetter.options.slice(0, this.surface().shape?.corners ?? 0));

  protected readonly units = drawingUnits;
  /** A drawing that waits for its units. */
  protected readonly drawing = signal<Drawing | null>(null);
  protected readonly message = signal('');

  protected async readFile(box: HTMLInputElement): Promise<void> {
    const text = await box.files?.[0]?.text();
    box.value = '';
    if (!text) return;
    const { readDrawing } = await import('./drawing-file');
    const read = await readDrawing(text);
    this.drawing.set(null);
    if (!read) return this.message.set('This file does not read as DXF. Write it out as DXF (text) and bring it in again.');
    this.message.set('');
    if (read.mmPerUnit === null) return this.drawing.set(read);
    await this.take(read, read.mmPerUnit);
  }
  protected bringIn(mmPerUnit: number): void {
    const read = this.drawing();
    this.drawing.set(null);
    if (read) void this.take(read, mmPerUnit);
  }
  private async take(read: Drawing, mmPerUnit: number): Promise<void> {
    const { outlineFromDrawing } = await import('./drawing-file');
    const outline = outlineFromDrawing(read.entities, mmPerUnit);
    if (!outline.ok) return this.message.set(outline.message);
    this.message.set(outline.note ?? '');
    const path = outline.path.map((p) => ({ xMm: p.x, yMm: p.y, bulge: p.bulge }));
    this.set('Outline from a drawing', { shape: newShape('drawn', { path }) });
  }

  private set(label: string, fields: Partial<Pane>): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`, 'surface', s.id, fields);
  }
  protected setCurved(is: boolean): void {
    this.set(is ? 'Curved glass' : 'Flat glass', { curved: is ? newCurvedPane() : null });
  }
  protected setKind(kind: Choice): void {
    const { shape } = this.surface();
    if (kind === 'four-sided') return this.set('Outline', { shape: null });
    this.set('Outline', { shape: newShape(kind, { corners: 5, ...shape, kind }) });
  }
  protected put(part: Partial<PaneShape>): void {
    const { shape } = this.surface();
    if (shape) this.set('Outline', { shape: { ...shape, ...part } });
  }
  protected toggleInward(l: CornerLetter): void {
    const inward = this.surface().shape?.inward ?? [];
    this.put({ inward: inward.includes(l) ? inward.filter((x) => x !== l) : [...inward, l].slice(-5) });
  }
  protected addCutOut(box: HTMLSelectElement): void {
    const what = this.whats.find((w) => w === box.value);
    box.value = '';
    if (!what) return;
    // sizes as they are usual, to be changed to what is there
    const usual = what === 'handle' ? [60, 180] : what === 'letter slot' ? [300, 60] : what === 'vent' ? [200, 200] : [50, 50];
    const c: CutOut = {
      id: uuidv7(),
      what,
      isRound: what === 'hole' || what === 'vent',
      widthMm: usual[0]!,
      heightMm: usual[1]!,
      fromSide: 'right',
      acrossMm: 40,
      fromEdge: 'bottom',
      upMm: 950,
    };
    this.fresh.set(this.surface().id);
    this.set('Cut-out', { cutOuts: [...this.surface().cutOuts, c] });
  }
}
