import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import { FakeApi } from './fake-api.testing';
import { LayLocalStore } from './lay-local-store';

// jsdom lacks it; what is kept here is plain JSON
globalThis.structuredClone = ((v: unknown) => (v === undefined ? v : JSON.parse(JSON.stringify(v)))) as typeof structuredClone;

test('a job that is just being kept when the device is taken out is not kept after it; one kept later is', async () => {
  const local = TestBed.inject(LayLocalStore);
  const { doc } = new FakeApi();
  const onItsWay = local.keepJob(doc);
  await local.forgetJobs();
  await onItsWay;
  expect(await local.job(doc.job.id)).toBeUndefined();
  await local.keepJob(doc);
  expect((await local.job(doc.job.id))?.doc.job.name).toBe(doc.job.name);
});
