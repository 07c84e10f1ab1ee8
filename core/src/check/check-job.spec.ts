import type { LayEntry, Pin, Pane } from '@yellow-pane/contracts';
import { demoFirm, demoId, ternPoint } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { layProgress, sheetOfSurface } from '../lay/index.js';
import { checkPanes, diagnosePin, holdPaneToRule, pressingOf, type CheckPane, type CheckRecords, type DryingDays } from './check-job.js';
import { isOpen, pinsOf } from './pins.js';

const file = ternPoint();
const bare: CheckRecords = {
  firm: demoFirm, job: file.job, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, stepSets: [], layEntries: [], memo: new Memo(),
}; // prettier-ignore
const stepSetId = demoId(69_999);
const canBeLaid = layProgress(bare);
const laidOnes = file.surfaces.filter((s) => canBeLaid.has(s.id) && sheetOfSurface(s, bare)!.steps.some((x) => x.key === 'hard'));
const [one, two] = ['W1', 'W2'].map((name) => laidOnes.find((s) => s.name === name)!) as [Pane, Pane];

let next = 0;
const line = (surfaceId: string, at: string, kind: LayEntry['kind'], more: Partial<LayEntry> = {}): LayEntry => ({
  id: demoId(70_000 + next++), jobId: file.job.id, surfaceId, personId: demoId(1), occurredAt: at, clockOffsetMs: 0, receivedAt: at, stepSetId, kind,
  stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more,
}); // prettier-ignore
const day = (n: number, hour = 10): string => new Date(Date.UTC(2026, 8, 1 + n, hour)).toISOString();
const laid = (s: Pane, n = 0): LayEntry => line(s.id, day(n), 'pane-done');
const pin = (more: Partial<Pin> = {}): Pin => ({
  kind: 'speck',
  at: { xFrac: 0.3, yFrac: 0.6 },
  seenFrom: 'room',
  spread: 'one',
  sizeMm: 1,
  answers: {},
  ...more,
});
const look = (s: Pane, n: number, water: 'none' | 'some' | 'much', isClean = water === 'none') => line(s.id, day(n), 'looked', { look: { water, isClean } });
const steady = (gPerM2: number): DryingDays => ({ losses: [{ day: 0, gPerM2 }], basis: 'steady', wasWarm: null });
/** 24 g/m² at 0.8 a day: the middle of the range is day 30. */
const check = (entries: LayEntry[], at: string, days: DryingDays | null = steady(0.8), more: Partial<CheckRecords> = {}): CheckPane[] =>
  checkPanes({ ...bare, layEntries: entries, memo: new Memo(), ...more }, () => days, at);
const only = (...asked: Parameters<typeof check>): CheckPane => check(...asked)[0]!;

