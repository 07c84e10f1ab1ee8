import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import type { OfficeDatabase } from '../crash/crash.js';

/** The PostgreSQL server of this run (tools/postgres.mjs starts one); none: undefined. */
export const officeUrl = process.env['YELLOW_PANE_TEST_DATABASE_URL'];

async function onServer(statement: string): Promise<void> {
  const client = new Client({ connectionString: officeUrl });
  await client.connect();
  try {
    await client.query(statement);
  } finally {
    await client.end();
  }
}

/** An empty database on the office's server, which can go away and come back. */
export async function newOfficeDatabase(): Promise<OfficeDatabase & { goAway: () => Promise<void>; comeBack: () => Promise<void> }> {
  const name = `office_${randomUUID().replaceAll('-', '')}`;
  await onServer(`create database ${name}`);
  const url = new URL(officeUrl!);
  url.pathname = `/${name}`;
  const cutOff = () => onServer(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`);
  return {
    url: url.href,
    cutOff,
    goAway: async () => {
      await onServer(`alter database ${name} allow_connections false`);
      await cutOff();
    },
    comeBack: () => onServer(`alter database ${name} allow_connections true`),
  };
}
