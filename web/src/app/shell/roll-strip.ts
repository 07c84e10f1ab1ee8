import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { formatLength, filmShareText, filmText } from '@yellow-pane/core/ground';
import { PlansStore } from '../record/plans.store';
import { RecordStore } from '../record/record.store';

const px = (v: number): number => Math.round(100 * v) / 100;

/** The roll folded to a line: the film of the selected surface, how much of it is used. */
@Component({
  selector: 'yp-roll-strip',
  host: { role: 'region', 'aria-label': 'Roll' },
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <a
      [routerLink]="['/jobs', record.doc()?.job?.id, 'cut']"
      class="flex h-11 items-center gap-4 border-t border-line bg-card px-4 text-sm hover:bg-glass"
      aria-label="Unfold the roll: go to Cut"
    >
      @if (strip(); as s) {
        <span class="font-bold">{{ s.film }}</span>
        <span class="figure">{{ s.width }}</span>
        <svg class="h-6 min-w-0 flex-1" [attr.viewBox]="'0 0 1000 24'" preserveAspectRatio="none" aria-hidden="true">
          <rect x="0" y="2" width="1000" height="20" fill="#EFE9DA" stroke="#BDB6A2" vector-effect="non-scaling-stroke" />
          <g stroke="#1C2226" [attr.stroke-width]="s.stroke">
            <path [attr.d]="s.others" fill="#E6EEF2" vector-effect="non-scaling-stroke" />
            <path [attr.d]="s.here" fill="#F4B400" vector-effect="non-scaling-stroke" />
          </g>
        </svg>
        <span class="figure">{{ s.used }}</span>
        <span class="text-soft">{{ s.left }}</span>
      } @else {
        <span class="text-soft">{{ record.surface() && !record.surface()!.filmId ? 'No film chosen for this surface.' : 'Nothing on the roll yet.' }}</span>
      }
    </a>
  `,
})
export class RollStrip {
  protected readonly record = inject(RecordStore);
  private readonly plans = inject(PlansStore);

  protected readonly strip = computed(() => {
    const doc = this.record.doc();
    const surface = this.record.surface();
    const plan = surface?.filmId ? this.plans.byFilm()[surface.filmId] : undefined;
    const film = doc?.films.find((f) => f.id === surface?.filmId);
    const share = plan?.layout.rolls.find((r) => r.drops.length > 0);
    const roll = doc?.rolls.find((r) => r.id === share?.rollId);
    if (!plan || !film || !share || !roll) return null;
    const availableMm = roll.lengthM * 1000 - roll.leadInMm;
    const sx = 1000 / availableMm;
    const sy = 20 / roll.widthMm;
    const own = new Set(plan.pieces.filter((p) => p.surfaceId === surface!.id || p.parts.some((part) => part.surfaceId === surface!.id)).map((p) => p.id));
    // one path for all: a tower's hundreds of pieces are drawn anew with every pane that is taken up
    const outline = (isOwn: boolean): string =>
      share.drops
        .flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.filter((p) => own.has(p.pieceId) === isOwn))))
        .map((p) => `M${px(p.xMm * sx)} ${px(22 - (p.yMm + p.acrossMm) * sy)}h${px(p.alongMm * sx)}v${px(p.acrossMm * sy)}h${px(-p.alongMm * sx)}z`)
        .join('');
    const leftM = (availableMm - share.usedMm) / 1000;
    return {
      film: film.name,
      width: formatLength(roll.widthMm, this.record.units()) + (this.record.units() === 'mm' ? ' mm' : ''),
      used: filmShareText(share.usedMm, availableMm, this.record.units(), 1),
      left: `${filmText(leftM * 1000, this.record.units(), 1)} left`,
      // lines of hundreds of pieces would make the strip black
      stroke: Math.min(0.8, 40 / plan.pieces.length),
      here: outline(true),
      others: outline(false),
    };
  });
}
