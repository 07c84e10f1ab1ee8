import type { Change, Patch } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { inverseOf, othersOnTheSame, reversalOf, undoState, undoStateOfTail } from './undo.js';

/** A bench of notes on panes: the rules of undo and nothing else. */
class Bench {
  readonly records = new Map<string, Record<string, unknown>>();
  readonly history: Change[] = [];

  private write(deviceId: string, patches: readonly Patch[], undoesId: string | null): Change {
    const inverse: Patch[] = [];
    for (const p of patches) {
      const old = this.records.get(p.id) ?? null;
      this.records.set(p.id, p.op === 'add' ? { ...p.value } : { ...old, [p.field]: p.value });
      const back = inverseOf(p, old, 'later', true);
      if (back) inverse.push(back);
    }
    const revision = this.history.length + 1;
    const change = { id: `c${revision}`, jobId: 'j', personId: 'p', deviceId, deviceSeq: revision, baseRevision: revision - 1, label: `${revision}`, patches: [...patches], revision, inverse, undoable: true, undoesId, at: 'now' }; // prettier-ignore
    this.history.push(change);
    return change;
  }
  private own = (deviceId: string) => this.history.filter((c) => c.deviceId === deviceId);
  do = (deviceId: string, patches: readonly Patch[]): Change => this.write(deviceId, patches, null);
  state = (deviceId: string) => undoState(this.own(deviceId));
  /** @returns what stands in the way; null: nothing, and it is done */
  back(deviceId: string, way: 'undo' | 'redo'): Change | null {
    const target = this.state(deviceId)[way]!;
    const other = othersOnTheSame(target.patches, this.history.slice(target.revision), deviceId);
    if (!other) this.write(deviceId, reversalOf(target), target.id);
    return other;
  }
  /** What is alive, as anybody would see it. */
  shown = (): Record<string, Record<string, unknown>> =>
    Object.fromEntries([...this.records].filter(([, r]) => !r['deletedAt']).map(([id, r]) => [id, { ...r, deletedAt: undefined }]));
}

const set = (id: string, field: string, value: unknown): Patch => ({ op: 'set', kind: 'surface', id, field, value });
const add = (id: string, note = ''): Patch => ({ op: 'add', kind: 'surface', id, value: { id, note, name: id, deletedAt: null } });

describe('undo and redo of one device', () => {
  test('the last is taken back first, and done again first', () => {
    const b = new Bench();
    const [one, two] = [b.do('me', [add('W1')]), b.do('me', [set('W1', 'note', 'tight')])];
    expect(b.state('me')).toEqual({ undo: two, redo: null });
    b.back('me', 'undo');
    expect(b.records.get('W1')).toMatchObject({ note: '' });
    expect(b.state('me')).toEqual({ undo: one, redo: b.history[2] });
    b.back('me', 'redo');
    expect(b.records.get('W1')).toMatchObject({ note: 'tight' });
    expect(b.state('me').redo).toBeNull();
  });
  test('a change that touches one field twice goes back to what was there before it, not to what stood in its middle', () => {
    const b = new Bench();
    b.do('me', [add('W1', 'first')]);
    b.do('me', [set('W1', 'note', 'in between'), set('W1', 'note', 'last')]);
    b.back('me', 'undo');
    expect(b.records.get('W1')!['note']).toBe('first');
  });
  test('a new change leaves nothing to redo', () => {
    const b = new Bench();
    b.do('me', [add('W1')]);
    b.do('me', [set('W1', 'note', 'a')]);
    b.back('me', 'undo');
    b.do('me', [set('W1', 'name', 'W1b')]);
    expect(b.state('me').redo).toBeNull();
    // neither does one that came while two were taken back
    b.back('me', 'undo');
    b.back('me', 'undo');
    b.do('me', [add('W2')]);
    expect(b.state('me')).toMatchObject({ redo: null });
  });
  test('what was added is deleted, and comes back; a field that was not there yet goes back to nothing; a fact stands', () => {
    expect(inverseOf(add('W1'), null, 'now', true)).toEqual(set('W1', 'deletedAt', 'now'));
    expect(inverseOf(set('W1', 'signed', 'x'), { id: 'W1' }, 'now', true)).toEqual(set('W1', 'signed', null));
    expect(inverseOf({ op: 'add', kind: 'logEntry', id: 'e', value: {} }, null, 'now', false)).toBeNull();
  });
});