describe('a laid pane and its dates', () => {
  test('only panes that are laid are checked; one that is stopped again is not', () => {
    expect(check([line(one.id, day(0), 'begin')], day(1))).toEqual([]);
    expect(check([laid(one)], day(1)).map((p) => p.surface.id)).toEqual([one.id]);
    expect(check([laid(one), line(one.id, day(1), 'problem', { problem: { kind: 'crease', at: null, answers: {} } })], day(2))).toEqual([]);
  });
  test('holds after one to two days, drop windows go down after three to five, clear by the clock (common practice)', () => {
    const p = only([laid(one)], day(1));
    expect([p.holds, p.touch]).toEqual([{ from: day(1), to: day(2) }, { from: day(3), to: day(5) }]); // prettier-ignore
    expect(Date.parse(p.clear.from)).toBeLessThan(Date.parse(day(30)));
    expect(Date.parse(p.clear.to)).toBeGreaterThan(Date.parse(day(30)));
  });
  test('drying, due at the end of its range, late when it is still wet then, clear when it was seen clear', () => {
    expect(only([laid(one)], day(5)).state).toBe('drying');
    const end = only([laid(one)], day(5)).clear.to;
    expect(only([laid(one)], end).state).toBe('due');
    expect(only([laid(one), look(one, 20, 'some')], day(21)).state).toBe('drying');
    const wet = line(one.id, end, 'looked', { look: { water: 'some', isClean: true } });
    const seenWet = only([laid(one), wet], day(60));
    // the look itself puts the range off: the pane is slow, and is looked at again
    expect(Date.parse(seenWet.clear.to)).toBeGreaterThan(Date.parse(end));
    const muchLater = only([laid(one), look(one, 90, 'some'), look(one, 160, 'some')], day(161));
    expect(muchLater.state).toBe('late');
    const done = only([laid(one), look(one, 33, 'none')], day(34));
    expect([done.state, done.due]).toEqual(['clear', []]);
  });
  test('laid anew, its clock begins anew, and what was pinned on the old piece went with it', () => {
    const old = line(one.id, day(3), 'pin', { pin: pin() });
    const p = only([laid(one), old, line(one.id, day(8), 'pane-done')], day(9));
    expect(p.laidAt).toBe(day(8));
    expect(p.pins.map((s) => s.state)).toEqual(['replaced']);
    expect(p.state).toBe('drying');
  });
  test('a line that was taken back does not count: neither a look nor a pin', () => {
    const [seen, mark] = [look(one, 33, 'none'), line(one.id, day(33), 'pin', { pin: pin() })];
    const back = [seen, mark].map((e) => line(one.id, day(34), 'correction', { correctsId: e.id }));
    const p = only([laid(one), seen, mark, ...back], day(35));
    expect([p.looks, p.pins, p.state === 'clear']).toEqual([[], [], false]);
  });
  test('where nobody knows the weather it is reckoned with a room of 20 °C, and says so', () => {
    const p = only([laid(one)], day(1), null);
    expect(p.basis).toContain('not known');
    expect(p.clock.clear.toDay).toBeGreaterThan(p.clock.clear.fromDay);
  });
  test('panes of the same film learn from one another', () => {
    const same = { surfaces: bare.surfaces.map((s) => (s.id === two.id ? { ...s, filmId: one.filmId } : s)) };
    const alone = only([laid(one), laid(two)], day(1), steady(0.8), same);
    const taught = only([laid(one), laid(two), look(two, 45, 'some')], day(46), steady(0.8), same);
    expect(taught.clock.clear.toDay).toBeGreaterThan(alone.clock.clear.toDay);
    const otherFilm = {
      surfaces: bare.surfaces.map((s) =>
        s.id === two.id ? { ...s, filmId: file.films.find((f) => f.id !== one.filmId && f.drying !== 'dry-applied')!.id } : s,
      ),
    };
    expect(only([laid(one), laid(two), look(two, 45, 'some')], day(46), steady(0.8), otherFilm).clock.clear.toDay).toBeCloseTo(alone.clock.clear.toDay, 9);
  });
});

