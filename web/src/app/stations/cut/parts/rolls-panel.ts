import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, signal, viewChildren } from '@angular/core';
import { filmShareText, filmText } from '@yellow-pane/core/ground';
import type { Film, Roll } from '@yellow-pane/contracts';
import { availableForJobMm, isTaken, newestPlan, promiseNeededMm, reservedMm, type MoveTarget } from '@yellow-pane/core';
import { RollView } from '../../../kit/roll-view';
import { PlansStore } from '../../../record/plans.store';
import type { FilmPlan } from '../../../record/plans.updaters';
import { RecordStore } from '../../../record/record.store';

/** Height in which the widest roll is drawn, px; the others in proportion. */
const ROLL_PX = 132;

/** The rolls and leftovers that a plan cuts from: what is there, promised and taken, and the pieces on them, moved by hand. */
@Component({
  selector: 'yp-rolls-panel',
  imports: [RollView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (l of rollLines(); track l.roll.id) {
      <div
        class="flex flex-wrap items-center gap-x-3 px-3 pt-1 text-sm"
        [attr.data-roll]="l.roll.label"
        [attr.data-roll-id]="l.roll.id"
        [title]="l.roll.place"
        [class.bg-tint]="l.usedMm === 0 && carried()?.rollId === l.roll.id"
      >
        <strong>{{ l.roll.form === 'roll' ? 'Roll' : 'Leftover' }} {{ l.roll.label }}</strong>
        <span class="text-soft">lot {{ l.roll.lot || '–' }}</span>
        <span>{{ l.face }}</span>
        <span class="figure">{{ l.used }}</span>
        @if (l.usedMm === 0 && carried()?.rollId === l.roll.id) {
          <strong>{{ dragNote() }}</strong>
        }
        @if (l.othersMm > 0) {
          <span class="text-heat-text">{{ long(l.othersMm) }} are promised to other jobs</span>
        }
        @if (l.sureM !== null) {
          <span class="text-heat-text">only {{ l.sureM }} of it are sure: measure it before you cut</span>
        }
        @if (l.roll.isToOrder) {
          <span class="text-heat-text">still to be ordered</span>
        } @else if (l.usedMm > 0 && plan().stored) {
          @if (l.isTaken) {
            <span class="text-proof">✓ taken off the stock</span>
          } @else {
            <button type="button" class="min-h-7 underline" (click)="plans.promise(film().id, l.roll.id, l.promisedMm === 0)">
              {{ l.promisedMm === 0 ? 'Promise' : 'Promised ' + (l.promisedMm / 1000).toFixed(2) + ' m: lift' }}
            </button>
            @if (l.promisedMm > 0 && l.isPromiseOff) {
              <button type="button" class="min-h-7 underline" (click)="plans.promise(film().id, l.roll.id, true)">Promise what it is now</button>
            }
            <button
              type="button"
              class="btn min-h-7! py-0!"
              title="Commits the plan: the film is booked off and leftovers get their labels. Can be undone until the first cut is ticked."
              (click)="plans.take(film().id, l.roll.id)"
            >
              Take off the stock
            </button>
          }
        }
      </div>
      @if (l.usedMm > 0) {
        <div class="overflow-x-auto" data-roll-scroll [attr.data-roll-id]="l.roll.id" tabindex="-1">
          <yp-roll-view
            [layout]="plan().layout"
            [pieces]="plan().pieces"
            [roll]="l.roll"
            [film]="film()"
            [units]="record.units()"
            [selectedSurfaceId]="record.selectedId()"
            [lockedIds]="plan().stored?.lockedPieceIds ?? []"
            [cutIds]="plans.finished()"
            [rollPx]="l.px"
            [leftovers]="record.doc()!.firm.leftovers"
            [availableMm]="l.availableMm"
            [carriedTo]="carried()?.rollId === l.roll.id ? carried() : null"
            [dragNote]="dragNote()"
            (picked)="record.select($event)"
            (dragged)="drag($event)"
            (moved)="byKeys($event)"
          />
        </div>
      }
    }
    @if (moveNote()) {
      <p role="status" class="px-3 pb-2 text-sm" data-move-note>{{ moveNote() }}</p>
    }
  `,
  host: { class: 'block' },
})
export class RollsPanel {
  readonly film = input.required<Film>();
  readonly plan = input.required<FilmPlan>();
  /** Those that the plan cuts from. */
  readonly rolls = input.required<readonly Roll[]>();
  protected readonly record = inject(RecordStore);
  protected readonly plans = inject(PlansStore);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly views = viewChildren(RollView);
  /** Where the piece that is carried would come to lie. */
  protected readonly carried = signal<MoveTarget | null>(null);
  protected readonly dragNote = signal('');
  protected readonly moveNote = signal('');

  /** The rolls of this film as the plan and the stock have them: those cut from first. */
  protected readonly rollLines = computed(() => {
    const doc = this.record.doc();
    const film = this.film();
    const plan = this.plan();
    if (!doc) return [];
    const widest = Math.max(...this.rolls().map((r) => r.widthMm));
    return this.rolls().map((roll) => {
      const usedMm = plan.layout.rolls.find((r) => r.rollId === roll.id)?.usedMm ?? 0;
      const availableMm = availableForJobMm(roll, doc.stock, doc.job.id);
      const promisedMm = reservedMm(roll.id, doc.stock.reservations) - reservedMm(roll.id, doc.stock.reservations, doc.job.id);
      const wound = roll.wound ?? film.wound;
      return {
        roll,
        usedMm,
        availableMm,
        used: filmShareText(usedMm, availableMm, this.record.units()),
        othersMm: reservedMm(roll.id, doc.stock.reservations, doc.job.id),
        promisedMm,
        isPromiseOff: Math.abs(promisedMm - promiseNeededMm(plan, roll, doc.stock, doc.job.id)) > 1,
        // the record knows at once; what is shown of the plan follows a moment later
        isTaken: isTaken(newestPlan(doc.plans, film.id), roll.id),
        // a length worked out from diameters is only sure within two standard deviations
        sureM:
          roll.lengthSigmaM > 0 && usedMm > availableMm - 2000 * roll.lengthSigmaM
            ? filmText(availableMm - 2000 * roll.lengthSigmaM, this.record.units(), 1)
            : null,
        face: wound === 'unknown' ? 'face up not known: try two tape tabs' : wound === 'liner-in' ? 'lies film up' : 'lies liner up',
        px: Math.max(54, Math.round((ROLL_PX * roll.widthMm) / widest)),
      };
    });
  });
  /** While a piece is carried over the rolls: what it would do there; when it is let go: it is done, or the reason why not. */
  protected drag(e: { pieceId: string; clientX: number; clientY: number; isDone: boolean }): void {
    const to = this.targetAt(e.clientX, e.clientY);
    const was = this.carried();
    this.carried.set(e.isDone ? null : to);
    if (e.isDone || !to) this.dragNote.set('');
    if (!to) return;
    if (e.isDone) void this.move(e.pieceId, to);
    else if (was?.rollId !== to.rollId || was.dropIndex !== to.dropIndex) this.dragNote.set(this.saidOf(e.pieceId, to));
  }
  /** The roll and drop at a place of the screen: on a roll's line, or behind its last drop, a drop of its own. */
  private targetAt(clientX: number, clientY: number): MoveTarget | null {
    if (!Number.isFinite(clientX)) return null;
    const rollId = this.host.nativeElement.ownerDocument
      .elementsFromPoint(clientX, clientY)
      .map((el) => el.closest('[data-roll-id]')?.getAttribute('data-roll-id'))
      .find((id) => id);
    if (!rollId) return null;
    return {
      rollId,
      dropIndex:
        this.views()
          .find((v) => v.roll().id === rollId)
          ?.dropAt(clientX) ?? null,
    };
  }
  protected byKeys(e: { pieceId: string; by: -1 | 1 | 'end' | 'turn' }): void {
    const at = this.plan().layout.rolls.flatMap((r) => r.drops.map((d, i) => ({ rollId: r.rollId, i, d }))).find(({ d }) => d.columns.some((c) => c.rows.some((w) => w.pieces.some((p) => p.pieceId === e.pieceId)))); // prettier-ignore
    if (!at) return;
    const turned = at.d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces)).find((p) => p.pieceId === e.pieceId)!.turn % 180 !== 0;
    if (e.by === 'turn') void this.move(e.pieceId, { rollId: at.rollId, dropIndex: at.i, isTurned: !turned });
    else if (e.by === 'end') void this.move(e.pieceId, { rollId: at.rollId, dropIndex: null });
    else if (at.i + e.by >= 0) void this.move(e.pieceId, { rollId: at.rollId, dropIndex: at.i + e.by });
  }
  private async move(pieceId: string, to: MoveTarget): Promise<void> {
    const film = this.film();
    const words = this.saidOf(pieceId, to);
    const refused = await this.plans.move(film.id, pieceId, to);
    this.moveNote.set(refused ?? `Moved and locked: ${words}.`);
  }
  protected long = (mm: number): string => filmText(mm, this.record.units());
  /** What a move would do, in waste and money, or why it cannot be. */
  private saidOf(pieceId: string, to: MoveTarget): string {
    const tried = this.plans.tryMove(this.film().id, pieceId, to);
    if (!tried.ok) return tried.message;
    const m = tried.usedDeltaMm / 1000;
    if (Math.abs(m) < 0.0005 && Math.abs(tried.moneyDelta) < 0.005) return 'costs nothing';
    return `${m >= 0 ? 'takes' : 'saves'} ${this.long(1000 * Math.abs(m))}, ${tried.moneyDelta >= 0 ? '+' : '−'}${this.euro(Math.abs(tried.moneyDelta))}`;
  }

  private euro(amount: number): string {
    return new Intl.NumberFormat('en-IE', { style: 'currency', currency: this.record.doc()?.job.currency ?? 'EUR' }).format(amount);
  }
}
