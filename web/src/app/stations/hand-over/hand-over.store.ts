import { computed, inject, Injectable, signal } from '@angular/core';
import type { EraseAnswer, ErasedThing, LayEntry } from '@yellow-pane/contracts';
import { allLaid, countLaid } from '@yellow-pane/core/check';
import { checkSeal, notReadyBecause, recordOfPanes, sealPanes, type PaneRecord } from '@yellow-pane/core/handover';
import { linesInForce, stepSetOf } from '@yellow-pane/core/lay';
import { Api, type Answer } from '../../record/api';
import { Device } from '../../record/device';
import { DryingWeather } from '../../record/drying-weather';
import { LayQueue } from '../../record/lay-queue';
import { RecordStore } from '../../record/record.store';
import type { Signed } from '../../kit/signature-field';

/** A pane as it is walked with the customer. */
export interface PaneToHandOver extends PaneRecord {
  /** What speaks against it, in a sentence; null: nothing. */
  readonly because: string | null;
}
export interface PlaceToHandOver {
  readonly id: string;
  readonly name: string;
  readonly panes: readonly PaneToHandOver[];
}

/** The end of the job: what is taken over by whom, how its seals stand, what can still be erased. Signing goes on out of reach of the bench. */
@Injectable()
export class HandOverStore {
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  private readonly record = inject(RecordStore);
  readonly queue = inject(LayQueue);
  readonly weather = inject(DryingWeather);
  private readonly at = signal(new Date().toISOString());
  readonly trouble = signal<string | null>(null);
  readonly erased = signal<EraseAnswer | null>(null);
  readonly languages = signal<Answer<'careLanguages'>>([]);

  readonly places = computed<readonly PlaceToHandOver[]>(() => {
    const doc = this.record.records();
    if (!doc) return [];
    const panes = recordOfPanes(allLaid(doc, this.weather.of(doc.job.id), this.at()), doc);
    return doc.places
      .map((p) => ({ id: p.id, name: p.name, panes: panes.filter((r) => r.placeId === p.id).map((r) => ({ ...r, because: notReadyBecause(r, this.at()) })) }))
      .filter((p) => p.panes.length);
  });
  readonly panes = computed(() => this.places().flatMap((p) => p.panes));
  readonly isGlass = computed(() => (this.record.doc()?.surfaces ?? []).every((s) => s.kind === 'pane'));
  /** So many, as what there is is called. */
  count(n: number): string {
    return countLaid(n, this.isGlass());
  }
  /** What is not laid: they cannot be handed over. */
  readonly unlaidCount = computed(() => (this.record.doc()?.surfaces ?? []).filter((s) => s.filmId && !s.deletedAt).length - this.panes().length);
  private readonly lines = computed(() => linesInForce(this.record.doc()?.layEntries ?? []));
  /** Reckoned here, over what this device has of the record. */
  readonly seals = computed(() => {
    const doc = this.record.records();
    if (!doc) return [];
    return this.lines()
      .filter((e) => e.kind === 'accepted')
      .flatMap((e) => checkSeal(e, doc) ?? [])
      .sort((a, b) => b.signedAt.localeCompare(a.signedAt));
  });
  readonly calls = computed(() => this.lines().filter((e) => e.kind === 'called').reverse()); // prettier-ignore
  /** Lines in which something personal may stand, the newest first. */
  readonly personal = computed(() =>
    (this.record.doc()?.layEntries ?? [])
      .filter((e) => e.kind !== 'erased' && !e.erased && (e.text || e.photo || e.signature))
      .sort((a, b) => b.occurredAt.localeCompare(a.occurredAt)),
  );
  readonly erasures = computed(() => this.lines().filter((e) => e.kind === 'erased').reverse()); // prettier-ignore

  constructor() {
    void this.queue.start();
  }

  async hearLanguages(): Promise<void> {
    this.languages.set(await this.api.careLanguages().catch(() => []));
  }

  private async write(kind: LayEntry['kind'], label: string, more: Partial<LayEntry>): Promise<boolean> {
    const doc = this.record.doc();
    if (!doc) return false;
    try {
      await this.queue.add(label, { kind, surfaceId: null, stepSetId: stepSetOf(doc.job.firmId, doc.stepSets, doc.layEntries).id, ...more });
      this.at.set(new Date().toISOString());
      this.trouble.set(null);
      return true;
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
      return false;
    }
  }

  /** The customer takes panes over. @param names what they name, in their words */
  async accept(surfaceIds: readonly string[], signature: Signed, names: string): Promise<boolean> {
    const doc = this.record.records();
    if (!doc) return false;
    const acceptance = sealPanes(surfaceIds, doc, await this.queue.withPhotoOnTheWay());
    return this.write('accepted', `Taken over: ${this.count(acceptance.panes.length)}`, { signature, text: names, acceptance });
  }
  /** What was signed was wrong: a further line says so. */
  takeBack(entryId: string, why: string): Promise<boolean> {
    return this.write('correction', 'Take a hand-over back', { correctsId: entryId, text: why });
  }
  called(surfaceId: string | null, text: string): Promise<boolean> {
    return this.write('called', 'The customer called', { surfaceId, text });
  }

  /** Only at the bench: what is erased is erased in its files. */
  async erase(thing: ErasedThing, why: string): Promise<boolean> {
    const doc = this.record.doc();
    try {
      const person = this.device.person() ?? (await this.device.connect());
      this.erased.set(await this.api.erase({ params: { jobId: doc!.job.id }, body: { thing, why, personId: person.id, deviceId: this.device.id } }));
      await this.device.connect();
      this.trouble.set(null);
      return true;
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
      return false;
    }
  }
}
