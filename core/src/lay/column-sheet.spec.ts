import type { StepSet } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { isColumn } from '../measure/index.js';
import { Memo } from '../ground/index.js';
import { columnSteps } from './column-steps.js';
import { layProgress, sheetOfSurface } from './lay-job.js';
import type { LayRecords } from './lay-records.js';
import { shippedSteps } from './shipped-steps.js';

const file = ternInterior();
const records = (more: Partial<LayRecords> = {}): LayRecords => ({ firm: demoFirm, job: file.job, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, stepSets: [], layEntries: [], memo: new Memo(), ...more }); // prettier-ignore
const column = (name: string) => file.surfaces.filter(isColumn).find((s) => s.name === name)!;
const steps = (name: string, r = records()) => sheetOfSurface(column(name), r)!.steps;

describe('the steps of a column', () => {
  test('check, clean, plumb, promoter, strip, round, seam, trim, feel: with this column’s own figures', () => {
    expect(steps('Column 2').map((s) => s.key)).toEqual(columnSteps.map((s) => s.key));
    const all = steps('Column 2').flatMap((s) => [s.title, s.text, s.purpose, s.good, ...s.tools, s.caution ?? '']);
    expect(all.filter((t) => /[{}]/.test(t))).toEqual([]);
    expect(steps('Column 2')[0]!.text).toMatch(/\(1260 mm\).*\(2504 mm\)/);
    // 50 mm at a time
    expect(steps('Column 2').find((s) => s.key === 'column-round')!.text).toContain('About 26 times');
  });
  test('promoter waits 5 to 15 minutes before the seam, and warns of vapour', () => {
    const promoter = steps('Column 2').find((s) => s.key === 'column-promoter')!;
    expect(promoter.wait!.minutes).toBeGreaterThanOrEqual(5);
    expect(promoter.wait!.minutes).toBeLessThanOrEqual(15);
    expect(promoter.caution).toMatch(/no flame/);
  });
  test('a lap that grows is trimmed only where it does, and only by that school', () => {
    const seam = (name: string, r?: LayRecords) => steps(name, r).find((s) => s.key === 'column-seam')!.text;
    expect(seam('Column 1')).toContain('lift the wedge');
    expect(seam('Column 2')).not.toContain('wedge');
    expect(seam('Column 1', records({ job: { ...file.job, dry: { taper: 'wedge' } } }))).not.toContain('wedge');
  });
  test('a version of the firm’s steps from before there were any has those that ship; its own go before them', () => {
    const old: StepSet = {
      ...shippedSteps(demoFirm.id),
      id: '01930000-0000-7000-8000-00000000c001',
      version: 2,
      steps: shippedSteps(demoFirm.id).steps.filter((s) => !s.when.surface),
    };
    expect(steps('Column 2', records({ stepSets: [old] })).map((s) => s.key)).toEqual(columnSteps.map((s) => s.key));
    const own: StepSet = { ...old, steps: [...old.steps, { ...columnSteps[0]!, key: 'ours' }] };
    expect(steps('Column 2', records({ stepSets: [own] })).map((s) => s.key)).toEqual(['ours']);
  });
  test('what the ground forbids, and what keeps the piece from being cut, is said at the first step', () => {
    const surfaces = file.surfaces.map((s) => (isColumn(s) ? { ...s, ground: { ...s.ground, state: 'peeling' as const } } : s));
    const known = sheetOfSurface(surfaces.filter(isColumn)[1]!, records({ surfaces }))!;
    expect(known.steps[0]!.caution).toContain('lead');
  });
  test('without film, or with film for glass, it is not on the list', () => {
    const bare = file.surfaces.map((s) => ({ ...s, filmId: null }));
    expect(layProgress(records({ surfaces: bare })).size).toBe(0);
    expect([...layProgress(records()).values()].map((p) => p.state)).toEqual(file.surfaces.map(() => 'not-begun'));
  });
});
