import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { capital } from '@yellow-pane/core/ground';
import { counterSide, type Counter, type CounterCorner, type CounterSide } from '@yellow-pane/contracts';
import { counterCornerNames, counterSideNames, type CounterSideName } from '@yellow-pane/core';
import { RecordStore } from '../../../record/record.store';

const sideNames: Readonly<Record<CounterSide, string>> = {
  trimmed: 'trimmed at the arris',
  edge: 'over the edge',
  return: 'over it, and underneath',
  strip: 'a strip of its own',
  wall: 'a wall stands there',
  joint: 'another top begins',
};
const order: readonly CounterSideName[] = ['back', 'left', 'right', 'front'];
const cornerOrder: readonly CounterCorner[] = ['backLeft', 'backRight', 'frontLeft', 'frontRight'];

/** What film does at each side of a top, and which of its corners are round. */
@Component({
  selector: 'yp-counter-sides',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="cap mb-1">Sides and corners</h3>
    <div class="grid grid-cols-2 gap-2 text-sm">
      @for (s of sides(); track s.side) {
        <label class="block"
          >{{ s.name
          }}<select #box class="field" [attr.data-side]="s.side" (change)="setSide(s.side, box.value)">
            @for (o of options; track o) {
              <option [value]="o" [selected]="s.is === o">{{ sideNames[o] }}</option>
            }
          </select></label
        >
      }
    </div>
    <p class="mt-2 mb-1 text-sm">Round corners</p>
    <div class="grid grid-cols-2 gap-1.5 text-sm" role="group" aria-label="Round corners">
      @for (c of corners(); track c.corner) {
        <button type="button" class="btn" [class.btn-hand]="c.isRound" [attr.aria-pressed]="c.isRound" [attr.data-round]="c.corner" (click)="toggle(c.corner)">
          {{ c.name }}
        </button>
      }
      <button type="button" class="btn col-span-2" [class.btn-hand]="isAllRound()" [attr.aria-pressed]="isAllRound()" data-round-all (click)="toggleAll()">
        round all over
      </button>
    </div>
    @if (isAllRound()) {
      <p class="mt-1 text-sm text-soft" data-round-hint>Two widths are enough: with none of its rounds taped, its ends are half circles.</p>
    }
  `,
})
export class CounterSides {
  readonly surface = input.required<Counter>();
  private readonly record = inject(RecordStore);
  protected readonly options = counterSide.options;
  protected readonly sideNames = sideNames;
  protected readonly sides = computed(() => order.map((side) => ({ side, name: capital(counterSideNames[side]), is: this.surface().sides[side] })));
  protected readonly corners = computed(() =>
    cornerOrder.map((corner) => ({ corner, name: counterCornerNames[corner], isRound: this.surface().round.includes(corner) })),
  );

  protected readonly isAllRound = computed(() => cornerOrder.every((c) => this.surface().round.includes(c)));

  protected setSide(side: CounterSideName, value: string): void {
    const read = counterSide.safeParse(value);
    if (read.success) this.change(`Its ${counterSideNames[side]}`, { sides: { ...this.surface().sides, [side]: read.data } });
  }
  protected toggle(corner: CounterCorner): void {
    const { round } = this.surface();
    const isRound = round.includes(corner);
    this.change(`Corner ${counterCornerNames[corner]} ${isRound ? 'sharp' : 'round'}`, {
      round: isRound ? round.filter((c) => c !== corner) : [...round, corner],
    });
  }
  /** A round table: no corner is sharp, and film does the same all round; it stands at no wall. */
  protected toggleAll(): void {
    if (this.isAllRound()) return this.change('Sharp corners', { round: [] });
    const { sides } = this.surface();
    const isOpen = (s: CounterSide) => s !== 'wall' && s !== 'joint';
    const way = isOpen(sides.front) ? sides.front : 'return';
    this.change('Round all over', { round: [...cornerOrder], sides: { front: way, right: way, back: way, left: way } });
  }
  private change(label: string, value: Partial<Counter>): void {
    const s = this.surface();
    void this.record.set(`${label}, ${s.name}`.slice(0, 120), 'surface', s.id, value);
  }
}
