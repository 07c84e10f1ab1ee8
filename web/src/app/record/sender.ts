import { inject, Injectable } from '@angular/core';
import type { ChangeAnswer, Patch } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { Api, ApiProblem } from './api';
import { Device, tabLock } from './device';
import { LocalStore, type KeptEdit } from './local-store';

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 8000;
/** Refusals that another try can turn. */
const mayPass = new Set(['offline', 'not-admitted', 'too-many', 'took-too-long']);

/** How an edit fares while it is not answered. @param isKept it outlives this page: only then is it said to be kept */
export type Waiting = (isKept: boolean) => void;

/**
 * The one queue of this device's edits: they reach the bench in the order they were made, whatever record they belong to. Each is written into this browser's
 * store as it is made and leaves it with the bench's answer, so that a reload, a closed tab or an empty battery loses none.
 */
@Injectable({ providedIn: 'root' })
export class Sender {
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  private readonly local = inject(LocalStore);
  private queue: Promise<unknown> = Promise.resolve();
  private recovered: Promise<void> | null = null;
  /** Edits made in this life of the page. */
  private readonly made: string[] = [];

  /** Everything handed in so far has been answered. */
  settled(): Promise<unknown> {
    return this.queue;
  }

  /** Sends one change in turn. @param waiting told each time the bench does not answer; it is tried again for ever */
  change(ownerId: string, label: string, patches: Patch[], baseRevision: () => number, waiting: Waiting, id: string = uuidv7()): Promise<ChangeAnswer> {
    const edit: KeptEdit = {
      id,
      ownerId,
      personId: this.device.person()!.id,
      deviceId: this.device.id,
      baseRevision: baseRevision(),
      label: label.slice(0, 120),
      patches,
    };
    this.made.push(id);
    let isKept = false;
    const kept = this.local.keepEdit(edit).then(
      () => void (isKept = true),
      () => undefined,
    );
    // one that has to wait behind others is not answered either: is it safe here?
    const tell = () => void kept.then(() => waiting(isKept));
    return this.inTurn(async () => {
      try {
        const answer = await this.send(edit, baseRevision, tell);
        void kept.then(() => this.local.dropEdit(id)).catch(() => undefined);
        return answer;
      } catch (error) {
        void kept.then(() => this.local.dropEdit(id)).catch(() => undefined);
        throw error;
      }
    });
  }

  reverse(ownerId: string, way: 'undo' | 'redo', force: boolean, waiting: Waiting): Promise<ChangeAnswer> {
    return this.inTurn(() => {
      const request = { id: uuidv7(), ...this.who(), force };
      return this.again(
        () => this.api[way]({ params: { jobId: ownerId }, body: request }),
        () => waiting(false),
      );
    });
  }

  /**
   * What an earlier life of this page, or a tab that is gone, did not get answered goes first, once. The bench knows each by its id: one that had reached it
   * after all is not written twice.
   */
  recover(): Promise<void> {
    this.recovered ??= this.orphans().then(
      (edits) => {
        for (const edit of edits) void this.deliver(edit);
      },
      () => undefined,
    );
    return this.recovered;
  }
  /** Edits whose page is gone: this one's own of before, and those of tabs that no longer live. */
  async orphans(): Promise<KeptEdit[]> {
    const edits = await this.local.edits();
    const alive = new Set(this.made);
    const held = (await navigator.locks?.query?.())?.held ?? [];
    return edits.filter((e) => !alive.has(e.id) && (e.deviceId === this.device.id || !held.some((l) => l.name === tabLock(e.deviceId))));
  }
  private deliver(edit: KeptEdit): Promise<void> {
    return this.inTurn(async () => {
      try {
        await this.send(
          edit,
          () => edit.baseRevision,
          () => undefined,
        );
        await this.local.dropEdit(edit.id);
      } catch (error) {
        await this.local.putEditAside(edit, error instanceof Error ? error.message : String(error)).catch(() => undefined);
        throw error;
      }
    }).catch(() => undefined);
  }
  /** Under this tab's own id and next number, whichever tab it was made in. A number that somebody else with this id has used is asked for anew. */
  private async send(edit: KeptEdit, baseRevision: () => number, waiting: () => void): Promise<ChangeAnswer> {
    const { id, ownerId, personId, label } = edit;
    for (let tries = 0; ; tries++) {
      const draft = {
        id,
        jobId: ownerId,
        personId,
        deviceId: this.device.id,
        deviceSeq: this.device.nextSeq(),
        baseRevision: baseRevision(),
        label,
        patches: [...edit.patches],
      };
      try {
        const answer = await this.again(() => this.api.change({ params: { jobId: ownerId }, body: draft }), waiting);
        // it had reached the bench before: the number was not used
        if (answer.change.deviceId !== undefined && (answer.change.deviceId !== draft.deviceId || answer.change.deviceSeq !== draft.deviceSeq))
          this.device.giveBackSeq();
        return answer;
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.code !== 'sequence-gap' || tries > 2) throw error;
        await this.device.connect();
      }
    }
  }

  private who(): { personId: string; deviceId: string; deviceSeq: number } {
    return { personId: this.device.person()!.id, deviceId: this.device.id, deviceSeq: this.device.nextSeq() };
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work).catch(async (error: unknown) => {
      // a refused number is free again: ask where the count stands before the next edit goes out
      await this.device.connect().catch(() => undefined);
      throw error;
    });
    this.queue = next.catch(() => undefined);
    return next;
  }

  private async again<T>(work: () => Promise<T>, waiting: () => void): Promise<T> {
    for (let wait = FIRST_WAIT_MS; ; wait = Math.min(LONGEST_WAIT_MS, wait * 2)) {
      try {
        return await work();
      } catch (error) {
        // let in again, in another tab, it goes on from here
        if (!(error instanceof ApiProblem) || !mayPass.has(error.code)) throw error;
        waiting();
        await new Promise((r) => setTimeout(r, wait));
      }
    }
  }
}
