import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  coatingKind,
  edgeCondition,
  faceFound,
  frameMaterial,
  paneKind,
  paneTint,
  unknownExposure,
  type Exposure,
  type FaceFound,
  type GlassPane,
  type Glazing,
  type UnitSystem,
} from '@yellow-pane/contracts';
import { commonGlazings, unseenPane } from '@yellow-pane/core/choose';
import { formatLength, parseLength } from '@yellow-pane/core/ground';
import { bearingName, Compass } from '../../../kit/compass';
import { readNumber } from '../../../kit/read-number';

const words: Record<string, string> = {
  unknown: 'I don’t know',
  float: 'plain float',
  'low-e-soft': 'soft low-e (inside a unit)',
  'low-e-hard': 'hard low-e',
  'solar-control': 'solar control',
  none: 'no coating',
  'broken-metal': 'metal, thermally broken',
  masonry: 'straight in masonry',
  ground: 'ground',
  cut: 'clean cut',
  damaged: 'chipped or damaged',
  patched: 'chipped and patched',
  hidden: 'not seen',
  plastic: 'plastic',
};
const say = (v: string): string => words[v] ?? v;

/** The build-up of the glass in words, from the street to the room, and where the pane stands. */
@Component({
  selector: 'yp-glass-editor',
  imports: [Compass],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="grid gap-x-6 gap-y-3 text-sm lg:grid-cols-[1fr_250px]">
      <section aria-labelledby="build">
        <div class="mb-2 flex flex-wrap items-end gap-2">
          <h3 id="build" class="cap mr-auto">Glass, from the street to the room</h3>
          <label
            >Start from
            <select #common class="field w-64!" (change)="start(common)">
              <option value="">a common build-up …</option>
              @for (c of commons; track c.name) {
                <option [value]="c.name">{{ c.name }}</option>
              }
            </select></label
          >
        </div>
        @if (glazing(); as g) {
          @for (p of g.panes; track $index) {
            <fieldset class="mb-1 grid grid-cols-[1.4fr_1fr] gap-x-2 gap-y-1 border border-hair bg-card p-2 2xl:grid-cols-[1.3fr_0.8fr_1fr_1.6fr]">
              <legend class="px-1 text-soft">{{ g.panes.length === 1 ? 'The pane' : 'Pane ' + ($index + 1) }}</legend>
              <label
                >Kind<select #kind class="field" (change)="pane($index, { kind: $any(kind.value) })">
                  @for (k of kinds; track k) {
                    <option [value]="k" [selected]="k === p.kind">{{ say(k) }}</option>
                  }
                </select></label
              >
              <label
                >Thickness, mm<input
                  #thick
                  class="field figure"
                  inputmode="decimal"
                  placeholder="?"
                  [value]="p.thicknessMm ?? ''"
                  (change)="thickness($index, thick)"
              /></label>
              <label
                >Tint<select #tint class="field" (change)="pane($index, { tint: $any(tint.value) })">
                  @for (t of tints; track t) {
                    <option [value]="t" [selected]="t === p.tint">{{ say(t) }}</option>
                  }
                </select></label
              >
              <label
                >Coating<span class="flex gap-1"
                  ><select #coat class="field" (change)="pane($index, { coating: $any(coat.value) })" aria-label="Coating">
                    @for (c of coatings; track c) {
                      <option [value]="c" [selected]="c === p.coating">{{ say(c) }}</option>
                    }
                  </select>
                  @if (p.coating !== 'none') {
                    <select #face class="field w-28!" (change)="pane($index, { coatingFace: $any(face.value) })" aria-label="Coated face">
                      <option value="outer" [selected]="p.coatingFace === 'outer'">street face</option>
                      <option value="inner" [selected]="p.coatingFace === 'inner'">room face</option>
                    </select>
                  }
                </span></label
              >
            </fieldset>
            @if (g.cavities[$index]; as c) {
              <div class="mb-1 ml-6 flex items-end gap-2">
                <span class="pb-1.5 text-soft">between them</span>
                <label class="flex items-center gap-1"
                  ><input
                    #wide
                    class="field figure w-16!"
                    inputmode="decimal"
                    placeholder="?"
                    aria-label="Cavity, mm"
                    [value]="c.widthMm ?? ''"
                    (change)="gap($index, wide)"
                  />
                  mm</label
                >
                <select #gas class="field w-32!" aria-label="Gas" (change)="gasOf($index, $any(gas.value))">
                  @for (x of gases; track x) {
                    <option [value]="x" [selected]="x === c.gas">{{ say(x) }}</option>
                  }
                </select>
              </div>
            }
          }
          <div class="mt-2 flex flex-wrap gap-2">
            <button type="button" class="btn" [disabled]="g.panes.length > 3" (click)="addPane()">One pane more</button>
            <button type="button" class="btn" [disabled]="g.panes.length < 2" (click)="dropPane()">One pane less</button>
          </div>
          <div class="mt-3 grid grid-cols-2 gap-2 2xl:grid-cols-4">
            <label
              >Frame<select #frame class="field" (change)="put({ frame: $any(frame.value) })">
                @for (f of frames; track f) {
                  <option [value]="f" [selected]="f === g.frame">{{ say(f) }}</option>
                }
              </select></label
            >
            <label
              >Edge cover, mm<input #cover class="field figure" placeholder="?" [value]="g.edgeCoverMm ?? ''" (change)="number('edgeCoverMm', cover, 60)"
            /></label>
            <label
              >Edge<select #edge class="field" (change)="put({ edge: $any(edge.value) })">
                @for (e of edges; track e) {
                  <option [value]="e" [selected]="e === g.edge">{{ say(e) }}</option>
                }
              </select></label
            >
            <label>Years old<input #age class="field figure" placeholder="?" [value]="g.ageYears ?? ''" (change)="number('ageYears', age, 300)" /></label>
          </div>
          <label class="mt-2 block"
            >The face that gets film, felt by hand<select #felt class="field w-80!" (change)="feltAs.emit($any(felt.value))">
              @for (f of faces; track f) {
                <option [value]="f" [selected]="f === workedFace()">{{ faceWords[f] }}</option>
              }
            </select></label
          >
          <p class="text-soft">Decides between blade and soft pad in Lay. Nobody has felt it: the pad, until somebody has.</p>
          <div class="mt-2 flex flex-wrap gap-x-4 gap-y-1">
            @for (f of flags; track f.field) {
              <label class="flex items-center gap-1.5"
                ><input type="checkbox" [checked]="g[f.field]" (change)="put(flag(f.field, !g[f.field]))" /> {{ f.name }}</label
              >
            }
          </div>
        } @else {
          <p class="border-l-4 border-ink bg-tint p-3">Nobody has looked at this glass yet. Start from a common build-up, or say that you do not know.</p>
          <p class="mt-2 flex flex-wrap gap-2">
            <button type="button" class="btn" (click)="unknown(1)">Single, the rest unknown</button>
            <button type="button" class="btn" (click)="unknown(2)">Double, the rest unknown</button>
          </p>
        }
      </section>
      <section aria-labelledby="stand">
        <h3 id="stand" class="cap mb-2">Where it stands</h3>
        @let e = place();
        <label class="mb-2 flex items-center gap-2"
          ><input type="checkbox" [checked]="e.isIndoors" (change)="moved.emit({ isIndoors: !e.isIndoors })" /> Between two rooms</label
        >
        @if (!e.isIndoors) {
          <div class="flex items-center gap-3">
            <yp-compass [deg]="e.facadeDeg" (changed)="moved.emit({ facadeDeg: $event })" />
            <div>
              <label>Looks to, °<input #deg class="field figure w-20!" placeholder="?" [value]="e.facadeDeg ?? ''" (change)="bearing(deg)" /></label>
              <p class="mt-1">{{ e.facadeDeg === null ? 'not known' : name(e.facadeDeg) }}</p>
            </div>
          </div>
          <div class="mt-2 grid grid-cols-2 gap-2">
            <label
              >Overhang, from the wall’s face<input
                #over
                class="field figure"
                placeholder="none"
                [value]="len(e.overhangMm)"
                (change)="length('overhangMm', over)"
            /></label>
            <label
              >… this far above the pane<input #above class="field figure" [value]="len(e.overhangAboveMm)" (change)="length('overhangAboveMm', above)"
            /></label>
            <label
              >Sill above the floor<input
                #sill
                class="field figure"
                placeholder="?"
                [value]="len(e.heightAboveFloorMm)"
                (change)="length('heightAboveFloorMm', sill)"
            /></label>
            <label
              >Blind<select #blind class="field" (change)="moved.emit({ blind: $any(blind.value) })">
                <option value="none" [selected]="e.blind === 'none'">none</option>
                <option value="inside" [selected]="e.blind === 'inside'">inside</option>
                <option value="unknown" [selected]="e.blind === 'unknown'">I don’t know</option>
              </select></label
            >
            <label
              >Shadow edge on it<select #shade class="field" (change)="moved.emit({ partialShadow: $any(shade.value) })">
                <option value="none" [selected]="e.partialShadow === 'none'">passes by</option>
                <option value="permanent" [selected]="e.partialShadow === 'permanent'">stays for hours</option>
                <option value="unknown" [selected]="e.partialShadow === 'unknown'">I don’t know</option>
              </select></label
            >
          </div>
        }
      </section>
    </div>
  `,
})
export class GlassEditor {
  readonly glazing = input.required<Glazing | null>();
  readonly exposure = input.required<Exposure | null>();
  readonly units = input.required<UnitSystem>();
  readonly workedFace = input<FaceFound>('unknown');
  readonly glazed = output<Glazing>();
  readonly feltAs = output<FaceFound>();
  readonly moved = output<Partial<Exposure>>();

  protected readonly faces = faceFound.options;
  protected readonly faceWords: Record<FaceFound, string> = {
    unknown: 'nobody has felt it',
    plain: 'smooth, bare, no lines',
    coated: 'coated',
    lines: 'heating or antenna lines on it',
    grit: 'tempered, grit in its surface',
    'grit-agreed': 'grit, scraping agreed in writing',
  };
  protected readonly say = say;
  protected readonly name = bearingName;
  protected readonly commons = commonGlazings;
  protected readonly kinds = paneKind.options;
  protected readonly tints = paneTint.options;
  protected readonly coatings = coatingKind.options;
  protected readonly frames = frameMaterial.options;
  protected readonly edges = edgeCondition.options;
  protected readonly gases = ['air', 'argon', 'krypton', 'unknown'] as const;
  protected readonly flags = [
    { field: 'isFireRated', name: 'fire-rated' },
    { field: 'isLookout', name: 'lookout glass' },
    { field: 'isLeaded', name: 'leaded lights' },
    { field: 'hasFailedSeal', name: 'blind inside: seal failed' },
  ] as const;
  protected readonly place = computed(() => this.exposure() ?? unknownExposure);
  protected flag = (field: (typeof this.flags)[number]['field'], on: boolean): Partial<Glazing> => ({ [field]: on });

  protected start(box: HTMLSelectElement): void {
    const found = this.commons.find((c) => c.name === box.value);
    box.value = '';
    if (!found) return;
    const old = this.glazing();
    // frame, edge, age and what it is for were seen on the spot: another build-up does not change them
    this.glazed.emit(old ? { ...old, panes: found.glazing.panes, cavities: found.glazing.cavities } : found.glazing);
  }
  protected unknown(count: 1 | 2): void {
    const base = this.commons[0]!.glazing;
    this.glazed.emit({ ...base, panes: Array.from({ length: count }, () => unseenPane), cavities: count === 2 ? [{ gas: 'unknown', widthMm: null }] : [] });
  }
  protected put(part: Partial<Glazing>): void {
    const g = this.glazing();
    if (g) this.glazed.emit({ ...g, ...part });
  }
  protected pane(at: number, part: Partial<GlassPane>): void {
    const g = this.glazing();
    if (g) this.put({ panes: g.panes.map((p, i) => (i === at ? { ...p, ...part } : p)) });
  }
  protected thickness(at: number, box: HTMLInputElement): void {
    const mm = readNumber(box, { low: 1, high: 80, mayBeEmpty: true, message: 'A pane is 1 to 80 mm thick; leave it empty when nobody measured.' });
    if (mm !== undefined) this.pane(at, { thicknessMm: mm });
  }
  protected gap(at: number, box: HTMLInputElement): void {
    const g = this.glazing();
    const mm = readNumber(box, { low: 3, high: 100, mayBeEmpty: true, message: 'A cavity is 3 to 100 mm wide; leave it empty when nobody measured.' });
    if (g && mm !== undefined) this.put({ cavities: g.cavities.map((c, i) => (i === at ? { ...c, widthMm: mm } : c)) });
  }
  protected gasOf(at: number, gas: (typeof this.gases)[number]): void {
    const g = this.glazing();
    if (g) this.put({ cavities: g.cavities.map((c, i) => (i === at ? { ...c, gas } : c)) });
  }
  protected addPane(): void {
    const g = this.glazing();
    if (g)
      this.put({ panes: [...g.panes, { ...g.panes.at(-1)!, coating: 'none' }], cavities: [...g.cavities, g.cavities.at(-1) ?? { gas: 'air', widthMm: 12 }] });
  }
  protected dropPane(): void {
    const g = this.glazing();
    if (g) this.put({ panes: g.panes.slice(0, -1), cavities: g.cavities.slice(0, -1) });
  }
  protected number(field: 'edgeCoverMm' | 'ageYears', box: HTMLInputElement, most: number): void {
    const n = readNumber(box, { low: 0, high: most, mayBeEmpty: true, message: `Between 0 and ${most}; leave it empty when nobody knows.` });
    if (n !== undefined) this.put({ [field]: n });
  }
  protected bearing(box: HTMLInputElement): void {
    const n = readNumber(box, {
      low: 0,
      high: 359.9,
      mayBeEmpty: true,
      message: 'A bearing is 0 (north) to 359°, clockwise; leave it empty when nobody knows.',
    });
    if (n !== undefined) this.moved.emit({ facadeDeg: n });
  }
  protected len = (mm: number | null): string => (mm === null ? '' : formatLength(mm, this.units()));
  protected length(field: 'overhangMm' | 'overhangAboveMm' | 'heightAboveFloorMm', box: HTMLInputElement): void {
    if (box.value.trim() === '') return this.moved.emit({ [field]: null });
    const read = parseLength(box.value, this.units());
    box.setCustomValidity(read.ok ? '' : read.message);
    if (read.ok) this.moved.emit({ [field]: read.value.lengthMm });
    else box.reportValidity();
  }
}
