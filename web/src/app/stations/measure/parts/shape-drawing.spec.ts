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
  test('a low arch on a phone: as wide as the drawing is, no field over another, each on its line or led to it', () => {
    const s = shape('arch-flat');
    const model = shapeModel(s);
    // 1.2 m wide, 0.3 m high
    const p = typicalNumbers(s).map((v, i) => (i === 0 ? 1200 : i === 1 ? 300 : v));
    const { fields, points } = layShape(flatten(model.outline(p)), model, p, shapeKeysToShow(s, [], null), 374, 300, false);
    const xs = points.split(' ').map((q) => Number(q.split(',')[0]));
    expect(Math.max(...xs) - Math.min(...xs)).toBeGreaterThan(300);
    for (const a of fields) for (const b of fields) if (a !== b) expect(Math.abs(a.x - b.x) >= FIELD_W - 1 || Math.abs(a.y - b.y) >= 33).toBe(true);
    const off = (f: (typeof fields)[number]) => {
      const [l, at] = [Math.hypot(f.to.x - f.from.x, f.to.y - f.from.y), f.lead ?? f];
      return Math.abs((f.to.x - f.from.x) * (at.y - f.from.y) - (f.to.y - f.from.y) * (at.x - f.from.x)) / l;
    };
    for (const f of fields) expect({ key: f.key, isOnItsLine: off(f) < 23 }).toEqual({ key: f.key, isOnItsLine: true });
    // and where fields would hide most of it they stand over it, led to their lines
    const small = layShape(flatten(model.outline(p)), model, p, shapeKeysToShow(s, [], null), 374, 210, false);
    const inside = small.fields.filter((f) => !f.isOutside);
    expect(inside.length).toBeGreaterThan(1);
    for (const f of inside) expect(f.lead).toBeDefined();
  });
  test('in a narrow door no field hides another', () => {
    const outline = [{ x: 0, y: 0 }, { x: 738, y: 0 }, { x: 738, y: 1990 }, { x: 0, y: 1990 }]; // prettier-ignore
    const keys = ['widthTop', 'widthMiddle', 'widthBottom', 'heightLeft', 'heightMiddle', 'heightRight', 'diagonalDown', 'diagonalUp'] as const;
    const { fields } = layOpening(outline, keys, 700, 420, false);
    for (const a of fields) for (const b of fields) if (a !== b) expect(Math.abs(a.x - b.x) >= FIELD_W - 1 || Math.abs(a.y - b.y) >= 33).toBe(true);
  });
});
