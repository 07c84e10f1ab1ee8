import { panesIn } from '../../../../../demo/src/index';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LayoutSearch } from '../../compute/layout-search';
import { LayoutSearchInPlace } from '../../compute/layout-search.testing';
import { provideRouter } from '@angular/router';
import type { LayEntry } from '@yellow-pane/contracts';
import { defaultLay, shippedSteps, SHIPPED_STEPS_ID } from '@yellow-pane/core/lay';
import { Instruments } from '../../instruments/instruments';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { LayQueue, type LayLine } from '../../record/lay-queue';
import { RecordStore } from '../../record/record.store';
import { HoldButton } from '../../kit/hold-button';
import { By } from '@angular/platform-browser';
import { Bell } from './bell';
import { hourVerdict, restsOn } from './hour-now';
import { LayPage } from './lay-page';
import { LayStore } from './lay.store';
import { leftText, lineText, timerText } from './lay-words';

/** The queue as the page sees it: lines are kept and shown, or the browser will not keep them. */
class FakeQueue {
  readonly waiting = () => 0;
  readonly beingKept = () => 0;
  readonly isReached = () => true;
  readonly refusedCount = () => 0;
  readonly isPersisted = () => true;
  readonly lines: LayEntry[] = [];
  isFull = false;
  private clock = Date.parse('2026-12-03T09:00:00Z');
  start = async () => undefined;
  async add(_label: string, line: LayLine): Promise<LayEntry> {
    if (this.isFull) throw new Error('This browser could not keep that tap (full). Make room on the device, then tap again.');
    const record = TestBed.inject(RecordStore);
    const doc = record.doc()!;
    const id = `018f0000-0000-7000-8000-${String(this.lines.length).padStart(12, '0')}`;
    const at = new Date((this.clock += 60_000)).toISOString();
    const entry = { id, jobId: doc.job.id, personId: doc.persons[0]!.id, occurredAt: at, clockOffsetMs: 0, receivedAt: at, stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...line } as LayEntry; // prettier-ignore
    this.lines.push(entry);
    record.hold(id, [{ op: 'add', kind: 'layEntry', id, value: { ...entry } }]);
    return entry;
  }
}

let api: FakeApi;
let queue: FakeQueue;
let record: InstanceType<typeof RecordStore>;
let fixture: ComponentFixture<LayPage>;
let thermometer: (c: number) => void;
let rings = 0;
const root = () => fixture.nativeElement as HTMLElement;
const text = (where = '') => (where ? (root().querySelector(where)?.textContent ?? '') : root().textContent).replace(/\s+/g, ' ').trim();
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
const press = async (words: string) => {
  [...root().querySelectorAll('button')].find((b) => b.textContent.replace(/\s+/g, ' ').includes(words))!.click();
  await settle();
};
/** Half a second on the big button. */
const hold = async () => {
  (fixture.debugElement.query(By.directive(HoldButton)).componentInstance as HoldButton).held.emit();
  await settle();
};
const go = async (name: string) => {
  record.select(panesIn(api.doc).find((s) => s.name === name)!.id);
  await settle();
};
const kinds = () => queue.lines.map((l) => l.kind);

beforeAll(() => void (HTMLCanvasElement.prototype.getContext = () => null));
beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  queue = new FakeQueue();
  let hear: (r: never) => void = () => undefined;
  thermometer = (surfaceC) => hear({ kind: 'thermometer', surfaceC } as never);
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useClass: LayoutSearchInPlace },
      { provide: LayQueue, useValue: queue },
      { provide: Bell, useValue: { ring: () => rings++ } },
      { provide: Instruments, useValue: { onReading: (h: never) => ((hear = h), () => undefined) } },
      provideRouter([]),
    ],
  });
  record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  fixture = TestBed.createComponent(LayPage);
  await settle();
  await go('W2');
});
afterEach(() => fixture.destroy());

