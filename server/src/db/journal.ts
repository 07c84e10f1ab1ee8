import { closeSync, existsSync, fstatSync, ftruncateSync, openSync, readFileSync, readdirSync, renameSync, rmSync, truncateSync } from 'node:fs';
import { join } from 'node:path';
import type { Change } from '@yellow-pane/contracts';
import { DiskRefused, realDisk, refusedBy, writeAll, writeDurably, type Disk } from './durable.js';
import { syncDirectory } from './sync-directory.js';

/** A line of the journal: a change, or the word that a change written before did not come to pass. */
type Line = { readonly change: Change } | { readonly void: string };

/** What the journal holds. */
export interface JournalRead {
  /** All changes that came to pass, oldest segment first. */
  readonly changes: Change[];
  /** Lines that do not read; they are kept in `unreadableFile`. */
  readonly unreadableCount: number;
  readonly unreadableFile: string | null;
}

/** Segments kept besides the current one: as many as daily backups. */
const KEPT_SEGMENTS = 10;
/** How every line begins: where half a line was left on a full disk, the next one is glued to it and found by this. */
const BEGINNING = /\{"(?=(?:change":\{"|void":"))/g;

/** A line as it was written, or what can be told apart of one that has another glued to it. */
function linesIn(text: string): { lines: Line[]; isWhole: boolean } {
  const read = (t: string): Line | null => {
    try {
      const line = JSON.parse(t) as Line;
      return typeof line === 'object' && line !== null && ('void' in line || (typeof line.change === 'object' && line.change !== null)) ? line : null;
    } catch {
      return null;
    }
  };
  const whole = read(text);
  if (whole) return { lines: [whole], isWhole: true };
  // the last beginning from which the rest reads is the line that was written after the torn one
  const starts = [...text.matchAll(BEGINNING)].map((m) => m.index).filter((i) => i > 0).reverse(); // prettier-ignore
  for (const i of starts) {
    const line = read(text.slice(i));
    if (line) return { lines: [...linesIn(text.slice(0, i)).lines, line], isWhole: false };
  }
  return { lines: [], isWhole: false };
}

/**
 * The embedded database does not sync to disk by itself. Every change is therefore written here and synced before it is
 * acknowledged; at start-up, what the database lacks is replayed from here. A line is there whole or not at all: what a full disk
 * took only half of is taken back and refused.
 */
export class Journal {
  private handle: number;
  private readonly file: string;
  /** Bytes of whole lines. */
  private size: number;
  /** Where the newest line begins, so that it can be taken back. */
  private before: number;
  private isTorn = false;

  constructor(
    private readonly dir: string,
    private readonly disk: Disk = realDisk,
  ) {
    this.file = join(dir, 'journal.ndjson');
    this.mendTail();
    this.handle = openSync(this.file, 'a', 0o600);
    this.size = this.before = fstatSync(this.handle).size;
    syncDirectory(dir);
  }

  /** @throws DiskRefused when it could not be written whole; then nothing of it is left */
  append(change: Change): void {
    this.write({ change });
  }

  /** The transaction of this change failed after it was written here: said in a further line, or, where the disk takes none, the line itself is taken back. */
  void(changeId: string): void {
    const { before } = this;
    try {
      this.write({ void: changeId });
    } catch {
      this.cutTo(before);
    }
  }

  private write(line: Line): void {
    if (this.isTorn) this.cutTo(this.size);
    const bytes = Buffer.from(JSON.stringify(line) + '\n');
    const from = this.size;
    try {
      writeAll(this.disk, this.handle, bytes);
      this.disk.sync(this.handle);
    } catch (error) {
      this.cutTo(from);
      throw refusedBy(error) ?? error;
    }
    this.before = from;
    this.size = from + bytes.length;
  }

  /** Takes back what lies behind a line's end. Where even that fails, the next line tries again before it is written. */
  private cutTo(size: number): void {
    try {
      ftruncateSync(this.handle, size);
      this.size = size;
      this.isTorn = false;
    } catch (error) {
      this.isTorn = true;
      throw refusedBy(error) ?? new DiskRefused(false, error);
    }
  }

  /** Reads all of it. Lines that do not read are set aside in a file of their own, and told; the others count. */
  read(): JournalRead {
    const voided = new Set<string>();
    const changes: Change[] = [];
    const unreadable: string[] = [];
    for (const name of [...this.segments(), 'journal.ndjson'])
      for (const text of readFileSync(join(this.dir, name), 'utf8').split('\n')) {
        if (text === '') continue;
        const { lines, isWhole } = linesIn(text);
        if (!isWhole) unreadable.push(text);
        for (const line of lines)
          if ('void' in line) voided.add(line.void);
          else changes.push(line.change);
      }
    const unreadableFile = unreadable.length ? join(this.dir, 'journal-lines-that-do-not-read.txt') : null;
    if (unreadableFile) writeDurably(unreadableFile, unreadable.join('\n') + '\n');
    return { changes: changes.filter((c) => !voided.has(c.id)), unreadableCount: unreadable.length, unreadableFile };
  }

  /** Starts a new segment after a backup; the oldest go. */
  rotate(stamp: string): void {
    closeSync(this.handle);
    renameSync(this.file, join(this.dir, `journal-${stamp}.ndjson`));
    this.handle = openSync(this.file, 'a', 0o600);
    this.size = this.before = 0;
    const old = this.segments();
    old.slice(0, Math.max(0, old.length - KEPT_SEGMENTS)).forEach((name) => rmSync(join(this.dir, name)));
    syncDirectory(this.dir);
  }

  /**
   * Writes every segment anew in which `rewrite` changes a line, whole and synced before it takes the place of the old one. A line that does not read
   * may hold what has to go: it goes too.
   * @param ids records that something is taken out of
   * @param rewrite gives the very same change where nothing is to be changed
   */
  scrub(ids: readonly string[], rewrite: (change: Change) => Change): void {
    for (const name of [...this.segments(), 'journal.ndjson']) {
      const file = join(this.dir, name);
      let isSame = true;
      const texts = readFileSync(file, 'utf8').split('\n');
      const lines = texts.flatMap((text) => {
        if (text === '') return [];
        const { lines, isWhole } = linesIn(text);
        if (!isWhole && ids.some((id) => text.includes(id))) isSame = false;
        return lines.map((line) => {
          if ('void' in line) return JSON.stringify(line);
          const change = rewrite(line.change);
          isSame &&= change === line.change;
          return JSON.stringify({ change });
        });
      });
      if (isSame) continue;
      if (name === 'journal.ndjson') closeSync(this.handle);
      try {
        writeDurably(file, lines.map((l) => `${l}\n`).join(''), { disk: this.disk });
      } finally {
        if (name === 'journal.ndjson') {
          this.handle = openSync(this.file, 'a', 0o600);
          this.size = this.before = fstatSync(this.handle).size;
        }
      }
    }
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
