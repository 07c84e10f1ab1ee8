import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { grooveForm, type Groove, type Panel } from '@yellow-pane/contracts';
import { grooveName, panelDoubtText, type PanelSurvey } from '@yellow-pane/core';
import { formatLength } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

const ways = [
  { id: 'upright', name: 'Upright' },
  { id: 'level', name: 'Level' },
  { id: 'frame', name: 'Frame' },
] as const;
const formNames: Readonly<Record<Groove['form'], string>> = { square: 'straight sides', vee: 'sloping sides', round: 'round bottom', moulding: 'moulding' };

/** A groove as it begins: where one usually is. @source house figures */
const newGroove = (way: Groove['run']['way'], wide: number, high: number): Groove => ({
  id: uuidv7(),
  run:
    way === 'upright'
      ? { way, fromLeftMm: Math.round(wide / 2) }
      : way === 'level'
        ? { way, fromFootMm: Math.round(high / 2) }
        : {
            way,
            fromLeftMm: Math.round(wide * 0.15),
            fromFootMm: Math.round(wide * 0.15),
            acrossMm: Math.round(wide * 0.7),
            upMm: Math.round(high - wide * 0.3),
          },
  toFarEdgeMm: null,
  form: 'vee',
  widthMm: 8,
  depthMm: 3,
  flatMm: 0,
  girthMm: null,
});

/** What of a groove is a place and size of its own way. */
function runLengths({ run }: Groove): PartLength[] {
  const left = { field: 'fromLeftMm', name: 'From the left edge', is: 'place' } as const;
  const foot = { field: 'fromFootMm', name: 'From the foot', is: 'place' } as const;
  if (run.way === 'upright') return [{ ...left, mm: run.fromLeftMm }];
  if (run.way === 'level') return [{ ...foot, mm: run.fromFootMm }];
  return [
    { ...left, mm: run.fromLeftMm },
    { ...foot, mm: run.fromFootMm },
    { field: 'acrossMm', name: 'Frame, across', mm: run.acrossMm, is: 'size' },
    { field: 'upMm', name: 'Frame, high', mm: run.upMm, is: 'size' },
  ];
}
function lengthsOf(g: Groove): PartLength[] {
  const far = { field: 'toFarEdgeMm', name: g.run.way === 'level' ? 'On to the top' : 'On to the right edge', mm: g.toFarEdgeMm, is: 'open' } as const;
  const section: PartLength[] = [
    { field: 'widthMm', name: 'Mouth, wide', mm: g.widthMm, is: 'size' },
    ...(g.form === 'moulding' ? [] : [{ field: 'depthMm', name: 'Deep', mm: g.depthMm, is: 'size' } as const]),
    ...(g.form === 'vee' ? [{ field: 'flatMm', name: 'Flat at its foot', mm: g.flatMm, is: 'place' } as const] : []),
    { field: 'girthMm', name: 'String pressed in', mm: g.girthMm, is: 'open' },
  ];
  return [...runLengths(g), far, ...section];
}

/** Grooves and mouldings of a panel: where they run, how they are cut, and what a string says of them. */
@Component({
  selector: 'yp-grooves-panel',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Grooves and mouldings</h3>
      @for (w of ways; track w.id) {
        <button type="button" class="btn text-sm" (click)="add(w.id)">+ {{ w.name }}</button>
      }
    </div>
    @for (g of rows(); track g.groove.id) {
      <section class="mb-2 border-l-4 p-2" [class]="g.doubts.length ? 'border-ink bg-tint' : 'border-hair bg-card'" [attr.aria-label]="g.name" data-groove>
        <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
          <strong>{{ g.title }}</strong>
          <select #form class="field w-auto!" [attr.aria-label]="g.name + ', how it is cut'" (change)="setForm(g.groove, form.value)">
            @for (o of forms; track o) {
              <option [value]="o" [selected]="o === g.groove.form">{{ formNames[o] }}</option>
            }
          </select>
          <span class="text-soft">{{ g.slack }}</span>
          <button type="button" class="btn ml-auto px-2!" [attr.aria-label]="'Delete ' + g.name" (click)="remove(g.groove)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="g.lengths" [of]="g.title" (changed)="set(g.groove, $event.field, $event.mm)" />
        @for (d of g.doubts; track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @empty {
      <p class="mb-2 text-sm text-soft">None: a smooth face. Every groove takes film with its girth.</p>
    }
  `,
})
export class GroovesPanel {
  readonly surface = input.required<Panel>();
  readonly survey = input.required<PanelSurvey>();
  private readonly record = inject(RecordStore);
  protected readonly ways = ways;
  protected readonly forms = grooveForm.options;
  protected readonly formNames = formNames;
  protected readonly rows = computed(() => {
    const [{ grooves }, survey, units] = [this.surface(), this.survey(), this.record.units()];
    return grooves.map((groove) => {
      const judged = survey.grooves.find((j) => j.groove.id === groove.id);
      const name = grooveName(groove, grooves);
      return {
        groove,
        name,
        title: name[0]!.toUpperCase() + name.slice(1),
        lengths: lengthsOf(groove),
        slack: judged?.girthMm ? `takes ${formatLength(judged.girthMm, units)} of film over ${formatLength(groove.widthMm, units)}` : 'press a string into it',
        doubts: survey.doubts.filter((d) => d.part === groove.id).map((d) => panelDoubtText(d, this.surface(), units)),
      };
    });
  });

  protected add(way: Groove['run']['way']): void {
    const box = this.survey().face.outline;
    const [wide, high] = box ? [Math.max(...box.map((p) => p.x)), Math.max(...box.map((p) => p.y))] : [800, 2000];
    this.change('New groove', [...this.surface().grooves, newGroove(way, wide, high)]);
  }
  protected remove(groove: Groove): void {
    this.change(
      'Delete a groove',
      this.surface().grooves.filter((g) => g.id !== groove.id),
    );
  }
  protected setForm(groove: Groove, form: string): void {
    this.put({ ...groove, form: grooveForm.catch(groove.form).parse(form) });
  }
  protected set(groove: Groove, field: string, mm: number | null): void {
    this.put(field in groove.run ? { ...groove, run: { ...groove.run, [field]: mm } as Groove['run'] } : { ...groove, [field]: mm });
  }
  private put(groove: Groove): void {
    this.change(
      'A groove',
      this.surface().grooves.map((g) => (g.id === groove.id ? groove : g)),
    );
  }
  private change(label: string, grooves: Groove[]): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { grooves });
  }
}