describe('Lay', () => {
  test('one tap: the pane is laid and the next one of the walk is in hand; what runs by itself stays in view', async () => {
    expect(text('[data-done]')).toBe('W2 is done');
    await hold();
    expect(kinds()).toEqual(['pane-done']);
    expect(text('main, h2')).toContain('W3');
    await go('W2');
    expect(text()).toContain('W2 is laid');
  });
  test('a tap that the browser will not keep is not shown as kept: the pane stays, and why is read', async () => {
    queue.isFull = true;
    await hold();
    expect(text('[role=alert]')).toContain('Make room on the device');
    expect(text('[data-done]')).toBe('W2 is done');
  });
  test('a pane that cannot be laid yet says what it lacks, and the hand stays where it was put', async () => {
    const bare = panesIn(api.doc).find((x) => !x.filmId)!;
    await go(bare.name);
    expect(text()).toContain('Nothing to lay here yet');
    expect(record.selectedId()).toBe(bare.id);
  });
  test('step by step: each step with its words, drawing and caution; Back looks back without undoing', async () => {
    await press('Step by step');
    expect(kinds()).toEqual(['begin']);
    expect(text('h3')).toBe('Hold the piece against the glass');
    await hold();
    expect(text()).toContain('Never scrape coated');
    await press('Back');
    expect(text('h3')).toBe('Hold the piece against the glass');
    expect(text('[data-next]')).toBe('Back to where you are');
    await hold();
    expect(text('h3')).toBe('Find the stamp, feel the glass');
    expect(kinds()).toEqual(['begin', 'step-done']);
  });
  test('a face that nobody has looked at: no blade until it is said what it is, in one tap too; said, it is a line of the log and the blade comes back', async () => {
    panesIn(api.doc).find((s) => s.name === 'W2')!.glazing = null;
    await record.open(api.doc.job.id);
    await go('W2');
    expect(text('[data-face-asked]')).toMatch(/^No blade on this face until you say what it is\. Nobody has said what glass it is\./);
    const titles = () => [...root().querySelectorAll('yp-lay-numbers [data-step]')].map((b) => b.getAttribute('data-step'));
    expect(titles()).not.toContain('scrape');
    await press('smooth and bare');
    expect(queue.lines[0]).toMatchObject({ kind: 'found', found: 'plain' });
    expect(root().querySelector('[data-face-asked]')).toBeNull();
    expect(titles()).toContain('scrape');
  });
  test('a pane with its bead still to come is laid, return due, with the day; the bead is a tap of its own', async () => {
    const pane = panesIn(api.doc).find((s) => api.doc.films.find((f) => f.id === s.filmId)?.kind === 'security')!;
    api.doc.job.lay = { ...defaultLay, edge: 'anchored' };
    await record.open(api.doc.job.id);
    await go(pane.name);
    await hold();
    await go(pane.name);
    // laid on 3 December, the bead two days later at the earliest
    expect(text('[data-return-due]')).toBe('Return due from Sat 5 Dec: Anchor the edge');
    await press('Panes');
    expect(text()).toContain('laid, back Sat 5 Dec');
    await press('To the pane in hand');
    (fixture.debugElement.query(By.css('[data-return]')).componentInstance as HoldButton).held.emit();
    await settle();
    expect(queue.lines.at(-1)).toMatchObject({ kind: 'step-done', stepKey: 'anchor' });
    expect(root().querySelector('[data-return-due]')).toBeNull();
  });
  test('the last step also says that the pane is laid', async () => {
    const { steps } = shippedSteps(api.doc.firm.id);
    await press('Step by step');
    for (let i = 0; i < steps.length && kinds().at(-1) !== 'pane-done'; i++) await hold();
    expect(kinds().at(-1)).toBe('pane-done');
    expect(kinds().filter((k) => k === 'step-done').length).toBeGreaterThan(8);
  });
  test('the thermometer fills the reading that the step asks for, and says when the glass is too warm', async () => {
    await press('Step by step');
    thermometer(12);
    expect(kinds()).toEqual(['begin']);
    await hold();
    await hold();
    thermometer(44);
    await settle();
    expect(queue.lines.at(-1)).toMatchObject({ kind: 'reading', reading: { valueC: 44 } });
    expect(text('[data-reading]')).toContain('too warm');
  });
  test('something is wrong: nothing is written until it is known what; then it is, and the pane stops', async () => {
    await press('Something is wrong');
    await press('A crease');
    expect(kinds()).toEqual([]);
    await press('Everywhere');
    expect(queue.lines[0]).toMatchObject({ kind: 'problem', problem: { kind: 'crease', at: null } });
    expect(text('[data-advice]')).toContain('cut it again');
    await press('Leave this pane');
    await go('W2');
    expect(text()).toContain('W2 is stopped');
    await press('Something is wrong');
    await press('Back');
    expect(kinds()).toEqual(['problem']);
  });
  test('a piece that nobody ticked as cut is said before anything gets wet; a new one that is asked for here stands in Cut', async () => {
    await go('W2');
    expect(text('[data-cut-word]')).toBe('The piece of W2 is not ticked as cut yet: hold it against the glass before anything gets wet.');
    await press('Something is wrong');
    await press('A crease');
    await press('Everywhere');
    await press('Ask for a new piece');
    expect(text('[data-asked-again]')).toContain('it stands in Cut');
    expect(api.drafts.at(-1)).toMatchObject({ label: 'One more of W2' });
    expect(panesIn(record.doc()!).find((s) => s.name === 'W2')!.extraPieces).toEqual([expect.objectContaining({ reason: 'a crease', part: null })]);
    await press('Leave this pane');
    await go('W2');
    expect(text('[data-cut-word]')).toBe('A new piece of W2 is asked for and not cut yet.');
  });
  test('a place on the drawing is kept as shares of the pane', async () => {
    await press('Something is wrong');
    await press('Specks');
    const svg = root().querySelector('yp-lay-drawing svg')!;
    const [, , width, height] = svg.getAttribute('viewBox')!.split(' ').map(Number) as [number, number, number, number];
    // its box on the page is wider than it is: the drawing stands in the middle of it
    svg.getBoundingClientRect = () => ({ left: 40, top: 20, width: 2 * width + 300, height: 2 * height }) as DOMRect;
    // ten above, a line of words below
    svg.dispatchEvent(new MouseEvent('click', { clientX: 40 + 150 + width, clientY: 20 + 2 * (10 + (height - 32) / 2), bubbles: true }));
    await settle();
    await press('it has tacked');
    const at = queue.lines[0]!.problem!.at!;
    expect(at.xFrac).toBeCloseTo(0.5, 2);
    expect(at.yFrac).toBeCloseTo(0.5, 2);
    expect(text()).toContain('Never prick');
  });
  test('two who could not know of each other: both lines are shown, the one that is wrong is taken back by a further line', async () => {
    const [ana, ben] = api.doc.persons;
    const both = [ana!, ben!].map((p, i) => ({
      id: `018f0000-0000-7000-8000-00000000aa0${i}`,
      personId: p.id,
      occurredAt: `2026-12-03T09:0${i}:00Z`,
      receivedAt: '2026-12-03T09:30:00Z',
    }));
    for (const b of both)
      record.hold(b.id, [{ op: 'add', kind: 'layEntry', id: b.id, value: { jobId: api.doc.job.id, surfaceId: record.selectedId(), kind: 'pane-done', stepSetId: SHIPPED_STEPS_ID, clockOffsetMs: 0, stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...b } }]); // prettier-ignore
    await settle();
    expect(text('[data-conflict]')).toContain('Two of you wrote about this pane');
    await press(`${ana!.name}: done`);
    expect(queue.lines[0]).toMatchObject({ kind: 'correction', correctsId: both[1]!.id });
    expect(root().querySelector('[data-conflict]')).toBeNull();
  });
  test('how the job is laid is a change of the job; the strokes and steps follow', async () => {
    const before = text('[data-strokes]');
    const lock = root().querySelector<HTMLSelectElement>('#lay-lock')!;
    lock.value = 'x';
    lock.dispatchEvent(new Event('change'));
    await settle();
    expect(api.drafts.at(-1)!.patches[0]).toMatchObject({ kind: 'job', field: 'lay', value: { lock: 'x' } });
    expect(text('[data-strokes]')).not.toBe(before);
    expect(text('[data-step="lock"]')).toContain('an X from the middle');
  });
  test('before the first pane: what was asked is a line, taken back by a further one; a signature needs a name', async () => {
    await press('Before the first pane');
    const box = root().querySelector<HTMLInputElement>('yp-ready-sheet input[type=checkbox]')!;
    box.dispatchEvent(new Event('change'));
    await settle();
    expect(queue.lines[0]).toMatchObject({ kind: 'ready', stepKey: 'clear', surfaceId: null });
    box.dispatchEvent(new Event('change'));
    await settle();
    expect(kinds()).toEqual(['ready', 'correction']);
    await press('Sign');
    expect(text('yp-ready-sheet [role=alert]')).toBe('Write the name of who signs.');
  });
});

