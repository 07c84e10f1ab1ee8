import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  acceptanceRule,
  allowances,
  sizeStep,
  blades,
  decimalPrice,
  formingSchool,
  leftoverRule,
  MOST_ALLOWANCE_MM,
  rates,
  type Allowances,
  type Blades,
  type LearnedMinutes,
  type LeftoverRule,
  type Rates,
  type UnitSystem,
  type WorkClass,
} from '@yellow-pane/contracts';
import { defaultAcceptance, farText } from '@yellow-pane/core/check';
import { dryOf, sizeStepNames } from '@yellow-pane/core/cut';
import { schoolNames } from '@yellow-pane/core/form';
import { figureOf, formatDifference, formatInches, formatLength, measureOf, parseLength, told } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { DryFields, withDry, type DryChange } from '../../kit/dry-fields';
import { BenchBar } from '../../kit/bench-bar';
import { Api } from '../../record/api';
import { BenchStore } from '../../record/bench.store';
import { StepsPanel } from './steps-panel';

const allowanceFields = [
  { field: 'overhangMm', name: 'Overhang', why: 'Film past the frame on a side that is trimmed on the glass.' },
  { field: 'overhangTopMm', name: 'Overhang at the top', why: 'More where tape tabs hang.' },
  { field: 'edgeGapMm', name: 'Edge gap', why: 'Free glass where nothing is trimmed, so that water can leave.' },
] as const;

const bladeNames = [
  { field: 'cleaningMm', name: 'For cleaning', why: 'Wide ones: quick.' },
  { field: 'pressingMm', name: 'For pressing film', why: 'Narrow ones: the same hand presses harder. Usual: 50–150 mm (2–6 in), at most 200 (8).' },
  { field: 'thickMm', name: 'For thick film', why: 'The narrowest: usual up to 150 mm (6 in).' },
] as const;

const ruleFields = [
  { field: 'distanceMm', name: 'Looked at from', why: 'At right angles, in daylight. Usual: ' },
  { field: 'unseenMm', name: 'Not counted under', why: 'Smaller than this is not seen from there.' },
  { field: 'speckMm', name: 'Largest speck', why: 'A larger one does not pass.' },
  { field: 'lineMm', name: 'Longest hair or line', why: 'A longer one does not pass.' },
  { field: 'perM2', name: 'Specks to the ', why: 'So many pass, if they are apart.' },
  { field: 'apartMm', name: 'Apart by', why: 'Nearer, they are seen as one.' },
  { field: 'edgeMm', name: 'Edge zone', why: 'There twice as many pass.' },
] as const;
type RuleField = (typeof ruleFields)[number]['field'] | 'source';

const rateNames = [
  { field: 'hourRate', name: 'Hour rate for prices' },
  { field: 'setUpMinutes', name: 'Setting up, min' },
  { field: 'paneMinutes', name: 'Each pane, min' },
  { field: 'minutesPerM2', part: 'tint', name: 'Tint, min', per: 'perArea' },
  { field: 'minutesPerM2', part: 'frost', name: 'Frost, min', per: 'perArea' },
  { field: 'minutesPerM2', part: 'security', name: 'Security, min', per: 'perArea' },
  { field: 'cleaningMinutesPerM2', name: 'Cleaning, min', per: 'perArea' },
  { field: 'oldFilmMinutesPerM2', name: 'Old film off, min', per: 'perArea' },
  { field: 'siliconeMinutesPerM', name: 'Silicone, min', per: 'perLength' },
  { field: 'ladderFactor', name: 'On a ladder, times' },
  { field: 'towerFactor', name: 'On a tower, times' },
  { field: 'travelPerKm', name: 'Travel', per: 'perDistance' },
  { field: 'materialMarginPct', name: 'On film, %' },
  { field: 'minimum', name: 'Minimum' },
  { field: 'taxPct', name: 'Tax on work, %' },
  { field: 'filmTaxPct', name: 'on film, % (empty: same)' },
] as const;

