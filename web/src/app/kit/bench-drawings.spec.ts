import { TestBed } from '@angular/core/testing';
import { judgeColumn, piecesOfColumn, usualDry } from '@yellow-pane/core';
import type { ColumnMeasure } from '@yellow-pane/contracts';
import { BenchDrawing } from './bench-drawing';
import { BenchList } from './bench-list';
import { ColumnDrawing } from './column-drawing';

const tapes: [ColumnMeasure, number][] = [['girthFoot', 1257], ['girthTop', 1225], ['heightFront', 2500]]; // prettier-ignore
const survey = judgeColumn('round', tapes.map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
const film = { id: 'f', name: 'Ash Plank', direction: 'one-way', drying: 'dry-applied', mounting: 'not-on-glass' } as const;
const made = piecesOfColumn({ surface: { id: 's', name: 'C' }, survey, allowances: usualDry, film, rollWidthsMm: [1524], units: 'mm' });
if ('blocked' in made) throw new Error(made.blocked);
const piece = { ...made.pieces[0]!.piece, id: 'p', label: 'Column 1' };
function shown<T>(type: new () => T, inputs: Record<string, unknown>): HTMLElement {
  const fixture = TestBed.createComponent(type);
  for (const [k, v] of Object.entries(inputs)) fixture.componentRef.setInput(k, v);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

test('the bench drawing tells liner cuts from film cuts by their line, numbers them, and names them to whoever cannot see it', () => {
  const root = shown(BenchDrawing, { piece, units: 'mm' });
  const whole = [...root.querySelectorAll('svg > polyline')];
  expect(whole.map((l) => l.getAttribute('stroke-dasharray') !== null)).toEqual([true, true, false, false]);
  expect([...root.querySelectorAll('circle + text')].map((t) => t.textContent!.trim())).toEqual(['1', '2', '3', '4']);
  expect(root.querySelector('svg')!.getAttribute('aria-label')).toMatch(/liner up: 1\. Liner only.*4\. Top/);
});
test('both ends are drawn once more, enlarged, with the strip, the notch and 45°', () => {
  const root = shown(BenchDrawing, { piece, units: 'mm' });
  const words = [...root.querySelectorAll('text')].map((t) => t.textContent!.trim());
  expect(words).toEqual(expect.arrayContaining(['Top end, enlarged', 'Foot end, enlarged', '100', '13', '45°']));
  expect(words).toContain(String(piece.widthMm));
});
test('in words: which layer first, then where', () =>
  expect(shown(BenchList, { piece }).textContent!.replace(/\s+/g, ' ')).toMatch(
    /1Liner only\. The whole length: left side of the strip.*3Through the film\. Foot/,
  ));
test('a step shows the film as far as it has come: the strip, then half way round, then all of it', () => {
  const film = (step: string) => shown(ColumnDrawing, { body: survey.body, pieces: [piece], units: 'mm', step, label: 'x' }).querySelectorAll('polygon')[1]?.getAttribute('points')?.split(' ').map((p) => Number(p.split(',')[0])) ?? []; // prettier-ignore
  const width = (step: string) => (film(step).length ? Math.max(...film(step)) - Math.min(...film(step)) : 0);
  expect(width('column-plumb')).toBe(0);
  expect(width('column-strip')).toBeGreaterThan(0);
  expect(width('column-round')).toBeGreaterThan(width('column-strip'));
  expect(width('column-seam')).toBeGreaterThan(width('column-round'));
});
