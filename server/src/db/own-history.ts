import { isUndoStep, type Change } from '@yellow-pane/contracts';
import { undoStateOfTail, type UndoState } from '@yellow-pane/core';
import type { RecordsRepository } from './records.repository.js';

/** Changes of a job that can no longer be undone because of what was done since, by id. */
export type BoundChanges = (records: RecordsRepository, jobId: string, own: readonly Change[]) => Promise<ReadonlySet<string>>;

/** So many changes are read at first; each time they do not tell enough, four times as many. @source house rule */
const FIRST_TAIL = 20;
/** People and devices whose last changes are kept. @source house rule: a crew, each in a few jobs */
const MOST_KEPT = 60;
/** A kept tail is cut back when it is as long as this. */
const LONGEST_KEPT = 4 * FIRST_TAIL;

interface Tail {
  readonly changes: readonly Change[];
  /** Nothing lies before them. */
  readonly isWhole: boolean;
}

/** What each person on each device did last in each job: enough to know what undo takes back next, however long the history is. */
export class OwnHistory {
  /** The one asked for longest ago first. */
  private readonly tails = new Map<string, Tail>();
  private heardCount = 0;

  constructor(
    private readonly records: RecordsRepository,
    private readonly boundBy: BoundChanges,
  ) {}

  /** What can be undone and redone next; what the knife has been at since stands. @param deviceId left out: what was done on any device */
  async undoState(jobId: string, personId: string, deviceId?: string): Promise<UndoState> {
    let tail = this.tails.get(keyOf(jobId, personId, deviceId)) ?? (await this.read(jobId, personId, deviceId, FIRST_TAIL));
    for (;;) {
      const state = undoStateOfTail(await this.free(jobId, tail.changes), tail.isWhole);
      if (state) return state;
      tail = await this.read(jobId, personId, deviceId, 4 * Math.max(FIRST_TAIL, tail.changes.length));
    }
  }

  /** Every change that is written is told here, in its order. */
  hear(change: Change): void {
    this.heardCount++;
    if (!change.undoable) return;
    for (const deviceId of [change.deviceId, undefined]) {
      const key = keyOf(change.jobId, change.personId, deviceId);
      const tail = this.tails.get(key);
      if (!tail) continue;
      // one that a reader saw before it was told here stands twice, which counts once
      const changes = [...tail.changes, change];
      const short = changes.length > LONGEST_KEPT ? changes.slice(-FIRST_TAIL) : null;
      // whoever goes far back needs what lies there
      this.tails.set(key, short && undoStateOfTail(short, false) ? { changes: short, isWhole: false } : { changes, isWhole: tail.isWhole });
    }
  }

  /** What is kept is asked for anew. */
  forget(): void {
    this.tails.clear();
  }

  private async read(jobId: string, personId: string, deviceId: string | undefined, most: number): Promise<Tail> {
    const before = this.heardCount;
    const changes = await this.records.lastChangesOfPerson(jobId, personId, deviceId, most);
    const tail = { changes, isWhole: changes.length < most };
    // what was written while it was read may be missing in it
    if (this.heardCount === before) this.keep(keyOf(jobId, personId, deviceId), tail);
    return tail;
  }

  private keep(key: string, tail: Tail): void {
    this.tails.delete(key);
    this.tails.set(key, tail);
    for (const oldest of this.tails.keys()) if (this.tails.size > MOST_KEPT) this.tails.delete(oldest);
  }

  /** Changes that are steps and that nothing since has bound. */
  private async free(jobId: string, tail: readonly Change[]): Promise<readonly Change[]> {
    // what an older version took for a step may be none: a search of the layout, the bringing in of the whole job
    const all = tail.filter((c) => c.undoesId !== null || isUndoStep(c.patches));
    const bound = await this.boundBy(this.records, jobId, all);
    return bound.size ? all.filter((c) => !bound.has(c.id) && !(c.undoesId !== null && bound.has(c.undoesId))) : all;
  }
}

const keyOf = (jobId: string, personId: string, deviceId: string | undefined): string => `${jobId}/${personId}/${deviceId ?? ''}`;
