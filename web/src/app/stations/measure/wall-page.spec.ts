import { TestBed } from '@angular/core/testing';
import type { Wall } from '@yellow-pane/contracts';
import { RecordStore } from '../../record/record.store';
import { OpenedInterior } from './interior.testing';
import { WallPage } from './wall-page';

let on: OpenedInterior<WallPage>;
beforeEach(async () => {
  on = await OpenedInterior.at(WallPage, 'Lobby left');
});
const end = (side: 'left' | 'right') => on.root.querySelector<HTMLElement>(`[data-end="${side}"]`)!;
const drawn = () => on.drawn('yp-wall-drawing');
const kept = (name: string) => on.kept<Wall>(name);

describe('Measure, of a wall', () => {
  test('shows its outline with its tapes and its level line, its drops, the wall beside it, and that the tapes agree', () => {
    expect(['widthTop', 'heightRight', 'upLeft', 'downRight', 'wanderRight'].map((k) => on.field(k).value)).toEqual(['3604', '2606', '1598', '1008', '6']);
    expect(on.verdict()).toContain('The tapes agree. Its floor falls by 6 mm from left to right.');
    expect(drawn()).toEqual(expect.arrayContaining(['drop 1', 'drop 4', '3604', 'gap 6', 'Door to the office', 'inside: Lobby back']));
  });
  test('a tape that is typed anew is judged at once; a drop that was misread is marked on the drawing', async () => {
    await on.type(on.field('downRight'), '1031');
    expect(on.verdict()).toContain('These tapes disagree by about');
    expect(on.root.textContent).toContain('What may have happened');
    expect(on.api.doc.readings.filter((r) => r.surfaceId === kept('Lobby left').id && r.measure === 'downRight').at(-1)).toMatchObject({
      typed: '1031',
      lengthMm: 1031,
    });
  });
  test('a corner that does not wander reads nought, and is told from one that nobody looked at', async () => {
    expect(end('right').textContent).toContain('turns 15 mm on to the other wall; 6 mm of lap are left at the narrowest');
    await on.type(on.field('wanderRight'), '0');
    // the last field goes on to the next surface
    await on.pick('Lobby left');
    expect(end('right').textContent).toContain('turns 13 mm on to the other wall; 10 mm of lap');
    expect(end('right').textContent).not.toContain('Lay a straightedge');
  });
  test('what does not fit between two walls is told at both, with what settles it', async () => {
    await on.pick('Lobby pier');
    expect(on.verdict()).toContain('One thing does not fit. The corner on its left is 45 mm higher here than from Lobby back');
    await on.type(on.field('heightLeft'), '2605');
    await on.type(on.field('upLeft'), '1598');
    expect(on.verdict()).not.toContain('The corner');
  });
});

describe('its ends', () => {
  test('a corner of two walls stands in one record: changed from its other side it is changed there, the other way round', async () => {
    await on.pick('Lobby back');
    expect(end('left').querySelector<HTMLSelectElement>('[data-choice="first"]')!.value).toBe('other');
    await on.choose('first', 'own', end('left'));
    expect(kept('Lobby left').right).toMatchObject({ is: 'inside', isFirst: false });
    expect(kept('Lobby back').left.is).toBe('stop');
    await on.choose('is', 'outside', end('left'));
    expect(kept('Lobby left').right.is).toBe('outside');
  });
  test('joined from its left end, the wall there goes on to it; joined elsewhere, whoever went on there no longer does', async () => {
    await on.pick('Corridor wall');
    await on.choose('is', 'inside', end('left'));
    await on.choose('beside', kept('Lobby pier').id, end('left'));
    expect(kept('Lobby pier')).toMatchObject({ nextId: kept('Corridor wall').id, right: { is: 'inside', isFirst: false } });
    await on.pick('Lobby left');
    await on.choose('beside', kept('Corridor wall').id, end('right'));
    expect(kept('Lobby left').nextId).toBe(kept('Corridor wall').id);
    expect(kept('Lobby pier').nextId).toBeNull();
    await on.choose('is', 'stop', end('right'));
    expect(kept('Lobby left')).toMatchObject({ nextId: null, right: { is: 'stop' } });
  });
  test('an angle that no corner has is refused in words, and nothing changes', async () => {
    const box = end('right').querySelector<HTMLInputElement>('[data-choice="angle"]')!;
    await on.change(box, 'ninety');
    expect(on.root.querySelector('[role="alert"]')!.textContent).toContain('An angle between 20° and 340°');
    expect([box.value, kept('Lobby left').right.angleDeg]).toEqual(['90', 90]);
    await on.change(box, '91,5');
    expect(kept('Lobby left').right.angleDeg).toBe(91.5);
    await on.change(box, '');
    expect(kept('Lobby left').right.angleDeg).toBeNull();
  });
});

