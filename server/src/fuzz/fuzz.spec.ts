import { ines, lanternStreetId, okan, openBench, ternPointId } from '../bench.testing.js';
import { demoId } from '@yellow-pane/demo';
import { examplesFor } from './examples.js';
import { fuzz } from './fuzz.js';

test('six hundred requests of nonsense (three hundred in CI): no answer is a failure of the bench itself, none without problem details, none much dearer than the heaviest proper question; the same seed sends the same', async () => {
  const { app, open } = await openBench(null, { requestsIn10s: 1e9 });
  const doc = await app.jobs.open(lanternStreetId);
  const ids = [ternPointId, lanternStreetId, ines, okan, doc.firm.id, ...doc.surfaces.map((s) => s.id), ...doc.films.slice(0, 5).map((f) => f.id), ...doc.rolls.slice(0, 5).map((r) => r.id)]; // prettier-ignore
  const result = await fuzz(
    app,
    ids,
    await examplesFor(app, lanternStreetId, demoId(102)),
    `/api/jobs/${ternPointId}/run-sheet.pdf`,
    process.env['CI'] ? 300 : 600,
    20261128,
  );
  expect(result.findings).toEqual([]);
  // it reached more than the first check
  expect(result.byStatus[200]).toBeGreaterThan(20);
  expect(result.byStatus[400]).toBeGreaterThan(50);
  await open.close();
});
