import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { capital } from '@yellow-pane/core/ground';
import { wallEnd, type Patch, type Wall, type WallEnd } from '@yellow-pane/contracts';
import { cornerText, insideReturnMm, isWall, resolveDry, wallBeside, type WallCorner, type WallSide } from '@yellow-pane/core';
import { RecordStore } from '../../../record/record.store';

const kinds = [
  { id: 'stop', name: 'film stops there' },
  { id: 'inside', name: 'inside corner' },
  { id: 'outside', name: 'outside corner' },
] as const;

/** Both ends of a wall: where film stops, and the corners it goes on round. A corner of two walls stands in one record and is changed from both. */
@Component({
  selector: 'yp-wall-ends',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="cap mb-1">Ends and corners</h3>
    <div class="grid gap-3 lg:grid-cols-2">
      @for (e of ends(); track e.side) {
        <section class="border-l-4 border-hair bg-card p-2 text-sm" [attr.aria-label]="e.title" [attr.data-end]="e.side">
          <h4 class="mb-1 font-semibold">{{ e.title }}</h4>
          <div class="grid grid-cols-2 gap-2">
            <label class="block"
              >What is there<select #is class="field" data-choice="is" (change)="set(e.side, { is: isOf(is.value) })">
                @for (k of kinds; track k.id) {
                  <option [value]="k.id" [selected]="e.corner.is === k.id">{{ k.name }}</option>
                }
              </select></label
            >
            @if (e.corner.is !== 'stop') {
              <label class="block"
                >Goes on to<select #beside class="field" data-choice="beside" (change)="join(e.side, beside.value)">
                  <option value="" [selected]="!e.besideId">no wall of this job</option>
                  @for (w of e.others; track w.id) {
                    <option [value]="w.id" [selected]="w.id === e.besideId">{{ w.name }}</option>
                  }
                </select></label
              >
              <label class="block"
                >Laid first, round the corner<select #first class="field" data-choice="first" (change)="set(e.side, { isFirst: first.value === 'own' })">
                  <option value="own" [selected]="e.corner.isFirst">this wall</option>
                  <option value="other" [selected]="!e.corner.isFirst">{{ e.corner.beside?.name ?? 'the wall beside it' }}</option>
                </select></label
              >
              <label class="block"
                >Angle between them, °<input
                  #angle
                  class="field figure"
                  inputmode="decimal"
                  data-choice="angle"
                  [value]="e.corner.angleDeg ?? ''"
                  placeholder="nobody measured"
                  (change)="setAngle(e.side, angle)"
              /></label>
            }
          </div>
          <p class="mt-1.5">{{ e.words }}</p>
        </section>
      }
    </div>
    @if (message()) {
      <p role="alert" class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
  `,
})
export class WallEnds {
  readonly surface = input.required<Wall>();
  readonly corners = input.required<Readonly<Record<WallSide, WallCorner>>>();
  private readonly record = inject(RecordStore);
  protected readonly kinds = kinds;
  protected readonly message = signal('');
  protected isOf = (v: string): WallEnd['is'] => wallEnd.shape.is.catch('stop').parse(v);

  private readonly walls = computed(() => (this.record.doc()?.surfaces ?? []).filter(isWall).filter((w) => !w.deletedAt));
  protected readonly ends = computed(() =>
    (['left', 'right'] as const).map((side) => {
      const [doc, surface, corner] = [this.record.records()!, this.surface(), this.corners()[side]];
      const asked = insideReturnMm(resolveDry(doc, surface).insideReturnMm, corner.wanderMm);
      return {
        side,
        corner,
        title: side === 'left' ? 'Left end' : 'Right end',
        besideId: wallBeside(surface, side, { surfaces: this.walls() })?.id ?? null,
        others: this.walls().filter((w) => w.id !== surface.id),
        words: capital(cornerText(side, corner, this.record.units(), asked).replace(/^(Left|Right) end: /, '')),
      };
    }),
  );

  /** Which record a corner stands in, and whether it is told there from this wall’s side. */
  private keptIn(side: WallSide): { readonly wall: Wall; readonly field: 'left' | 'right'; readonly isOwn: boolean } {
    const before = side === 'left' ? wallBeside(this.surface(), 'left', { surfaces: this.walls() }) : null;
    return before ? { wall: before, field: 'right', isOwn: false } : { wall: this.surface(), field: side, isOwn: true };
  }

  protected set(side: WallSide, change: Partial<WallEnd>): void {
    this.message.set('');
    const { wall, field, isOwn } = this.keptIn(side);
    const told = change.isFirst === undefined || isOwn ? change : { ...change, isFirst: !change.isFirst };
    const patches: Patch[] = [{ op: 'set', kind: 'surface', id: wall.id, field, value: { ...wall[field], ...told } }];
    // where film stops nothing goes on
    if (change.is === 'stop' && field === 'right' && wall.nextId) patches.push({ op: 'set', kind: 'surface', id: wall.id, field: 'nextId', value: null });
    void this.record.change(`${side === 'left' ? 'Left' : 'Right'} end of ${this.surface().name}`.slice(0, 120), patches);
  }
  protected setAngle(side: WallSide, box: HTMLInputElement): void {
    const typed = box.value.trim().replace(',', '.').replace(/°$/, '');
    const read = wallEnd.shape.angleDeg.safeParse(typed === '' ? null : Number(typed));
    if (read.success) return this.set(side, { angleDeg: read.data });
    this.message.set('An angle between 20° and 340°, such as 90 or 91.5; left empty, nobody measured it.');
    box.value = String(this.corners()[side].angleDeg ?? '');
  }
  /** The corner goes with the wall on its left: joined from the left end, that one takes over what was known here. */
  protected join(side: WallSide, besideId: string): void {
    this.message.set('');
    const own = this.surface();
    const now = wallBeside(own, side, { surfaces: this.walls() });
    const { is, angleDeg, isFirst } = this.corners()[side];
    const patches: Patch[] = [];
    const put = (w: Wall, field: string, value: unknown): void => void patches.push({ op: 'set', kind: 'surface', id: w.id, field, value: value as never });
    if (side === 'right') {
      // another wall that went on to the same one no longer does
      for (const w of this.walls()) if (besideId && w.nextId === besideId && w.id !== own.id) put(w, 'nextId', null);
      put(own, 'nextId', besideId || null);
    } else {
      if (now && now.id !== besideId) put(now, 'nextId', null);
      const next = this.walls().find((w) => w.id === besideId);
      if (next) {
        put(next, 'nextId', own.id);
        put(next, 'right', { is, angleDeg, isFirst: !isFirst });
      } else put(own, 'left', { is, angleDeg, isFirst });
    }
    void this.record.change(`What goes on at the ${side} of ${own.name}`.slice(0, 120), patches);
  }
}
