import { closeSync, fsyncSync, linkSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';

/** Who holds the data folder. Start time and boot id tell a living holder from a number that was given out again. */
export interface Holder {
  readonly pid: number;
  readonly bootId: string | null;
  readonly startTime: string | null;
  readonly port: number | null;
}

export class FolderInUse extends Error {
  constructor(
    readonly dataDir: string,
    readonly holder: Holder | null,
  ) {
    super(
      `Another Yellow Pane${holder ? ` (process ${holder.pid}${holder.port ? `, port ${holder.port}` : ''})` : ''} is already working in ${dataDir}. ` +
        'Use that one, stop it first, or set YELLOW_PANE_DATA to another folder.',
    );
  }
}

const readText = (file: string): string | null => {
  try {
    return readFileSync(file, 'utf8').trim();
  } catch {
    return null;
  }
};

const bootId = (): string | null => readText('/proc/sys/kernel/random/boot_id');
/** Field 22 of /proc/PID/stat: clock ticks from boot to the start of the process; null where there is no /proc. */
export function processStartTime(pid: number): string | null {
  const stat = readText(`/proc/${pid}/stat`);
  return stat ? (stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null) : null;
}

/** One that has ended and that nobody has waited for works in no folder. */
function isZombie(pid: number): boolean {
  const stat = readText(`/proc/${pid}/stat`);
  return stat !== null && stat.slice(stat.lastIndexOf(')') + 2).startsWith('Z');
}

function isAlive(holder: Holder): boolean {
  if (holder.bootId !== null && holder.bootId !== bootId()) return false;
  if (isZombie(holder.pid)) return false;
  try {
    process.kill(holder.pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ESRCH') return false;
  }
  const now = processStartTime(holder.pid);
  return holder.startTime === null || now === null || now === holder.startTime;
}

const lockFile = (dataDir: string): string => join(dataDir, 'lock.json');

function readHolder(dataDir: string): Holder | null {
  const text = readText(lockFile(dataDir));
  if (!text) return null;
  try {
    return JSON.parse(text) as Holder;
  } catch {
    return null;
  }
}

/** The holder of the folder if it lives, else null. */
export function livingHolder(dataDir: string): Holder | null {
  const holder = readHolder(dataDir);
  return holder && isAlive(holder) ? holder : null;
}

/**
 * Takes the data folder for this process alone. A lock left by a crash is recognised and recovered.
 * The lock is written whole beside and linked into place, so that nobody ever reads half of one.
 * @throws FolderInUse
 */
export function takeLock(dataDir: string, port: number | null = null): { release: () => void; setPort: (port: number) => void } {
  const file = lockFile(dataDir);
  const mine = (p: number | null): Holder => ({ pid: process.pid, bootId: bootId(), startTime: processStartTime(process.pid), port: p });
  const own = join(dataDir, `lock.${process.pid}.tmp`);
  const write = (holder: Holder) => {
    const handle = openSync(own, 'w');
    writeSync(handle, JSON.stringify(holder));
    fsyncSync(handle);
    closeSync(handle);
  };
  write(mine(port));
  try {
    for (let attempt = 0; attempt < 5; attempt++) {
      try {
        linkSync(own, file);
        rmSync(own, { force: true });
        return {
          release: () => {
            if (readHolder(dataDir)?.pid === process.pid) rmSync(file, { force: true });
          },
          setPort: (p) => {
            write(mine(p));
            renameSync(own, file);
          },
        };
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      }
      const text = readText(file);
      const holder = readHolder(dataDir);
      if (holder && isAlive(holder)) throw new FolderInUse(dataDir, holder);
      removeStale(file, text);
    }
  } finally {
    rmSync(own, { force: true });
  }
  throw new FolderInUse(dataDir, readHolder(dataDir));
}

/** Moves a dead lock aside; if another process was quicker and a living lock was moved, puts it back. */
function removeStale(file: string, text: string | null): void {
  const aside = `${file}.${process.pid}.stale`;
  try {
    renameSync(file, aside);
  } catch {
    return;
  }
  if (readText(aside) !== text) {
    try {
      linkSync(aside, file);
    } catch {
      // a third process already took the free place: it holds the folder
    }
  }
  rmSync(aside, { force: true });
}