describe('what was pinned', () => {
  const mark = line(one.id, day(2), 'pin', { pin: pin({ answers: { hard: 'yes' } }) });
  const news = (n: number, more: Partial<NonNullable<LayEntry['news']>>) =>
    line(one.id, day(n), 'pin-news', { news: { pinId: mark.id, answers: {}, state: null, causeKey: null, watchUntil: null, ...more } });
  test('a pin is open until a further line says what became of it; answers add up, the last one counts', () => {
    const [first] = pinsOf([mark], day(0));
    expect([first!.state, first!.answers, isOpen(first!)]).toEqual(['open', { hard: 'yes' }, true]);
    const [later] = pinsOf(
      [mark, news(3, { answers: { moves: 'no', hard: 'no' } }), news(4, { state: 'watched', watchUntil: '2026-09-20' }), news(5, { causeKey: 'dirt' })],
      day(0),
    );
    expect(later).toMatchObject({ state: 'watched', watchUntil: '2026-09-20', causeKey: 'dirt', answers: { hard: 'no', moves: 'no' } });
    expect(later!.news).toHaveLength(3);
    for (const state of ['mended', 'replaced', 'left', 'accepted'] as const) expect(isOpen(pinsOf([mark, news(3, { state })], day(0))[0]!)).toBe(false);
  });
  test('an undecided pin stands in the list of what is due at once, a watched one on its day', () => {
    const open = only([laid(one), mark], day(3));
    expect([open.state, open.due[0]]).toEqual(['seen', expect.objectContaining({ kind: 'decide', dueAt: day(2) })]);
    const watched = only([laid(one), mark, news(3, { state: 'watched', watchUntil: '2026-09-20' })], day(4));
    expect(watched.state).toBe('drying');
    expect(watched.due[0]).toMatchObject({ kind: 'watch', dueAt: expect.stringContaining('2026-09-20') });
    expect(only([laid(one), mark, news(3, { state: 'watched', watchUntil: '2026-09-20' })], day(20)).state).toBe('due');
  });
  test('a pane that is clear and has nothing open is clear; with a pin left open it is not', () => {
    expect(only([laid(one), mark, look(one, 34, 'none')], day(35)).state).toBe('seen');
    expect(only([laid(one), mark, news(3, { state: 'left' }), look(one, 34, 'none')], day(35)).state).toBe('clear');
  });
  test('is put down to what the log says: the answers of the pin and the day count', () => {
    const p = only([laid(one), mark], day(3));
    expect(diagnosePin(p, p.pins[0]!, day(3))!.likely[0]!.cause.key).toBe('dirt');
    expect(diagnosePin(p, p.pins[0]!, day(3))!.mend.kind).toBe('judge');
    const [young] = check([laid(one), line(one.id, day(0, 12), 'pin', { pin: pin({ answers: { hard: 'yes' } }) })], day(0, 13));
    expect(diagnosePin(young!, young!.pins[0]!, day(0, 13))!.mend.kind).toBe('mend');
    // to the hour: a day later it may no longer be lifted
    expect(diagnosePin(young!, young!.pins[0]!, day(1, 9))!.mend.kind).toBe('mend');
    expect(diagnosePin(young!, young!.pins[0]!, day(1, 10))!.mend.kind).toBe('judge');
  });
  test('is held to the rule where it lies, also when the pane was taped from the street', () => {
    const at = (xFrac: number, seenFrom: Pane['seenFrom']) => {
      const surfaces = bare.surfaces.map((s) => (s.id === one.id ? { ...s, seenFrom } : s));
      const p = only([laid(one), line(one.id, day(2), 'pin', { pin: pin({ sizeMm: 2.5, at: { xFrac, yFrac: 0.5 } }) })], day(3), steady(0.8), { surfaces });
      return holdPaneToRule(p, { ...bare, surfaces, memo: new Memo() })[0]!.verdict;
    };
    // 2.5 mm passes along the edge only
    expect([at(0.01, 'room'), at(0.5, 'room'), at(0.99, 'street')]).toEqual(['within', 'beyond', 'within']);
  });
  test('what is not seen from two metres is told by an answer, and what is mended no longer counts', () => {
    const p = (more: LayEntry[]) => only([laid(one), line(one.id, day(2), 'pin', { id: mark.id, pin: pin({ sizeMm: 5 }) }), ...more], day(4));
    const verdict = (more: LayEntry[]) => holdPaneToRule(p(more), bare)[0]?.verdict;
    expect(verdict([])).toBe('beyond');
    expect(verdict([news(3, { answers: { 'seen-from-there': 'no' } })])).toBe('unseen');
    expect(verdict([news(3, { answers: { 'seen-from-there': 'yes' } })])).toBe('beyond');
    expect(verdict([news(3, { state: 'left' })])).toBe('beyond');
    expect(verdict([news(3, { state: 'mended' })])).toBeUndefined();
  });
});

