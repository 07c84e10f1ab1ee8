import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { design as designSchema, type Design, type DesignKind, type HeightZone, type Pane } from '@yellow-pane/contracts';
import { panesOf, cutOfSurface, designOnPane, EYES_MM, lightThroughDesign, markingHeights, offsetsInRow, openBetween, paneOnWall, surveySurface, visibleThrough } from '@yellow-pane/core'; // prettier-ignore
import { formatLength, parseLength } from '@yellow-pane/core/ground';
import { figureOfFile } from '../../../kit/svg-figure';
import { RecordStore } from '../../../record/record.store';
import { DesignDrawing } from './design-drawing';
import { PlotLinks } from './plot-links';

const kinds: readonly { readonly kind: DesignKind; readonly name: string }[] = [
  { kind: 'bands', name: 'Frosted bands' },
  { kind: 'graded', name: 'Dots or stripes that thin out' },
  { kind: 'figure', name: 'A clear figure in plain frost' },
  { kind: 'marking', name: 'Marks that make glass seen' },
];

/** A design to start from, for a pane of a given height. */
function fresh(kind: DesignKind, heightMm: number, widthMm: number, hasFloor: boolean): Design {
  const common = { heightsFrom: hasFloor ? ('floor' as const) : ('sill' as const), gapMm: 40 };
  const from = hasFloor ? 600 : Math.round(heightMm * 0.25);
  if (kind === 'bands') return { kind, ...common, bands: [{ bottomMm: from, topMm: from + Math.round(heightMm * 0.4) }] };
  if (kind === 'graded')
    return {
      kind,
      ...common,
      motif: 'dots',
      zone: { bottomMm: from, topMm: from + Math.round(heightMm * 0.6) },
      denseAt: 'bottom',
      pitchMm: 30,
      largestMm: 26,
      smallestMm: 4,
    };
  if (kind === 'figure')
    return {
      kind,
      ...common,
      svgPath: 'M50 0 L100 50 L50 100 L0 50 Z',
      widthMm: Math.round(widthMm / 2),
      acrossMm: widthMm / 2,
      middleMm: from + Math.round(heightMm * 0.3),
    };
  return { kind, ...common, heightsFrom: 'floor', rule: 'approved-document-k', zones: [...markingHeights], motif: 'dots', sizeMm: 40, pitchMm: 60 };
}

interface Field {
  readonly name: string;
  readonly value: string;
  readonly set: (mm: number) => Design;
}

