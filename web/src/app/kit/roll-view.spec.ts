import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { filmPlanInput, layPiecesOnRolls, Memo } from '@yellow-pane/core';
import { demoFirm, ternPoint } from '../../../../demo/src/index';
import { RollView } from './roll-view';

const file = ternPoint();
const film = (kind: string) => file.films.find((f) => f.kind === kind)!;

/** @param inside what the drawing scrolls in */
function show(kind: string, more: Record<string, unknown> = {}, inside?: HTMLElement): ComponentFixture<RollView> {
  const f = film(kind);
  const input = filmPlanInput({ ...file, firm: demoFirm, entries: [], memo: new Memo() }, file.job.cut, f.id, undefined);
  const fixture = TestBed.createComponent(RollView);
  const inputs = {
    layout: layPiecesOnRolls(input.layout, 20),
    pieces: input.pieces,
    roll: file.rolls.find((r) => r.filmId === f.id)!,
    film: f,
    units: 'mm',
    ...more,
  };
  for (const [k, v] of Object.entries(inputs)) fixture.componentRef.setInput(k, v);
  inside?.append(fixture.nativeElement as HTMLElement);
  fixture.detectChanges();
  return fixture;
}
const pieces = (f: ComponentFixture<RollView>) => [...(f.nativeElement as HTMLElement).querySelectorAll('[data-piece]')];
const box = (g: Element) => {
  const r = g.querySelector('rect')!;
  return { x: Number(r.getAttribute('x')), y: Number(r.getAttribute('y')), w: Number(r.getAttribute('width')), h: Number(r.getAttribute('height')) };
};

describe('the roll drawn to scale', () => {
  test('pieces keep their proportions, stay inside the roll and do not overlap', () => {
    const fixture = show('solar', { rollPx: 1524 });
    const drawn = pieces(fixture).map((g) => ({ ...box(g), label: g.getAttribute('aria-label')! }));
    // the pieces of this roll; the others lie on the other rolls and leftovers of the film
    expect(drawn).toHaveLength(15);
    for (const p of drawn) {
      const [along, across] = /(\d+)×(\d+)/.exec(p.label)!.slice(1).map(Number) as [number, number];
      expect(p.w).toBeCloseTo(along, 0);
      expect(p.h).toBeCloseTo(across, 0);
      expect(p.y).toBeGreaterThanOrEqual(30 - 0.01);
      expect(p.y + p.h).toBeLessThanOrEqual(30 + 1524 + 0.01);
    }
    for (const a of drawn)
      for (const b of drawn)
        if (a !== b) expect(a.x < b.x + b.w - 0.01 && b.x < a.x + a.w - 0.01 && a.y < b.y + b.h - 0.01 && b.y < a.y + a.h - 0.01).toBe(false);
  });

  test('of a long roll only what is in sight and a good piece beside it is drawn, and the rest as one comes to it', () => {
    const all = pieces(show('solar', { rollPx: 1524 })).map(box);
    const scroll = Object.assign(document.createElement('div'), { scrollLeft: 0 });
    scroll.setAttribute('data-roll-scroll', '');
    document.body.append(scroll);
    const fixture = show('solar', { rollPx: 1524 }, scroll);
    fixture.detectChanges();
    const seen = () => pieces(fixture).map(box);
    expect(seen()).toEqual(all.filter((p) => p.x <= 1500));
    expect(seen().length).toBeLessThan(all.length);
    const last = Math.max(...all.map((p) => p.x + p.w));
    // what the keys are moving stays, wherever one looks: it has the focus
    const [held] = pieces(fixture);
    held!.dispatchEvent(new KeyboardEvent('keydown', { key: 'End', shiftKey: true, bubbles: true }));
    scroll.scrollLeft = last;
    scroll.dispatchEvent(new Event('scroll'));
    fixture.detectChanges();
    expect(pieces(fixture)).toContain(held);
    expect(seen()).toEqual(all.filter((p, i) => i === 0 || p.x + p.w >= last - 1500));
    expect(seen().length).toBeGreaterThan(1);
    scroll.remove();
  });

  test('a film that comes off film up is drawn turned over: what lay near lies far', () => {
    const turned = show('security', { rollPx: 1829 });
    const plain = show('security', { rollPx: 1829, film: { ...film('security'), wound: 'liner-out' } });
    const [a, b] = [pieces(turned).map(box), pieces(plain).map(box)];
    a.forEach((p, i) => {
      expect(p.x).toBeCloseTo(b[i]!.x, 6);
      expect(p.y - 30).toBeCloseTo(1829 - (b[i]!.y - 30) - b[i]!.h, 6);
    });
    expect((turned.nativeElement as HTMLElement).querySelector('svg')!.getAttribute('aria-label')).toContain('drawn film up');
  });

  test('picking a piece picks its surface, by hand and by key', () => {
    const fixture = show('security');
    const picked: string[] = [];
    fixture.componentInstance.picked.subscribe((id) => picked.push(id));
    const g = pieces(fixture)[0] as SVGElement;
    g.dispatchEvent(new MouseEvent('click', { bubbles: true }));
    g.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(picked).toEqual([g.getAttribute('data-piece'), g.getAttribute('data-piece')]);
  });

  test('says what is selected, locked and cut in words, not by colour alone', () => {
    const id = file.surfaces.find((s) => s.name === 'O4')!.id;
    const fixture = show('security', { selectedSurfaceId: id, lockedIds: [id], cutIds: new Set([id]) });
    const g = pieces(fixture).find((p) => p.getAttribute('data-piece') === id)!;
    expect(g.getAttribute('aria-pressed')).toBe('true');
    expect(g.getAttribute('aria-label')).toMatch(/cut, locked\. Shift and arrows move it$/);
  });

  test('a roll that is too short says by how much', () => {
    const roll = { ...file.rolls.find((r) => r.filmId === film('solar').id)!, lengthM: 1 };
    const layout = layPiecesOnRolls(
      filmPlanInput({ ...file, firm: demoFirm, entries: [], memo: new Memo() }, file.job.cut, film('solar').id, undefined).layout,
      5,
    );
    expect((show('solar', { roll, layout }).nativeElement as HTMLElement).textContent).toMatch(/\d+\.\d m short/);
  });
});
