import { spawn, type ChildProcess } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { cpSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { demoPersons } from '@yellow-pane/demo';
import { BenchServer } from '../driver/server.js';

/** Devices that work at the same time. */
const DEVICES = 3;
/** How long people work between two kills at most, ms. */
const LONGEST_WORK_MS = 1500;

/** Numbers that look random and are the same for the same seed (a linear congruential generator, Numerical Recipes' constants, from memory). */
function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => (state = (Math.imul(1664525, state) + 1013904223) >>> 0) / 2 ** 32;
}

interface Surface {
  readonly id: string;
  readonly note: string;
}
interface Job {
  readonly revision: number;
  readonly surfaces: readonly Surface[];
  readonly readings: readonly { readonly id: string; readonly surfaceId: string; readonly lengthMm: number; readonly deletedAt: string | null }[];
  readonly layEntries: readonly { readonly id: string; readonly photo: string | null }[];
}
/** An edit as it was sent. */
interface Draft {
  readonly id: string;
  readonly deviceId: string;
  readonly deviceSeq: number;
  readonly patches: readonly { readonly op: string; readonly kind: string; readonly id: string; readonly field?: string; readonly value: unknown }[];
}
/** A device: what it has sent, and what of it the bench has answered. */
class Device {
  id: string = randomUUID();
  seq = 0;
  /** Sent and not answered when the bench died. */
  unanswered: Draft | null = null;
}

/** Where the records are when they are on a server. */
export interface OfficeDatabase {
  readonly url: string;
  readonly cutOff: () => Promise<unknown>;
}

/** What has become of everything that was said to be kept. */
export interface CrashReport {
  kills: number;
  /** Killed while it was starting. */
  killsAtStart: number;
  acknowledged: number;
  photos: number;
  /** Sent again after a start, since they had not been answered; and how many of them had been written all the same. */
  sentAgain: number;
  hadBeenWritten: number;
  /** A second process on the folder that was turned away. */
  turnedAway: number;
  /** The database set back to what it was a kill before: the journal has to bring the rest. */
  tailsLost: number;
  /** The server that holds the records ended all connections, as one does that is started anew. */
  cuts: number;
  /** Edits that were told that the database does not answer, and sent again. */
  toldAway: number;
  faults: string[];
}

/**
 * Kills the bench over and over while people work with it, and looks each time whether everything it had acknowledged is there, once, and whether what it had not
 * answered can be sent again. Needs the built server.
 * @param cycles how often it is killed at work
 * @param office a database on a PostgreSQL server that holds the records, and how to end all connections to it; null: the engine in the folder
 */
