import { Injectable } from '@angular/core';
import { upgradedPatch, type BenchDocument, type ChangeDraft, type JobDocument, type Patch } from '@yellow-pane/contracts';
import type { DBSchema, IDBPDatabase } from 'idb';
import type { Session } from './api';

/** A change on its way to the bench; its photo, if it has one, goes first. */
export interface QueuedChange {
  readonly draft: ChangeDraft;
  readonly photoId: string | null;
}
/** What the bench would not take, and why: kept to be read. */
export interface RefusedChange {
  readonly draft: ChangeDraft;
  readonly why: string;
  readonly at: string;
}

/** An edit that the bench has not answered: it outlives the page. Its number is given when it is sent. */
export interface KeptEdit {
  readonly id: string;
  /** The job it belongs to, or the firm. */
  readonly ownerId: string;
  readonly personId: string;
  readonly deviceId: string;
  readonly baseRevision: number;
  readonly label: string;
  readonly patches: readonly Patch[];
}

interface Tables extends DBSchema {
  /** In the order in which they were made. */
  edits: { key: number; value: KeptEdit };
  bench: { key: string; value: BenchDocument };
  /** By number: the order in which they are sent. */
  queue: { key: number; value: QueuedChange };
  /** Delivered ones, kept for a bench that was set back to an older state. */
  sent: { key: number; value: QueuedChange };
  refused: { key: string; value: RefusedChange };
  photos: { key: string; value: Blob };
  jobs: { key: string; value: { readonly doc: JobDocument; readonly savedAt: string } };
  meta: { key: string; value: unknown };
}

/** What is only kept for later gives way to what the page needs now. */
const KEEP_AFTER_MS = 1500;
const later = () => new Promise<void>((r) => setTimeout(r, KEEP_AFTER_MS));

/** What this browser keeps for itself: changes not yet delivered, the job in hand, who is at work. It outlives reload, restart and an empty battery. */
@Injectable({ providedIn: 'root' })
export class LocalStore {
  private opened: Promise<IDBPDatabase<Tables>> | null = null;

  protected db(): Promise<IDBPDatabase<Tables>> {
    this.opened ??= import('idb').then(({ openDB }) =>
      openDB<Tables>('yellow-pane', 3, {
        upgrade(db, from, _to, tx) {
          if (from < 1) for (const name of ['queue', 'sent', 'refused', 'photos', 'jobs', 'meta'] as const) db.createObjectStore(name);
          if (from < 2) {
            db.createObjectStore('edits', { autoIncrement: true });
            db.createObjectStore('bench');
          }
          // jobs kept before surfaces had kinds: the bench has them, and tells them anew
          if (from > 0 && from < 3) void tx.objectStore('jobs').clear();
        },
      }),
    );
    return this.opened;
  }

  /** Keeps an edit until the bench has answered it. When this resolves it outlives the page. */
  async keepEdit(edit: KeptEdit): Promise<void> {
    const tx = (await this.db()).transaction('edits', 'readwrite', { durability: 'strict' });
    await tx.store.add(edit);
    await tx.done;
  }
  /** The bench has answered it. */
  async dropEdit(id: string): Promise<void> {
    const tx = (await this.db()).transaction('edits', 'readwrite');
    for (let at = await tx.store.openCursor(); at; at = await at.continue()) if (at.value.id === id) await at.delete();
    await tx.done;
  }
  /** Edits that were not answered yet, oldest first. */
  async edits(): Promise<KeptEdit[]> {
    // written before surfaces had kinds, perhaps
    return (await (await this.db()).getAll('edits')).map((e) => ({ ...e, patches: e.patches.map(upgradedPatch) }));
  }
  /** What the bench would not take of what was kept: put aside, to be read. */
  async putEditAside(edit: KeptEdit, why: string): Promise<void> {
    const { ownerId, ...rest } = edit;
    await (
      await this.db()
    ).put('refused', { draft: { ...rest, jobId: ownerId, deviceSeq: 1, patches: [...edit.patches] }, why, at: new Date().toISOString() }, edit.id);
    await this.dropEdit(edit.id);
  }
  async keepBench(doc: BenchDocument): Promise<void> {
    const before = this.forgettings;
    await later();
    if (before === this.forgettings) await (await this.db()).put('bench', doc, 'bench');
  }
  async bench(): Promise<BenchDocument | undefined> {
    return (await this.db()).get('bench', 'bench');
  }

  /** Lines of the work that wait to be delivered. */
  async queued(): Promise<QueuedChange[]> {
    return (await this.db()).getAll('queue');
  }

  /** Counts up with each forgetting: what was on its way to be kept before it is not kept after it. */
  private forgettings = 0;
  /** What is to be written next, by job: of several that come one soon after the other only the last is. */
  private readonly toKeep = new Map<string, { doc: JobDocument; written: Promise<void> }>();
  keepJob(doc: JobDocument): Promise<void> {
    const jobId = doc.job.id;
    const waiting = this.toKeep.get(jobId);
    if (waiting) waiting.doc = doc;
    const next = waiting ?? { doc, written: Promise.resolve() };
    if (!waiting) {
      this.toKeep.set(jobId, next);
      next.written = later().then(async () => {
        // forgotten meanwhile; what came to be kept since waits by itself
        if (this.toKeep.get(jobId) !== next) return;
        this.toKeep.delete(jobId);
        await (await this.db()).put('jobs', { doc: next.doc, savedAt: new Date().toISOString() }, jobId);
      });
    }
    return next.written;
  }
  /** Forgets the jobs and people that were kept here. Lines on their way, and their photos, stay. */
  async forgetJobs(): Promise<void> {
    this.forgettings++;
    this.toKeep.clear();
    const tx = (await this.db()).transaction(['jobs', 'meta', 'bench'], 'readwrite');
    await tx.objectStore('jobs').clear();
    await tx.objectStore('bench').clear();
    await tx.objectStore('meta').delete('session');
    await tx.done;
  }
  async job(jobId: string): Promise<{ readonly doc: JobDocument; readonly savedAt: string } | undefined> {
    return (await this.db()).get('jobs', jobId);
  }
  async keepSession(session: Session): Promise<void> {
    const before = this.forgettings;
    await later();
    if (before !== this.forgettings) return;
    await (await this.db()).put('meta', session, 'session');
  }
  async session(): Promise<Session | undefined> {
    return (await (await this.db()).get('meta', 'session')) as Session | undefined;
  }
}
