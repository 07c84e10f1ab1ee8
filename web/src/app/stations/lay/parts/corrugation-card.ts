import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Corrugation, Panel } from '@yellow-pane/contracts';
import { corrugationWords, planCorrugation, stretchLimitOf } from '@yellow-pane/core/form';
import { judgeRibs, noSectionByMm } from '@yellow-pane/core/measure';
import { RibDrawing } from '../../../kit/rib-drawing';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { StretchDoing } from './stretch-doing';

const wayNames = { fed: 'Fed in', bridged: 'Over the crests' } as const satisfies Record<Corrugation['way'], string>;

/** How film goes over the ribs of a sheet: fed in, or stretched over the crests and formed in; what either costs. */
@Component({
  selector: 'yp-corrugation-card',
  imports: [RibDrawing, StretchDoing, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (card(); as c) {
      <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="Film over the ribs" data-corrugation-card>
        <div class="flex flex-wrap items-center gap-2">
          <p class="cap mr-auto">Over its ribs</p>
          @for (w of ways; track w) {
            <button
              type="button"
              class="btn min-h-11 px-3! md:min-h-8"
              [class.bg-hand!]="w === c.corrugation.way"
              [attr.aria-pressed]="w === c.corrugation.way"
              (click)="choose(w)"
            >
              {{ wayNames[w] }}
            </button>
          }
        </div>
        <yp-stretch-doing [words]="c.words">
          <yp-rib-drawing class="mx-auto mt-1 block max-w-[360px]" [corrugation]="c.corrugation" [units]="record.units()" [label]="c.words.headline" />
        </yp-stretch-doing>
        <yp-why [lines]="c.words.why" />
      </section>
    }
  `,
})
export class CorrugationCard {
  readonly surface = input.required<Panel>();
  protected readonly record = inject(RecordStore);
  protected readonly ways = ['fed', 'bridged'] as const;
  protected readonly wayNames = wayNames;
  protected readonly card = computed(() => {
    const { corrugation, filmId } = this.surface();
    if (!corrugation || noSectionByMm(corrugation) > 0) return null;
    const film = this.record.doc()?.films.find((f) => f.id === filmId);
    const plan = planCorrugation(corrugation, stretchLimitOf(film), judgeRibs(corrugation).ribs.girthMm);
    const bendMm = corrugation.form === 'wave' ? Infinity : corrugation.bendMm;
    return { corrugation, words: corrugationWords(plan, corrugation.way, bendMm, this.record.units()) };
  });

  protected choose(way: Corrugation['way']): void {
    const s = this.surface();
    if (s.corrugation && way !== s.corrugation.way)
      void this.record.set(`How film goes over the ribs of ${s.name}`.slice(0, 120), 'surface', s.id, { corrugation: { ...s.corrugation, way } });
  }
}
