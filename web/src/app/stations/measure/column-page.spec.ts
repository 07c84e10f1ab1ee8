import { OpenedInterior } from './interior.testing';
import { ColumnPage } from './column-page';

let on: OpenedInterior<ColumnPage>;
beforeEach(async () => {
  on = await OpenedInterior.at(ColumnPage, 'Column 1');
});

describe('Measure, of a column', () => {
  test('shows its tapes where they were taken, and marks the one that is suspected', () => {
    expect(['girthTop', 'girthMiddle', 'girthFoot'].map((k) => on.field(k).value)).toEqual(['1225', '1214', '1257']);
    expect(on.verdict()).toContain('would be 1241 (looks like digits swapped)');
    expect(on.field('girthMiddle').className).toContain('bg-tint');
    expect(on.field('girthTop').className).not.toContain('bg-tint');
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('covers every explanation');
  });
  test('a tape taken again settles it; it supersedes the old one, which stays in the record', async () => {
    await on.type(on.field('girthMiddle'), '1241');
    expect(on.verdict()).toContain('The tapes agree');
    const all = on.api.doc.readings.filter((r) => r.measure === 'girthMiddle' && r.surfaceId === on.store.selectedId());
    expect(all.map((r) => r.typed)).toEqual(['1214', '1241']);
    expect(all[1]!.supersedesId).toBe(all[0]!.id);
  });
  test('what no column has is asked about first, what does not read is kept and said', async () => {
    await on.type(on.field('girthTop'), '12');
    expect(on.root.textContent).toContain('That is a column of 12');
    await on.type(on.field('girthTop'), 'a lot');
    expect(on.field('girthTop').getAttribute('aria-invalid')).toBe('true');
    expect(on.field('girthTop').value).toBe('a lot');
    expect(on.api.doc.readings.filter((r) => r.measure === 'girthTop' && !['1225', '1257', '1003', '1098'].includes(r.typed))).toEqual([]);
  });
  test('a square one has a corner radius, a round one has none', async () => {
    expect(on.field('cornerRadius')).toBeNull();
    [...on.root.querySelectorAll('button')].find((b) => b.textContent!.trim() === 'Square')!.click();
    await on.settle();
    expect(on.field('cornerRadius')).not.toBeNull();
  });
  test('in inches it is told in inches, and typed in fractions', async () => {
    on.store.toggleUnits();
    await on.settle();
    expect(on.field('girthTop').value).toMatch(/"$/);
    await on.type(on.field('girthMiddle'), '48 7/8');
    expect(on.api.doc.readings.at(-1)).toMatchObject({ measure: 'girthMiddle', unit: 'in', typed: '48 7/8' });
    expect(on.api.doc.readings.at(-1)!.lengthMm).toBeCloseTo(1241.4, 1);
  });
});