export async function crash(
  cycles: number,
  seed: number,
  told: (line: string) => void = () => undefined,
  office: OfficeDatabase | null = null,
): Promise<CrashReport> {
  const roll = dice(seed);
  const env: Record<string, string> = office ? { YELLOW_PANE_DATABASE_URL: office.url, YELLOW_PANE_SEED: 'demo' } : {};
  const server = new BenchServer();
  const report: CrashReport = {
    kills: 0,
    killsAtStart: 0,
    acknowledged: 0,
    photos: 0,
    sentAgain: 0,
    hadBeenWritten: 0,
    turnedAway: 0,
    tailsLost: 0,
    cuts: 0,
    toldAway: 0,
    faults: [],
  };
  const devices = Array.from({ length: DEVICES }, () => new Device());
  const notes = new Map<string, string>();
  const tapes = new Map<string, number>();
  const photos = new Set<string>();
  const lines = new Set<string>();
  let lastRevision = 0;
  const fault = (what: string): void => void report.faults.push(`cycle ${report.kills}: ${what}`);

  await server.start(env);
  const person = demoPersons[0]!.id;
  const jobId = await server.jobId('Tern Point terminal');
  const path = `/api/jobs/${jobId}`;
  const read = (): Promise<Job> => server.get<Job>(`${path}?personId=${person}&deviceId=${devices[0]!.id}`);
  const first = await read();
  const { stepSetId } = await server.get<{ stepSetId: string }>(`${path}/surfaces/${first.surfaces[0]!.id}/run-sheet`);

  /** @returns null: no answer came */
  const post = async (to: string, body: string | Buffer, type = 'application/json'): Promise<{ ok: boolean; text: string } | null> => {
    try {
      const answer = await fetch(server.url + to, {
        method: 'POST',
        headers: { 'Content-Type': type },
        body: typeof body === 'string' ? body : new Uint8Array(body),
      });
      return { ok: answer.ok, text: await answer.text() };
    } catch {
      return null;
    }
  };
  const send = (d: Draft) => post(`${path}/changes`, JSON.stringify({ ...d, jobId, personId: person, baseRevision: 1e9, label: 'At work' }));

  /** It was acknowledged: from now on it must be there. */
  const keep = (d: Draft): void => {
    report.acknowledged++;
    for (const p of d.patches) {
      if (p.kind === 'surface') notes.set(p.id, String(p.value));
      if (p.kind === 'reading') tapes.set(p.id, (p.value as { lengthMm: number }).lengthMm);
      if (p.kind === 'layEntry') lines.add(p.id);
    }
  };

  /** One edit of a device: a note on one of its own panes, a tape, or a line with a photo. */
  const edit = async (device: Device, n: number): Promise<boolean> => {
    const draft = device.unanswered ?? (await newEdit(device, n));
    if (!draft) return false;
    device.unanswered = draft;
    const answer = await send(draft);
    if (!answer) return false;
    if (answer.text.includes('"database-away"')) {
      report.toldAway++;
      await new Promise((r) => setTimeout(r, 100));
      return true;
    }
    device.unanswered = null;
    if (!answer.ok) {
      fault(`an edit was refused: ${answer.text.slice(0, 700)}`);
      return true;
    }
    device.seq++;
    keep(draft);
    return true;
  };
  /** @returns null: the bench did not take its photo */
  const newEdit = async (device: Device, n: number): Promise<Draft | null> => {
    const own = first.surfaces.filter((_, i) => i % DEVICES === n);
    const pane = own[Math.floor(roll() * own.length)]!;
    const kind = roll();
    const patches: Draft['patches'][number][] = [];
    if (kind < 0.5) patches.push({ op: 'set', kind: 'surface', id: pane.id, field: 'note', value: `${device.seq + 1} of ${n}` });
    else if (kind < 0.9) {
      const reading = first.readings.find((r) => r.surfaceId === pane.id) ?? first.readings[0]!;
      const value = { ...reading, id: randomUUID(), lengthMm: 500 + Math.round(1000 * roll()), unit: 'mm', supersedesId: null, at: new Date().toISOString() };
      patches.push({ op: 'add', kind: 'reading', id: value.id, value: { ...value, typed: String(value.lengthMm) } });
    } else {
      const png = picture(roll);
      const answer = await post('/api/photos', png, 'image/png');
      if (!answer?.ok) {
        if (answer) fault(`a photo was refused: ${answer.text.slice(0, 200)}`);
        return null;
      }
      const { photo } = JSON.parse(answer.text) as { photo: string };
      photos.add(photo);
      report.photos++;
      const id = randomUUID();
      const at = new Date().toISOString();
      const line = {
        id,
        jobId,
        surfaceId: pane.id,
        personId: person,
        occurredAt: at,
        clockOffsetMs: 0,
        receivedAt: null,
        stepSetId,
        kind: 'photo',
        photo,
        text: 'seen',
      };
      patches.push({ op: 'add', kind: 'layEntry', id, value: line });
    }
    return { id: randomUUID(), deviceId: device.id, deviceSeq: device.seq + 1, patches };
  };

  /** What was not answered goes again, with the number and the name it had. */
  const sendAgain = async (device: Device): Promise<void> => {
    const draft = device.unanswered;
    if (!draft) return;
    const before = await read();
    const isThere = draft.patches.every((p) =>
      p.kind === 'reading' ? before.readings.some((r) => r.id === p.id) : p.kind === 'layEntry' ? before.layEntries.some((e) => e.id === p.id) : before.surfaces.find((s) => s.id === p.id)!.note === p.value,
    ); // prettier-ignore
    const answer = await send(draft);
    if (!answer?.ok) return fault(`what was sent again was refused: ${answer?.text.slice(0, 700) ?? 'no answer'}`);
    report.sentAgain++;
    if (isThere) report.hadBeenWritten++;
    device.unanswered = null;
    device.seq++;
    keep(draft);
    const after = await read();
    if (isThere && after.revision !== before.revision) fault('what had been written was written once more');
  };

  const check = async (): Promise<void> => {
    const job = await read();
    if (job.revision < lastRevision) fault(`revision ${job.revision} after ${lastRevision}`);
    lastRevision = job.revision;
    const unanswered = new Map(devices.flatMap((d) => d.unanswered?.patches.map((p) => [p.id, p.value] as const) ?? []));
    for (const [id, note] of notes) {
      const is = job.surfaces.find((s) => s.id === id)?.note;
      if (is !== note && is !== unanswered.get(id)) fault(`a note is ${is} and was ${note}`);
    }
    const there = new Map(job.readings.map((r) => [r.id, r.lengthMm]));
    for (const [id, mm] of tapes) if (there.get(id) !== mm) fault(`a tape of ${mm} is ${there.get(id) ?? 'gone'}`);
    if (there.size !== job.readings.length) fault('a tape is there twice');
    const logged = new Set(job.layEntries.map((e) => e.id));
    for (const id of lines) if (!logged.has(id)) fault('a line of the log is gone');
    for (const photo of photos) {
      const answer = await fetch(`${server.url}/api/photos/${photo}`);
      const hash = createHash('sha256').update(Buffer.from(await answer.arrayBuffer())).digest('hex'); // prettier-ignore
      if (!answer.ok || hash !== photo) fault(`a photo is ${answer.ok ? 'another one' : 'gone'}`);
    }
  };

  const database = join(server.dataDir, 'db');
  /** The database is as it was when it was put aside. */
  const loseSince = (folder: string): void => {
    rmSync(folder, { recursive: true });
    renameSync(`${folder}-before`, folder);
    report.tailsLost++;
  };
  /** Starts a process on the folder and kills it at whatever it is doing then. */
  const killAtStart = async (): Promise<void> => {
    const child = startProcess(server.dataDir, env);
    await new Promise((r) => setTimeout(r, 2500 * roll()));
    child.kill('SIGKILL');
    if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
    report.killsAtStart++;
  };

  for (let i = 0; i < cycles; i++) {
    const until = Date.now() + 100 + LONGEST_WORK_MS * roll();
    const work = devices.map(async (device, n) => {
      while (await edit(device, n)) if (Date.now() > until + 5000) break;
    });
    if (i % 5 === 2) {
      // somebody starts it a second time on the same folder
      const second = startProcess(server.dataDir, env);
      const [code] = (await once(second, 'exit')) as [number | null];
      if (code === 0 || code === null) fault('a second process was let in');
      else report.turnedAway++;
    }
    if (office && i % 2 === 1) {
      await new Promise((r) => setTimeout(r, 100));
      await office.cutOff();
      report.cuts++;
    }
    await new Promise((r) => setTimeout(r, Math.max(0, until - Date.now())));
    await server.kill();
    report.kills++;
    await Promise.all(work);
    // as when the power goes: what the disk had not taken of the database by then is gone, the journal is there
    if (!office && i % 4 === 1) loseSince(database);
    if (!office && i % 4 === 0) cpSync(database, `${database}-before`, { recursive: true });
    if (i % 3 === 1) await killAtStart();
    await server.start(env);
    await check();
    for (const device of devices) await sendAgain(device);
    if (report.kills % 10 === 0) told(`${report.kills} kills, ${report.acknowledged} edits acknowledged, ${report.faults.length} faults`);
  }
  await check();
  await server.remove();
  return report;
}

const startProcess = (dataDir: string, more: Record<string, string>): ChildProcess =>
  spawn(process.execPath, ['server/dist/main.js'], {
    env: { ...process.env, YELLOW_PANE_DATA: dataDir, YELLOW_PANE_SEED: 'demo', YELLOW_PANE_PORT: '0', YELLOW_PANE_LOG: 'silent', ...more },
    stdio: 'ignore',
  });

/** A small picture that no other is like: PNG, 8 × 8. */
function picture(roll: () => number): Buffer {
  const chunk = (name: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(name, 'latin1'), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.from([0, 0, 0, 8, 0, 0, 0, 8, 8, 2, 0, 0, 0]);
  const rows = Buffer.concat(Array.from({ length: 8 }, () => Buffer.from([0, ...Array.from({ length: 24 }, () => Math.floor(256 * roll()))])));
  return Buffer.concat([Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]), chunk('IHDR', head), chunk('IDAT', deflateSync(rows)), chunk('IEND', Buffer.alloc(0))]);
}
