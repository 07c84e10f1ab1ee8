import { existsSync, mkdtempSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { pino } from 'pino';
import { demoId, demoPersons, lanternStreet, launchAndShuttle, ternAnnex, ternInterior, ternPoint } from '@yellow-pane/demo';
import type { ChangeDraft, JobDocument, Patch, Plan } from '@yellow-pane/contracts';
import { CORE_VERSION, filmPlanInput, layPiecesOnRolls, Memo } from '@yellow-pane/core';
import { v7 as uuidv7 } from 'uuid';
import { createApp, type App, type Bench } from './app.js';
import { setUpBench } from './bench-setup.js';
import { inPlace } from './compute/runners.js';
import { openInMemory, type Database, type OpenDatabase } from './db/database.js';
import { openOnServer } from './db/postgres-store.js';
import type { Journal } from './db/journal.js';

export const ternPointId = demoId(100);
export const lanternStreetId = demoId(101);
export const ines = demoPersons[0]!.id;
export const okan = demoPersons[1]!.id;

/** The demo as the first suite of this run laid it out: the others begin with a copy. */
const laidOut = join(tmpdir(), `yellow-pane-bench-${(globalThis as { benchRun?: string }).benchRun}.tar`);

/** What a suite needs of its database. */
export type TestDatabase = Pick<OpenDatabase, 'db' | 'close'>;

/** The real app with the demo laid out, on a database in memory, or, where the run has one, on a PostgreSQL server. */
export async function openBench(journal: Journal | null = null, more: Partial<Bench> = {}): Promise<{ app: App; open: TestDatabase }> {
  if (testServer !== null) {
    const open = await openOnServer(await copyOfDemo(), pino({ level: 'silent' }), async () => undefined);
    return { app: appOn(open.db, journal, more), open };
  }
  const isCopy = existsSync(laidOut);
  const open = await openInMemory(isCopy ? readFileSync(laidOut) : undefined);
  const app = appOn(open.db, journal, more);
  await setUpBench(app, 'demo');
  if (!isCopy) {
    // whole or not at all: another suite may be looking
    const beside = `${laidOut}.${process.pid}`;
    writeFileSync(beside, await open.dump(true));
    renameSync(beside, laidOut);
  }
  return { app, open };
}

/** A PostgreSQL server that this run may make databases on; null: there is none, the engine in memory is tested. */
const testServer = process.env['YELLOW_PANE_TEST_DATABASE_URL'] ?? null;

/** Runs statements on the server itself. */
export async function onServer<T>(work: (client: Client) => Promise<T>): Promise<T> {
  const client = new Client({ connectionString: testServer! });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** A new database of the run's server. @param like one of which it becomes a copy */
export async function newDatabase(like?: string): Promise<string> {
  const name = `bench_${uuidv7().replaceAll('-', '')}`;
  await onServer((client) => client.query(`create database ${name}${like ? ` template ${like}` : ''}`));
  return urlOf(name);
}

const urlOf = (name: string): string => {
  const url = new URL(testServer!);
  url.pathname = `/${name}`;
  return url.href;
};

/** A copy of the demo as the first suite of this run laid it out; others that come at the same time wait for it. */
const copyOfDemo = (): Promise<string> =>
  onServer(async (client) => {
    const first = `demo_${(globalThis as { benchRun?: string }).benchRun!.replace(/\W/g, '_')}`;
    await client.query('select pg_advisory_lock(1)');
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [first]);
    if (!rowCount) {
      await client.query(`create database ${first}`);
      const open = await openOnServer(urlOf(first), pino({ level: 'silent' }), async () => undefined);
      await setUpBench(appOn(open.db), 'demo');
      await open.close();
    }
    return newDatabase(first);
  });

/** The real app on this database; it knows nothing yet of what is in it. */
export function appOn(db: Database, journal: Journal | null = null, more: Partial<Bench> = {}): App {
  return createApp({
    db,
    journal,
    compute: inPlace,
    now: () => new Date(),
    log: pino({ level: 'silent' }),
    webDir: null,
    backup: async () => 'none',
    photosDir: mkdtempSync(join(tmpdir(), 'yellow-pane-photos-')),
    plotterHaste: 400,
    ...more,
  });
}

/** A film of a job laid out in so many steps, as a draft that can be stored. */
export function draftPlan(doc: JobDocument, filmId: string, steps: number): Plan {
  const input = filmPlanInput({ ...doc, memo: new Memo() }, doc.job.cut, filmId, undefined);
  return {
    id: uuidv7(),
    jobId: doc.job.id,
    filmId,
    status: 'draft',
    inputHash: input.hash,
    coreVersion: CORE_VERSION,
    pieces: [...input.pieces],
    layout: layPiecesOnRolls(input.layout, steps),
    lockedPieceIds: [],
    isByHand: false,
    takenRollIds: [],
    updatedAt: new Date().toISOString(),
    deletedAt: null,
  };
}

/** A device that counts its own changes. */
export class TestDevice {
  readonly id = uuidv7();
  private seq = 0;
  constructor(readonly personId: string) {}
  draft(jobId: string, label: string, patches: Patch[], baseRevision: number): ChangeDraft {
    return { id: uuidv7(), jobId, personId: this.personId, deviceId: this.id, deviceSeq: ++this.seq, baseRevision, label, patches };
  }
  undo(force = false) {
    return { id: uuidv7(), personId: this.personId, deviceId: this.id, deviceSeq: ++this.seq, force };
  }
  /** The last one was refused: its number is free again. */
  takeBack(): void {
    this.seq--;
  }
}

/** Jobs of the demo bench by id, each with how many surfaces it was made with. */
export const demoSurfaceCounts = (): Record<string, number> =>
  Object.fromEntries(
    [ternPoint(), lanternStreet(), launchAndShuttle(), ternInterior(), ternAnnex('2026-11-29T09:00:00.000Z')].map((f) => [f.job.id, f.surfaces.length]),
  );

/** The same as the list of jobs has it. */
export const listedSurfaceCounts = async (app: App): Promise<Record<string, number>> =>
  Object.fromEntries((await app.jobs.list({ offset: 0, limit: 50 })).jobs.map((j) => [j.id, j.surfaceCount]));
