import type { Ground, LayEntry, Panel, Pin, Sign } from '@yellow-pane/contracts';
import { demoFirm, demoId, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { sheetOfSurface, type LayRecords } from '../lay/index.js';
import { checkDry, diagnoseDryPin, dryOutline, type CheckDry } from './check-dry.js';
import { checkPanes } from './check-job.js';

const file = ternInterior();
const door = file.surfaces.find((s) => s.name === 'Door 1') as Panel;
const column = file.surfaces.find((s) => s.name === 'Column 2')!;
/** What is looked at here: every surface of the job would be surveyed anew for each of these tests. */
const few = file.surfaces.filter((s) => [door.id, column.id].includes(s.id));
let next = 0;
const line = (surfaceId: string, at: string, kind: LayEntry['kind'], more: Partial<LayEntry> = {}): LayEntry => ({
  id: demoId(70_000 + next++), jobId: file.job.id, surfaceId, personId: demoId(1), occurredAt: at, clockOffsetMs: 0, receivedAt: at, stepSetId: demoId(69_999), kind,
  stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more,
}); // prettier-ignore
const day = (n: number, hour = 10): string => new Date(Date.UTC(2026, 8, 1 + n, hour)).toISOString();
const pin = (more: Partial<Pin> = {}): Pin => ({
  kind: 'edge-up',
  at: { xFrac: 0, yFrac: 0.5 },
  seenFrom: 'room',
  spread: 'edge',
  sizeMm: null,
  answers: {},
  ...more,
});
const records = (layEntries: LayEntry[], ground: Partial<Ground> = {}, own: Partial<Panel> = {}): LayRecords => ({
  ...file,
  surfaces: few.map((s) => (s.id === door.id ? { ...door, ...own, ground: { ...door.ground, ...ground } } : s)),
  firm: demoFirm,
  memo: new Memo(),
  stepSets: [],
  layEntries,
});
const check = (entries: LayEntry[], at: string, ...more: [Partial<Ground>?, Partial<Panel>?]): CheckDry[] => checkDry(records(entries, ...more), at);
const done = line(door.id, day(0), 'pane-done');
const looked = (n: number) => line(door.id, day(n), 'looked', { look: { water: 'none', isClean: true } });

describe('what was laid dry, after the work', () => {
  test('is on the list once it is tapped done; it has no drying clock, so the list of glass has nothing of it', () => {
    expect(check([line(door.id, day(0), 'begin')], day(1))).toEqual([]);
    expect(check([done], day(0, 12)).map((c) => [c.surface.name, c.state])).toEqual([['Door 1', 'drying']]);
    expect(checkPanes(records([done]), () => null, day(2))).toEqual([]);
  });
  test('a look is due the day after (common practice: what is pressed too softly shows a day later); one on the same day does not do', () => {
    expect(check([done], day(0, 12))[0]!.due).toEqual([{ key: 'look', kind: 'look', title: 'Look for bubbles and edges that stand up', dueAt: day(1) }]);
    expect(check([done], day(1))[0]!.state).toBe('due');
    const soon = line(door.id, day(0, 12), 'looked', { look: { water: 'none', isClean: true } });
    expect(check([done, soon], day(2))[0]!.state).toBe('due');
    expect(check([done, looked(1)], day(2))[0]).toMatchObject({ state: 'clear', due: [] });
  });
  test('without heat its glue holds fully after two weeks (common practice: wall vinyl); letters and faces that were heated into a texture hold once they are cool', () => {
    const canvas = file.surfaces.find((s): s is Sign => s.kind === 'sign')!;
    const of = (entries: LayEntry[], texture: 'rough' | 'smooth') => checkDry({ ...records(entries), surfaces: [{ ...canvas, texture }] }, day(1))[0]!.holdsAt;
    const whole = line(canvas.id, day(0), 'pane-done');
    expect(of([whole], 'smooth')).toBe(day(14));
    expect(of([whole], 'rough')).toBe(day(0));
    // ticked one by one, the step with the gun left out
    const ticks = (keys: string[]) => [...keys.map((stepKey) => line(canvas.id, day(0, 9), 'step-done', { stepKey })), whole];
    expect(of(ticks(['sign-clean']), 'rough')).toBe(day(14));
    expect(of(ticks(['sign-clean', 'sign-heat']), 'rough')).toBe(day(0));
    // of a door only its edges are heated through
    expect(check([done], day(1))[0]!.holdsAt).toBe(day(14));
  });
  test('what was pinned has to be decided; watched, it is looked at again on its day', () => {
    const seen = line(door.id, day(2), 'pin', { pin: pin() });
    expect(check([done, looked(1), seen], day(2))[0]!.state).toBe('seen');
    const watched = line(door.id, day(2), 'pin-news', { news: { pinId: seen.id, answers: {}, state: 'watched', causeKey: null, watchUntil: '2026-09-10' } });
    expect(check([done, looked(1), seen, watched], day(3))[0]).toMatchObject({ state: 'clear', due: [{ kind: 'watch' }] });
    expect(check([done, looked(1), seen, watched], day(10))[0]!.state).toBe('due');
    const mended = line(door.id, day(3), 'pin-news', { news: { pinId: seen.id, answers: {}, state: 'mended', causeKey: 'not-heated', watchUntil: null } });
    expect(check([done, looked(1), seen, mended], day(3))[0]!.state).toBe('clear');
  });
});

describe('what log and survey say', () => {
  const facts = (entries: LayEntry[] = [done], ...more: [Partial<Ground>?, Partial<Panel>?]) => check(entries, day(1), ...more)[0]!.facts;
  test('steps that were left out count only where steps were tapped one by one', () => {
    expect(facts()).not.toEqual(expect.arrayContaining(['not-post-heated']));
    const all = sheetOfSurface(door, records([]))!.steps.map((s) => s.key);
    const tapped = (without: string[]) => [
      ...all.filter((k) => !without.includes(k)).map((stepKey) => line(door.id, day(0, 8), 'step-done', { stepKey })),
      done,
    ];
    expect(facts(tapped([]))).not.toEqual(expect.arrayContaining(['not-post-heated']));
    expect(facts(tapped(['panel-post-heat']))).toContain('not-post-heated');
    expect(facts(tapped(['panel-promoter']))).toContain('promoter-left-out');
  });
  test('the ground: loose, damp or able to be, cold, smooth', () => {
    expect(facts([done], { isGreasy: false })).not.toContain('ground-loose');
    expect(facts([done], { state: 'chalking' })).toContain('ground-loose');
    expect(facts([done], { isDamp: null })).toContain('ground-damp');
    expect(facts([done], { isDamp: false })).toContain('ground-dry');
    expect(facts([done], { material: 'steel', isDamp: null })).toContain('ground-dry');
    expect([facts([done], { surfaceTempC: 12 }).includes('cold'), facts([done], { surfaceTempC: 20 }).includes('cold')]).toEqual([true, false]);
    expect([facts().includes('smooth'), facts([done], { material: 'brick' }).includes('smooth')]).toEqual([true, false]);
  });
  test('film that goes over no edge and into no groove was never formed; round a column neither', () => {
    const trimmed = { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } as const;
    expect([facts().includes('flat'), facts([done], {}, { grooves: [], wraps: trimmed }).includes('flat')]).toEqual([false, true]);
    expect(check([line(column.id, day(0), 'pane-done')], day(1))[0]!.facts).toContain('flat');
  });
  test('an edge that stands up on a door whose heating was left out: heat it again', () => {
    const here = { ...check([done], day(1))[0]!, facts: ['not-post-heated', 'smooth', 'ground-dry'] };
    const d = diagnoseDryPin(here, { pin: pin(), answers: { formed: 'yes', 'on-film': 'no', glue: 'clean' } }, day(2));
    expect([d.likely[0]!.cause.key, d.mend.kind]).toEqual(['not-heated', 'mend']);
    expect(d.mend.text).toContain('own figure');
    const speck = pin({ kind: 'speck', spread: 'one' });
    expect([day(0, 12), day(3)].map((at) => diagnoseDryPin(here, { pin: speck, answers: { hard: 'yes' } }, at).mend.kind)).toEqual(['mend', 'judge']);
  });
});

test('pins are put on the face of a door, and on a column unrolled, so that its seam is seen', () => {
  const size = (s: typeof column) => {
    const o = dryOutline(s as Panel, records([]))!;
    return [Math.max(...o.map((p) => p.x)), Math.max(...o.map((p) => p.y))].map(Math.round);
  };
  expect(size(door)).toEqual([860, 2040]);
  expect(size(column)[0]).toBeGreaterThan(1250);
  expect(size(column)[1]).toBeGreaterThan(2500);
});
