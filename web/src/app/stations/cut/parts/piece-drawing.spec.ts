import { panesIn } from '../../../../../../demo/src/index';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { cutOfPane, resolveAllowances, Memo } from '@yellow-pane/core';
import type { CutMethod, Pane } from '@yellow-pane/contracts';
import { demoFirm, ternPoint } from '../../../../../../demo/src/index';
import { PieceDrawing } from './piece-drawing';

const file = { ...ternPoint(), firm: demoFirm };

function draw(name: string, method: CutMethod, more: Partial<Pane> = {}, mirrored = false): ComponentFixture<PieceDrawing> {
  const surface = { ...panesIn(file).find((s) => s.name === name)!, ...more };
  const film = file.films.find((f) => f.id === surface.filmId)!;
  const cut = cutOfPane(surface, { ...file, surfaces: panesIn(file).map((s) => (s.id === surface.id ? surface : s)), memo: new Memo() }, film, method);
  const fixture = TestBed.createComponent(PieceDrawing);
  const inputs = { piece: cut.pieces[0], surface, survey: cut.survey, allowances: resolveAllowances(file, surface), units: 'mm', mirrored };
  for (const [k, v] of Object.entries(inputs)) fixture.componentRef.setInput(k, v);
  fixture.detectChanges();
  return fixture;
}
/** Which side of the drawing carries these words. */
function sideOf(f: ComponentFixture<PieceDrawing>, words: string): string[] {
  return [...(f.nativeElement as HTMLElement).querySelectorAll('text')]
    .filter((t) => t.textContent.includes(words))
    .map((t) => {
      const [x, y] = [Number(t.getAttribute('x')), Number(t.getAttribute('y'))];
      return t.getAttribute('transform') ? (x < 130 ? 'left' : 'right') : y < 135 ? 'top' : 'bottom';
    });
}
const corners = (f: ComponentFixture<PieceDrawing>) =>
  (f.nativeElement as HTMLElement)
    .querySelector('polygon')!
    .getAttribute('points')!
    .split(' ')
    .map((p) => p.split(',').map(Number) as [number, number]);

describe('a piece over its pane', () => {
  test('overhang is trimmed on all four sides', () => expect(sideOf(draw('H1', 'overhang'), 'trim 25').sort()).toEqual(['bottom', 'left', 'right', 'top']));

  test('the factory edge is written on the side that it goes to, and nothing is trimmed there', () => {
    const f = draw('H4', 'factory-edge');
    expect(sideOf(f, 'factory edge, no cut')).toEqual(['top']);
    expect(sideOf(f, 'trim').sort()).toEqual(['bottom', 'left', 'right']);
  });

  test('seen from the other side, left and right change places, for the edge and for the opening', () => {
    const [own, other] = [false, true].map((m) => draw('W1', 'factory-edge', {}, m));
    const side = sideOf(own!, 'factory edge')[0]!;
    expect(['left', 'right']).toContain(side);
    expect(sideOf(other!, 'factory edge')).toEqual([side === 'left' ? 'right' : 'left']);
    const [a, b] = [corners(own!), corners(other!)];
    a.forEach(([x, y], i) => {
      expect(b[i]![0]).toBeCloseTo(260 - x, 0);
      expect(b[i]![1]).toBeCloseTo(y, 6);
    });
  });

  test('a pane taped from the street with its film on the room face shows the edge where the person taping stands', () => {
    const room = sideOf(draw('W1', 'factory-edge'), 'factory edge');
    expect(sideOf(draw('W1', 'factory-edge', { seenFrom: 'street' }), 'factory edge')).toEqual(room);
  });
});
