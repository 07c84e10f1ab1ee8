import { newCurvedPane, type Bow } from '@yellow-pane/contracts';
import { launchAndShuttle } from '@yellow-pane/demo';
import type { TypedReading } from '../../kit/length-field';
import { bowSlots, mirrorOf, withBow, withoutBow } from './curve.updaters';

const outline = [{ x: 0, y: 0 }, { x: 1320, y: 0 }, { x: 1320, y: 560 }, { x: 0, y: 560 }]; // prettier-ignore
const rear = launchAndShuttle().surfaces.find((s) => s.name === 'Rear window')!;
const typed = { typed: '55', unit: 'mm', lengthMm: 55 } as TypedReading;
const who = { personId: rear.id, at: '2026-11-20T08:00:00Z' };

describe('where the straightedge goes', () => {
  test('on a new pane: three level, three upright, both diagonals, all empty', () => {
    const slots = bowSlots(outline, newCurvedPane(), null);
    expect(slots.map((s) => s.way)).toEqual(['across', 'across', 'across', 'upright', 'upright', 'upright', 'down', 'up']);
    expect(slots.every((s) => s.bow === null)).toBe(true);
  });
  test('a bow read near a usual place takes it; short ones and the one asked for come after', () => {
    const asked = { way: 'across' as const, atMm: 210, span: null };
    const slots = bowSlots(outline, rear.curved!, asked);
    expect(slots.slice(0, 8).every((s) => s.bow !== null)).toBe(true);
    expect(slots.slice(8).map((s) => [s.way, s.span !== null, s.isAsked])).toEqual([
      ['upright', true, false],
      ['upright', true, false],
      ['upright', true, false],
      ['across', false, true],
    ]);
    // asked for where one lies already: not twice
    expect(bowSlots(outline, rear.curved!, { way: 'across', atMm: 295, span: null })).toHaveLength(11);
  });
  test('a bow that was read keeps its id when it is read again; taken off, it is gone', () => {
    const first = bowSlots(outline, newCurvedPane(), null)[1]!;
    const once = withBow(newCurvedPane(), first, typed, who);
    const again = withBow(once, { ...first, bow: once.bows[0]! }, { ...typed, typed: '56', lengthMm: 56 }, who);
    expect(again.bows).toHaveLength(1);
    expect(again.bows[0]).toMatchObject<Partial<Bow>>({ id: once.bows[0]!.id, depthMm: 56, typed: '56' });
    expect(withoutBow(again, again.bows[0]!.id).bows).toEqual([]);
  });
});

test('the window across has the other name, is measured like this one, and has nothing of its own yet', () => {
  const door = launchAndShuttle().surfaces.find((s) => s.name === 'Door glass right')!;
  const other = mirrorOf(door, rear.id, 12);
  expect(other).toMatchObject({ name: 'Door glass left', measuredLikeId: door.id, signed: null, curved: { isMirror: true, bows: [], seat: 'drop' } });
  expect(mirrorOf({ ...door, name: 'Cabin port' }, rear.id, 12).name).toBe('Cabin starboard');
  expect(mirrorOf({ ...door, name: 'W1' }, rear.id, 12).name).toBe('W1 across');
});