describe('words of the log', () => {
  test('waits and timers as one says them', () => {
    expect([leftText(0.2), leftText(9.4), leftText(300), leftText(3000)]).toEqual(['12 s', '10 min', '5 h', '3 days']);
    expect([timerText(134_000), timerText(3_900_000)]).toEqual(['2:14', '1:05 h']);
  });
  test('a line says what was done, with its lot', () => {
    const line = { kind: 'pane-done', roll: { rollId: 'r', lot: 'L26' } } as LayEntry;
    expect(lineText(line, new Map())).toBe('laid, film of lot L26');
    expect(lineText({ ...line, kind: 'step-done', stepKey: 'wash' }, new Map([['wash', 'Wet and scrub']]))).toBe('Wet and scrub');
  });
});

describe('a wait that runs out while the page is open', () => {
  test('rings once, stays on the screen until somebody looks, and leads to its pane; one that is long over does not ring', async () => {
    const lay = fixture.debugElement.injector.get(LayStore);
    const [pane, other] = [panesIn(api.doc).find((s) => s.name === 'W2')!, panesIn(api.doc).find((s) => s.name === 'W1')!];
    const step = lay.steps().find((s) => s.wait)!;
    const ms = step.wait!.minutes * 60_000;
    const before = rings;
    const write = (surfaceId: string, ago: number) =>
      record.hold(`${ago}`, [{ op: 'add', kind: 'layEntry', id: `018f0000-0000-7000-8000-00000000${ago}`, value: { id: `018f0000-0000-7000-8000-00000000${ago}`, jobId: api.doc.job.id, personId: api.doc.persons[0]!.id, occurredAt: new Date(Date.now() - ms + (ago === 1111 ? 1500 : -600_000)).toISOString(), clockOffsetMs: 0, receivedAt: null, kind: 'step-done', surfaceId, stepSetId: SHIPPED_STEPS_ID, stepKey: step.key, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null } }]); // prettier-ignore
    write(pane.id, 1111);
    write(other.id, 2222);
    await go('W3');
    await new Promise((r) => setTimeout(r, 3500));
    await settle();
    expect(rings - before).toBe(1);
    expect(text('[data-over]')).toContain('W2');
    expect(text('[data-over]')).toContain('over');
    (root().querySelector('[data-over]') as HTMLButtonElement).click();
    await settle();
    expect([record.selectedId(), root().querySelector('[data-over]')]).toEqual([pane.id, null]);
  });
});

