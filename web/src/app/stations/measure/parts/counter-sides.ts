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
    </div>
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
  private change(label: string, value: Partial<Counter>): void {
    const s = this.surface();
    void this.record.set(`${label}, ${s.name}`.slice(0, 120), 'surface', s.id, value);
  }
}
