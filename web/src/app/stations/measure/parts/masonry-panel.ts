import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { masonry, type Masonry, type Wall } from '@yellow-pane/contracts';
import { isLaidDry } from '@yellow-pane/core/films';
import { stretchLimitOf } from '@yellow-pane/core/form';
import { fitWords, jointFit } from '@yellow-pane/core/lay';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** A wall of blocks or of bricks as they usually are. @source common practice: 400 × 200 mm (16 × 8 in) blocks, 225 × 75 mm bricks, joints of 10 mm (⅜ in) */
const usual: Readonly<Record<'mm' | 'in', Readonly<Record<Masonry['unit'], Pick<Masonry, 'pitchAcrossMm' | 'pitchUpMm' | 'jointMm'>>>>> = {
  mm: { block: { pitchAcrossMm: 400, pitchUpMm: 200, jointMm: 10 }, brick: { pitchAcrossMm: 225, pitchUpMm: 75, jointMm: 10 } },
  in: { block: { pitchAcrossMm: 406.4, pitchUpMm: 203.2, jointMm: 9.525 }, brick: { pitchAcrossMm: 203.2, pitchUpMm: 67.733, jointMm: 9.525 } },
};
const choices = [
  { field: 'unit', name: 'Of', names: { block: 'blocks', brick: 'bricks' } },
  { field: 'bond', name: 'Bond', names: { running: 'running: by half', thirds: 'by a third', stack: 'stacked' } },
  { field: 'texture', name: 'Faces', names: { glazed: 'glazed: no heat on them', smooth: 'smooth', medium: 'medium', rough: 'rough' } },
] as const;
const counts = [
  { field: 'courses', name: 'Courses, counted' },
  { field: 'unitsInFirstCourse', name: 'Units in the first course' },
] as const;
const lengthsOf = (m: Masonry): PartLength[] => [
  { field: 'pitchAcrossMm', name: 'Joint to joint, across', mm: m.pitchAcrossMm, is: 'size' },
  { field: 'pitchUpMm', name: 'Joint to joint, up', mm: m.pitchUpMm, is: 'size' },
  { field: 'jointMm', name: 'Joint, wide', mm: m.jointMm, is: 'size' },
  { field: 'jointDepthMm', name: 'Joint, deep', mm: m.jointDepthMm, is: 'place' },
  { field: 'firstBedMm', name: 'Floor to the first level joint', mm: m.firstBedMm, is: 'place' },
  { field: 'firstHeadMm', name: 'Left end to the first upright one', mm: m.firstHeadMm, is: 'place' },
];

/** Joints of a wall of blocks or bricks: pitch, bond, where they begin, what was counted. */
@Component({
  selector: 'yp-masonry-panel',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Joints</h3>
      @if (!surface().masonry) {
        <button type="button" class="btn text-sm" (click)="begin('block')">+ Blocks</button>
        <button type="button" class="btn text-sm" (click)="begin('brick')">+ Bricks</button>
      }
    </div>
    @if (surface().masonry; as m) {
      <section class="mb-2 border-l-4 border-hair bg-card p-2" aria-label="Joints" data-masonry>
        <div class="mb-2 grid grid-cols-2 gap-2 text-sm sm:grid-cols-3">
          @for (c of choices; track c.field) {
            <label class="block"
              >{{ c.name
              }}<select #box class="field" [attr.data-choice]="c.field" (change)="choose(c.name, c.field, box.value)">
                @for (o of options(c.names); track o.id) {
                  <option [value]="o.id" [selected]="m[c.field] === o.id">{{ o.name }}</option>
                }
              </select></label
            >
          }
        </div>
        <yp-part-lengths [lengths]="lengths()" of="Joints" (changed)="$event.mm !== null && put('Joints', asPart($event.field, $event.mm))" />
        <div class="mt-2 grid grid-cols-2 gap-2 text-sm">
          @for (c of counts; track c.field) {
            <label class="block"
              >{{ c.name
              }}<input
                #box
                class="field figure"
                inputmode="numeric"
                [attr.data-count]="c.field"
                [value]="m[c.field] ?? ''"
                placeholder="nobody counted"
                (change)="count(c.name, c.field, box)"
            /></label>
          }
        </div>
        @if (fit(); as words) {
          <p class="mt-2 text-sm" data-joint-fit>{{ words }}</p>
        }
        <p class="mt-1 text-sm text-soft">Pitch: tape ten courses and divide. What is counted, cut ones with it, checks it.</p>
        @if (message()) {
          <p role="alert" class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
        }
        <button type="button" class="btn mt-2 text-sm" (click)="change('No joints', null)">It is smooth: no joints</button>
      </section>
    } @else {
      <p class="mb-2 text-sm text-soft">Smooth, as far as is known. Of blocks or bricks: their joints decide the order of the strokes.</p>
    }
  `,
})
export class MasonryPanel {
  readonly surface = input.required<Pick<Wall, 'id' | 'name' | 'masonry' | 'filmId'>>();
  private readonly record = inject(RecordStore);
  protected readonly choices = choices;
  protected readonly counts = counts;
  protected readonly message = signal('');
  /** Whether film goes into these joints, as far as its film is chosen. */
  protected readonly fit = computed(() => {
    const { masonry: m, filmId } = this.surface();
    const film = this.record.doc()?.films.find((f) => f.id === filmId);
    return m && film && isLaidDry(film) ? fitWords(jointFit(m, stretchLimitOf(film)), m, this.record.units()) : null;
  });
  protected readonly lengths = computed(() => lengthsOf(this.surface().masonry!));
  protected options = (names: Readonly<Record<string, string>>) => Object.entries(names).map(([id, name]) => ({ id, name }));

  protected begin(unit: Masonry['unit']): void {
    const size = usual[this.record.units()][unit];
    this.change('Joints', {
      unit,
      ...size,
      jointDepthMm: 5,
      bond: 'running',
      firstBedMm: size.pitchUpMm,
      firstHeadMm: size.pitchAcrossMm,
      texture: 'medium',
      courses: null,
      unitsInFirstCourse: null,
    });
  }
  protected choose(name: string, field: (typeof choices)[number]['field'], value: string): void {
    const read = masonry.shape[field].safeParse(value);
    if (read.success) this.put(name, { [field]: read.data });
  }
  protected count(name: string, field: (typeof counts)[number]['field'], box: HTMLInputElement): void {
    const typed = box.value.trim();
    const read = masonry.shape[field].safeParse(typed === '' ? null : Number(typed));
    if (read.success) return this.put(name, { [field]: read.data });
    this.message.set(`${name}: a whole number, or nothing where nobody counted.`);
    box.value = String(this.surface().masonry?.[field] ?? '');
  }
  protected asPart = (field: string, mm: number): Partial<Masonry> => ({ [field]: mm });
  protected put(label: string, change: Partial<Masonry>): void {
    const m = this.surface().masonry;
    if (m) this.change(label, { ...m, ...change });
  }
  protected change(label: string, value: Masonry | null): void {
    this.message.set('');
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { masonry: value });
  }
}