/** A frosted design by its measures, on the whole row of panes, with light, sight and what is cut for it. */
@Component({
  selector: 'yp-design-panel',
  imports: [DesignDrawing, PlotLinks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <div class="flex flex-wrap items-center gap-2 text-sm">
        <label class="flex items-center gap-1.5"
          >Design<select #kind class="field w-56!" (change)="setKind($any(kind.value))">
            <option value="" [selected]="!v.design">plain film all over</option>
            @for (k of kinds; track k.kind) {
              <option [value]="k.kind" [selected]="v.design?.kind === k.kind">{{ k.name }}</option>
            }
          </select></label
        >
        @if (v.rowCount > 1) {
          <label class="flex min-h-8 items-center gap-1.5"
            ><input type="checkbox" [checked]="forRow()" (change)="forRow.set(!forRow())" /> on all {{ v.rowCount }} panes of the row</label
          >
        }
      </div>
      @if (v.design; as d) {
        <yp-design-drawing
          class="mt-2 h-44 border border-hair bg-paper"
          [surface]="v.surface"
          [design]="d"
          [surfaces]="v.panes"
          [surveyOf]="v.surveyOf"
          [mirrored]="record.otherSide()"
        />
        @if (v.fault) {
          <p role="alert" class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ v.fault }}</p>
        } @else {
          <p class="mt-1 text-sm" data-design-figures>{{ v.words }}</p>
        }
        <div class="mt-2 flex flex-wrap gap-x-3 gap-y-1.5 text-sm">
          <label class="flex items-center gap-1"
            >heights from the<select #from class="field w-20!" (change)="put({ ...$any(d), heightsFrom: from.value })">
              <option value="floor" [selected]="d.heightsFrom === 'floor'">floor</option>
              <option value="sill" [selected]="d.heightsFrom === 'sill'">sill</option>
            </select></label
          >
          @if (d.kind === 'graded') {
            <select #motif class="field w-24!" aria-label="What it is made of" (change)="put({ ...d, motif: $any(motif.value) })">
              <option value="dots" [selected]="d.motif === 'dots'">dots</option>
              <option value="stripes" [selected]="d.motif === 'stripes'">stripes</option>
            </select>
            <label class="flex items-center gap-1"
              >dense at the<select #dense class="field w-24!" (change)="put({ ...d, denseAt: $any(dense.value) })">
                <option value="bottom" [selected]="d.denseAt === 'bottom'">bottom</option>
                <option value="top" [selected]="d.denseAt === 'top'">top</option>
              </select></label
            >
          }
          @if (d.kind === 'marking') {
            <select #rule class="field w-64!" aria-label="Heights by" (change)="put({ ...d, rule: $any(rule.value) })">
              <option value="approved-document-k" [selected]="d.rule === 'approved-document-k'">850–1000 and 1400–1600 (UK Approved Document K)</option>
              <option value="own" [selected]="d.rule === 'own'">heights of the local rule</option>
            </select>
            <select #mark class="field w-24!" aria-label="Marks" (change)="put({ ...d, motif: $any(mark.value) })">
              <option value="dots" [selected]="d.motif === 'dots'">dots</option>
              <option value="squares" [selected]="d.motif === 'squares'">squares</option>
              <option value="band" [selected]="d.motif === 'band'">a band</option>
            </select>
          }
          @for (f of v.fields; track f.name) {
            <label class="flex items-center gap-1">{{ f.name }}<input #box class="field figure w-20!" [value]="f.value" (change)="setLength(f, box)" /></label>
          }
          @if (d.kind === 'bands' || (d.kind === 'marking' && d.rule === 'own')) {
            <button type="button" class="min-h-8 underline" (click)="oneMoreZone()">one more</button>
            @if (v.zoneCount > 1) {
              <button type="button" class="min-h-8 underline" (click)="oneLessZone()">one less</button>
            }
          }
        </div>
        @if (d.kind === 'figure') {
          <div class="mt-2 flex flex-wrap items-start gap-2 text-sm">
            <label class="block min-w-56 flex-1"
              >Figure, as an SVG path<textarea
                #path
                class="field figure h-16! w-full text-xs"
                [value]="d.svgPath"
                (change)="put({ ...d, svgPath: path.value.trim() })"
              ></textarea>
            </label>
            <label class="block"
              >or from an SVG file<input #file type="file" accept=".svg,image/svg+xml" class="block max-w-56" (change)="readSvg(file)"
            /></label>
          </div>
        }
        <yp-plot-links [surface]="v.surface" [pieces]="v.pieces" />
        @if (d.kind === 'marking') {
          <p class="mt-1 text-xs text-soft">Heights and contrast of marks are local rules; the edition in force and the building inspector decide.</p>
        }
      } @else {
        <p class="mt-2 text-sm text-soft">Bands, dots, stripes, a figure or door marks: laid out by heights, over all panes of a row at true spacing.</p>
      }
      @if (message()) {
        <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
      }
    }
  `,
})
export class DesignPanel {
  protected readonly record = inject(RecordStore);
  protected readonly kinds = kinds;
  protected readonly message = signal('');
  protected readonly forRow = signal(true);

  protected readonly view = computed(() => {
    const doc = this.record.records();
    const surface = this.record.pane();
    const film = doc?.films.find((f) => f.id === surface?.filmId);
    if (!doc || !surface || !film) return null;
    const { design } = surface;
    const surveyOf = (s: Pane) => surveySurface(s, doc).survey;
    const survey = surveyOf(surface);
    const panes = panesOf(doc.surfaces);
    const row = surface.grid ? panes.filter((s) => s.grid?.groupId === surface.grid!.groupId && s.grid.row === surface.grid!.row) : [surface];
    const base = {
      surface,
      design,
      panes,
      surveyOf,
      rowCount: row.length,
      fields: this.fieldsOf(design),
      zoneCount: zonesOf(design).length,
    };
    if (!design || !survey.outline) return { ...base, fault: null, words: '', pieces: [] };
    const pane = paneOnWall({ surface, survey, offsetMm: offsetsInRow(surface, panes, surveyOf, design).get(surface.id) ?? 0 });
    const read = designOnPane(design, pane, doc.memo);
    const cut = cutOfSurface(surface, doc, film);
    const fault = read.ok ? ('blocked' in cut.answer ? cut.answer.blocked : null) : read.message;
    if (fault || !read.ok) return { ...base, fault, words: '', pieces: [] };
    const light = surface.glazing ? visibleThrough(surface.glazing, film) : null;
    const share = (f: number) => `${Math.round(f * 100)} %`;
    const eyes = (['standing', 'seated'] as const).flatMap((who) => {
      const sill = pane.sillMm;
      if (sill === null) return [];
      const shift = design.heightsFrom === 'floor' ? 0 : -sill;
      const open = openBetween(pane, read.value, EYES_MM[who].bottomMm + shift, EYES_MM[who].topMm + shift);
      return open === null ? [] : [`${who} eyes meet ${share(open)} clear glass`];
    });
    const words = [
      `${share(1 - read.value.openFrac)} of the glass is frosted, ${share(read.value.openFrac)} stays clear.`,
      light
        ? `Light let in ${share(lightThroughDesign(read.value.openFrac, light.filmedFrac, light.bareFrac))} (bare ${share(light.bareFrac)}, frosted all over ${share(light.filmedFrac)}; ±3).`
        : '',
      eyes.length ? `At eye level ${eyes.join(', ')}.` : 'Enter the height of the sill to know what eyes meet.',
    ].join(' ');
    return { ...base, fault: null, words, pieces: cut.pieces };
  });

  private f = (mm: number): string => formatLength(mm, this.record.units());

  private fieldsOf(d: Design | null): Field[] {
    if (!d) return [];
    const gap: Field = { name: 'glass to glass', value: this.f(d.gapMm), set: (gapMm) => ({ ...d, gapMm }) };
    const zones = (list: readonly HeightZone[], put: (z: HeightZone[]) => Design, name: string): Field[] =>
      list.flatMap((z, i) =>
        (['bottomMm', 'topMm'] as const).map((k) => ({
          name: `${name}${list.length > 1 ? ` ${i + 1}` : ''} ${k === 'bottomMm' ? 'from' : 'to'}`,
          value: this.f(z[k]),
          set: (mm: number) => put(list.map((x, j) => (j === i ? { ...x, [k]: mm } : x))),
        })),
      );
    if (d.kind === 'bands') return [...zones(d.bands, (bands) => ({ ...d, bands }), 'band'), gap];
    if (d.kind === 'graded')
      return [
        ...zones([d.zone], ([zone]) => ({ ...d, zone: zone! }), 'zone'),
        { name: 'every', value: this.f(d.pitchMm), set: (pitchMm) => ({ ...d, pitchMm }) },
        { name: 'largest', value: this.f(d.largestMm), set: (largestMm) => ({ ...d, largestMm }) },
        { name: 'smallest', value: this.f(d.smallestMm), set: (smallestMm) => ({ ...d, smallestMm }) },
        gap,
      ];
    if (d.kind === 'figure')
      return [
        { name: 'wide', value: this.f(d.widthMm), set: (widthMm) => ({ ...d, widthMm }) },
        { name: 'middle from the left', value: this.f(d.acrossMm), set: (acrossMm) => ({ ...d, acrossMm }) },
        { name: 'at height', value: this.f(d.middleMm), set: (middleMm) => ({ ...d, middleMm }) },
        gap,
      ];
    return [
      ...(d.rule === 'own' ? zones(d.zones, (z) => ({ ...d, zones: z }), 'marks') : []),
      ...(d.motif === 'band' ? [] : [{ name: 'size', value: this.f(d.sizeMm), set: (sizeMm: number) => ({ ...d, sizeMm }) }, { name: 'every', value: this.f(d.pitchMm), set: (pitchMm: number) => ({ ...d, pitchMm }) }]), // prettier-ignore
      gap,
    ];
  }

  protected setKind(kind: DesignKind | ''): void {
    const v = this.view();
    if (!v) return;
    if (kind === '') return this.write(null);
    const box = v.surveyOf(v.surface).outline;
    const [xs, ys] = [box?.map((p) => p.x) ?? [0, 900], box?.map((p) => p.y) ?? [0, 1200]];
    this.put(fresh(kind, Math.max(...ys) - Math.min(...ys), Math.max(...xs) - Math.min(...xs), v.surface.exposure?.heightAboveFloorMm != null));
  }
  protected setLength(field: Field, box: HTMLInputElement): void {
    const read = parseLength(box.value, this.record.units());
    if (!read.ok) return this.message.set(`${field.name}: ${read.message}`);
    this.put(field.set(read.value.lengthMm));
  }
  protected oneMoreZone(): void {
    const d = this.view()?.design;
    if (d?.kind !== 'bands' && d?.kind !== 'marking') return;
    const last = zonesOf(d).at(-1)!;
    const next = { bottomMm: last.topMm + 60, topMm: last.topMm + 160 };
    this.put(d.kind === 'bands' ? { ...d, bands: [...d.bands, next] } : { ...d, zones: [...d.zones, next] });
  }
  protected oneLessZone(): void {
    const d = this.view()?.design;
    if (d?.kind === 'bands') this.put({ ...d, bands: d.bands.slice(0, -1) });
    if (d?.kind === 'marking') this.put({ ...d, zones: d.zones.slice(0, -1) });
  }
  /** All paths of an SVG file as one figure. */
  protected async readSvg(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    const d = this.view()?.design;
    if (!file || d?.kind !== 'figure') return;
    const read = await figureOfFile(file);
    box.value = '';
    if ('message' in read) return this.message.set(read.message);
    this.put({ ...d, svgPath: read.path });
  }
  protected put(next: Design): void {
    const read = designSchema.safeParse(next);
    if (!read.success) return this.message.set(read.error.issues[0]!.message);
    this.write(read.data);
  }
  private write(next: Design | null): void {
    const v = this.view();
    if (!v) return;
    this.message.set('');
    const { grid } = v.surface;
    const row = grid && this.forRow() ? v.panes.filter((s) => s.grid?.groupId === grid.groupId && s.grid.row === grid.row) : [v.surface];
    void this.record.change(
      next ? `Design of ${row.length > 1 ? 'the row of ' : ''}${v.surface.name}` : `No design on ${v.surface.name}`,
      row.map((s) => ({ op: 'set', kind: 'surface', id: s.id, field: 'design', value: next })),
    );
  }
}

const zonesOf = (d: Design | null): readonly HeightZone[] => (d?.kind === 'bands' ? d.bands : d?.kind === 'marking' ? d.zones : []);
