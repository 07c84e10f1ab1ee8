import { newCurvedPane, type Bow } from '@yellow-pane/contracts';
import { panesIn, launchAndShuttle } from '../../../../../demo/src/index';
import type { TypedReading } from '../../kit/length-field';
import { bowSlots, mirrorOf, withBow, withoutBow } from './curve.updaters';

const outline = [{ x: 0, y: 0 }, { x: 1320, y: 0 }, { x: 1320, y: 560 }, { x: 0, y: 560 }]; // prettier-ignore
const rear = panesIn(launchAndShuttle()).find((s) => s.name === 'Rear window')!;
const typed = { typed: '55', unit: 'mm', lengthMm: 55 } as TypedReading;
const who = { personId: rear.id, at: '2026-11-20T08:00:00Z' };

describe('where the straightedge goes', () => {
  test('on a new pane: three level, three upright, both diagonals, then short ones at the lower and the upper edge, all empty', () => {
    const slots = bowSlots(outline, newCurvedPane(), null);
    expect(slots.slice(0, 8).map((s) => [s.way, s.span])).toEqual(['across', 'across', 'across', 'upright', 'upright', 'upright', 'down', 'up'].map((way) => [way, null])); // prettier-ignore
    // a third of the height: 170 of 560, stood on the lower edge, hung from the upper
    expect(slots.slice(8).map((s) => [s.way, s.atMm, s.span!.fromMm, s.span!.lengthMm])).toEqual([['upright', 395, 0, 170], ['upright', 925, 0, 170], ['upright', 395, 390, 170], ['upright', 925, 390, 170]]); // prettier-ignore
    expect(slots.every((s) => s.bow === null)).toBe(true);
  });
  test('an edge that somebody saw turn in gets a shorter one more; a pane too low for a short one gets none', () => {
    const at = (turnsIn: ('lower' | 'upper')[], height = 560) => bowSlots(outline.map((p) => ({ ...p, y: p.y && height })), { bows: [], turnsIn }, null).slice(8).map((s) => [s.span!.fromMm === 0 ? 'lower' : 'upper', s.span!.lengthMm]); // prettier-ignore
    expect(at(['lower'])).toEqual([['lower', 170], ['lower', 110], ['lower', 170], ['upper', 170], ['upper', 170]]); // prettier-ignore
    expect(at(['upper', 'lower']).filter(([, long]) => long === 110)).toEqual([['lower', 110], ['upper', 110]]); // prettier-ignore
    expect(at([], 200)).toEqual([]);
  });
  test('a bow read near a usual place takes it; others and the one asked for come after', () => {
    const asked = { way: 'across' as const, atMm: 210, span: null };
    const slots = bowSlots(outline, rear.curved!, asked);
    expect(slots.slice(0, 8).every((s) => s.bow !== null)).toBe(true);
    // a short one that stands on the same edge nearby is that place's own, however long it is
    const [lowerLeft] = bowSlots(outline, newCurvedPane(), null).slice(8);
    const near = { ...rear.curved!.bows[0]!, way: 'upright' as const, atMm: lowerLeft!.atMm + 20, span: { fromMm: 0, lengthMm: 200 } };
    expect(bowSlots(outline, { bows: [near] }, null)[8]!.bow).toBe(near);
    expect(bowSlots(outline, { bows: [{ ...near, span: null }] }, null)[8]!.bow).toBeNull();
    const more = slots.slice(12);
    expect(more.map((s) => s.isAsked)).toEqual([...more.slice(1).map(() => false), true]);
    expect(slots.flatMap((s) => s.bow?.id ?? [])).toHaveLength(rear.curved!.bows.length);
    // asked for where one lies already: not twice
    expect(bowSlots(outline, rear.curved!, { way: 'across', atMm: 295, span: null })).toHaveLength(slots.length - 1);
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
  const door = panesIn(launchAndShuttle()).find((s) => s.name === 'Door glass right')!;
  const other = mirrorOf(door, rear.id, 12);
  expect(other).toMatchObject({ name: 'Door glass left', measuredLikeId: door.id, signed: null, curved: { isMirror: true, bows: [], seat: 'drop' } });
  expect(mirrorOf({ ...door, name: 'Cabin port' }, rear.id, 12).name).toBe('Cabin starboard');
  expect(mirrorOf({ ...door, name: 'W1' }, rear.id, 12).name).toBe('W1 across');
});
