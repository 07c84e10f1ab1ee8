import { kindOf, newPane, recordKinds, type JobDocument, type Patch, type RecordKind } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { demoFirm, demoPersons, lanternStreet } from '../../../demo/src/index.js';
import { bringsBack, patchedBench, patchedJob, patchedRecord } from './apply.js';

const file = lanternStreet();
const stock = { entries: [], reservations: [], jobNames: {} };
const doc: JobDocument = { revision: 1, firm: demoFirm, persons: demoPersons, ...file, stock, canUndo: null, canRedo: null };
const inJob = (kind: RecordKind) => kindOf(kind).inJob;
const inBench = (kind: RecordKind) => kindOf(kind).inBench;
const set = (kind: RecordKind, id: string, field: string, value: unknown): Patch => ({ op: 'set', kind, id, field, value });
const nowhere = '018f0000-0000-7000-8000-00000000dead';

describe('What a change makes of records', () => {
  it('a field that is set is set, and no other', () => {
    const pane = doc.surfaces[0]!;
    expect(patchedRecord(pane, set('surface', pane.id, 'note', 'chipped'))).toEqual({ ...pane, note: 'chipped' });
    expect(pane.note).not.toBe('chipped');
  });
  it('a field of what is not there makes nothing', () => expect(patchedRecord(null, set('surface', nowhere, 'note', 'x'))).toBeNull());

  it('every kind that the open job shows comes in at its own place, and nowhere else', () => {
    for (const kind of Object.keys(recordKinds) as RecordKind[]) {
      const seat = inJob(kind);
      const next = patchedJob(doc, [{ op: 'add', kind, id: nowhere, value: { id: nowhere } }], inJob);
      const where = JSON.stringify(next).includes(nowhere);
      expect({ kind, where }).toEqual({ kind, where: seat !== null && !seat.includes('itself') });
      if (where) expect(JSON.stringify(seat!.split('.').reduce<unknown>((d, name) => (d as Record<string, unknown>)[name], next))).toContain(nowhere);
    }
  });
  it('another job or another firm does not come into this one', () => {
    expect(patchedJob(doc, [set('job', nowhere, 'name', 'theirs'), set('firm', nowhere, 'name', 'theirs')], inJob)).toEqual(doc);
    expect(patchedJob(doc, [set('job', doc.job.id, 'name', 'ours')], inJob).job.name).toBe('ours');
  });
  it('what comes back from the bench is the same record with what the bench added, not a second one', () => {
    const pane = { ...doc.surfaces[0]!, note: 'as the bench has it' };
    const next = patchedJob(doc, [{ op: 'add', kind: 'surface', id: pane.id, value: pane }], inJob);
    expect(next.surfaces).toHaveLength(doc.surfaces.length);
    expect(next.surfaces[0]!.note).toBe('as the bench has it');
  });
  it('a promise that is lifted leaves the stock, of a job as of the firm', () => {
    const promise = { id: nowhere, deletedAt: null };
    const given: Patch[] = [{ op: 'add', kind: 'reservation', id: nowhere, value: promise }];
    const lifted = [...given, set('reservation', nowhere, 'deletedAt', '2026-09-14T09:00:00Z')];
    const bench = { revision: 1, firm: demoFirm, persons: demoPersons, films: [], rolls: [], stock, rates: [], quotes: [], stepSets: [], panesWithFilm: {}, canUndo: null, canRedo: null }; // prettier-ignore
    expect(patchedJob(doc, given, inJob).stock.reservations).toEqual([promise]);
    expect(patchedJob(doc, lifted, inJob).stock.reservations).toEqual([]);
    expect(patchedBench(bench, given, inBench).stock.reservations).toEqual([promise]);
    expect(patchedBench(bench, lifted, inBench).stock.reservations).toEqual([]);
  });
  it('an edit that moves nothing leaves the walk the very same list, so that what was worked out of its panes holds', () => {
    const tapped = patchedJob(doc, [set('job', doc.job.id, 'name', 'ours')], inJob);
    expect(tapped.surfaces).toBe(doc.surfaces);
    expect(tapped.places).toBe(doc.places);
    const [first, second] = doc.surfaces as [(typeof doc.surfaces)[0], (typeof doc.surfaces)[0]];
    const noted = patchedJob(doc, [set('surface', first.id, 'note', 'chipped')], inJob);
    expect(noted.surfaces[1]).toBe(second);
    expect(patchedJob(doc, [set('surface', first.id, 'order', second.order + 0.5)], inJob).surfaces.slice(0, 2).map((s) => s.id)).toEqual([second.id, first.id]); // prettier-ignore
  });
  it('panes stand in walking order, whatever order they came in', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 12 }), (orders) => {
        const patches = orders.map((order, i): Patch => {
          const id = nowhere.slice(0, -2) + String(10 + i);
          return { op: 'add', kind: 'surface', id, value: newPane({ id, jobId: doc.job.id, placeId: doc.places[0]!.id, name: `P${i}`, order }) };
        });
        const at = patchedJob(doc, patches, inJob)
          .surfaces.filter((s) => s.placeId === doc.places[0]!.id)
          .map((s) => s.order);
        expect(at).toEqual([...at].sort((a, b) => a - b));
      }),
    ));
  it('a pane that was deleted elsewhere and comes back has to be asked for anew; one that is here has not', () => {
    expect(bringsBack(doc, [set('surface', nowhere, 'deletedAt', null)], inJob)).toBe(true);
    expect(bringsBack(doc, [set('reservation', nowhere, 'deletedAt', null)], inJob)).toBe(true);
    expect(bringsBack(doc, [set('surface', doc.surfaces[0]!.id, 'deletedAt', null)], inJob)).toBe(false);
    expect(bringsBack(doc, [set('surface', nowhere, 'note', null)], inJob)).toBe(false);
    expect(bringsBack(doc, [set('rates', nowhere, 'deletedAt', null)], inJob)).toBe(false);
  });
});
