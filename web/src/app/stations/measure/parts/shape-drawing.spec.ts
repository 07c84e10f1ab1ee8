import { newShape, type PaneShape } from '@yellow-pane/contracts';
import { flatten, shapeModel, typicalNumbers } from '@yellow-pane/core';
import { shapeKeysToShow } from '../measure.updaters';
import { FIELD_W, layOpening, layShape } from './drawing-geometry';

const shape = newShape;
const kinds = [
  shape('rake'),
  shape('parallelogram'),
  shape('triangle'),
  shape('arch-round', { hasLegs: true }),
  shape('arch-pointed'),
  shape('circle'),
  shape('quarter'),
  shape('quarter', { corner: 'lower-right' }),
  shape('quarter', { corner: 'upper-left' }),
  shape('quarter', { corner: 'upper-right' }),
  shape('polygon', { corners: 6 }),
];
const lay = (s: PaneShape, isMirrored = false) => {
  const [model, p] = [shapeModel(s), typicalNumbers(s)];
  return layShape(flatten(model.outline(p)), model, p, shapeKeysToShow(s, [], null), 700, 540, isMirrored);
};

describe('a shaped pane as it is drawn', () => {
  test.each(kinds.map((s) => [s.kind, s] as const))('%s: a field for every tape that is asked for, none over another, all inside', (_, s) => {
    const { fields } = lay(s);
    expect(fields.map((f) => f.key)).toEqual(shapeKeysToShow(s, [], null));
    for (const f of fields) {
      expect(f.x).toBeGreaterThan(FIELD_W / 2);
      expect(f.x).toBeLessThan(700 - FIELD_W / 2);
      expect(f.y).toBeGreaterThan(16);
      expect(f.y).toBeLessThan(540);
    }
    for (const a of fields) for (const b of fields) if (a !== b) expect(Math.abs(a.x - b.x) >= FIELD_W - 1 || Math.abs(a.y - b.y) >= 33).toBe(true);
  });
  test('seen from the other side, left and right change places and the tapes stay with their edges', () => {
    const [room, street] = [lay(shape('rake')), lay(shape('rake'), true)];
    const x = (d: typeof room) => d.fields.find((f) => f.key === 'heightLeft')!.from.x;
    expect(x(room) + x(street)).toBeCloseTo(700, 6);
    expect(x(room)).toBeLessThan(x(street));
  });
  test('of a polygon: its sides, the fan from A, and one diagonal that checks them', () => {
    const keys = shapeKeysToShow(shape('polygon', { corners: 5 }), [], null);
    expect(keys).toEqual(['AB', 'BC', 'CD', 'DE', 'AE', 'AC', 'AD', 'BD']);
    expect(shapeKeysToShow(shape('polygon', { corners: 5 }), [], 'CE')).toContain('CE');
  });
  test('in a narrow door no field hides another', () => {
    const outline = [{ x: 0, y: 0 }, { x: 738, y: 0 }, { x: 738, y: 1990 }, { x: 0, y: 1990 }]; // prettier-ignore
    const keys = ['widthTop', 'widthMiddle', 'widthBottom', 'heightLeft', 'heightMiddle', 'heightRight', 'diagonalDown', 'diagonalUp'] as const;
    const { fields } = layOpening(outline, keys, 700, 420, false);
    for (const a of fields) for (const b of fields) if (a !== b) expect(Math.abs(a.x - b.x) >= FIELD_W - 1 || Math.abs(a.y - b.y) >= 33).toBe(true);
  });
});
