import { ternPoint, demoFirm, demoPersons } from '../../../../demo/src/index';
import { emptyStock, type JobDocument } from '@yellow-pane/contracts';
import { applyPatches, needsReload } from './updaters';

const file = ternPoint();
const doc: JobDocument = { revision: 1, firm: demoFirm, persons: demoPersons, ...file, stock: emptyStock, canUndo: null, canRedo: null };
const first = doc.surfaces[0]!;

describe('the document after a change', () => {
  test('a field set is set, and nothing else moves', () => {
    const next = applyPatches(doc, [{ op: 'set', kind: 'surface', id: first.id, field: 'note', value: 'chipped' }]);
    expect(next.surfaces[0]).toEqual({ ...first, note: 'chipped' });
    expect(next.surfaces.slice(1)).toEqual(doc.surfaces.slice(1));
    expect(doc.surfaces[0]!.note).toBe('');
  });
  test('a deleted pane leaves it; bringing it back needs the server', () => {
    const gone = applyPatches(doc, [{ op: 'set', kind: 'surface', id: first.id, field: 'deletedAt', value: '2026-01-01T00:00:00Z' }]);
    expect(gone.surfaces).toHaveLength(59);
    expect(needsReload(gone, [{ op: 'set', kind: 'surface', id: first.id, field: 'deletedAt', value: null }])).toBe(true);
    expect(needsReload(doc, [{ op: 'set', kind: 'surface', id: first.id, field: 'note', value: null }])).toBe(false);
  });
  test('panes stand in walking order, whatever order they came in', () => {
    const next = applyPatches(doc, [{ op: 'set', kind: 'place', id: doc.places[0]!.id, field: 'order', value: 99 }]);
    expect(next.surfaces.at(-1)!.placeId).toBe(doc.places[0]!.id);
    expect(next.places.at(-1)!.id).toBe(doc.places[0]!.id);
  });
});
