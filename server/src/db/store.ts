import type { BackupKind } from './backup.js';
import type { Database } from './database.js';
import type { Journal } from './journal.js';

/** Where the records stand, held by this process alone: in a folder of this machine, or on a PostgreSQL server. */
export interface Store {
  readonly db: Database;
  /** What an answer waits for where the engine's own commit does not survive a power cut; null: it does. */
  readonly journal: Journal | null;
  /** Whether the schema was brought up to date just now. */
  readonly isUpdated: boolean;
  /** Told to whoever wants to work on the same records. */
  setPort(port: number): void;
  /** All records as they are now, in a file. @returns where it is */
  backup(kind: BackupKind, now: Date): Promise<string>;
  /** What is due once a day. @param settled waits until nothing is being written */
  daily(now: Date, settled: () => Promise<unknown>): Promise<void>;
  /** What is due at a stop, before it is closed. */
  atStop(now: Date): Promise<void>;
  /** After an erasure: what rows were before goes off the disk, as far as that is this process’s to do. */
  clearOut(): Promise<void>;
  /** Gives the records free for another process. */
  close(): Promise<void>;
  /** Tells of what may befall a place that others can reach too. */
  watch(watcher: StoreWatcher): void;
}

/** What a process has to hear of the place where its records are. */
export interface StoreWatcher {
  /** For a moment nothing kept others out: what this process knows of the records is to be asked anew. */
  doubt(): void;
  /** Another process works on these records now: this one must end. */
  taken(sentence: string): void;
}