describe('how it was pressed, by the log', () => {
  const steps = sheetOfSurface(one, bare)!.steps;
  const hard = steps.find((s) => s.key === 'hard')!;
  const at = (minutes: number) => new Date(Date.parse(day(0, 8)) + minutes * 60_000).toISOString();
  const ticks = (hardMinutes: number | null) => [
    line(one.id, at(0), 'begin'),
    line(one.id, at(5), 'step-done', { stepKey: 'light' }),
    ...(hardMinutes === null ? [] : [line(one.id, at(5 + hardMinutes), 'step-done', { stepKey: 'hard' })]),
  ];
  const passes = (lines: LayEntry[], isThick = false) => pressingOf(lines, steps, isThick, 150).hardPasses;
  test('tapped done at once nothing is known; step by step the pass was done, left out, or hurried', () => {
    expect(passes([line(one.id, at(0), 'begin'), line(one.id, at(30), 'pane-done')])).toBeNull();
    expect(passes(ticks(hard.minutes))).toBe(1);
    expect(passes(ticks(null))).toBe(0);
    expect(passes(ticks(0.39 * hard.minutes))).toBe(0.5);
    expect(passes(ticks(0.41 * hard.minutes))).toBe(1);
  });
  test('the pass is timed from the tap before it, be it the begin, a step or the end of a trouble; without one before it counts as done', () => {
    const only = line(one.id, at(3), 'step-done', { stepKey: 'hard' });
    const light = line(one.id, at(0), 'step-done', { stepKey: 'light' });
    // nothing but the pass itself was ticked: nobody worked step by step
    expect(passes([only])).toBeNull();
    expect(passes([line(one.id, at(2.9), 'begin'), only])).toBeNull();
    // a note or a photo in between is no tap of the work
    expect(passes([light, line(one.id, at(hard.minutes - 0.1), 'note', { text: 'x' }), line(one.id, at(hard.minutes), 'step-done', { stepKey: 'hard' })])).toBe(
      1,
    );
    // after a trouble was mended the hard pass begins there
    expect(passes([light, line(one.id, at(hard.minutes - 0.1), 'mended'), line(one.id, at(hard.minutes), 'step-done', { stepKey: 'hard' })])).toBe(0.5);
    expect(passes([light, line(one.id, at(hard.minutes - 0.1), 'begin'), line(one.id, at(hard.minutes), 'step-done', { stepKey: 'hard' })])).toBe(0.5);
    // ticked out of turn, before everything else: no time is known, it was done
    expect(passes([line(one.id, at(0), 'step-done', { stepKey: 'hard' }), line(one.id, at(1), 'step-done', { stepKey: 'light' })])).toBe(1);
  });
  test('security film wants two passes: the film of the pane says so', () => {
    const guard = file.films.find((f) => f.kind === 'security' && f.drying !== 'dry-applied')!;
    const surfaces = bare.surfaces.map((s) => (s.id === one.id ? { ...s, filmId: guard.id } : s));
    const p = only([laid(one)], day(1), steady(0.8), { surfaces });
    expect([p.pressing.isThick, only([laid(one)], day(1)).pressing.isThick]).toEqual([true, false]);
    expect(p.film.id).toBe(guard.id);
  });
  test('of thick film both passes are one step: hurried it counts as one of the two', () => {
    expect(passes(ticks(hard.minutes), true)).toBe(2);
    expect(passes(ticks(0.1 * hard.minutes), true)).toBe(1);
  });
  test('a hurried pass leaves more water, and says so to whoever asks why', () => {
    const p = (lines: LayEntry[]) => only([...lines, line(one.id, at(60), 'pane-done')], day(1));
    expect(p(ticks(0.2)).drying.waterGPerM2).toBeGreaterThan(p(ticks(hard.minutes)).drying.waterGPerM2);
    expect(p(ticks(0.2)).facts).toContain('hard-pass-hurried');
    expect(p(ticks(hard.minutes)).facts).not.toContain('hard-pass-hurried');
    expect(p(ticks(hard.minutes)).facts).toContain('edge-not-bumped');
    expect(p([...ticks(hard.minutes), line(one.id, at(20), 'step-done', { stepKey: 'bump' })]).facts).not.toContain('edge-not-bumped');
  });
  test('warm glass by the thermometer or by the day, strong slip and a fault of the glass by what was logged', () => {
    const facts = (lines: LayEntry[], wasWarm: boolean | null = null) => only([...lines, laid(one)], day(1), { ...steady(0.8), wasWarm }).facts;
    const reading = (valueC: number) => line(one.id, at(1), 'reading', { reading: { what: 'glass', valueC } });
    expect([facts([reading(32)]), facts([reading(33)]), facts([], true), facts([], false)].map((f) => f.includes('glass-warm'))).toEqual([
      false,
      true,
      true,
      false,
    ]);
    const trouble = (kind: 'slides-off' | 'glass-scratch') => [
      line(one.id, at(1), 'problem', { problem: { kind, at: null, answers: {} } }),
      line(one.id, at(2), 'mended'),
    ];
    expect(facts(trouble('slides-off'))).toContain('slip-strong');
    expect(facts(trouble('glass-scratch'))).toContain('fault-noted');
    expect(facts([])).toEqual(expect.arrayContaining(['flat']));
  });
});
