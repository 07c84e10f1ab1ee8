import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { corrugation as corrugationSchema, type Corrugation, type Panel } from '@yellow-pane/contracts';
import { panelDoubtText, planCorrugation, stretchLimitOf, type PanelSurvey } from '@yellow-pane/core';
import { stretchPct } from '@yellow-pane/core/form';
import { formatLength } from '@yellow-pane/core/ground';
import { noSectionByMm } from '@yellow-pane/core/measure';
import { RibDrawing } from '../../../kit/rib-drawing';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** Ribs as they begin: a sheet for roofs and huts. @source from memory: 76 × 18 mm */
const newRibs: Corrugation = { run: 'upright', form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0, girthMm: null, way: 'fed' };
const choices = {
  run: { name: 'Ribs run', names: { upright: 'upright', level: 'level' } },
  form: { name: 'Section', names: { wave: 'waves', trapezoid: 'flats and flanks' } },
  way: { name: 'Film goes on', names: { fed: 'valley by valley, fed in', bridged: 'over the crests, formed in hot' } },
} as const;
const lengthsOf = (c: Corrugation): PartLength[] => [
  { field: 'pitchMm', name: 'Crest to crest', mm: c.pitchMm, is: 'size' },
  { field: 'depthMm', name: 'Deep', mm: c.depthMm, is: 'size' },
  ...(c.form === 'trapezoid'
    ? ([
        { field: 'crestMm', name: 'Flat of a crest', mm: c.crestMm, is: 'place' },
        { field: 'valleyMm', name: 'Flat of a valley', mm: c.valleyMm, is: 'place' },
        { field: 'bendMm', name: 'Bends, radius', mm: c.bendMm, is: 'place' },
      ] as const)
    : []),
  { field: 'girthMm', name: 'String over one rib', mm: c.girthMm, is: 'open' },
];

/** Ribs of a corrugated sheet: their section, and how film goes over them. */
@Component({
  selector: 'yp-corrugation-panel',
  imports: [PartLengths, RibDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Ribs</h3>
      @if (!surface().corrugation) {
        <button type="button" class="btn text-sm" (click)="put('Ribs', newRibs)">+ Ribs all over it</button>
      }
    </div>
    @if (surface().corrugation; as c) {
      <section class="mb-2 border-l-4 p-2" [class]="doubts().length ? 'border-ink bg-tint' : 'border-hair bg-card'" aria-label="Ribs" data-ribs>
        <div class="mb-2 flex flex-wrap items-end gap-2 text-sm">
          @for (f of fields; track f) {
            <label class="flex flex-col"
              >{{ choices[f].name
              }}<select #box class="field w-auto!" [attr.data-rib]="f" (change)="choose(f, box.value)">
                @for (o of options(f); track o.key) {
                  <option [value]="o.key" [selected]="o.key === c[f]">{{ o.name }}</option>
                }
              </select></label
            >
          }
          <button type="button" class="btn ml-auto px-2!" aria-label="Delete ribs" (click)="put('Delete the ribs', null)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="lengths()" of="Ribs" (changed)="set($event.field, $event.mm)" />
        @if (isSection()) {
          <yp-rib-drawing class="mx-auto mt-2 block max-w-[380px]" [corrugation]="c" [units]="record.units()" [label]="'Its ribs cut across. ' + said()" />
        }
        <p class="mt-1 text-sm" data-rib-word>{{ said() }}</p>
        @for (d of doubts(); track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @else {
      <p class="mb-2 text-sm text-soft">None. A corrugated sheet has ribs of one section over all of it; they take film too.</p>
    }
  `,
})
export class CorrugationPanel {
  readonly surface = input.required<Panel>();
  readonly survey = input.required<PanelSurvey>();
  protected readonly record = inject(RecordStore);
  protected readonly newRibs = newRibs;
  protected readonly choices = choices;
  protected readonly fields = ['run', 'form', 'way'] as const;
  protected readonly lengths = computed(() => lengthsOf(this.surface().corrugation ?? newRibs));
  protected readonly isSection = computed(() => noSectionByMm(this.surface().corrugation ?? newRibs) <= 0);
  protected readonly doubts = computed(() =>
    this.survey()
      .doubts.filter((d) => d.part === 'corrugation')
      .map((d) => panelDoubtText(d, this.surface(), this.record.units())),
  );
  /** What its ribs take, and what either way of laying costs. */
  protected readonly said = computed(() => {
    const ribs = this.survey().ribs;
    if (!ribs || !this.isSection()) return '';
    const film = this.record.doc()?.films.find((f) => f.id === this.surface().filmId) ?? null;
    const plan = planCorrugation(ribs.corrugation, stretchLimitOf(film), ribs.girthMm);
    const limit = plan.limitFrac === null ? '' : ` (${film!.name} stands ${stretchPct(plan.limitFrac)})`;
    return `${formatLength(ribs.girthMm, this.record.units())} of film from crest to crest, ${Math.round(100 * plan.moreFrac)} % more than it is wide. Fed in it stretches nowhere; formed in over the crests ${stretchPct(plan.bridgedFrac)}${limit}.`;
  });

  protected options(field: keyof typeof choices): { key: string; name: string }[] {
    return Object.entries(choices[field].names).map(([key, name]) => ({ key, name }));
  }
  protected choose(field: keyof typeof choices, value: string): void {
    const read = corrugationSchema.shape[field].safeParse(value);
    if (read.success) this.put(choices[field].name, { ...this.surface().corrugation!, [field]: read.data });
  }
  protected set(field: string, mm: number | null): void {
    this.put('Ribs', { ...this.surface().corrugation!, [field]: mm });
  }
  protected put(label: string, corrugation: Corrugation | null): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { corrugation });
  }
}
