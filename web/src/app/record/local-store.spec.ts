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
  // also where the first one was still waiting: let in again at once, the device keeps what it is given
  const stillWaiting = local.keepJob({ ...doc, job: { ...doc.job, name: 'Before' } });
  await local.forgetJobs();
  const again = local.keepJob(doc);
  await Promise.all([stillWaiting, again]);
  expect((await local.job(doc.job.id))?.doc.job.name).toBe(doc.job.name);
});

test('of several states of a job that come one soon after the other the last is kept', async () => {
  const local = TestBed.inject(LayLocalStore);
  const { doc } = new FakeApi();
  await Promise.all(['A', 'B', 'C'].map((name) => local.keepJob({ ...doc, job: { ...doc.job, name } })));
  expect((await local.job(doc.job.id))?.doc.job.name).toBe('C');
});
