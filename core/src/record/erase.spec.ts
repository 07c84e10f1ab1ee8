import type { Change, Patch } from '@yellow-pane/contracts';
import { ERASED_LABEL, scrubbed, type Erasing } from './erase.js';

const id = (n: number) => `01930000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const change = (patches: Patch[], inverse: Patch[] = []): Change => ({
  id: id(1), jobId: id(2), personId: id(3), deviceId: id(4), deviceSeq: 1, baseRevision: 0, label: 'Rowan Vale has signed', patches, inverse, revision: 7, undoable: true, undoesId: null, at: '2026-11-30T10:00:00Z',
}); // prettier-ignore
const line: Erasing = { id: id(10), fields: { text: '', photo: null, salt: null } };

describe('what an edit of the past keeps of something that was erased', () => {
  test('nothing: not in what it wrote, nor in what undoing it would write, nor in its label', () => {
    const before = change(
      [{ op: 'add', kind: 'layEntry', id: id(10), value: { id: id(10), text: 'the key is under the mat', photo: 'abc', salt: 'f', kind: 'note' } }],
      [{ op: 'set', kind: 'job', id: id(2), field: 'customer', value: 'Rowan Vale' }],
    );
    const after = scrubbed(before, [line, { id: id(2), fields: { customer: '' } }]);
    expect(after.patches).toEqual([{ op: 'add', kind: 'layEntry', id: id(10), value: { id: id(10), text: '', photo: null, salt: null, kind: 'note' } }]);
    expect(after.inverse).toEqual([{ op: 'set', kind: 'job', id: id(2), field: 'customer', value: '' }]);
    expect(after.label).toBe(ERASED_LABEL);
    expect(JSON.stringify(after)).not.toMatch(/Rowan|mat|abc/);
    // who did it when, and which edit it was, stands
    expect({ ...after, label: '', patches: [], inverse: [] }).toEqual({ ...before, label: '', patches: [], inverse: [] });
  });
  test('a field that was set is set to what stands there now', () => {
    const set = scrubbed(change([{ op: 'set', kind: 'job', id: id(2), field: 'customer', value: 'Rowan Vale' }]), [{ id: id(2), fields: { customer: '' } }]);
    expect(set.patches[0]).toMatchObject({ field: 'customer', value: '' });
    const gone = scrubbed(change([{ op: 'set', kind: 'layEntry', id: id(10), field: 'salt', value: 'f' }]), [line]);
    expect(gone.patches[0]).toMatchObject({ value: null });
  });
  test('edits of other records and other fields stay the very same, and so does one that was scrubbed before', () => {
    const other = change([
      { op: 'set', kind: 'job', id: id(2), field: 'name', value: 'Annex' },
      { op: 'add', kind: 'layEntry', id: id(11), value: { id: id(11), text: 'x' } },
    ]);
    expect(scrubbed(other, [line, { id: id(2), fields: { customer: '' } }])).toBe(other);
    const once = scrubbed(change([{ op: 'add', kind: 'layEntry', id: id(10), value: { id: id(10), text: 'x', photo: null } }]), [line]);
    expect(scrubbed(once, [line])).toBe(once);
  });
});
