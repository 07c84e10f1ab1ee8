import type { Ground } from '@yellow-pane/contracts';
import { verdictOnGround } from './ground-verdict.js';

const film = { name: 'Ash Plank', kind: 'interior', drying: 'dry-applied', mounting: 'not-on-glass' } as const;
const sound: Ground = {
  material: 'steel',
  finish: 'painted',
  madeOn: '2024-05-02',
  gloss: 'satin',
  state: 'sound',
  isDamp: false,
  isGreasy: false,
  surfaceTempC: 19,
};
const on = (more: Partial<Ground>, day = '2026-12-01') => verdictOnGround(film, { ...sound, ...more }, day);
const words = (more: Partial<Ground>, day?: string) => on(more, day).reasons.map((r) => r.words).join(' '); // prettier-ignore

describe('film that is laid dry, on what it is laid (common practice)', () => {
  test('suits sound old satin paint at room temperature', () => expect(on({})).toEqual({ grade: 'suits', reasons: [], needsPatch: false }));
  test('a ground nobody has looked at is asked about, and a patch tried', () => {
    expect(on({ material: 'unknown' })).toMatchObject({ grade: 'ask', needsPatch: true });
    expect(on({ finish: 'unknown' }).grade).toBe('ask');
  });
  test('none on paint that lets go, none where it is damp', () => {
    expect(on({ state: 'peeling' }).grade).toBe('do-not');
    expect(words({ state: 'chalking' })).toContain('lead');
    expect(on({ isDamp: true }).grade).toBe('do-not');
  });
  test('paint waits 30 days, concrete 28: the day it may go on is named', () => {
    expect(words({ madeOn: '2026-11-15' })).toBe('Paint stands 30 days before film goes on: not before 2026-12-15.');
    expect(on({ madeOn: '2026-11-01' }).grade).toBe('suits');
    expect(on({ madeOn: '2026-11-01' }, '2026-11-30').grade).toBe('do-not');
    expect(words({ material: 'concrete', finish: 'bare', madeOn: '2026-11-15' })).toContain('not before 2026-12-13');
    expect(words({ material: 'concrete', finish: 'bare', madeOn: '2026-11-03' })).not.toContain('not before');
  });
  test('bare grounds that drink are primed, grease is washed off, holes are filled', () => {
    for (const material of ['plaster', 'plasterboard', 'concrete', 'brick', 'wood', 'wood-board'] as const)
      expect(words({ material, finish: 'bare' })).toContain('prime it');
    expect(words({ material: 'steel', finish: 'bare' })).not.toContain('prime it');
    expect(on({ isGreasy: true }).grade).toBe('prepare');
    expect(on({ state: 'damaged' }).grade).toBe('prepare');
  });
  test('gloss paint, and paint of unknown age that nobody tried, get a patch first', () => {
    expect(on({ gloss: 'gloss' })).toMatchObject({ grade: 'ask', needsPatch: true });
    expect(on({ madeOn: null, state: 'unknown' })).toMatchObject({ grade: 'ask', needsPatch: true });
    expect(on({ madeOn: null }).grade).toBe('suits');
  });
  test('concrete that nobody measured is asked whether it is dry', () =>
    expect(words({ material: 'concrete', isDamp: null })).toContain('measure whether it is dry'));
  test('15 to 25 °C is where it may be laid, both included', () => {
    expect([15, 25].map((surfaceTempC) => on({ surfaceTempC }).grade)).toEqual(['suits', 'suits']);
    expect([14.9, 25.1].map((surfaceTempC) => on({ surfaceTempC }).grade)).toEqual(['prepare', 'prepare']);
    expect(on({ surfaceTempC: null }).grade).toBe('suits');
  });
  test('each kind of film has its grounds: thick film none that is rough, film for rough walls none that is smooth, letters none as a whole', () => {
    const kind = (k: 'interior' | 'textured-wall' | 'lettering' | 'cast-wrap', ground: Partial<Ground>) =>
      verdictOnGround({ ...film, kind: k }, { ...sound, ...ground }, '2026-12-01').grade;
    expect(['brick', 'steel'].map((material) => kind('interior', { material: material as Ground['material'] }))).toEqual(['prepare', 'suits']);
    expect(['brick', 'steel'].map((material) => kind('textured-wall', { material: material as Ground['material'] }))).toEqual(['suits', 'ask']);
    expect([kind('lettering', {}), kind('cast-wrap', {})]).toEqual(['ask', 'suits']);
  });
  test('film for glass goes on none of it, and the hardest reason counts', () => {
    const wet = verdictOnGround({ name: 'Tern Shade 35', kind: 'solar', drying: 'medium', mounting: 'inside' }, { ...sound, isGreasy: true }, '2026-12-01');
    expect(wet.grade).toBe('do-not');
    expect(wet.reasons).toHaveLength(2);
  });
});