/** The firm: who works here, what an hour is worth, and the allowances that every job starts from. */
@Component({
  selector: 'yp-firm-page',
  imports: [BenchBar, DryFields, StepsPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-bench-bar [firm]="bench.doc()?.firm?.name ?? ''" />
    <main class="mx-auto max-w-4xl p-6">
      <div class="mb-4 flex items-center justify-between">
        <h1 class="text-2xl">Firm</h1>
        <button type="button" class="btn" [disabled]="!bench.doc()?.canUndo" (click)="bench.reverse('undo')">Undo</button>
      </div>
      @if (bench.doc(); as doc) {
        <div class="grid gap-6 md:grid-cols-2">
          <section aria-labelledby="own">
            <h2 id="own" class="cap mb-2">The firm</h2>
            <label class="mb-2 block text-sm"
              >Name<input #name class="field" maxlength="120" [value]="doc.firm.name" (change)="set('Name of the firm', 'name', name.value.trim())"
            /></label>
            <div class="grid grid-cols-3 gap-3">
              <label class="block text-sm">Hour rate<input #rate class="field figure" [value]="doc.firm.hourRate" (change)="setRate(rate)" /> </label>
              <label class="block text-sm"
                >Currency<input #money class="field" maxlength="3" [value]="doc.firm.currency" (change)="setCurrency(money)"
              /></label>
              <label class="block text-sm"
                >Tapes in<select #units class="field" (change)="set('Units of the firm', 'units', units.value)">
                  <option value="mm" [selected]="doc.firm.units === 'mm'">mm</option>
                  <option value="in" [selected]="doc.firm.units === 'in'">inches</option>
                </select></label
              >
            </div>
            <p class="mt-2 text-sm text-soft">The hour rate weighs minutes against metres where cutting methods are compared.</p>
            <h2 class="cap mt-6 mb-2">People</h2>
            @for (p of doc.persons; track p.id) {
              <div class="mb-2 grid grid-cols-2 gap-2">
                <input #who class="field" maxlength="80" aria-label="Name" [value]="p.name" (change)="setPerson(p.id, 'name', who.value)" />
                <input #role class="field" maxlength="80" aria-label="Trade" [value]="p.role" (change)="setPerson(p.id, 'role', role.value)" />
              </div>
            }
            <form class="flex gap-2" (submit)="$event.preventDefault(); addPerson(fresh)">
              <input #fresh class="field" maxlength="80" placeholder="Somebody new" aria-label="Somebody new" />
              <button class="btn">Add</button>
            </form>
          </section>
          <section aria-labelledby="allow">
            <h2 id="allow" class="cap mb-2">Allowances that every job starts from</h2>
            @for (a of fields(); track a.field) {
              <label class="mb-3 grid grid-cols-[1fr_7rem] items-center gap-3"
                ><span
                  >{{ a.name }}<span class="block text-sm text-soft">{{ a.why }}</span></span
                ><input #box class="field figure" [value]="a.value" (change)="setAllowance(a.field, box)"
              /></label>
            }
            <label class="mb-3 grid grid-cols-[1fr_11rem] items-center gap-3"
              ><span
                >Handy sizes<span class="block text-sm text-soft">what is trimmed on the glass is cut to the next step; what has to fit never is</span></span
              ><select #step class="field" (change)="setSizeStep(step.value)">
                @for (s of sizeSteps; track s) {
                  <option [value]="s" [selected]="s === (doc.firm.allowances.sizeStep ?? 'none')">{{ stepNames[s][doc.firm.units] }}</option>
                }
              </select></label
            >
            <label class="mb-3 grid grid-cols-[1fr_11rem] items-center gap-3"
              ><span>Forming on curved glass<span class="block text-sm text-soft">unless a job or a pane says otherwise</span></span
              ><select #forming class="field" (change)="set('Forming of the firm', 'forming', forming.value || null)">
                <option value="">as recommended</option>
                @for (s of formingWays; track s.id) {
                  <option [value]="s.id" [selected]="s.id === firmForming()">{{ s.name }}</option>
                }
              </select></label
            >
            <h2 class="cap mt-5 mb-2">Pieces that are laid dry</h2>
            <yp-dry-fields data-dry [dry]="firmDry()" [own]="doc.firm.dry ?? null" [units]="doc.firm.units" (changed)="setDry($event)" />
            <h2 class="cap mt-5 mb-2">Blades in the van</h2>
            @for (b of bladeFields(); track b.field) {
              <label class="mb-2 grid grid-cols-[1fr_11rem] items-center gap-3"
                ><span
                  >{{ b.name }}<span class="block text-sm text-soft">{{ b.why }}</span></span
                ><input #box class="field figure" [value]="b.value" (change)="setBlades(b.field, b.name, box)"
              /></label>
            }
            <h2 class="cap mt-5 mb-2">Leftovers worth keeping</h2>
            <div class="grid grid-cols-3 gap-3">
              @for (l of leftoverFields(); track l.field) {
                <label class="block text-sm">{{ l.name }}<input #box class="field figure" [value]="l.value" (change)="setLeftover(l.field, box)" /></label>
              }
            </div>
            <p class="mt-2 text-sm text-soft">
              A job may set its own allowances, and a pane its own again. Pieces of open jobs follow at once; a plan the knife has been at stays.
            </p>
          </section>
          <section class="md:col-span-2" aria-labelledby="rule" data-rule>
            <h2 id="rule" class="cap mb-2">What is let pass on film that is on</h2>
            <div class="grid gap-3 sm:grid-cols-4">
              @for (r of ruleRows(); track r.field) {
                <label class="text-sm"
                  >{{ r.name }}<input #box class="field figure" [attr.aria-label]="r.name" [value]="r.value" (change)="setRule(r.field, box.value)" /><span
                    class="text-soft"
                    >{{ r.why }}</span
                  ></label
                >
              }
              <label class="text-sm sm:col-span-3"
                >Where it comes from<input
                  #source
                  class="field"
                  maxlength="200"
                  aria-label="Where the rule comes from"
                  [value]="rule().source"
                  (change)="setRule('source', source.value)"
              /></label>
            </div>
            <p class="mt-1 text-sm text-soft">What was agreed with the customer, and local standards, come before it.</p>
          </section>
          <section class="md:col-span-2" aria-labelledby="rates">
            <h2 id="rates" class="cap mb-2">Rates for prices at the window{{ rates() ? ', version ' + rates()!.version : '' }}</h2>
            <div class="grid grid-cols-2 gap-3 sm:grid-cols-3 md:grid-cols-5">
              @for (r of rateFields(); track r.name) {
                <label class="block text-sm"
                  >{{ r.name }}<input #box class="field figure" [value]="r.value" (change)="setRateField(r.field, r.part, box)"
                /></label>
              }
            </div>
            <p class="mt-2 text-sm text-soft">A change makes a new version; prices already made keep theirs.</p>
            @if (learned().length) {
              <h3 class="cap mt-3 mb-1">What the taps on the glass say</h3>
              @for (l of learned(); track l.work) {
                <p class="flex flex-wrap items-center gap-3 border-b border-hair py-1 text-sm" data-learned>
                  <span class="flex-1">{{ l.text }}</span>
                  <button type="button" class="btn" (click)="takeIn(l.work, l.suggestedPerM2)">Take it into the rates</button>
                </p>
              }
            }
          </section>
          <yp-steps-panel class="md:col-span-2" />
        </div>
      } @else {
        <p class="text-soft" aria-busy="true">{{ bench.failed() ?? 'Looking …' }}</p>
      }
      @if (note() || bench.refusal(); as text) {
        <p role="alert" class="mt-4 border-l-4 border-ink bg-tint p-3">{{ text }}</p>
      }
    </main>
  `,
})
export class FirmPage {
  protected readonly bench = inject(BenchStore);
  protected readonly note = signal('');

  protected readonly fields = computed(() => {
    const firm = this.bench.doc()?.firm;
    return firm ? allowanceFields.map((a) => ({ ...a, value: shown(firm.allowances[a.field], firm.units) })) : [];
  });

  protected readonly leftoverFields = computed(() => {
    const firm = this.bench.doc()?.firm;
    if (!firm) return [];
    const l = firm.leftovers;
    return [
      { field: 'smallestSideMm', name: 'Shorter side from', value: shown(l.smallestSideMm, firm.units) },
      { field: 'smallestAreaM2', name: `and ${measureOf('area', firm.units).unit} from`, value: figureOf(l.smallestAreaM2, 'area', firm.units) },
      { field: 'worthFrac', name: 'Worth, % of new', value: String(Math.round(l.worthFrac * 100)) },
    ] as const;
  });

  protected readonly bladeFields = computed(() => {
    const firm = this.bench.doc()?.firm;
    return firm ? bladeNames.map((b) => ({ ...b, value: firm.blades[b.field].map((w) => shown(w, firm.units)).join(', ') })) : [];
  });

  protected readonly formingWays = formingSchool.options.map((id) => ({ id, name: schoolNames[id] }));
  protected readonly firmForming = computed(() => this.bench.doc()?.firm.forming ?? null);

  private readonly units = computed(() => this.bench.doc()?.firm.units ?? 'mm');
  protected readonly rates = computed(() => this.bench.doc()?.rates.at(-1) ?? null);
  protected readonly rateFields = computed(() => {
    const r = this.rates();
    if (!r) return [];
    const { units } = this;
    return rateNames.map((f) => {
      const value = ('part' in f ? r.minutesPerM2[f.part] : r[f.field]) ?? '';
      const per = 'per' in f && units() === 'in' && value !== '' ? figureOf(Number(value), f.per, 'in') : String(value);
      return { ...f, name: 'per' in f ? `${f.name} per ${measureOf(f.per, units()).unit}` : f.name, part: 'part' in f ? f.part : null, value: per };
    });
  });

  private readonly api = inject(Api);
  private readonly timed = signal<LearnedMinutes>([]);
  /** What the taps say, where they say something else than the rates. */
  protected readonly learned = computed(() =>
    this.timed().map((l) => ({
      ...l,
      text: `${{ tint: 'Tint', frost: 'Frost', security: 'Security' }[l.work]}: panes took ${l.factor.toFixed(2)} times what the rates say (middle half ${l.middleHalf.map((v) => v.toFixed(2)).join(' to ')}), from ${l.paneCount} ${l.paneCount === 1 ? 'pane' : 'panes'} in ${l.jobCount} ${l.jobCount === 1 ? 'job' : 'jobs'}. Counted as ${l.usedFactor.toFixed(2)}: ${measureOf(
        'perArea',
        this.units(),
      )
        .to(l.suggestedPerM2)
        .toFixed(this.units() === 'in' ? 2 : 1)} min per ${measureOf('perArea', this.units()).unit}.`,
    })),
  );

  constructor() {
    void this.bench.load();
    void this.api.layMinutes().then(
      (l) => this.timed.set(l),
      () => undefined,
    );
  }

  protected takeIn(work: WorkClass, minutesPerM2: number): void {
    const old = this.rates();
    if (!old) return;
    const next: Rates = { ...old, minutesPerM2: { ...old.minutesPerM2, [work]: Math.round(minutesPerM2 * 10) / 10 }, id: uuidv7(), version: old.version + 1, createdAt: new Date().toISOString() }; // prettier-ignore
    void this.bench.change('Rates from logged times', [{ op: 'add', kind: 'rates', id: next.id, value: next }]).then(() => this.api.layMinutes()).then((l) => this.timed.set(l)); // prettier-ignore
  }

  protected readonly rule = computed(() => this.bench.doc()?.firm.acceptance ?? defaultAcceptance);
  protected readonly ruleRows = computed(() => {
    const units = this.bench.doc()?.firm.units ?? 'mm';
    return ruleFields.map((r) => ({
      ...r,
      name: r.field === 'perM2' ? `${r.name}${measureOf('perArea', units).unit}` : r.name,
      why: r.field === 'distanceMm' ? `${r.why}${farText(defaultAcceptance.distanceMm, units)}.` : r.why,
      value: this.shownRule(r.field, units),
    }));
  });
  private shownRule(field: (typeof ruleFields)[number]['field'], units: UnitSystem): string {
    const value = this.rule()[field];
    if (field === 'perM2') return figureOf(value, 'perArea', units);
    return units === 'in' ? formatInches(value, { denominator: 32 }) : String(value);
  }
  /** A figure of the rule as it was typed; one that does not read is said and kept out. */
  protected setRule(field: RuleField, typed: string): void {
    const firm = this.bench.doc()?.firm;
    if (!firm) return;
    const name = this.ruleRows().find((r) => r.field === field)?.name ?? 'Where it comes from';
    let value: number | string = typed.trim();
    if (field === 'perM2') value = measureOf('perArea', firm.units).from(Number(typed.replace(',', '.')));
    else if (field !== 'source') {
      const read = parseLength(typed, firm.units);
      if (!read.ok) return this.note.set(`${name}: ${read.message}`);
      value = read.value.lengthMm;
    }
    const next = acceptanceRule.safeParse({ ...this.rule(), [field]: value });
    if (!next.success) return this.note.set(`${name}: that is out of what can be seen or agreed.`);
    this.set('What the firm lets pass', 'acceptance', next.data);
  }

  protected set(label: string, field: string, value: unknown): void {
    const firm = this.bench.doc()?.firm;
    if (!firm || value === '') return;
    this.note.set('');
    void this.bench.change(label, [{ op: 'set', kind: 'firm', id: firm.id, field, value }]);
  }
  protected readonly firmDry = computed(() => dryOf(this.bench.doc()?.firm?.dry));
  /** Emptied, a figure is again as it is shipped. */
  protected setDry(change: DryChange): void {
    const firm = this.bench.doc()?.firm;
    if (firm) this.set('What is added to pieces that are laid dry', 'dry', withDry(firm.dry ?? null, change) ?? {});
  }
  protected setRate(box: HTMLInputElement): void {
    const read = decimalPrice.safeParse(box.value.trim().replace(',', '.'));
    if (!read.success) return this.note.set('Hour rate: a number such as 48.00.');
    this.set('Hour rate', 'hourRate', read.data);
  }
  protected setCurrency(box: HTMLInputElement): void {
    const code = box.value.trim().toUpperCase();
    if (!/^[A-Z]{3}$/.test(code)) return this.note.set('Currency: three letters, such as EUR or USD.');
    this.set('Currency', 'currency', code);
  }
  protected readonly sizeSteps = sizeStep.options;
  protected readonly stepNames = sizeStepNames;
  protected setSizeStep(value: string): void {
    const firm = this.bench.doc()?.firm;
    if (firm) this.set('Handy sizes of the firm', 'allowances', { ...firm.allowances, sizeStep: sizeStep.parse(value) });
  }
  protected setAllowance(field: Exclude<keyof Allowances, 'sizeStep'>, box: HTMLInputElement): void {
    const firm = this.bench.doc()?.firm;
    if (!firm) return;
    const read = parseLength(box.value, firm.units);
    if (!read.ok) return this.note.set(read.message);
    const next = { ...firm.allowances, [field]: read.value.lengthMm };
    if (!allowances.safeParse(next).success) return this.note.set(`At most ${formatDifference(MOST_ALLOWANCE_MM[field], firm.units)}.`);
    this.set('Allowances of the firm', 'allowances', next);
  }
  /** A list such as `100, 150, 200`; kept only when all of it is read. */
  protected setBlades(field: keyof Blades, name: string, box: HTMLInputElement): void {
    const firm = this.bench.doc()?.firm;
    if (!firm) return;
    const read = box.value.split(/[,;]+/).filter((t) => t.trim() !== '').map((t) => parseLength(t, firm.units)); // prettier-ignore
    const wrong = read.find((r) => !r.ok);
    if (wrong && !wrong.ok) return this.note.set(`Blades ${name.toLowerCase()}: ${wrong.message}`);
    const widths = read.flatMap((r) => (r.ok ? [Math.round(r.value.lengthMm * 10) / 10] : [])).sort((a, b) => a - b);
    const next = { ...firm.blades, [field]: [...new Set(widths)] };
    if (!blades.safeParse(next).success)
      return this.note.set(`Blades ${name.toLowerCase()}: one to twelve widths between 25 and 900 mm (1 to 35 in), by commas.`);
    this.set('Blades in the van', 'blades', next);
  }
  protected setLeftover(field: keyof LeftoverRule, box: HTMLInputElement): void {
    const firm = this.bench.doc()?.firm;
    if (!firm) return;
    const length = field === 'smallestSideMm' ? parseLength(box.value, firm.units) : null;
    if (length && !length.ok) return this.note.set(length.message);
    const number = length?.ok
      ? length.value.lengthMm
      : field === 'smallestAreaM2'
        ? measureOf('area', firm.units).from(Number(box.value.trim().replace(',', '.')))
        : Number(box.value.trim().replace(',', '.')) / (field === 'worthFrac' ? 100 : 1);
    const read = leftoverRule.safeParse({ ...firm.leftovers, [field]: box.value.trim() === '' ? NaN : number });
    if (!read.success) return this.note.set(`A length, ${told('50 m²', firm.units)} at most, and a share between 0 and 100 %.`);
    this.set('Leftovers worth keeping', 'leftovers', read.data);
  }
  /** Every change of a rate is a new version: what was quoted stays as it was quoted. */
  protected setRateField(field: keyof Rates, part: keyof Rates['minutesPerM2'] | null, box: HTMLInputElement): void {
    const old = this.rates();
    if (!old) return;
    const typed = box.value.trim().replace(',', '.');
    const isPrice = typeof old[field] === 'string';
    const rate = rateNames.find((n) => n.field === field && (!part || ('part' in n && n.part === part)))!;
    // typed for a square foot, a foot, a mile: kept for a square metre, a metre, a kilometre
    const isPer = 'per' in rate && this.units() === 'in' && typed !== '' && Number.isFinite(Number(typed));
    const text = isPer ? measureOf(rate.per, 'in').from(Number(typed)).toFixed(4) : typed;
    const value = part
      ? { ...old.minutesPerM2, [part]: text === '' ? NaN : Number(text) }
      : isPrice
        ? text
        : text === ''
          ? field === 'filmTaxPct'
            ? null
            : NaN
          : Number(text);
    const next = { ...old, [field]: value, id: uuidv7(), version: old.version + 1, createdAt: new Date().toISOString() };
    const read = rates.safeParse(next);
    if (!read.success) return this.note.set(`${rate.name}: ${read.error.issues[0]!.message}.`);
    this.note.set('');
    void this.bench.change('Rates', [{ op: 'add', kind: 'rates', id: next.id, value: next }]);
  }
  protected setPerson(id: string, field: 'name' | 'role', value: string): void {
    if (value.trim()) void this.bench.change('Who works here', [{ op: 'set', kind: 'person', id, field, value: value.trim() }]);
  }
  protected addPerson(box: HTMLInputElement): void {
    const firm = this.bench.doc()?.firm;
    if (!firm || !box.value.trim()) return;
    const person = { id: uuidv7(), firmId: firm.id, name: box.value.trim(), role: 'installer' };
    void this.bench.change(`${person.name} works here`, [{ op: 'add', kind: 'person', id: person.id, value: person }]);
    box.value = '';
  }
}

/** An edge gap is told in tenths of a millimetre. */
const shown = (mm: number, units: UnitSystem): string => (units === 'mm' ? String(Math.round(mm * 10) / 10) : formatLength(mm, 'in'));
