import { TestBed } from '@angular/core/testing';
import { Api } from './api';
import { FakeApi, ternPointDocument } from './fake-api.testing';
import { RecordStore } from './record.store';
import { paneToTakeUp } from './with-pane-in-hand';

const doc = ternPointDocument();
const store = () => TestBed.inject(RecordStore);

beforeEach(async () => {
  localStorage.clear();
  sessionStorage.clear();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: new FakeApi() }] });
  await store().open(doc.job.id);
});

describe('the pane in hand', () => {
  test('a job begins with its first pane, then with the one where this person was last', () => {
    expect(store().selectedId()).toBe(doc.surfaces[0]!.id);
    store().select(doc.surfaces[7]!.id);
    expect(paneToTakeUp(doc, null)).toBe(doc.surfaces[7]!.id);
  });
  test('the one in hand stays in hand when the job is loaded again; one that is gone makes room for the last, then the first', () => {
    expect(paneToTakeUp(doc, doc.surfaces[3]!.id)).toBe(doc.surfaces[3]!.id);
    expect(paneToTakeUp(doc, 'gone')).toBe(doc.surfaces[0]!.id);
    expect(paneToTakeUp({ ...doc, surfaces: [] }, 'gone')).toBeNull();
  });
  test('steps go along the walk and stop at either end', () => {
    store().step(-1);
    expect(store().surface()!.id).toBe(store().doc()!.surfaces[0]!.id);
    store().step(1);
    expect(store().surface()!.id).toBe(store().doc()!.surfaces[1]!.id);
    store().select(store().doc()!.surfaces.at(-1)!.id);
    store().step(1);
    expect(store().surface()!.id).toBe(store().doc()!.surfaces.at(-1)!.id);
  });
  test('lengths are shown as the job says until somebody asks otherwise, and that is no edit', () => {
    expect(store().units()).toBe('mm');
    store().toggleUnits();
    expect(store().units()).toBe('in');
    expect(store().doc()!.job.units).toBe('mm');
    expect(store().save()).toBe('saved');
  });
  test('another job begins with nothing in hand', async () => {
    store().toggleSide();
    store().openFilmSheet(true);
    await store().open('018f0000-0000-7000-8000-0000000000ff');
    expect([store().otherSide(), store().filmSheet()]).toEqual([false, false]);
  });
});
