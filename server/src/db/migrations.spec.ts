import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { recordSchemas, type RecordKind } from '@yellow-pane/contracts';
import { demoFilms, demoFirm, demoRolls, ternPoint } from '@yellow-pane/demo';

const folder = join(dirname(fileURLToPath(import.meta.url)), 'migrations');
const statements = (name: string) => readFileSync(join(folder, name), 'utf8').split('--> statement-breakpoint');

/** A record as the first version of Yellow Pane wrote it. */
const without = (record: object, ...fields: string[]): Record<string, unknown> =>
  Object.fromEntries(Object.entries(record).filter(([k]) => !fields.includes(k)));

test('a bench of the first version opens: films, panes, rolls and jobs get what is new as not yet known, and keep what they had', async () => {
  const db = await PGlite.create();
  for (const s of statements('0000_first-bench.sql')) await db.exec(s);
  const { id, name, version, kind, wound, direction, hatch, thicknessUm, createdAt } = demoFilms.guard;
  const file = ternPoint();
  const old: [RecordKind, Record<string, unknown>][] = [
    ['film', { id, name, version, kind, wound, direction, hatch, thicknessUm, createdAt }],
    ['firm', without(demoFirm, 'leftovers')],
    ['surface', without(file.surfaces[0]!, 'glazing', 'exposure', 'choose', 'seam', 'design', 'servedById')],
    ['roll', without(demoRolls[0]!, 'isToOrder', 'lengthSigmaM', 'lengthFrom', 'form', 'place', 'edges', 'wound', 'fromRollId', 'fromPlanId', 'fromDrop')],
    ['job', { ...without(file.job, 'choose'), cut: without(file.job.cut, 'mixLots', 'oneDirection') }],
  ];
  for (const [table, body] of old) await db.query(`insert into "${table}" (id, body) values ($1, $2)`, [body['id'], JSON.stringify(body)]);
  for (const name of readdirSync(folder)
    .filter((f) => f.endsWith('.sql') && !f.startsWith('0000'))
    .sort())
    for (const s of statements(name)) await db.exec(s);
  for (const [table, body] of old) {
    const { rows } = await db.query<{ body: Record<string, unknown> }>(`select body from "${table}"`);
    // complete without any help of the schema's defaults, and nothing lost
    expect(recordSchemas[table].parse(rows[0]!.body)).toEqual(rows[0]!.body);
    expect(rows[0]!.body).toMatchObject(body);
  }
  await db.close();
});
