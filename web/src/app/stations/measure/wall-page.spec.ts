import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Wall } from '@yellow-pane/contracts';
import { demoFirm, demoPersons, ternInterior } from '../../../../../demo/src/index';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { WallPage } from './wall-page';

const emptyStock = { entries: [], reservations: [], jobNames: {} };
let api: FakeApi;
let fixture: ComponentFixture<WallPage>;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    fixture.detectChanges();
  }
};
const root = () => fixture.nativeElement as HTMLElement;
const field = (key: string) => root().querySelector<HTMLInputElement>(`[data-measure="${key}"] input`)!;
const verdict = () => root().querySelector('[data-verdict]')!.textContent!.replace(/\s+/g, ' ');
const end = (side: 'left' | 'right') => root().querySelector<HTMLElement>(`[data-end="${side}"]`)!;
const drawn = () => [...root().querySelectorAll('yp-wall-drawing text')].map((t) => t.textContent!.trim());
const button = (text: string) => [...root().querySelectorAll('button')].find((b) => b.textContent!.trim() === text)!;
async function type(box: HTMLInputElement, text: string): Promise<void> {
  box.value = text;
  box.dispatchEvent(new Event('input'));
  box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
  await settle();
}
async function change(box: HTMLInputElement | HTMLSelectElement, value: string): Promise<void> {
  box.value = value;
  box.dispatchEvent(new Event('change'));
  await settle();
}
const choose = (of: ParentNode, choice: string, value: string) => change(of.querySelector<HTMLSelectElement>(`[data-choice="${choice}"]`)!, value);
const kept = (name: string) => api.doc.surfaces.find((s) => s.name === name) as Wall;
async function pick(name: string): Promise<void> {
  TestBed.inject(RecordStore).select(kept(name).id);
  await settle();
}

beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  api.doc = { revision: 1, firm: demoFirm, persons: demoPersons, ...ternInterior(), stock: emptyStock, canUndo: null, canRedo: null } as never;
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  fixture = TestBed.createComponent(WallPage);
  await pick('Lobby left');
});

describe('Measure, of a wall', () => {
  test('shows its outline with its tapes and its level line, its drops, the wall beside it, and that the tapes agree', () => {
    expect(['widthTop', 'heightRight', 'upLeft', 'downRight', 'wanderRight'].map((k) => field(k).value)).toEqual(['3604', '2606', '1598', '1008', '6']);
    expect(verdict()).toContain('The tapes agree. Its floor falls by 6 mm from left to right.');
    expect(drawn()).toEqual(expect.arrayContaining(['drop 1', 'drop 4', '3604', 'gap 6', 'Door to the office', 'inside: Lobby back']));
  });
  test('a tape that is typed anew is judged at once; a drop that was misread is marked on the drawing', async () => {
    await type(field('downRight'), '1031');
    expect(verdict()).toContain('These tapes disagree by about');
    expect(root().textContent).toContain('What may have happened');
    expect(api.doc.readings.filter((r) => r.surfaceId === kept('Lobby left').id && r.measure === 'downRight').at(-1)).toMatchObject({
      typed: '1031',
      lengthMm: 1031,
    });
  });
  test('a corner that does not wander reads nought, and is told from one that nobody looked at', async () => {
    expect(end('right').textContent).toContain('turns 15 mm on to the other wall; 6 mm of lap are left at the narrowest');
    await type(field('wanderRight'), '0');
    // the last field goes on to the next surface
    await pick('Lobby left');
    expect(end('right').textContent).toContain('turns 13 mm on to the other wall; 10 mm of lap');
    expect(end('right').textContent).not.toContain('Lay a straightedge');
  });
  test('what does not fit between two walls is told at both, with what settles it', async () => {
    await pick('Lobby pier');
    expect(verdict()).toContain('One thing does not fit. The corner on its left is 45 mm higher here than from Lobby back');
    await type(field('heightLeft'), '2605');
    await type(field('upLeft'), '1598');
    expect(verdict()).not.toContain('The corner');
  });
});