describe('is this a good hour', () => {
  const windows = [
    { fromHour: 6, toHour: 9, grade: 'wrong', cause: 'dew', why: 'dew on the glass' },
    { fromHour: 9, toHour: 13.5, grade: 'good', cause: null, why: '' },
    { fromHour: 13.5, toHour: 21, grade: 'wrong', cause: 'sun', why: 'sun on the glass' },
  ] as const;
  test.each([
    [7, false, 'Not now: dew on the glass. Good from 9:00.'],
    [10, true, 'Good for wet work until 13:30, then: sun on the glass.'],
    [15, false, 'Not now: sun on the glass. Not good again today: shade the glass, or take another pane.'],
  ])('at %s h: %s', (hour, isGood, said) => expect(hourVerdict(windows, hour)).toEqual({ isGood, text: said }));
  test('speaks by what was read today; by made-up weather only as such; by readings of another day not at all', () => {
    const typed = { airC: 12, humidityPct: 60, cloudPct: 90, windMPerS: 2, roomC: 20, roomHumidityPct: 45 };
    const [today, yesterday] = ['2026-12-03', '2026-12-02'];
    const inner = { filmFace: 'room', exposure: null } as const;
    const read = { typed, typedOn: today };
    expect(restsOn(inner, read, today, null)).toBe('read');
    expect(restsOn(inner, { typed, typedOn: yesterday }, today, null)).toBe('nothing');
    expect(restsOn(inner, { typed, typedOn: yesterday }, today, { isMadeUp: true })).toBe('made-up');
    // a service knows the weather, nobody but a person knows the room
    expect(restsOn(inner, { typed, typedOn: null }, today, { isMadeUp: false })).toBe('nothing');
    expect(restsOn({ ...inner, filmFace: 'street' }, { typed, typedOn: null }, today, { isMadeUp: false })).toBe('read');
    expect(restsOn({ ...inner, exposure: { ...panesIn(api.doc)[0]!.exposure!, isIndoors: true } }, { typed: { ...typed, airC: null, cloudPct: null }, typedOn: today }, today, null)).toBe('read'); // prettier-ignore
    expect(restsOn(inner, { typed: { ...typed, cloudPct: null }, typedOn: today }, today, null)).toBe('nothing');
  });
  test('before the day begins nothing is said', () => expect(hourVerdict(windows, 3)).toBeNull());
  test('the last good hours run to the end of the day', () => expect(hourVerdict([windows[1]], 10)!.text).toBe('Good for wet work for the rest of the day.'));
});
