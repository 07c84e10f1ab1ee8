import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { LayEntry } from '@yellow-pane/contracts';
import { emptyStock } from '@yellow-pane/contracts';
import { demoFirm, demoPersons, ternAnnex, ternInterior } from '../../../../../demo/src/index';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { LayQueue, type LayLine } from '../../record/lay-queue';
import { RecordStore } from '../../record/record.store';
import { HandOverPage } from './hand-over-page';
import { HandOverStore } from './hand-over.store';

class FakeQueue {
  readonly waiting = () => 0;
  readonly isReached = () => true;
  readonly lines: LayLine[] = [];
  isFull = false;
  start = async () => undefined;
  onTheWay = new Set<string>();
  withPhotoOnTheWay = async () => this.onTheWay;
  async add(_label: string, line: LayLine): Promise<LayEntry> {
    if (this.isFull) throw new Error('This browser could not keep that tap (full). Make room on the device, then tap again.');
    this.lines.push(line);
    return line as LayEntry;
  }
}
class AnnexApi extends FakeApi {
  drying = async () => [];
  careLanguages = async () => [
    { language: 'en', title: 'How to look after your film', fault: null },
    { language: 'de', title: 'So bleibt die Folie schön', fault: null },
    { language: 'fr', title: '', fault: 'Line 3: “nettoyage” is no part of a care sheet.' },
  ];
}

let api: AnnexApi;
let queue: FakeQueue;
let fixture: ComponentFixture<HandOverPage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = () => root().textContent.replace(/\s+/g, ' ');
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
const button = (words: string) => [...root().querySelectorAll('button')].find((b) => (b.getAttribute('aria-label') ?? b.textContent).replace(/\s+/g, ' ').includes(words))!; // prettier-ignore
const show = async () => {
  fixture = TestBed.createComponent(HandOverPage);
  await settle();
};

beforeEach(async () => {
  localStorage.clear();
  api = new AnnexApi();
  api.doc = { revision: 1, firm: demoFirm, persons: demoPersons, ...ternAnnex(new Date().toISOString()), stock: emptyStock, canUndo: null, canRedo: null };
  queue = new FakeQueue();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }, { provide: LayQueue, useValue: queue }, provideRouter([])] });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
});
afterEach(() => {
  delete (navigator as { canShare?: unknown }).canShare;
  delete (navigator as { share?: unknown }).share;
});

test('places as one walks them, with what speaks against each pane; a place is ticked at once, and one of it taken out again', async () => {
  await show();
  expect([...root().querySelectorAll('[data-place] > label:first-child')].map((l) => l.textContent.trim())).toEqual(['Booking hall', 'Parcel store']);
  expect(text()).toContain('0 of 6 laid panes taken over');
  expect(root().querySelectorAll('[data-place]')[0]!.textContent).toContain('4 things pinned are not decided yet.');
  expect(root().querySelectorAll('[data-place]')[1]!.textContent).toMatch(/seen clear \d+ \w+/);
  const boxes = () => [...root().querySelectorAll<HTMLInputElement>('[data-place] input')];
  boxes()[0]!.click();
  await settle();
  expect(button('takes over').textContent).toContain('4 panes');
  boxes()[1]!.click();
  await settle();
  expect(button('takes over').textContent).toContain('3 panes');
  expect(boxes()[0]!.checked).toBe(false);
});

test('what is signed is sealed over the panes that were ticked, without lines whose photo the bench has not named yet', async () => {
  await show();
  const store = fixture.debugElement.injector.get(HandOverStore);
  const [b1] = api.doc.surfaces;
  const first = api.doc.layEntries.find((e) => e.surfaceId === b1!.id)!;
  queue.onTheWay = new Set([first.id]);
  expect(await store.accept([b1!.id], { name: 'Rowan Vale', strokes: [[[0, 0]]] }, 'all well')).toBe(true);
  const [line] = queue.lines;
  expect(line).toMatchObject({ kind: 'accepted', surfaceId: null, text: 'all well', signature: { name: 'Rowan Vale' }, acceptance: { panes: [{ surfaceId: b1!.id }] } }); // prettier-ignore
  expect(line!.acceptance!.lineIds).not.toContain(first.id);
  expect(line!.acceptance!.lineIds.length).toBeGreaterThan(0);
  // a browser that keeps nothing says so, and nobody believes it was signed
  queue.isFull = true;
  expect(await store.accept([b1!.id], { name: 'Rowan Vale', strokes: [[[0, 0]]] }, '')).toBe(false);
  await settle();
  expect(root().querySelector('[role="alert"]')!.textContent).toContain('Make room on the device');
});

