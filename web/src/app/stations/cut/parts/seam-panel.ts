import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { SeamKind, Pane } from '@yellow-pane/contracts';
import { panesOf, enclosingRectangle, planSeams, resolveAllowances, seamLinesBeside, surveySurface, type SeamPlan } from '@yellow-pane/core';
import { formatLength, formatLong, parseLength, told } from '@yellow-pane/core/ground';
import { RecordStore } from '../../../record/record.store';

const kindNames: Record<SeamKind, string> = { 'double-cut': 'Double cut', overlap: 'Overlap', butt: 'Butt' };
const kindWhys: Record<SeamKind, string> = {
  'double-cut': 'Both reach past the line and are cut through together over a strip of liner: nearly unseen, more minutes.',
  overlap: 'One lies 25 mm over the other: quick and tight, seen as a darker line.',
  butt: 'Straight edges of the roll meet: no knife on the glass, a hair of light may show.',
};

/** Where a pane wider than its film is pieced together: the ways there are, with metres, minutes and looks. */
@Component({
  selector: 'yp-seam-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      @if (!v.isNeeded && !v.surface.seam) {
        <p class="text-sm text-soft">{{ v.surface.name }} fits a roll in one piece; no seam is needed.</p>
      } @else {
        <div class="mb-2 flex flex-wrap items-center gap-2 text-sm" role="group" aria-label="How the strips meet">
          @for (k of kinds; track k) {
            <button type="button" class="btn" [class.btn-hand]="kind() === k" [attr.aria-pressed]="kind() === k" (click)="kind.set(k)">{{ names[k] }}</button>
          }
          <label class="flex items-center gap-1"
            >bars beside it at<input #bars class="field figure w-36!" [value]="barsText()" placeholder="e.g. 1200, 2400" (change)="setBars(bars)"
          /></label>
        </div>
        <p class="mb-2 text-xs text-soft">{{ whys[kind()] }}</p>
        @if (v.surface.seam && !v.isChosenListed) {
          <p class="mb-1.5 border-l-4 border-ink bg-tint p-2 text-sm">
            Chosen: {{ v.chosen }}. <button type="button" class="underline" (click)="choose(null)">No seam</button>
          </p>
        }
        <div class="grid gap-1.5" data-seams>
          @for (p of v.plans; track p.key) {
            <button
              type="button"
              class="relief flex items-center gap-3 border px-3 py-1.5 text-left"
              [class]="p.isChosen ? 'border-ink bg-tint' : 'border-line bg-card hover:bg-glass'"
              [attr.aria-pressed]="p.isChosen"
              (click)="choose(p.plan)"
            >
              <svg class="h-12 w-16 shrink-0" [attr.viewBox]="p.box" aria-hidden="true">
                <rect x="0" y="0" [attr.width]="v.w" [attr.height]="v.h" fill="#E6EEF2" stroke="#1C2226" [attr.stroke-width]="v.w / 60" />
                @for (l of p.lines; track $index) {
                  <line [attr.x1]="l.x1" [attr.x2]="l.x2" [attr.y1]="l.y1" [attr.y2]="l.y2" stroke="#C2501C" [attr.stroke-width]="v.w / 40" />
                }
              </svg>
              <span class="min-w-0 flex-1">
                <span class="block text-[15px]" [class.font-bold]="p.isChosen">{{ p.plan.name }}</span>
                <span class="figure flex flex-wrap gap-x-3 text-xs text-soft"
                  ><span>{{ p.strips }}</span
                  ><span>{{ p.used }}</span
                  ><span>{{ p.wasted }} lost</span><span>{{ p.plan.minutes.toFixed(0) }} min</span
                  ><span class="font-semibold text-ink">{{ p.money }}</span></span
                >
                @for (r of p.plan.remarks; track r) {
                  <span class="block text-xs" [class]="p.plan.looks === 'poor' ? 'text-heat-text' : 'text-soft'">{{ r }}</span>
                }
              </span>
            </button>
          } @empty {
            <p class="text-sm">No way to piece it together from these rolls{{ kind() === 'butt' ? ' with straight edges only: try a double cut' : '' }}.</p>
          }
        </div>
        @if (v.surface.seam) {
          <button type="button" class="mt-2 min-h-8 text-sm underline" (click)="choose(null)">No seam on this pane</button>
        }
      }
    }
  `,
})
export class SeamPanel {
  protected readonly record = inject(RecordStore);
  protected readonly kinds: readonly SeamKind[] = ['double-cut', 'overlap', 'butt'];
  protected readonly names = kindNames;
  protected readonly whys = kindWhys;
  protected readonly kind = signal<SeamKind>('double-cut');
  private readonly ownBars = signal<{ id: string; at: readonly number[] } | null>(null);

  /** Bars beside this pane that the person typed. */
  private readonly bars = computed(() => {
    const s = this.record.pane();
    const own = this.ownBars();
    return own && own.id === s?.id ? own.at : [];
  });
  protected readonly barsText = computed(() => this.bars().map((b) => formatLength(b, this.record.units())).join(', ')); // prettier-ignore

  protected readonly view = computed(() => {
    const doc = this.record.records();
    const surface = this.record.pane();
    const film = doc?.films.find((f) => f.id === surface?.filmId);
    if (!doc || !surface || !film) return null;
    const { survey } = surveySurface(surface, doc);
    const box = survey.status === 'nothing' || survey.status === 'impossible' ? null : enclosingRectangle(survey);
    if (!box) return null;
    const rolls = doc.rolls.filter((r) => r.filmId === film.id && r.form === 'roll');
    const widest = Math.max(0, ...rolls.map((r) => r.widthMm));
    const allowances = resolveAllowances(doc, surface);
    const isNeeded = Math.min(box.widthMm, box.heightMm) + 2 * allowances.overhangMm > widest;
    const base = { surface, isNeeded, w: box.widthMm, h: box.heightMm, chosen: surface.seam ? this.said(surface.seam.atMm, surface.seam.direction) : '' };
    if (!isNeeded && !surface.seam) return { ...base, plans: [], isChosenListed: true };
    const beside = seamLinesBeside(surface, panesOf(doc.surfaces));
    const all = planSeams({
      opening: { widthMm: box.widthMm, heightMm: box.heightMm },
      allowances,
      kinds: [this.kind()],
      rolls: rolls.map((r) => ({ id: r.id, widthMm: r.widthMm, pricePerM: Number(r.pricePerM) })),
      settings: doc.job.cut,
      turns: film.direction === 'one-way' ? [0] : film.direction === 'two-way' ? [0, 180] : [0, 90, 180, 270],
      sillMm: surface.exposure?.heightAboveFloorMm ?? null,
      alignUprightMm: [...this.bars(), ...beside.uprightMm],
      alignLevelMm: beside.levelMm,
      hourRate: Number(doc.firm.hourRate),
      units: this.record.units(),
    });
    const plans = all.slice(0, 5).map((plan) => ({
      plan,
      key: JSON.stringify(plan.seam),
      isChosen: isSame(plan, surface),
      strips: plan.strips.map((s) => formatLength(plan.seam.direction === 'upright' ? s.widthMm : s.heightMm, this.record.units())).join(' + '),
      used: formatLong(1000 * plan.usedM, this.record.units()),
      wasted: told(`${plan.wasteM2.toFixed(1)} m²`, this.record.units()),
      money: new Intl.NumberFormat('en-IE', { style: 'currency', currency: doc.job.currency, maximumFractionDigits: 0 }).format(plan.money),
      box: `-40 -40 ${box.widthMm + 80} ${box.heightMm + 80}`,
      lines: plan.seam.atMm.map((x) =>
        plan.seam.direction === 'upright' ? { x1: x, x2: x, y1: 0, y2: box.heightMm } : { x1: 0, x2: box.widthMm, y1: box.heightMm - x, y2: box.heightMm - x },
      ),
    }));
    return { ...base, plans, isChosenListed: !surface.seam || plans.some((p) => p.isChosen) };
  });

  private said(at: readonly number[], direction: 'upright' | 'level'): string {
    return `seam at ${at.map((x) => formatLength(x, this.record.units())).join(' and ')} ${direction === 'upright' ? 'from the left' : 'from the sill'}`;
  }
  protected setBars(box: HTMLInputElement): void {
    const s = this.record.pane();
    const parts = box.value.split(/[,;]/).map((t) => t.trim()).filter(Boolean); // prettier-ignore
    const read = parts.map((t) => parseLength(t, this.record.units()));
    box.setCustomValidity(read.some((r) => !r.ok) ? 'Lengths from the left side of the pane, separated by commas.' : '');
    if (!box.reportValidity() || !s) return;
    this.ownBars.set({ id: s.id, at: read.flatMap((r) => (r.ok ? [r.value.lengthMm] : [])) });
  }
  protected choose(plan: SeamPlan | null): void {
    const s = this.record.pane();
    if (s)
      void this.record.set(plan ? `${kindNames[plan.seam.kind]} seam on ${s.name}` : `No seam on ${s.name}`, 'surface', s.id, { seam: plan?.seam ?? null });
  }
}

const isSame = (plan: SeamPlan, surface: Pane): boolean =>
  surface.seam !== null &&
  surface.seam.kind === plan.seam.kind &&
  surface.seam.direction === plan.seam.direction &&
  surface.seam.atMm.length === plan.seam.atMm.length &&
  surface.seam.atMm.every((x, i) => Math.abs(x - plan.seam.atMm[i]!) < 0.2);
