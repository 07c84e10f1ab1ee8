import type { Patch } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import type { App } from '../app.js';
import { appOn, ines, lanternStreetId, okan, openBench, TestDevice, type TestDatabase } from '../bench.testing.js';
import { OwnHistory } from './own-history.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => {
  ({ app, open } = await openBench());
});
afterAll(() => open.close());

/** More than are looked at first. */
const MANY = 25;
const note = (id: string, value: string): Patch[] => [{ op: 'set', kind: 'surface', id, field: 'note', value }];
const paneId = async () => (await app.jobs.open(lanternStreetId)).surfaces[0]!.id;
const noted = async (on: App = app) => (await on.jobs.open(lanternStreetId)).surfaces[0]!.note;
const write = async (device: TestDevice, value: string) => {
  const id = await paneId();
  await app.changes.apply(device.draft(lanternStreetId, `Note ${value}`, note(id, value), await app.records.revision()));
};

describe('undo looks at the last changes only', () => {
  const device = new TestDevice(ines);

  test('and yet goes back through all of them, and forward again, one by one', async () => {
    for (let i = 1; i <= MANY; i++) await write(device, String(i));
    for (let i = MANY - 1; i >= 1; i--) {
      const { canUndo, canRedo } = await app.changes.undo(lanternStreetId, device.undo());
      expect([await noted(), canUndo, canRedo]).toEqual([String(i), `Note ${i}`, `Note ${i + 1}`]);
    }
    for (let i = 2; i <= MANY; i++) {
      await app.changes.redo(lanternStreetId, device.undo());
      expect(await noted()).toBe(String(i));
    }
  });

  test('in the middle of going back, a bench that was only just started knows as much', async () => {
    for (let i = 0; i < 15; i++) await app.changes.undo(lanternStreetId, device.undo());
    expect(await noted()).toBe(String(MANY - 15));
    const started = appOn(open.db);
    const there = { canUndo: `Note ${MANY - 15}`, canRedo: `Note ${MANY - 14}` };
    expect(await started.changes.canUndo(lanternStreetId, ines, device.id)).toEqual(there);
    expect(await app.changes.canUndo(lanternStreetId, ines, device.id)).toEqual(there);
    await app.changes.redo(lanternStreetId, device.undo());
    expect(await noted()).toBe(String(MANY - 14));
  });

  test('however much another person does meanwhile, one’s own last step is found, and a new one leaves nothing to redo', async () => {
    const other = new TestDevice(okan);
    const ids = (await app.jobs.open(lanternStreetId)).surfaces.map((s) => s.id);
    for (let i = 0; i < MANY; i++) await app.changes.apply(other.draft(lanternStreetId, 'Theirs', note(ids[1]!, `t${i}`), await app.records.revision()));
    expect((await app.changes.canUndo(lanternStreetId, ines, device.id)).canUndo).toBe(`Note ${MANY - 14}`);
    await write(device, 'new');
    expect(await app.changes.canUndo(lanternStreetId, ines, device.id)).toEqual({ canUndo: 'Note new', canRedo: null });
    // what was done on any device of theirs, as the office asks
    expect((await app.changes.canUndo(lanternStreetId, okan)).canUndo).toBe('Theirs');
  });

  test('a step that was read before it was told is taken back once, not twice', async () => {
    const device = new TestDevice(okan);
    for (const value of ['first', 'second', 'third']) await write(device, value);
    const { change } = await app.changes.undo(lanternStreetId, device.undo());
    const own = new OwnHistory(app.records, async () => new Set());
    expect((await own.undoState(lanternStreetId, okan, device.id)).undo?.label).toBe('Note second');
    own.hear(change);
    const { undo, redo } = await own.undoState(lanternStreetId, okan, device.id);
    expect([undo?.label, redo?.label]).toEqual(['Note second', 'Note third']);
  });

  test('somebody else on the same record is noticed, also long ago; somebody else elsewhere is in nobody’s way', async () => {
    const [mine, theirs] = [new TestDevice(ines), new TestDevice(okan)];
    const ids = (await app.jobs.open(lanternStreetId)).surfaces.map((s) => s.id);
    const base = await app.records.revision();
    await app.changes.apply(theirs.draft(lanternStreetId, 'Their note', note(ids[2]!, 'theirs'), base));
    for (let i = 0; i < 5; i++) await app.changes.apply(theirs.draft(lanternStreetId, 'Elsewhere', note(ids[3]!, `x${i}`), await app.records.revision()));
    await expect(app.changes.apply(mine.draft(lanternStreetId, 'Mine', note(ids[2]!, 'mine'), base))).rejects.toMatchObject({
      code: 'conflict',
      message: expect.stringContaining('Their note') as string,
    });
    mine.takeBack();
    await app.changes.apply(mine.draft(lanternStreetId, 'Mine', note(ids[0]!, 'mine'), base));
    expect(await noted()).toBe('mine');
  });
});

describe('a change that was written already', () => {
  test('sent again by a page that counts anew, it is told again and not refused: also one that adds a record', async () => {
    const device = new TestDevice(ines);
    const { surfaces, revision } = await app.jobs.open(lanternStreetId);
    const value = { ...surfaces[0]!, id: uuidv7(), name: 'Once', grid: null };
    const draft = device.draft(lanternStreetId, 'A pane', [{ op: 'add', kind: 'surface', id: value.id, value }], revision);
    const first = await app.changes.apply(draft);
    const again = await app.changes.apply({ ...draft, deviceSeq: draft.deviceSeq + 1 });
    expect(again.change).toEqual({ ...first.change, at: again.change.at });
    expect((await app.jobs.open(lanternStreetId)).surfaces.filter((s) => s.name === 'Once')).toHaveLength(1);
    expect(await app.records.lastDeviceSeq(device.id)).toBe(draft.deviceSeq);
  });
});

test('what is made at the bench itself, at the same moment in one device’s name (an import, the plotter’s run), gets numbers of its own and is all written', async () => {
  const { id: deviceId } = new TestDevice(ines);
  const ids = (await app.jobs.open(lanternStreetId)).surfaces.map((s) => s.id);
  await Promise.all([0, 1, 2].map((i) => app.jobs.change(lanternStreetId, { personId: ines, deviceId }, `At once ${i}`, note(ids[i]!, `at once ${i}`))));
  const { surfaces } = await app.jobs.open(lanternStreetId);
  expect(surfaces.slice(0, 3).map((s) => s.note)).toEqual(['at once 0', 'at once 1', 'at once 2']);
  expect(await app.records.lastDeviceSeq(deviceId)).toBe(3);
});

describe('what a process knows of the record may be old', () => {
  test('written meanwhile by another one: the change is tried once more and stands, its number is the next', async () => {
    const [here, there] = [new TestDevice(ines), new TestDevice(okan)];
    const other = appOn(open.db);
    await write(here, 'a');
    const id = await paneId();
    await other.changes.apply(there.draft(lanternStreetId, 'There', note(id, 'b'), await app.records.revision()));
    const { change } = await app.changes.apply(here.draft(lanternStreetId, 'Here', note(id, 'c'), await app.records.revision()));
    expect(change.revision).toBe(await app.records.revision());
    expect(await noted(appOn(open.db))).toBe('c');
  });
});
