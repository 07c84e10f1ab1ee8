import { isUndoStep, type Patch } from './index.js';

const add = (kind: Patch['kind'], value: Record<string, unknown> = {}): Patch => ({ op: 'add', kind, id: '01930000-0000-7000-8000-000000000001', value });
const set = (kind: Patch['kind'], field: string, value: unknown = null): Patch => ({
  op: 'set',
  kind,
  id: '01930000-0000-7000-8000-000000000001',
  field,
  value,
});

describe('what a person may take back', () => {
  test.each<[string, Patch[], boolean]>([
    ['a tape', [add('reading')], true],
    ['a pane’s note', [set('surface', 'note')], true],
    ['the deleting of a job', [set('job', 'deletedAt', '2026-11-28T08:00:00Z')], true],
    ['its coming back from the deleted ones', [set('job', 'deletedAt'), set('reservation', 'deletedAt')], false],
    ['the beginning of a job, whatever comes with it', [add('job'), add('place'), add('surface')], false],
    ['a cut made', [add('logEntry')], false],
    ['a run of the plotter', [add('plotRun'), set('plotRun', 'state')], false],
    ['what the search laid', [add('plan', { isByHand: false }), set('plan', 'deletedAt')], false],
    ['a plan of before anybody asked whose it was', [add('plan')], false],
    ['a piece moved by hand', [add('plan', { isByHand: true }), set('plan', 'deletedAt')], true],
    ['a lock', [set('plan', 'lockedPieceIds')], true],
    ['film taken off the stock with its plan', [set('plan', 'status'), set('plan', 'takenRollIds'), add('stockEntry')], true],
    ['nothing', [], false],
  ])('%s', (_, patches, isStep) => expect(isUndoStep(patches)).toBe(isStep));
});