describe('its joints, and how it is hung', () => {
  test('blocks begin as they usually are; what is counted checks the pitch; nonsense is refused', async () => {
    on.button('+ Blocks').click();
    await on.settle();
    expect(kept('Lobby left').masonry).toMatchObject({ unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, bond: 'running', courses: null });
    const count = on.root.querySelector<HTMLInputElement>('[data-count="courses"]')!;
    await on.change(count, 'many');
    expect(on.root.querySelector('[role="alert"]')!.textContent).toContain('Courses, counted: a whole number');
    await on.change(count, '20');
    expect(on.verdict()).toContain('20 courses were counted, its height and pitch make 13');
    await on.change(count, '13');
    expect(on.verdict()).toContain('The tapes agree');
    await on.choose('bond', 'stack');
    expect(kept('Lobby left').masonry!.bond).toBe('stack');
    on.button('It is smooth: no joints').click();
    await on.settle();
    expect(kept('Lobby left').masonry).toBeNull();
  });
  test('the end it is hung from, and how drops meet, with what each costs', async () => {
    await on.choose('hungFrom', 'right');
    expect(kept('Lobby left').hungFrom).toBe('right');
    const places = [...on.root.querySelectorAll<SVGTextElement>('yp-wall-drawing text')].filter((t) => t.textContent!.includes('drop')).map((t) => Number(t.getAttribute('x'))); // prettier-ignore
    expect([...places].sort((a, b) => b - a)).toEqual(places);
    await on.choose('seam', 'double-cut');
    expect(on.root.textContent).toContain('Cut double: a flush seam');
  });
  test('book-match: which drops hang turned is drawn; film with one way up says that it has none', async () => {
    await on.choose('hanging', 'book');
    expect(kept('Lobby left').hanging).toBe('book');
    expect(on.root.querySelector('[data-hanging]')!.textContent).toContain('the same edge of the roll meets itself');
    const drops = () => [...on.root.querySelectorAll<SVGTextElement>('yp-wall-drawing text')].map((t) => t.textContent!.trim()).filter((t) => t.startsWith('drop')); // prettier-ignore
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('Ash Plank has one way up');
    expect(drops().some((t) => /[↑↓]/.test(t))).toBe(false);
    const record = TestBed.inject(RecordStore);
    on.api.doc = { ...on.api.doc, films: on.api.doc.films.map((f) => ({ ...f, direction: 'two-way' as const })) };
    await record.open(on.api.doc.job.id);
    await on.pick('Lobby left');
    expect(drops().map((t) => t.at(-1))).toEqual(['↑', '↓', '↑', '↓'].slice(0, drops().length));
    expect(on.root.querySelector('yp-wall-drawing')!.textContent).toContain('↑ head of the roll up, ↓ turned');
  });
  test('lengths along the wall are drawn one over the other, and named; film with a direction says why it hangs', async () => {
    const names = () => [...on.root.querySelectorAll<SVGTextElement>('yp-wall-drawing text')].map((t) => t.textContent!.trim()).filter((t) => /^(drop|length) /.test(t)); // prettier-ignore
    await on.choose('lie', 'level');
    expect(kept('Lobby left').lie).toBe('level');
    expect(on.root.textContent).toContain('Ash Plank has a direction that stands upright: let its drops hang.');
    expect(names()).toEqual([]);
    const record = TestBed.inject(RecordStore);
    on.api.doc = { ...on.api.doc, films: on.api.doc.films.map((f) => ({ ...f, direction: 'none' as const })) };
    await record.open(on.api.doc.job.id);
    await on.pick('Lobby left');
    expect(names()).toEqual(['length 1', 'length 2', 'length 3'].slice(0, names().length));
    const heights = [...on.root.querySelectorAll<SVGTextElement>('yp-wall-drawing text')].filter((t) => t.textContent!.includes('length')).map((t) => Number(t.getAttribute('y'))); // prettier-ignore
    expect(heights.length).toBeGreaterThan(1);
    // the first lies at the foot
    expect([...heights].sort((a, b) => b - a)).toEqual(heights);
    expect(on.root.querySelector('[data-lie]')!.textContent).toContain('from the foot up');
  });
  test('a socket is electric as it is put on; an opening takes its film away', async () => {
    on.button('+ Something on it').click();
    await on.settle();
    expect(kept('Lobby left').hardware.at(-1)).toMatchObject({ what: 'Part 4', isElectric: true, handling: 'off' });
    await on.pick('Corridor wall');
    await on.change(on.root.querySelectorAll<HTMLSelectElement>('[data-hardware] select')[0]!, 'open');
    expect(kept('Corridor wall').hardware[0]!.handling).toBe('open');
  });
});
