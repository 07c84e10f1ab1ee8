import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { cornerSchool, dryAllowances, type CornerSchool, type DryAllowances, type SurfaceKind } from '@yellow-pane/contracts';
import { formatLength, parseLength, type UnitSystem } from '@yellow-pane/core/ground';

const lengths = [
  { field: 'lapMm', name: 'Lap at a seam', least: 5, most: 150 },
  { field: 'notchMm', name: 'Notches of a column, deep', least: 3, most: 150 },
  { field: 'linerStripMm', name: 'Its strip of liner, wide', least: 30, most: 400 },
  { field: 'panelMm', name: 'Past the face', least: 10, most: 200 },
  { field: 'returnMm', name: 'On to its back, or underneath', least: 5, most: 150 },
  { field: 'cornerTabMm', name: 'Tab round its corner', least: 3, most: 50 },
  { field: 'insideReturnMm', name: 'Return in an inside corner', least: 9, most: 100 },
  { field: 'cornerLinerMm', name: 'Liner slit there', least: 20, most: 150 },
  { field: 'outsideWrapMm', name: 'Round an outside corner', least: 10, most: 300 },
  { field: 'doubleCutMm', name: 'Lap of a double cut', least: 20, most: 150 },
  { field: 'endLinerMm', name: 'Liner off one end of a top', least: 20, most: 300 },
  { field: 'weedMm', name: 'Film left round letters', least: 5, most: 100 },
  { field: 'sheetMm', name: 'Longest sheet of letters', least: 300, most: 5000 },
] as const;
/** Which figures a surface of a kind has a use for; left out: all of them. */
const ofKind: Partial<Record<SurfaceKind, readonly LengthField['field'][]>> = {
  column: ['lapMm', 'notchMm', 'linerStripMm'],
  panel: ['lapMm', 'panelMm', 'returnMm', 'cornerTabMm'],
  wall: ['lapMm', 'doubleCutMm', 'panelMm', 'insideReturnMm', 'cornerLinerMm', 'outsideWrapMm'],
  counter: ['lapMm', 'doubleCutMm', 'panelMm', 'returnMm', 'cornerTabMm', 'endLinerMm'],
  sign: ['weedMm', 'sheetMm'],
};
type LengthField = (typeof lengths)[number];

/** One figure of what is added to pieces that are laid dry; left undefined: again as whoever stands above has it. */
export type DryChange = { readonly [K in keyof DryAllowances]?: DryAllowances[K] | undefined };

/** What is added to pieces that are laid dry: the same fields for the firm, a job and a surface. */
@Component({
  selector: 'yp-dry-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="grid grid-cols-2 gap-2 text-sm">
      @for (l of lengths(); track l.field) {
        <label class="block"
          >{{ l.name
          }}<input #box class="field figure" [value]="f(dry()[l.field])" [class.font-semibold]="own()?.[l.field] !== undefined" (change)="set(l, box)"
        /></label>
      }
      @if (kind() === null || kind() === 'column') {
        <label class="block"
          >A lap that grows<select #taper class="field" (change)="changed.emit({ taper: taper.value === 'wedge' ? 'wedge' : 'trim' })">
            <option value="trim" [selected]="dry().taper === 'trim'">is trimmed straight</option>
            <option value="wedge" [selected]="dry().taper === 'wedge'">stays a wedge</option>
          </select></label
        >
      }
      @if (kind() === null || kind() === 'panel' || kind() === 'counter') {
        <label class="block"
          >Sharp corners<select #corner class="field" (change)="changed.emit({ corner: cornerOf(corner.value) })">
            <option value="relief" [selected]="dry().corner === 'relief'">cut out, a tab goes round</option>
            <option value="mitre" [selected]="dry().corner === 'mitre'">slit at 45°</option>
            <option value="envelope" [selected]="dry().corner === 'envelope'">folded, not cut</option>
          </select></label
        >
      }
    </div>
    @if (message()) {
      <p role="alert" class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
  `,
})
export class DryFields {
  /** As it counts here. */
  readonly dry = input.required<DryAllowances>();
  /** What is said here itself. */
  readonly own = input<DryChange | null>(null);
  readonly units = input.required<UnitSystem>();
  readonly changed = output<DryChange>();
  /** Left out: the figures of every kind. */
  readonly kind = input<SurfaceKind | null>(null);
  protected readonly lengths = computed(() => lengths.filter((l) => (ofKind[this.kind() ?? 'pane'] ?? lengths.map((x) => x.field)).includes(l.field)));
  protected cornerOf = (v: string): CornerSchool => cornerSchool.catch('relief').parse(v);
  protected readonly message = signal('');
  protected f = (mm: number): string => formatLength(mm, this.units());

  /** Emptied, it is again as whoever stands above has it. What does not read is said, and nothing changes. */
  protected set(l: LengthField, box: HTMLInputElement): void {
    this.message.set('');
    const typed = box.value.trim();
    if (typed === '') return this.changed.emit({ [l.field]: undefined });
    const read = parseLength(typed, this.units());
    if (read.ok && dryAllowances.shape[l.field].safeParse(read.value.lengthMm).success) return this.changed.emit({ [l.field]: read.value.lengthMm });
    this.message.set(`${l.name}: ${read.ok ? `between ${this.f(l.least)} and ${this.f(l.most)}.` : read.message}`);
    box.value = this.f(this.dry()[l.field]);
  }
}

/** What is said, with one figure changed; null: nothing is said any more. */
export function withDry(own: DryChange | null, change: DryChange): Partial<DryAllowances> | null {
  const next = Object.fromEntries(Object.entries({ ...own, ...change }).filter(([, v]) => v !== undefined)) as Partial<DryAllowances>;
  return Object.keys(next).length ? next : null;
}