describe('two at one bench', () => {
  test('each takes back only what is its own', () => {
    const b = new Bench();
    const mine = b.do('me', [add('W1')]);
    const hers = b.do('her', [add('W2')]);
    expect([b.state('me').undo, b.state('her').undo]).toEqual([mine, hers]);
    b.back('me', 'undo');
    expect(Object.keys(b.shown())).toEqual(['W2']);
    expect([b.state('me').undo, b.state('her').undo]).toEqual([null, hers]);
  });
  test('somebody else’s work on the same field or the same pane stands in the way, and is named; on anything else it does not', () => {
    const b = new Bench();
    b.do('me', [add('W1'), add('W2')]);
    const mine = b.do('me', [set('W1', 'note', 'mine')]);
    const since = (p: Patch) => othersOnTheSame(mine.patches, [{ ...mine, id: 'x', deviceId: 'her', patches: [p] }], 'me')?.id ?? null;
    expect(since(set('W1', 'note', 'hers'))).toBe('x');
    expect(since({ ...add('W1') })).toBe('x');
    expect([since(set('W1', 'name', 'hers')), since(set('W2', 'note', 'hers')), since({ ...set('W1', 'note', 'x'), kind: 'place' })]).toEqual([
      null,
      null,
      null,
    ]);
    // a pane whose name begins like that of another is another pane
    expect(othersOnTheSame([set('W1', 'note', '')], [{ ...mine, deviceId: 'her', patches: [set('W10', 'note', '')] }], 'me')).toBeNull();
    // what was added as a whole is touched by each of its fields; one's own later work is in nobody's way
    expect(othersOnTheSame([add('W1')], [{ ...mine, deviceId: 'her', patches: [set('W1', 'note', 'x')] }], 'me')).not.toBeNull();
    expect(othersOnTheSame(mine.patches, [{ ...mine, id: 'y' }], 'me')).toBeNull();
  });
});

describe('whatever is done', () => {
  const device = fc.constantFrom('me', 'her');
  const patch = (n: number): fc.Arbitrary<Patch> =>
    fc.tuple(fc.constantFrom(...Array.from({ length: n }, (_, i) => `W${i}`)), fc.constantFrom('note', 'name'), fc.string({ maxLength: 3 })).map(([id, field, v]) => set(id, field, v)); // prettier-ignore
  const panes = Array.from({ length: 4 }, (_, i) => add(`W${i}`));

  test('one device: undone to the beginning it is as it was, done again to the end it is as it became', () =>
    fc.assert(
      fc.property(fc.array(fc.array(patch(4), { minLength: 1, maxLength: 4 }), { maxLength: 12 }), (edits) => {
        const b = new Bench();
        b.do('bench', panes);
        const before = b.shown();
        for (const e of edits) b.do('me', e);
        const after = b.shown();
        let undone = 0;
        for (; b.state('me').undo; undone++) expect(b.back('me', 'undo')).toBeNull();
        expect([undone, b.shown()]).toEqual([edits.length, before]);
        for (; b.state('me').redo; undone--) expect(b.back('me', 'redo')).toBeNull();
        expect([undone, b.shown()]).toEqual([0, after]);
      }),
      { numRuns: 200 },
    ));

  test('two devices in any order: what undo takes back is always one’s own, and never overwrites what the other wrote on the same since', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(device, fc.oneof(fc.constant('undo' as const), fc.constant('redo' as const), patch(4))), { maxLength: 40 }), (steps) => {
        const b = new Bench();
        b.do('bench', panes);
        for (const [who, what] of steps) {
          const before = structuredClone(b.shown());
          if (typeof what !== 'string') {
            b.do(who, [what]);
            continue;
          }
          const target = b.state(who)[what];
          if (!target) continue;
          const other = b.back(who, what);
          if (other) {
            expect(other.deviceId).not.toBe(who);
            expect(b.shown()).toEqual(before);
            return;
          }
          expect(target.deviceId).toBe(who);
          // only fields of the target moved
          const moved = Object.keys(before).flatMap((id) => ['note', 'name'].filter((f) => before[id]![f] !== b.shown()[id]![f]).map((f) => `${id}/${f}`));
          const own = target.patches.map((p) => (p.op === 'set' ? `${p.id}/${p.field}` : p.id));
          expect(moved.filter((m) => !own.includes(m))).toEqual([]);
        }
      }),
      { numRuns: 300 },
    ));
});

describe('undo from the last part of a long history', () => {
  test('whatever was done, undone and done again: what the last part says is what the whole says, or it says that it is not enough', () => {
    let answered = 0;
    fc.assert(
      fc.property(fc.array(fc.constantFrom('do', 'undo', 'redo'), { maxLength: 40 }), (steps) => {
        const b = new Bench();
        b.do('me', [add('W1')]);
        for (const [i, step] of steps.entries()) {
          if (step === 'do') b.do('me', [set('W1', 'note', String(i))]);
          else if (b.state('me')[step]) b.back('me', step);
        }
        for (let from = 0; from < b.history.length; from++) {
          const told = undoStateOfTail(b.history.slice(from), from === 0);
          if (told) expect(told).toEqual(undoState(b.history));
          if (told && from > 0) answered++;
        }
      }),
      { numRuns: 200 },
    );
    expect(answered).toBeGreaterThan(100);
  });
  test('the newest change alone tells what can be undone next; an undo alone tells nothing of what lies before it', () => {
    const b = new Bench();
    for (let i = 0; i < 5; i++) b.do('me', [add(`W${i}`)]);
    expect(undoStateOfTail(b.history.slice(-1), false)).toEqual({ undo: b.history.at(-1), redo: null });
    b.back('me', 'undo');
    expect(undoStateOfTail(b.history.slice(-1), false)).toBeNull();
    expect(undoStateOfTail(b.history.slice(-3), false)).toEqual({ undo: b.history[3], redo: b.history.at(-1) });
  });
});
