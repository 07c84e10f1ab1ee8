import type { Sign } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { dryOutline } from '../check/index.js';
import { verdictOnGround } from '../choose/index.js';
import { Memo } from '../ground/index.js';
import { dryAreaM2 } from '../measure/index.js';
import { dryKit, promoterMm } from './dry-kit.js';
import { sheetOfSurface } from './lay-job.js';
import type { LayRecords } from './lay-records.js';
import { unknownFigures } from './run-sheet.js';
import { signFigures } from './sign-sheet.js';
import { signSteps } from './sign-steps.js';

const file = ternInterior();
const canvas = file.surfaces.find((s): s is Sign => s.kind === 'sign')!;
function asked(own: Partial<Sign> = {}): { surface: Sign; records: LayRecords } {
  const surface = { ...canvas, ...own };
  const surfaces = file.surfaces.map((s) => (s.id === surface.id ? surface : s));
  return { surface, records: { ...file, firm: demoFirm, memo: new Memo(), surfaces } as LayRecords };
}
const sheet = (own: Partial<Sign> = {}) => {
  const { surface, records } = asked(own);
  return sheetOfSurface(surface, records);
};
const keys = (own: Partial<Sign> = {}) => sheet(own)!.steps.map((s) => s.key.replace('sign-', ''));
const step = (key: string, own: Partial<Sign> = {}) => sheet(own)!.steps.find((s) => s.key === `sign-${key}`)!;

describe('the steps of a sign', () => {
  test('on a canvas: a board behind it, tape off in small parts before any heat, then heat (common practice)', () => {
    expect(keys()).toEqual(['clear', 'board', 'clean', 'weed', 'place', 'hang', 'hinge-top', 'hinge-middle', 'lay', 'next', 'tape-off-parts', 'heat', 'truth', 'look', 'back-on']); // prettier-ignore
    expect(step('heat').text).toMatch(/pat it .* never rub\. Aim the air away from letters that are finished/);
    expect(step('heat').caution).toContain('This film takes no more than 70 °C.');
  });
  test('on a smooth board: no board behind, no heat', () => {
    expect(keys({ what: 'board', texture: 'smooth', hardware: [] })).toEqual([
      'clean',
      'weed',
      'place',
      'hang',
      'hinge-top',
      'hinge-middle',
      'lay',
      'next',
      'tape-off',
      'look',
    ]);
  });
  test('one short line needs neither the hinge of long sheets nor a next one', () => {
    const one = { lines: canvas.lines.filter((l) => l.is === 'figure') };
    expect(keys(one)).toContain('hinge-top');
    for (const key of ['hinge-middle', 'next']) expect(keys(one)).not.toContain(key);
  });
  test('where each line comes, the gap of a parted one, and from where to look, in the units of the job', () => {
    expect(step('place').text).toContain('“Departures”: 140 mm above the foot, from 330 mm to 1138 mm from the left.');
    expect(step('next').text).toContain('155 mm');
    expect(step('hinge-middle').text).toContain('longer than 600 mm');
    expect(step('hang').text).toContain('then from 10 m');
    expect(step('clear').text).toBe('Nothing comes off. Letters keep off: Eyelet. Old letters: warm, off at a flat angle, their glue with them.');
    for (const s of sheet()!.steps) expect(s.text).not.toMatch(/[{}]/);
    for (const r of signSteps) expect(unknownFigures(r)).toEqual([]);
  });
  test('it cannot be laid without letters, a size or film; what nobody felt is asked about', () => {
    expect(sheet({ lines: [] })).toBeNull();
    expect(sheet({ filmId: null })).toBeNull();
    const { surface, records } = asked({ texture: 'unknown' });
    expect(signFigures(surface, records)!.ask).toContain('Feel the ground first');
  });
});

describe('what a sign needs', () => {
  test('transfer tape over its sheets, a board behind canvas, the gun for texture; no promoter', () => {
    const { surface, records } = asked();
    const kit = dryKit([surface], records, 2100);
    const line = (key: string) => kit.find((k) => k.key === key);
    // 836 × 238 + 1011 × 238 + 838 × 167 + 206 × 160 mm
    expect(line('sign-tape')!.howMuch).toBe('0.7 m²');
    expect(line('sign-board')).toBeDefined();
    expect(line('sign-heat')!.caution).toContain('extinguisher');
    expect(promoterMm(surface, records)).toBe(0);
    const smooth = asked({ what: 'board', texture: 'smooth' });
    const keysOfSmooth = dryKit([smooth.surface], smooth.records, 2100).map((k) => k.key);
    for (const key of ['sign-heat', 'sign-board']) expect(keysOfSmooth).not.toContain(key);
  });
  test('what is wiped is where letters come; pins go on all of the ground', () => {
    const { surface, records } = asked();
    expect(dryAreaM2(surface, records)).toBeCloseTo(0.535, 2);
    expect(dryOutline(surface, records)!.length).toBe(4);
    expect(dryAreaM2({ ...surface, lines: [] }, records)).toBeNull();
  });
  test('film for letters suits a sign, and is asked about where it would cover a whole ground', () => {
    const film = file.films.find((f) => f.id === canvas.filmId)!;
    expect(verdictOnGround(film, canvas.ground, '2026-12-03', true).grade).toBe('suits');
    expect(verdictOnGround(film, canvas.ground, '2026-12-03').grade).toBe('ask');
    expect(verdictOnGround(film, { ...canvas.ground, material: 'brick' }, '2026-12-03', true).reasons[0]!.words).toContain('cast film rather than calendered');
    expect(verdictOnGround({ ...film, kind: 'interior' }, canvas.ground, '2026-12-03', true).grade).toBe('ask');
  });
});