describe('papers', () => {
  const hrefs = () => [...root().querySelectorAll<HTMLAnchorElement>('yp-papers-panel a')].map((a) => a.getAttribute('href')!);
  const choose = async (at: number, value: string) => {
    const select = root().querySelectorAll<HTMLSelectElement>('yp-papers-panel select')[at]!;
    select.value = value;
    select.dispatchEvent(new Event('change'));
    await settle();
  };
  test('on the paper, of the place and in the language that are chosen; a language that does not read says its line', async () => {
    await show();
    expect(hrefs()[0]).toMatch(/hand-over\.pdf\?paper=a4$/);
    await choose(0, 'letter');
    await choose(1, api.doc.places[1]!.id);
    await choose(2, 'de');
    expect(hrefs()[0]).toContain(`paper=letter&placeId=${api.doc.places[1]!.id}`);
    expect(hrefs()[1]).toContain('care-sheet.pdf?paper=letter&language=de');
    expect(text()).toContain('The file care.fr.txt does not read. Line 3');
    // where the device shares no files there is no button that would do nothing
    expect(button('Share: Care sheet')).toBeUndefined();
  });
  test('handed to whatever the device shares with; a refusal is told, a sheet that was closed is none', async () => {
    const shared: File[] = [];
    let fails: Error | null = null;
    Object.assign(navigator, {
      canShare: () => true,
      share: async ({ files }: { files: File[] }) => {
        if (fails) throw fails;
        shared.push(...files);
      },
    });
    const answers = [true, true, true];
    globalThis.fetch = (async () =>
      answers.shift()
        ? { ok: true, blob: async () => new Blob(['%PDF-'], { type: 'application/pdf' }) }
        : { ok: false, json: async () => ({ detail: 'No pane of this job is laid yet.' }) }) as unknown as typeof fetch;
    await show();
    const press = async () => {
      button('Share: Care sheet').click();
      await settle();
    };
    await press();
    expect(shared.map((f) => [f.name, f.type])).toEqual([['Tern Point annex care.pdf', 'application/pdf']]);
    fails = Object.assign(new Error('closed'), { name: 'AbortError' });
    await press();
    expect(root().querySelector('yp-papers-panel [role="alert"]')).toBeNull();
    fails = new Error('no app takes it');
    await press();
    expect(root().querySelector('yp-papers-panel [role="alert"]')!.textContent).toContain('Care sheet could not be shared: no app takes it');
    await press();
    expect(root().querySelector('yp-papers-panel [role="alert"]')!.textContent).toContain('No pane of this job is laid yet.');
  });
});

test('a job of which nothing is laid has nothing to hand over, and a way back', async () => {
  api.doc = { ...api.doc, layEntries: [] };
  await TestBed.inject(RecordStore).reload();
  await show();
  expect(text()).toContain('Nothing to hand over yet');
  expect(root().querySelector('a')!.getAttribute('href')).toContain('/lay');
});

test('what was laid dry is walked and signed like glass: surfaces, not panes; nobody looked it over yet', async () => {
  const [interior, [first]] = [ternInterior(), api.doc.layEntries];
  const idOf = (name: string) => interior.surfaces.find((s) => s.name === name)!.id;
  const laid = (id: string, name: string): LayEntry => ({
    ...first!,
    id,
    jobId: interior.job.id,
    surfaceId: idOf(name),
    kind: 'pane-done',
    occurredAt: '2026-11-29T09:00:00.000Z',
  });
  api.doc = { revision: 1, firm: demoFirm, persons: demoPersons, ...interior, layEntries: [laid('a', 'Door 1'), laid('b', 'Reception counter')], stock: emptyStock, canUndo: null, canRedo: null }; // prettier-ignore
  await TestBed.inject(RecordStore).open(interior.job.id);
  await show();
  expect(text()).toContain('0 of 2 laid surfaces taken over');
  expect(text()).toContain(`${interior.surfaces.filter((s) => s.filmId).length - 2} surfaces with a film are not laid`);
  expect([...root().querySelectorAll('[data-status]')].map((s) => s.textContent.trim())).toEqual(
    Array(2).fill('Nobody has looked it over since: air under dry film shows after a day.'),
  );
  root().querySelector<HTMLInputElement>('[aria-label="All of Reception"]')!.click();
  fixture.detectChanges();
  expect(button('The customer takes over 1 surface').disabled).toBe(false);
});
