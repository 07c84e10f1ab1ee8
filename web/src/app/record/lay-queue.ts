import { computed, effect, inject, Injectable, type OnDestroy, signal } from '@angular/core';
import type { LayEntry } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { Api, ApiProblem } from './api';
import { Device } from './device';
import { LayLocalStore } from './lay-local-store';
import type { QueuedChange } from './local-store';
import { RecordStore } from './record.store';

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 15_000;
/** Refusals that another try can turn: the bench failed, was busy, a number is missing, or this device has to be let in again. */
const mayPass = new Set(['offline', 'internal', 'too-many', 'sequence-gap', 'wrong-origin', 'not-admitted']);

/** What a line of the log is about; who, when and under which steps are added here. */
export type LayLine = Pick<LayEntry, 'surfaceId' | 'kind' | 'stepSetId'> & Partial<LayEntry>;

/** What is personal in a line goes into the seal as a sum that nobody can guess back. */
const saltFor = (line: LayLine, photo: Blob | null): { salt?: string } =>
  line.text || line.signature || photo ? { salt: [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('') } : {};

/**
 * Lines of the log on their way to the bench. A line is in this browser's store before anything says so; it is sent in its turn, by one tab at a
 * time, for ever, until the bench has written it down.
 */
@Injectable({ providedIn: 'root' })
export class LayQueue implements OnDestroy {
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  private readonly local = inject(LayLocalStore);
  private readonly record = inject(RecordStore);
  /** Lines that are safe here and not yet at the bench. */
  readonly waiting = signal(0);
  /** Lines that were tapped and are not safe here yet. */
  readonly beingKept = signal(0);
  /** Whether the last try reached the bench. */
  readonly isReached = signal(true);
  /** Lines that the bench would not take. */
  readonly refusedCount = signal(0);
  /** Whether the browser has promised not to clear its store; null: not asked. */
  readonly isPersisted = signal<boolean | null>(null);
  private readonly tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('yp-lay-queue');
  private isStarted = false;
  private isClosed = false;
  private wake: () => void = () => undefined;

  constructor() {
    const erased = computed(() => (this.record.doc()?.layEntries ?? []).flatMap((e) => (e.erased ? [e.id] : [])).join()); // prettier-ignore
    effect(() => {
      const ids = erased();
      if (ids) void this.local.forgetWords(new Set(ids.split(','))).catch(() => undefined);
    });
  }

  ngOnDestroy(): void {
    this.isClosed = true;
    this.tabs?.close();
    this.wake();
  }

  /** Begins to deliver, and to show what waits. Safe to call again. */
  async start(): Promise<void> {
    if (this.isStarted) return;
    this.isStarted = true;
    if (this.tabs) this.tabs.onmessage = () => void this.refresh().then(() => this.wake());
    window.addEventListener('online', () => this.wake());
    if (navigator.storage?.persist) this.isPersisted.set((await navigator.storage.persisted()) || (await navigator.storage.persist()));
    await this.refresh();
    // one tab delivers; the others wait for it to close
    if (navigator.locks) void navigator.locks.request('yp-lay-queue', () => this.deliver());
    else void this.deliver();
  }

  /**
   * Writes one line down. When this resolves it is safe in this browser.
   * @throws Error with a sentence when the browser will not keep it
   */
  async add(label: string, line: LayLine, photo: Blob | null = null): Promise<LayEntry> {
    const doc = this.record.doc();
    const person = this.device.person();
    if (!doc || !person) throw new Error('No job is open.');
    const entry: LayEntry = {
      id: uuidv7(), jobId: doc.job.id, personId: person.id, occurredAt: new Date(Date.now() + this.device.clockOffsetMs).toISOString(), clockOffsetMs: this.device.clockOffsetMs, receivedAt: null,
      stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...saltFor(line, photo), ...line,
    }; // prettier-ignore
    const draft = { id: uuidv7(), jobId: doc.job.id, personId: person.id, baseRevision: doc.revision, label: label.slice(0, 120), patches: [{ op: 'add' as const, kind: 'layEntry' as const, id: entry.id, value: { ...entry } }] }; // prettier-ignore
    this.beingKept.update((n) => n + 1);
    try {
      this.waiting.set(await this.local.enqueue(draft, photo));
    } catch (error) {
      throw new Error(
        `This browser could not keep that tap (${error instanceof Error ? error.message : String(error)}). Make room on the device, then tap again.`,
        { cause: error },
      );
    } finally {
      this.beingKept.update((n) => n - 1);
    }
    localStorage.setItem('yp-lay-pending', '1');
    this.record.hold(draft.id, draft.patches);
    this.tabs?.postMessage('added');
    this.wake();
    return entry;
  }

  /** Lines whose photo has not reached the bench, which gives it its name. */
  async withPhotoOnTheWay(): Promise<ReadonlySet<string>> {
    return new Set((await this.local.queued()).flatMap((q) => (q.photoId ? q.draft.patches.map((p) => p.id) : [])));
  }

  /** Lines of a job that are still on their way, to be shown as if they were there. */
  async pendingOf(jobId: string): Promise<QueuedChange['draft']['patches']> {
    return (await this.local.queued()).filter((q) => q.draft.jobId === jobId).flatMap((q) => q.draft.patches);
  }

  private async refresh(): Promise<void> {
    this.waiting.set((await this.local.queued()).length);
    this.refusedCount.set((await this.local.refused()).length);
  }

  /** Sends what waits, in order; then sleeps until something is added. Ends with the page. */
  private async deliver(): Promise<void> {
    for (let wait = FIRST_WAIT_MS; !this.isClosed;) {
      const [item] = await this.local.queued();
      if (this.isClosed) return;
      if (!item) {
        localStorage.removeItem('yp-lay-pending');
        await new Promise<void>((r) => (this.wake = r));
        continue;
      }
      try {
        await this.send(item);
        this.isReached.set(true);
        wait = FIRST_WAIT_MS;
      } catch (error) {
        const problem = error instanceof ApiProblem ? error : new ApiProblem('internal', String(error));
        this.isReached.set(problem.code !== 'offline');
        if (problem.code === 'sequence-gap') await this.catchUp(item).catch(() => undefined);
        else if (!mayPass.has(problem.code)) await this.local.putAside(item, problem.faults[0]?.message ?? problem.message);
        if (mayPass.has(problem.code)) {
          await Promise.race([new Promise((r) => setTimeout(r, wait)), new Promise<void>((r) => (this.wake = r))]);
          wait = Math.min(LONGEST_WAIT_MS, wait * 2);
        }
      }
      if (this.isClosed) return;
      await this.refresh();
      this.tabs?.postMessage('sent');
    }
  }

  private async send(item: QueuedChange): Promise<void> {
    let { draft } = item;
    if (item.photoId) {
      const blob = await this.local.photo(item.photoId);
      if (blob) {
        const { photo } = await this.api.addPhoto({ body: blob });
        draft = { ...draft, patches: draft.patches.map((p) => (p.op === 'add' ? { ...p, value: { ...p.value, photo } } : p)) };
      }
    }
    const answer = await this.api.change({ params: { jobId: draft.jobId }, body: draft });
    await this.local.delivered({ ...item, draft });
    this.record.received(answer.change);
  }

  private async catchUp(item: QueuedChange): Promise<void> {
    const session = await this.api.session({ query: { deviceId: item.draft.deviceId } });
    await this.local.rewind(session.lastDeviceSeq);
  }
}
