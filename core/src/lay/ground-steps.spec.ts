import { defaultPrepareSettings, type Ground, type LayEntry, type LayKind } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { isColumn } from '../measure/index.js';
import { stepsOfGround } from './ground-steps.js';
import { sheetOfSurface } from './lay-job.js';
import type { LayRecords } from './lay-records.js';
import { nextStep, paneProgress } from './progress.js';

const sound: Ground = {
  material: 'wood-board',
  finish: 'lacquered',
  madeOn: '2024-05-02',
  gloss: 'satin',
  state: 'sound',
  isDamp: false,
  isGreasy: false,
  surfaceTempC: 19,
};
const worn: Ground = { ...sound, finish: 'bare', madeOn: null, state: 'damaged', isGreasy: true };
const keys = (g: Ground) => stepsOfGround(g, 2, null).map((s) => s.key.replace('ground-', ''));
const step = (key: string, g = worn, areaM2 = 2, prepare = defaultPrepareSettings) => stepsOfGround(g, areaM2, prepare).find((s) => s.key === `ground-${key}`)!;

describe('what the ground needs, as steps that are logged', () => {
  test('a sound clean ground needs nothing before the last wipe, which is a step of its kind', () => expect(keys(sound)).toEqual([]));
  test('fill, dry by hand, sand, degrease, rinse, dry, prime, dry, sand, dust: in this order (common practice)', () =>
    expect(keys(worn)).toEqual(['putty', 'putty-proven', 'sand', 'degrease', 'rinse', 'rinse-proven', 'primer', 'primer-proven', 'sand-primer', 'dust']));
  test('what is only greasy is washed, rinsed and left to dry; nothing was sanded, so no dust', () =>
    expect(keys({ ...sound, isGreasy: true })).toEqual(['degrease', 'rinse', 'rinse-proven']));
  test('a cold one is warmed and read', () => expect(keys({ ...sound, surfaceTempC: 9 })).toEqual(['warm', 'warm-proven']));
  test('water-based primer waits over two hours a coat, solvent-based over one (common practice), at 20 °C and 50 %; longer where the room is cold and damp', () => {
    const at = (airC: number, humidityPct: number, primer: 'water' | 'solvent') =>
      step('primer', worn, 2, { ...defaultPrepareSettings, primer, typed: { ...defaultPrepareSettings.typed, roomC: airC, roomHumidityPct: humidityPct } })
        .wait!.minutes;
    // two coats on bare board
    expect(at(20, 50, 'water')).toBe(240);
    expect(at(20, 50, 'solvent')).toBe(120);
    expect(at(12, 75, 'water')).toBeGreaterThan(600);
    expect(at(10, 50, 'solvent')).toBe(240);
  });
  test('nothing counts as dry before the hand has found it so: a step of its own after each wait', () => {
    expect(step('primer-proven').text).toBe('The hand goes before the clock. Go on when: Dry to the back of the hand: not cool, not tacky.');
    expect(step('putty').wait!.what).toBe('putty is drying');
    expect(step('rinse').wait!.minutes).toBeGreaterThanOrEqual(8 * 60);
  });
  test('two coats take twice as long to put on, and a large face longer than a small one', () => {
    expect(step('primer').minutes).toEqual({ fixed: 10, perM2: 8, perM: 0 });
    expect(step('sand').minutes.perM2).toBeGreaterThan(0);
  });
  test('cautions stand at the step where they bite: lead before it is sanded, vapour before the gun', () => {
    expect(step('sand', { ...worn, finish: 'painted' }).caution).toContain('lead');
    expect(step('primer', worn, 2, { ...defaultPrepareSettings, primer: 'solvent' }).caution).toMatch(/no flame, no gun/);
    expect(step('degrease').caution).toContain('Gloves and glasses');
  });
});

describe('on the run sheet of a column', () => {
  const file = ternInterior();
  const surfaces = file.surfaces.map((s) => (isColumn(s) ? { ...s, ground: { ...s.ground, state: 'damaged' as const } } : s));
  const records = { ...file, firm: demoFirm, memo: new Memo(), surfaces, stepSets: [], layEntries: [] } as unknown as LayRecords;
  const column = surfaces.find((s) => isColumn(s) && s.name === 'Column 2')!;
  const { steps } = sheetOfSurface(column, records)!;
  const at = (time: string) => `2026-12-03T${time}:00.000Z`;
  let n = 0;
  const line = (kind: LayKind, time: string, stepKey: string | null = null): LayEntry =>
    ({ id: `e${++n}`, jobId: file.job.id, surfaceId: column.id, personId: 'Ana', occurredAt: at(time), clockOffsetMs: 0, receivedAt: at(time), stepSetId: 's', kind, stepKey, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null }); // prettier-ignore

  test('they come first, and carry what has to be asked', () => {
    expect(steps[0]!.key).toBe('ground-putty');
    expect(steps.find((s) => !s.key.startsWith('ground-'))!.key).toMatch(/^column-/);
    // steel drinks no primer
    expect(steps.some((s) => s.key === 'ground-primer')).toBe(false);
  });
  test('what comes off does so first: nobody washes round a live strike plate', () => {
    const door = { ...file.surfaces.find((s) => s.name === 'Door 3')! } as (typeof file.surfaces)[number] & { kind: 'panel' };
    const keysOf = sheetOfSurface({ ...door, ground: { ...door.ground, isGreasy: true } }, records)!.steps.map((s) => s.key);
    expect(keysOf.indexOf('panel-hardware')).toBe(0);
    expect(keysOf.indexOf('ground-degrease')).toBe(1);
    expect(keysOf.indexOf('panel-clean')).toBeGreaterThan(keysOf.indexOf('ground-rinse-proven'));
  });
  test('a wait runs when its step is done, and ends when the hand has proven it, whatever the clock says', () => {
    const done = line('step-done', '08:00', 'ground-putty');
    const waiting = paneProgress([done], steps);
    expect(waiting.waits.map((w) => w.what)).toEqual(['putty is drying']);
    expect(Date.parse(waiting.waits[0]!.until) - Date.parse(at('08:00'))).toBe(steps[0]!.wait!.minutes * 60_000);
    expect(nextStep(steps, waiting.done)!.key).toBe('ground-putty-proven');
    const proven = paneProgress([done, line('step-done', '09:10', 'ground-putty-proven')], steps);
    expect([proven.waits, nextStep(steps, proven.done)!.key]).toEqual([[], 'ground-sand']);
  });
  test('who is past it is not sent back: a job that was begun before its ground had steps goes on where it was', () => {
    const begun = paneProgress([line('begin', '08:00'), line('step-done', '08:05', 'column-check'), line('step-done', '08:10', 'column-clean')], steps);
    expect(nextStep(steps, begun.done)!.key).toBe('column-plumb');
    // nor is anything waited for that nobody minded
    const wet = paneProgress([line('step-done', '08:00', 'ground-putty'), line('step-done', '08:30', 'column-check')], steps);
    expect(wet.waits.map((w) => w.what)).not.toContain('putty is drying');
  });
  test('with one tap for the whole column nothing of its ground is waited for: it lies under film', () => {
    const laid = paneProgress([line('pane-done', '15:00')], steps);
    expect(laid.waits.map((w) => w.what).filter((w) => /putty|primer|ground/.test(w))).toEqual([]);
    const begun = paneProgress([line('step-done', '14:30', 'ground-primer'), line('pane-done', '15:00')], steps);
    expect(begun.waits.map((w) => w.what)).not.toContain('primer is drying');
  });
});
