import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Ground } from '@yellow-pane/contracts';
import { isLaidDry, PATCH_WORDS, verdictOnGround, type GroundVerdict } from '@yellow-pane/core';
import { dateAt, formatRough } from '@yellow-pane/core/ground';
import { FilmSwatch } from '../../kit/film-swatch';
import { GroundFields } from '../../kit/ground-fields';
import { RecordStore } from '../../record/record.store';
import { filmsToOffer } from './choose.updaters';

const gradeWords: Readonly<Record<GroundVerdict['grade'], string>> = {
  suits: 'Suits it',
  prepare: 'Suits it once prepared',
  ask: 'Ask or try first',
  'do-not': 'Not on this',
};
const gradeLook: Readonly<Record<GroundVerdict['grade'], string>> = {
  suits: 'border-proof bg-proof-tint',
  prepare: 'border-wet bg-wet-tint',
  ask: 'border-ink bg-tint',
  'do-not': 'border-harm bg-harm-tint',
};

/** Choose, of what is no glass: what it is made of, and which film that is laid dry suits it. */
@Component({
  selector: 'yp-dry-choice',
  imports: [FilmSwatch, GroundFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
        <section class="min-w-0 flex-1 px-4 pt-3 md:overflow-y-auto" aria-labelledby="dry-title">
          <h2 id="dry-title" class="mb-1 text-xl">{{ v.surface.name }}</h2>
          <p class="mb-3 text-soft">Film that is laid dry, on what it is made of. The makers’ instructions go before these rules.</p>
          <ul class="grid gap-2 pb-4 lg:grid-cols-2">
            @for (r of v.rows; track r.film.id) {
              <li>
                <button
                  type="button"
                  class="relief flex w-full gap-3 border p-3 text-left"
                  [class]="r.isChosen ? 'border-2 border-ink bg-tint' : 'border-line bg-card hover:bg-glass'"
                  [attr.aria-pressed]="r.isChosen"
                  [attr.data-film]="r.film.name"
                  (click)="choose(r.film.id, r.film.name)"
                >
                  <yp-film-swatch [film]="r.film" />
                  <span class="min-w-0">
                    <strong class="block">{{ r.film.name }}</strong>
                    <span class="mt-1 inline-block border-l-4 px-2 text-sm" [class]="r.look">{{ r.grade }}</span>
                  </span>
                </button>
              </li>
            } @empty {
              <li class="text-soft">No film in the library is laid dry yet: add one in Films.</li>
            }
          </ul>
        </section>
        <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[300px] md:border-l xl:w-[340px]" aria-label="Numbers" tabindex="-1">
          <h3 class="cap mb-2">What it is</h3>
          <yp-ground-fields class="mb-3 block" [ground]="v.surface.ground" (changed)="setGround($event)" />
          <h3 class="cap mb-2">{{ v.film ? v.film.name + ' on it' : 'Whatever film' }}</h3>
          <div class="border-l-4 p-3" [class]="v.look" data-ground-verdict aria-live="polite">
            <p class="font-semibold">{{ v.grade }}</p>
            @for (r of v.verdict.reasons; track r.words) {
              <p class="mt-1 text-sm">{{ r.words }}</p>
            }
            @if (v.verdict.needsPatch) {
              <p class="mt-2 text-sm">{{ v.patch }}</p>
            }
          </div>
        </aside>
      </div>
    }
  `,
})
export class DryChoice {
  protected readonly record = inject(RecordStore);
  protected readonly view = computed(() => {
    const [doc, surface] = [this.record.doc(), this.record.drySurface()];
    if (!doc || !surface) return null;
    const today = dateAt(Date.now(), doc.job.zone);
    const offered = filmsToOffer(doc).filter((f) => isLaidDry(f) || f.id === surface.filmId);
    const film = offered.find((f) => f.id === surface.filmId) ?? null;
    const any = { name: 'This film', kind: 'cast-wrap', drying: 'dry-applied', mounting: 'not-on-glass' } as const;
    const verdict = verdictOnGround(film ?? any, surface.ground, today, surface.kind === 'sign');
    return {
      surface,
      film,
      verdict,
      grade: gradeWords[verdict.grade],
      look: gradeLook[verdict.grade],
      patch: PATCH_WORDS.replace('{150 mm}', formatRough(150, this.record.units())),
      rows: offered.map((f) => {
        const { grade } = verdictOnGround(f, surface.ground, today, surface.kind === 'sign');
        return { film: f, grade: gradeWords[grade], look: gradeLook[grade], isChosen: f.id === surface.filmId };
      }),
    };
  });
  protected choose(filmId: string, name: string): void {
    const s = this.record.drySurface();
    if (s) void this.record.set(`${name} for ${s.name}`, 'surface', s.id, { filmId: s.filmId === filmId ? null : filmId });
  }
  protected setGround(ground: Ground): void {
    const s = this.record.drySurface();
    if (s) void this.record.set(`What ${s.name} is made of`, 'surface', s.id, { ground });
  }
}
