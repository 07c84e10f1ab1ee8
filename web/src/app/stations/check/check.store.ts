import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { LayEntry, LayKind, Pin, PinNews } from '@yellow-pane/contracts';
import {
  checkDry,
  checkPanes,
  diagnoseDryPin,
  diagnosePin,
  dryingCurve,
  holdPaneToRule,
  isOpen,
  type CheckDry,
  type CheckPane,
  type Patient,
} from '@yellow-pane/core/check';
import { toldAll } from '@yellow-pane/core/ground';
import { stepSetOf } from '@yellow-pane/core/lay';
import { DryingWeather } from '../../record/drying-weather';
import { LayQueue } from '../../record/lay-queue';
import { RecordStore } from '../../record/record.store';

/** The clock of the page moves on so often: what runs here runs in days. */
const TICK_MS = 60_000;

/** After the work: how each laid pane stands, what was seen on it, what is due. Everything but the weather is in the record, so it goes on out of reach. */
@Injectable()
export class CheckStore {
  readonly weather = inject(DryingWeather);
  private readonly record = inject(RecordStore);
  readonly queue = inject(LayQueue);
  readonly nowMs = signal(Date.now());
  readonly trouble = signal<string | null>(null);
  /** The pin that is looked at. */
  readonly pinId = signal<string | null>(null);

  /** Rounded down, so that a tick that changes no figure makes none anew. */
  private readonly at = computed(() => new Date(Math.floor(this.nowMs() / TICK_MS) * TICK_MS).toISOString());

  readonly panes = computed<readonly CheckPane[]>(() => {
    const doc = this.record.records();
    return doc ? checkPanes(doc, this.weather.of(doc.job.id), this.at()) : [];
  });
  /** What film was laid on dry: no water in it, so no clock. */
  private readonly dry = computed<readonly CheckDry[]>(() => {
    const doc = this.record.records();
    return doc ? checkDry(doc, this.at()) : [];
  });
  private readonly all = computed<readonly (CheckPane | CheckDry)[]>(() => {
    const order = new Map((this.record.doc()?.surfaces ?? []).map((s, i) => [s.id, i]));
    return [...this.panes(), ...this.dry()].sort((a, b) => order.get(a.surface.id)! - order.get(b.surface.id)!);
  });
  /** What has to be looked at first comes first; else as one walks. */
  readonly rows = computed(() => {
    const rank = { seen: 0, late: 1, due: 2, drying: 3, clear: 4 } as const;
    const doc = this.record.doc();
    return this.all()
      .map((pane, i) => ({ pane, i, place: doc?.places.find((p) => p.id === pane.surface.placeId)?.name ?? '' }))
      .sort((a, b) => rank[a.pane.state] - rank[b.pane.state] || a.i - b.i);
  });
  readonly dueCount = computed(() => this.all().filter((p) => p.state !== 'drying' && p.state !== 'clear').length);
  readonly here = computed(() => this.all().find((p) => p.surface.id === this.record.selectedId()) ?? null);
  /** The one in hand where it is glass. */
  readonly wet = computed(() => this.panes().find((p) => p.surface.id === this.record.selectedId()) ?? null);
  readonly patient = computed<Patient>(() => (this.wet() ? 'wet-on-glass' : 'dry'));
  readonly curve = computed(() => {
    const here = this.wet();
    return here ? dryingCurve(here.drying, here.clock) : [];
  });
  readonly dayNow = computed(() => {
    const here = this.here();
    return here ? Math.max(0, (this.nowMs() - Date.parse(here.laidAt)) / 86_400_000) : 0;
  });
  readonly rulings = computed(() => {
    const [doc, here] = [this.record.records(), this.wet()];
    return doc && here ? holdPaneToRule(here, doc) : [];
  });
  readonly pin = computed(() => this.here()?.pins.find((p) => p.entry.id === this.pinId()) ?? null);
  readonly diagnosis = computed(() => {
    const [here, wet, pin] = [this.here(), this.wet(), this.pin()];
    if (!here || !pin || !isOpen(pin)) return null;
    return toldAll(wet ? diagnosePin(wet, pin, this.at()) : diagnoseDryPin(here, pin, this.at()), this.record.units());
  });
  /** Photos from before the work on this pane, to tell its own faults from the film’s. */
  readonly photosBefore = computed(() => {
    const here = this.here();
    return here
      ? (this.record.doc()?.layEntries ?? []).filter((e) => e.photo && e.occurredAt < here.laidAt && (e.surfaceId === here.surface.id || e.surfaceId === null))
      : [];
  });

  constructor() {
    void this.queue.start();
    const timer = setInterval(() => this.nowMs.set(Date.now()), TICK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  /** Writes one line down. @returns whether it is safe here, and its id */
  private async write(kind: LayKind, label: string, more: Partial<LayEntry>, photo: Blob | null = null): Promise<string | null> {
    const [doc, here] = [this.record.doc(), this.here()];
    if (!doc || !here) return null;
    const set = stepSetOf(doc.job.firmId, doc.stepSets, doc.layEntries);
    try {
      const entry = await this.queue.add(label, { kind, surfaceId: here.surface.id, stepSetId: set.id, ...more }, photo);
      this.trouble.set(null);
      this.nowMs.set(Date.now());
      return entry.id;
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
      return null;
    }
  }

  /** The whole pane was looked at. */
  async looked(water: 'none' | 'some' | 'much'): Promise<boolean> {
    const here = this.here();
    const isClean = here?.pins.every((p) => !isOpen(p)) ?? true;
    return (await this.write('looked', `${here?.surface.name}: looked at`, { look: { water, isClean } })) !== null;
  }
  async pinDown(pin: Pin, photo: Blob | null): Promise<void> {
    const id = await this.write('pin', `${this.here()?.surface.name}: pinned`, { pin }, photo);
    if (id) this.pinId.set(id);
  }
  async news(more: Partial<PinNews>, label: string): Promise<boolean> {
    const pinId = this.pinId();
    if (!pinId) return false;
    return (await this.write('pin-news', `${this.here()?.surface.name}: ${label}`, { news: { pinId, answers: {}, state: null, causeKey: null, watchUntil: null, ...more } })) !== null; // prettier-ignore
  }
  async photo(blob: Blob): Promise<void> {
    await this.write('photo', `${this.here()?.surface.name}: photo of what is seen`, { text: 'of what is seen' }, blob);
  }
  /** Takes a pin or a look back with a further line. */
  async takeBack(entryId: string, why: string): Promise<void> {
    if (await this.write('correction', 'Take a line back', { correctsId: entryId, text: why })) this.pinId.set(null);
  }
  /** On to the next pane that somebody has to look at. */
  goOn(): void {
    const rows = this.rows();
    const at = rows.findIndex((r) => r.pane.surface.id === this.record.selectedId());
    const next = [...rows.slice(at + 1), ...rows.slice(0, Math.max(0, at))].find((r) => r.pane.state !== 'clear' && r.pane.state !== 'drying') ?? rows[at + 1];
    this.pinId.set(null);
    if (next) this.record.select(next.pane.surface.id);
  }
}
