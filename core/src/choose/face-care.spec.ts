import { newPane, type Pane } from '@yellow-pane/contracts';
import { launchAndShuttle, panesIn, ternPoint } from '../../../demo/src/index.js';
import { careOfFace } from './face-care.js';

type Glass = NonNullable<Pane['glazing']>['panes'][number];
const office = panesIn(ternPoint()).find((p) => p.name === 'W1')!;
const clear: Glass = { ...office.glazing!.panes[0]!, kind: 'float', coating: 'none', coatingFace: 'inner' };
const plain: Pick<Pane, 'glazing' | 'filmFace' | 'curved' | 'workedFace'> = {
  glazing: { ...office.glazing!, panes: [clear], cavities: [] },
  filmFace: 'room',
  curved: null,
  workedFace: 'unknown',
};
const of = (glass: Partial<Glass>, more: Partial<typeof plain> = {}) =>
  careOfFace({ ...plain, glazing: { ...plain.glazing!, panes: [{ ...clear, ...glass }] }, ...more });
const bent = panesIn(launchAndShuttle()).find((p) => p.curved)!;
const curved = (more: Partial<NonNullable<Pane['curved']>>, own: Partial<typeof plain> = {}) =>
  careOfFace({ ...plain, glazing: null, curved: { ...bent.curved!, stamp: 'laminated', defroster: null, zones: [], ...more }, ...own });

describe('what may touch the face that gets the film (common practice)', () => {
  test('glass of which nothing is known is asked about, each with what is missing', () => {
    expect(careOfFace({ ...plain, glazing: null })).toEqual({ care: 'ask', why: 'Nobody has said what glass it is.' });
    expect(of({ kind: 'unknown' })).toEqual({ care: 'ask', why: 'Nobody has said what kind of glass it is.' });
    expect(of({ coating: 'unknown' })).toEqual({ care: 'ask', why: 'Nobody has said whether it is coated.' });
    expect(careOfFace(newPane({ id: office.id, jobId: office.jobId, placeId: office.placeId, name: 'W9', order: 9 })).care).toBe('ask');
  });
  test('plain float takes the blade, laminated too; both say why', () => {
    expect(of({})).toEqual({ care: 'blade', why: 'Not hardened, not coated on this face.' });
    expect(of({ kind: 'laminated' })).toEqual({ care: 'blade', why: 'Laminated, not coated on this face.' });
    expect(curved({})).toEqual({ care: 'blade', why: 'Laminated, not coated on this face.' });
  });
  test('hardened glass is felt for grit first', () => {
    for (const kind of ['tempered', 'heat-strengthened'] as const) expect(of({ kind }).why).toContain('grit in its surface');
    expect(curved({ stamp: 'tempered' }).why).toContain('mostly tempered');
  });
  test('plastic and a coating on the face that is worked never see a blade; a coating on its other face does not matter', () => {
    expect(of({ kind: 'plastic' }).care).toBe('pad');
    expect(curved({ stamp: 'plastic' }).care).toBe('pad');
    expect(of({ coating: 'low-e-hard', coatingFace: 'inner' }).care).toBe('pad');
    expect(of({ coating: 'low-e-hard', coatingFace: 'outer' }).care).toBe('blade');
    expect(of({ coating: 'low-e-hard', coatingFace: 'outer' }, { filmFace: 'street' }).care).toBe('pad');
  });
  test('of a unit the pane that is worked on counts: the last one from the room, the first from the street', () => {
    const unit = { ...plain.glazing!, panes: [{ ...clear, kind: 'tempered' as const }, clear], cavities: [{ gas: 'air' as const, widthMm: 16 }] };
    expect(careOfFace({ ...plain, glazing: unit }).care).toBe('blade');
    expect(careOfFace({ ...plain, glazing: unit, filmFace: 'street' }).care).toBe('ask');
  });
  test('printed lines take the pad along them, from the room only: outside there are none', () => {
    const antenna = { zones: [{ ...(bent.curved!.zones[0] ?? {}), kind: 'antenna' }] } as never;
    expect(curved(antenna).care).toBe('pad');
    expect(curved(antenna, { filmFace: 'street' }).care).toBe('blade');
  });
  test('what was felt on the spot settles what is open, and never takes back what is known', () => {
    const felt = (found: Pane['workedFace'], glass: Partial<Glass> = {}) => of({ kind: 'tempered', ...glass }, { workedFace: found }).care;
    expect([felt('plain'), felt('grit'), felt('grit-agreed'), felt('lines'), felt('coated')]).toEqual(['blade', 'pad', 'one-way', 'pad', 'pad']);
    expect(felt('plain', { kind: 'plastic' })).toBe('pad');
    expect(felt('plain', { coating: 'low-e-hard', coatingFace: 'inner' })).toBe('pad');
  });
});
