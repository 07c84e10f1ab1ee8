import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { PrimerSchool } from '@yellow-pane/contracts';
import { boxOfFilm, dryAreaM2, groundPlan, wantedFor, linesInForce, roomOf, sheetOfSurface, verdictOnGround, waitText } from '@yellow-pane/core';
import { measureOf, toldAll } from '@yellow-pane/core/ground';
import { RecordStore } from '../../../record/record.store';
import { DayStore } from '../day.store';

/** What has to be done to a ground before film that is laid dry goes on: tasks in their order, their waits, and what the hand has to find. */
@Component({
  selector: 'yp-ground-plan-panel',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <div class="mb-3 flex flex-wrap items-center gap-3">
        <h3 class="text-lg">Before film goes on {{ v.name }}</h3>
        @if (v.plan.coats > 0) {
          <div class="flex gap-1.5 text-sm" role="group" aria-label="Primer">
            @for (s of schools; track s.id) {
              <button
                type="button"
                class="btn"
                [class.btn-hand]="s.id === school()"
                [attr.aria-pressed]="s.id === school()"
                (click)="day.set('Primer', { primer: s.id })"
              >
                {{ s.name }}
              </button>
            }
          </div>
        }
      </div>
      @for (r of v.stops; track r) {
        <p class="mb-2 border-l-4 border-harm bg-harm-tint p-2.5" data-ground-stop>{{ r }}</p>
      }
      <ol class="max-w-2xl" data-ground-plan>
        @for (t of v.tasks; track t.key) {
          <li class="relief mb-2 grid grid-cols-[2rem_1fr] border border-line bg-card p-3">
            <span class="figure text-soft">{{ $index + 1 }}</span>
            <div>
              <p>
                <strong>{{ t.title }}.</strong> {{ t.text }}
                @if (v.done.has(t.key)) {
                  <span class="ml-1 font-bold" data-ground-done>✓ logged</span>
                }
              </p>
              @if (t.wait) {
                <p class="mt-1 border-l-4 border-wet bg-wet-tint px-2 py-1 text-sm">
                  Then wait {{ t.wait }}.
                  @if (t.proof) {
                    <strong>Go on when: {{ t.proof }}</strong>
                  }
                </p>
              } @else if (t.proof) {
                <p class="mt-1 text-sm text-soft">Right when: {{ t.proof }}</p>
              }
              @if (t.caution) {
                <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-sm">{{ t.caution }}</p>
              }
            </div>
          </li>
        }
      </ol>
      @if (v.isLogged) {
        <p class="mb-2 flex max-w-2xl flex-wrap items-center gap-3">
          <a class="btn" [routerLink]="['/jobs', v.jobId, 'lay']" queryParamsHandling="preserve">Log them in Lay</a>
          <span class="text-sm text-soft">Its first steps there: each wait runs from its line, and ends when the hand has proven it.</span>
        </p>
      }
      <p class="max-w-2xl text-sm text-soft">
        Waits {{ v.waits }} in all, {{ v.room }}. {{ v.primer }} Water dries with the deficit of vapour pressure, solvent twice as fast for every 10 °C: common
        practice says over 2 h and over 1 h; the maker’s sheet goes before it, and the hand before the clock.
      </p>
    }
  `,
})
export class GroundPlanPanel {
  private readonly record = inject(RecordStore);
  protected readonly day = inject(DayStore);
  protected readonly schools: readonly { readonly id: PrimerSchool; readonly name: string }[] = [
    { id: 'water', name: 'Water-based primer' },
    { id: 'solvent', name: 'Solvent-based' },
  ];
  protected readonly school = computed(() => this.day.settings().primer);
  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.drySurface(), this.record.units()];
    if (!doc || !surface) return null;
    const typed = this.day.settings().typed;
    const isRead = typed.roomC !== null && typed.roomHumidityPct !== null;
    const air = roomOf({ typed });
    const film = doc.films.find((f) => f.id === surface.filmId);
    const plan = groundPlan(
      surface.ground,
      dryAreaM2(surface, doc) ?? 0,
      this.school(),
      air,
      film ? boxOfFilm(film, doc.rolls) : null,
      wantedFor(film, surface),
    );
    const steps = sheetOfSurface(surface, doc)?.steps ?? [];
    // only what somebody wrote down: a tap for the whole surface says nothing of its ground
    const logged = new Set(linesInForce(doc.layEntries).flatMap((e) => (e.surfaceId === surface.id && e.kind === 'step-done' ? [e.stepKey] : [])));
    const verdict = verdictOnGround(
      film ?? { name: 'Film', kind: 'cast-wrap', drying: 'dry-applied', mounting: 'not-on-glass' },
      surface.ground,
      this.day.on(),
      surface.kind === 'sign',
    );
    const temp = measureOf('temperature', units);
    return {
      name: surface.name,
      jobId: doc.job.id,
      isLogged: steps.some((s) => s.key.startsWith('ground-')),
      done: new Set<string>(plan.tasks.filter((t) => logged.has(`ground-${t.key}`)).map((t) => t.key)),
      plan,
      stops: toldAll(verdict.reasons.filter((r) => r.grade === 'do-not' || r.grade === 'ask').map((r) => r.words), units), // prettier-ignore
      tasks: toldAll(plan.tasks.map((t) => ({ ...t, wait: t.waitHours && waitText(t.waitHours) })), units), // prettier-ignore
      waits: waitText(plan.waitHours),
      room: `${isRead ? 'by the room as it was read' : 'the room taken as'}: ${temp.to(air.airC).toFixed(0)} ${temp.unit}, ${air.humidityPct} %`,
      primer: plan.primerL > 0 ? `About ${plan.primerL.toFixed(1)} l of thinned primer.` : '',
    };
  });
}