describe('its ends', () => {
  test('a corner of two walls stands in one record: changed from its other side it is changed there, the other way round', async () => {
    await pick('Lobby back');
    expect(end('left').querySelector<HTMLSelectElement>('[data-choice="first"]')!.value).toBe('other');
    await choose(end('left'), 'first', 'own');
    expect(kept('Lobby left').right).toMatchObject({ is: 'inside', isFirst: false });
    expect(kept('Lobby back').left.is).toBe('stop');
    await choose(end('left'), 'is', 'outside');
    expect(kept('Lobby left').right.is).toBe('outside');
  });
  test('joined from its left end, the wall there goes on to it; joined elsewhere, whoever went on there no longer does', async () => {
    await pick('Corridor wall');
    await choose(end('left'), 'is', 'inside');
    await choose(end('left'), 'beside', kept('Lobby pier').id);
    expect(kept('Lobby pier')).toMatchObject({ nextId: kept('Corridor wall').id, right: { is: 'inside', isFirst: false } });
    await pick('Lobby left');
    await choose(end('right'), 'beside', kept('Corridor wall').id);
    expect(kept('Lobby left').nextId).toBe(kept('Corridor wall').id);
    expect(kept('Lobby pier').nextId).toBeNull();
    await choose(end('right'), 'is', 'stop');
    expect(kept('Lobby left')).toMatchObject({ nextId: null, right: { is: 'stop' } });
  });
  test('an angle that no corner has is refused in words, and nothing changes', async () => {
    const box = end('right').querySelector<HTMLInputElement>('[data-choice="angle"]')!;
    await change(box, 'ninety');
    expect(root().querySelector('[role="alert"]')!.textContent).toContain('An angle between 20° and 340°');
    expect([box.value, kept('Lobby left').right.angleDeg]).toEqual(['90', 90]);
    await change(box, '91,5');
    expect(kept('Lobby left').right.angleDeg).toBe(91.5);
    await change(box, '');
    expect(kept('Lobby left').right.angleDeg).toBeNull();
  });
});

describe('its joints, and how it is hung', () => {
  test('blocks begin as they usually are; what is counted checks the pitch; nonsense is refused', async () => {
    button('+ Blocks').click();
    await settle();
    expect(kept('Lobby left').masonry).toMatchObject({ unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, bond: 'running', courses: null });
    const count = root().querySelector<HTMLInputElement>('[data-count="courses"]')!;
    await change(count, 'many');
    expect(root().querySelector('[role="alert"]')!.textContent).toContain('Courses, counted: a whole number');
    await change(count, '20');
    expect(verdict()).toContain('20 courses were counted, its height and pitch make 13');
    await change(count, '13');
    expect(verdict()).toContain('The tapes agree');
    await choose(root(), 'bond', 'stack');
    expect(kept('Lobby left').masonry!.bond).toBe('stack');
    button('It is smooth: no joints').click();
    await settle();
    expect(kept('Lobby left').masonry).toBeNull();
  });
  test('the end it is hung from, and how drops meet, with what each costs', async () => {
    await choose(root(), 'hungFrom', 'right');
    expect(kept('Lobby left').hungFrom).toBe('right');
    const places = [...root().querySelectorAll<SVGTextElement>('yp-wall-drawing text')].filter((t) => t.textContent!.includes('drop')).map((t) => Number(t.getAttribute('x'))); // prettier-ignore
    expect([...places].sort((a, b) => b - a)).toEqual(places);
    await choose(root(), 'seam', 'double-cut');
    expect(root().textContent).toContain('Cut double: a flush seam');
  });
  test('a socket is electric as it is put on; an opening takes its film away', async () => {
    button('+ Something on it').click();
    await settle();
    expect(kept('Lobby left').hardware.at(-1)).toMatchObject({ what: 'Part 4', isElectric: true, handling: 'off' });
    await pick('Corridor wall');
    await change(root().querySelectorAll<HTMLSelectElement>('[data-hardware] select')[0]!, 'open');
    expect(kept('Corridor wall').hardware[0]!.handling).toBe('open');
  });
});
