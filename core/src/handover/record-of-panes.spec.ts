import type { LayEntry } from '@yellow-pane/contracts';
import { demoFirm, demoId, demoPersons, ternAnnex, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { allLaid, checkPanes, countLaid, type DryingDays } from '../check/index.js';
import { acceptedPanes, calendarOf, notReadyBecause, recordOfPanes } from './record-of-panes.js';

const NOW = '2026-11-30T12:00:00.000Z';
const file = ternAnnex(NOW);
const base = {
  firm: demoFirm, job: file.job, places: file.places, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, plans: [], stepSets: [], persons: demoPersons, memo: new Memo(),
}; // prettier-ignore
const steady: DryingDays = { losses: [{ day: 0, gPerM2: 0.8 }], basis: 'steady', wasWarm: null };
const records = (entries: readonly LayEntry[] = file.layEntries) => ({ ...base, layEntries: [...entries], memo: new Memo() });
const panesOf = (r = records(), at = NOW) => checkPanes(r, () => steady, at);
const all = (entries?: readonly LayEntry[]) => recordOfPanes(panesOf(records(entries)), records(entries));
const of = (name: string, entries?: readonly LayEntry[]) => all(entries).find((p) => p.name === name)!;
let next = 19_100;
const line = (name: string | null, kind: LayEntry['kind'], more: Partial<LayEntry> = {}): LayEntry => ({
  ...file.layEntries[0]!, id: demoId(next++), surfaceId: name === null ? null : file.surfaces.find((s) => s.name === name)!.id, kind, occurredAt: '2026-11-30T11:00:00.000Z', ...more,
}); // prettier-ignore

describe('the record of a pane', () => {
  test('where, how large, which film, who, at what temperature, step by step', () => {
    const b2 = of('B2');
    expect([b2.place, b2.size, b2.face, b2.film]).toEqual(['Booking hall', '1096 × 1850 mm', 'room side', 'Tern Shade 35']);
    expect(b2.pieces()).toMatch(/^1 piece, overhang and trim: 11\d\d × 19\d\d mm$/);
    expect(b2.laidBy).toBe(demoPersons[1]!.name);
    expect(b2.steps.map((s) => s.what)).toEqual(['First pass, light', 'Hard pass', 'Bump the edges', 'Laid'].map((t) => expect.stringContaining(t.split(',')[0]!.slice(0, 4)) as unknown)); // prettier-ignore
    expect(of('B1').glassC).toEqual([17.5]);
    expect(of('B1').roll).toBe('not logged');
  });
  test('what was seen and what became of it, with what it was put down to; open things are told as open', () => {
    const pinned = file.layEntries.find((e) => e.kind === 'pin' && e.pin!.kind === 'bubble-line')!;
    const news = (more: object) => line('B2', 'pin-news', { news: { pinId: pinned.id, answers: {}, state: null, causeKey: null, watchUntil: null, ...more } });
    expect(of('B2').seen).toMatchObject([{ what: 'Beads along a line', became: 'open', isOpen: true }]);
    const watched = of('B2', [...file.layEntries, news({ state: 'watched', watchUntil: '2026-12-20', causeKey: 'missed-overlap' })]);
    expect(watched.seen).toMatchObject([{ what: 'Beads along a line, put down to: Two strokes did not overlap', became: 'watched until 2026-12-20', isOpen: true }]); // prettier-ignore
    expect(of('B2', [...file.layEntries, news({ state: 'accepted' })]).seen[0]).toMatchObject({ became: 'accepted by the customer', isOpen: false });
    expect(of('B3').seen.map((s) => s.what)).toEqual(['A speck, 1.0 mm', 'A speck, 1.0 mm', 'A speck, 1.5 mm', 'A speck, 2.0 mm']);
    expect(of('P2').seen).toMatchObject([{ what: 'Looked at', became: 'clean and clear' }]);
    expect(of('P2').seenClearAt).not.toBeNull();
  });
  test('trouble and its mend stand in it; what was taken back does not', () => {
    expect(of('B4').steps.map((s) => s.what)).toEqual(['Trouble: glass scratch', 'Mended: the customer knows', 'Laid']);
    const laid = file.layEntries.find((e) => e.kind === 'mended')!;
    expect(of('B4', [...file.layEntries, line('B4', 'correction', { correctsId: laid.id })]).steps.map((s) => s.what)).not.toContain(
      'Mended: the customer knows',
    );
  });
  test('from which roll and lot, as the log says it; a photo with its words', () => {
    const roll = file.rolls[0]!;
    const with2 = of('B1', [
      ...file.layEntries,
      line('B1', 'note', { text: 'from the new roll', roll: { rollId: roll.id, lot: 'L-7' } }),
      line('B1', 'photo', { photo: 'a'.repeat(64), text: 'left edge' }),
    ]);
    expect(with2.roll).toBe(`${roll.label}, lot L-7`);
    expect(with2.photos).toMatchObject([{ text: 'left edge' }]);
  });
  test('taken over by the line that says so; a later one counts, one taken back does not', () => {
    const panes = [{ surfaceId: file.surfaces[0]!.id, sha256: '0'.repeat(64) }];
    const first = line(null, 'accepted', { acceptance: { seal: '0'.repeat(64), panes, lineIds: [] } });
    const second = { ...first, id: demoId(19_998), occurredAt: '2026-11-30T11:30:00.000Z' };
    expect(acceptedPanes([first, second]).get(panes[0]!.surfaceId)!.id).toBe(second.id);
    expect(acceptedPanes([first, line(null, 'correction', { correctsId: first.id })]).size).toBe(0);
    expect(of(file.surfaces[0]!.name, [...file.layEntries, first]).acceptedBy?.id).toBe(first.id);
    // a new piece was not taken over with the old one
    const anew = line(file.surfaces[0]!.name, 'pane-done', { occurredAt: '2026-11-30T11:45:00.000Z' });
    expect(of(file.surfaces[0]!.name, [...file.layEntries, first, anew]).acceptedBy).toBeNull();
  });
});

test('what speaks against handing over: something undecided, or that it still dries; seen clear, nothing does', () => {
  expect(notReadyBecause(of('B1'), NOW)).toBe('Something pinned is not decided yet.');
  expect(notReadyBecause(of('B3'), NOW)).toBe('4 things pinned are not decided yet.');
  // what is watched was decided: it comes again on its day
  const pin = file.layEntries.find((e) => e.surfaceId === file.surfaces.find((s) => s.name === 'B1')!.id && e.kind === 'pin')!;
  const watched = line('B1', 'pin-news', { news: { pinId: pin.id, answers: {}, state: 'watched', causeKey: null, watchUntil: '2026-12-12' } });
  expect(notReadyBecause(of('B1', [...file.layEntries, watched]), NOW)).toBe('It is still drying: water that shows is no fault.');
  expect(notReadyBecause(of('P1'), NOW)).toBe('It is still drying: water that shows is no fault.');
  expect(notReadyBecause(of('P2'), NOW)).toBeNull();
  expect(notReadyBecause(of('P1'), '2028-01-01T00:00:00.000Z')).toBeNull();
});

describe('days to come back', () => {
  const days = calendarOf(panesOf(), { ...file.job, zone: 'Etc/UTC' }, NOW);
  test('one entry for each day and reason, with the panes that it is about; nothing lies before today', () => {
    expect(days.every((d, i) => d.on >= '2026-11-30' && (i === 0 || d.on >= days[i - 1]!.on))).toBe(true);
    expect(new Set(days.map((d) => d.uid)).size).toBe(days.length);
    const touch = days.find((d) => d.title.includes('Drop windows'))!;
    expect(touch).toMatchObject({ on: '2026-12-02', title: 'Tern Point annex: Drop windows may go down, the film may be touched', text: '4 panes: B1, B2, B3, B4' }); // prettier-ignore
    expect(days.filter((d) => d.title.endsWith('Look whether it is clear')).flatMap((d) => d.text)).not.toContain('Pane P2');
  });
  test('a day that has moved keeps its name, so that it comes in place of the old one', () => {
    const later = calendarOf(
      checkPanes(records(), () => ({ ...steady, losses: [{ day: 0, gPerM2: 0.7 }] }), NOW),
      { ...file.job, zone: 'Etc/UTC' },
      NOW,
    );
    const look = (list: typeof days) => list.find((d) => d.title.endsWith('Look whether it is clear') && d.text.includes('B1'))!;
    expect(look(later).on > look(days).on).toBe(true);
    expect(look(later).uid).toBe(look(days).uid);
  });
  test('the day is that of the site', () => {
    const late = '2026-11-30T23:30:00.000Z';
    const [first] = calendarOf(panesOf(records(), late), { ...file.job, zone: 'Etc/GMT-2' }, late);
    expect(first!.on >= '2026-12-01').toBe(true);
  });
  test('two things that are watched on one pane until one day are one entry with the pane once', () => {
    const pins = file.layEntries.filter((e) => e.surfaceId === file.surfaces.find((s) => s.name === 'B3')!.id && e.kind === 'pin').slice(0, 2);
    const watch = pins.map((p) => line('B3', 'pin-news', { news: { pinId: p.id, answers: {}, state: 'watched', causeKey: null, watchUntil: '2026-12-12' } }));
    const again = calendarOf(panesOf(records([...file.layEntries, ...watch])), { ...file.job, zone: 'Etc/UTC' }, NOW).filter((d) => d.title.endsWith('Look again at what was pinned')); // prettier-ignore
    expect(again.map((d) => [d.on, d.text])).toEqual([['2026-12-12', 'Pane B3']]);
  });
  test('what waits for a decision is due at the bench, not on a day', () => expect(days.map((d) => d.title).join()).not.toContain('Decide'));
});

describe('what was laid dry, in the record', () => {
  const interior = ternInterior();
  const idOf = (name: string) => interior.surfaces.find((s) => s.name === name)!.id;
  const laid = (name: string, at: string, more: Partial<LayEntry> = {}) =>
    line(null, 'pane-done', { jobId: interior.job.id, surfaceId: idOf(name), occurredAt: at, ...more });
  const done = [
    laid('Waiting table', '2026-11-30T09:00:00.000Z'),
    laid('Reception counter', '2026-11-30T08:00:00.000Z'),
    laid('Door 1', '2026-11-28T08:00:00.000Z'),
    laid('Column 2', '2026-11-28T07:00:00.000Z'),
  ];
  const recordsOf = (entries: readonly LayEntry[]) => ({
    ...base,
    ...interior,
    firm: demoFirm,
    persons: demoPersons,
    plans: [],
    stepSets: [],
    layEntries: [...entries],
    memo: new Memo(),
  });
  const told = (entries: readonly LayEntry[] = done) =>
    recordOfPanes(
      allLaid(recordsOf(entries), () => null, NOW),
      recordsOf(entries),
    );
  const named = (name: string, entries?: readonly LayEntry[]) => told(entries).find((p) => p.name === name)!;

  test('stands in the order of its walk, with where film lies, its size and its pieces; there is no water to leave', () => {
    expect(told().map((p) => [p.name, p.face, p.size])).toEqual([
      ['Column 2', 'all round', '1260 × 2504 mm'],
      ['Door 1', 'its front', '860 × 2040 mm'],
      ['Reception counter', 'its top', '2401 × 701 mm'],
      ['Waiting table', 'its top', '800 × 800 mm'],
    ]);
    expect(told().map((p) => p.drying)).toEqual([null, null, null, null]);
    expect(named('Waiting table').pieces()).toMatch(/^2 pieces: 31\d\d × 100 mm, 90\d × 90\d mm$/);
    expect(named('Reception counter').outline!.length).toBeGreaterThan(6);
  });
  test('what was stretched on it and how hot it was read; what was called done without a reading says why', () => {
    const read = (valueC: number, stretch: string) =>
      laid('Door 1', '2026-11-28T07:50:00.000Z', { kind: 'reading', reading: { what: 'film', valueC, stretch } });
    expect(named('Door 1').heated).toMatch(/^0 of \d+ stretches are proven hot\. Not yet: right edge, left edge, groove 1 and groove 2\.$/);
    const all = ['right', 'left', 'groove-1', 'groove-2'].map((s, i) => read(91 + i, s));
    expect(named('Door 1', [...done, ...all])).toMatchObject({ heated: expect.stringContaining('the coldest at 91 °C') as string, glassC: [] });
    const [table] = done;
    expect(named('Waiting table').heated).toBeNull();
    const without = named('Waiting table', [...done.slice(1), { ...table!, text: 'not proven hot: no thermometer here' }]);
    expect(without.steps.map((s) => s.what)).toEqual(['Laid: not proven hot: no thermometer here']);
  });
  test('among glass it stands where the walk comes to it', () => {
    const b1 = file.surfaces.find((s) => s.name === 'B1')!;
    const of = (name: string) => interior.surfaces.find((s) => s.name === name)!;
    const mixed = {
      ...recordsOf([...done, ...file.layEntries]),
      surfaces: [of('Door 1'), b1, of('Waiting table')],
      readings: [...interior.readings, ...file.readings],
      films: [...interior.films, ...file.films],
    };
    expect(allLaid(mixed, () => steady, NOW).map((p) => p.surface.name)).toEqual(['Door 1', 'B1', 'Waiting table']);
  });
  test('nobody takes over what nobody has looked over since; a look settles it', () => {
    expect(notReadyBecause(named('Door 1'), NOW)).toBe('Nobody has looked it over since: air under dry film shows after a day.');
    const seen = { ...laid('Door 1', '2026-11-30T10:00:00.000Z'), kind: 'looked', look: { water: 'none', isClean: true } } as LayEntry;
    expect(notReadyBecause(named('Door 1', [...done, seen]), NOW)).toBeNull();
    expect(named('Door 1', [...done, seen]).seenClearAt).toBe('2026-11-30T10:00:00.000Z');
    // its faces were not heated: two weeks after it was laid its glue holds fully (common practice); glass has its drying instead
    const door = named('Door 1', [...done, seen]);
    expect((Date.parse(door.dryHoldsAt!) - Date.parse(door.laidAt)) / 86_400_000).toBe(14);
    expect(of('P2').dryHoldsAt).toBeNull();
  });
  test('in the calendar are looks and the joint at the wall, no drop windows; surfaces are not called panes', () => {
    const days = calendarOf(
      allLaid(recordsOf(done), () => null, NOW),
      { id: 'j', name: 'Interior', zone: 'Europe/Berlin' },
      NOW,
    );
    expect(days.map((d) => d.title)).toEqual(
      expect.arrayContaining(['Interior: Look for bubbles and edges that stand up', 'Interior: Run the joint at the wall again']),
    );
    expect(days.some((d) => d.title.includes('Drop windows'))).toBe(false);
    expect(days.map((d) => d.text)).toEqual(expect.arrayContaining(['2 surfaces: Column 2, Door 1', 'Reception counter']));
    expect([countLaid(1, true), countLaid(2, true), countLaid(1, false), countLaid(3, false)]).toEqual(['1 pane', '2 panes', '1 surface', '3 surfaces']);
  });
});
