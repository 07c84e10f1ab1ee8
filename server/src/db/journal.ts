import { closeSync, existsSync, fsyncSync, openSync, readFileSync, readdirSync, renameSync, rmSync, truncateSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import type { Change } from '@yellow-pane/contracts';

/** A line of the journal: a change, or the word that a change written before did not come to pass. */
type Line = { readonly change: Change } | { readonly void: string };

/** Segments kept besides the current one: as many as daily backups. */
const KEPT_SEGMENTS = 10;

/**
 * The embedded database does not sync to disk by itself. Every change is therefore written here and synced before it is
 * acknowledged; at start-up, what the database lacks is replayed from here.
 */
export class Journal {
  private handle: number;
  private readonly file: string;

  constructor(private readonly dir: string) {
    this.file = join(dir, 'journal.ndjson');
    this.mendTail();
    this.handle = openSync(this.file, 'a');
    syncDirectory(dir);
  }

  append(change: Change): void {
    this.write({ change });
  }

  /** The transaction of this change failed after it was written here. */
  void(changeId: string): void {
    this.write({ void: changeId });
  }

  private write(line: Line): void {
    writeSync(this.handle, JSON.stringify(line) + '\n');
    fsyncSync(this.handle);
  }

  /** All changes that came to pass, oldest segment first. */
  read(): Change[] {
    const voided = new Set<string>();
    const changes: Change[] = [];
    for (const name of [...this.segments(), 'journal.ndjson'])
      for (const text of readFileSync(join(this.dir, name), 'utf8').split('\n')) {
        if (text === '') continue;
        const line = JSON.parse(text) as Line;
        if ('void' in line) voided.add(line.void);
        else changes.push(line.change);
      }
    return changes.filter((c) => !voided.has(c.id));
  }

  /** Starts a new segment after a backup; the oldest go. */
  rotate(stamp: string): void {
    closeSync(this.handle);
    renameSync(this.file, join(this.dir, `journal-${stamp}.ndjson`));
    this.handle = openSync(this.file, 'a');
    const old = this.segments();
    old.slice(0, Math.max(0, old.length - KEPT_SEGMENTS)).forEach((name) => rmSync(join(this.dir, name)));
    syncDirectory(this.dir);
  }

  close(): void {
    closeSync(this.handle);
  }

  private segments(): string[] {
    return readdirSync(this.dir)
      .filter((n) => /^journal-.*\.ndjson$/.test(n))
      .sort();
  }

  /** A line cut short by a power failure was never acknowledged: it is dropped. */
  private mendTail(): void {
    if (!existsSync(this.file)) return;
    const bytes = readFileSync(this.file);
    const end = bytes.lastIndexOf(10) + 1;
    if (end < bytes.length) truncateSync(this.file, end);
  }
}

/** Makes a new or renamed file name itself durable. Not possible on every system, and then not needed. */
export function syncDirectory(dir: string): void {
  try {
    const handle = openSync(dir, 'r');
    fsyncSync(handle);
    closeSync(handle);
  } catch {
    // Windows cannot open a folder; its file system journals names
  }
}
