import { panesIn } from './panes-in.js';
import { shapeKind } from '@yellow-pane/contracts';
import { cutOfSurface, surveySurface, Memo } from '../../core/src/index.js';
import { demoFirm, lanternStreet, ternPoint } from './index.js';

const memo = new Memo();

const file = ternPoint();
const surveyOf = (name: string) =>
  surveySurface(
    panesIn(file).find((s) => s.name === name)!,
    { ...file, memo },
  ).survey;

describe('Tern Point', () => {
  test('is the same every time it is laid out', () => expect(ternPoint()).toEqual(file));
  test('has 60 flat panes in 10 places, seven rolls and five leftovers', () =>
    expect([
      file.surfaces.length,
      file.places.length,
      file.rolls.filter((r) => r.form === 'roll').length,
      file.rolls.filter((r) => r.form === 'leftover').length,
    ]).toEqual([60, 10, 7, 5]));
  test('most panes have two tapes, some are fully taped', () => {
    const status = panesIn(file).map((s) => surveySurface(s, { ...file, memo }).survey.status);
    expect(status.filter((s) => s === 'two-tapes').length).toBeGreaterThan(20);
    expect(status.filter((s) => s === 'agreeing').length).toBeGreaterThan(5);
  });
  test('every design lies on its pane, and the two hall panes are wider than any roll', () => {
    for (const s of panesIn(file).filter((x) => x.design)) {
      const cut = cutOfSurface(s, { firm: demoFirm, job: file.job, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, memo }, file.films.find((f) => f.id === s.filmId)!); // prettier-ignore
      expect([s.name, 'blocked' in cut.answer ? cut.answer.blocked : cut.pieces.length > 0]).toEqual([s.name, true]);
    }
    const widest = Math.max(...file.rolls.map((r) => r.widthMm));
    for (const name of ['G1', 'G2']) for (const t of file.readings.filter((r) => r.surfaceId === panesIn(file).find((s) => s.name === name)!.id)) expect(t.lengthMm).toBeGreaterThan(widest); // prettier-ignore
  });
  test('one planted slip and one bowed side, and nothing else in doubt', () => {
    const doubtful = panesIn(file)
      .filter((s) => surveySurface(s, { ...file, memo }).survey.status === 'doubtful')
      .map((s) => s.name);
    expect(doubtful).toEqual(['Toilet 2', 'Toilet 3']);
    expect(surveyOf('Toilet 2').suspects[0]!.hypothesis).toEqual({ kind: 'slip', measure: 'widthBottom' });
    expect(surveyOf('Toilet 3').suspects[0]!.hypothesis.kind).toBe('bowed');
  });
  test('the arches, rakes, stair panes and the round window agree with themselves', () => {
    for (const name of ['T1', 'T6', 'S2', 'Q1', 'Round', 'C1', 'C2', 'Lancet', 'Fan left', 'Fan right', 'Gable 1', 'Lantern'])
      expect([name, surveyOf(name).status]).toEqual([name, 'agreeing']);
  });
  test('has a pane of every outline that a tape or a drawing can give, and its pieces hold the whole outline', () => {
    expect(new Set(panesIn(file).flatMap((s) => s.shape?.kind ?? []))).toEqual(new Set(shapeKind.options));
    for (const s of panesIn(file).filter((x) => x.shape)) {
      const cut = cutOfSurface(s, { firm: demoFirm, job: file.job, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, memo }, file.films.find((f) => f.id === s.filmId)!); // prettier-ignore
      expect([s.name, cut.pieces.length]).toEqual([s.name, 1]);
    }
  });
  test('the office doors were taped in inches', () => {
    const door = panesIn(file).find((s) => s.name === 'D1')!;
    expect(file.readings.filter((r) => r.surfaceId === door.id).map((r) => [r.typed, r.unit, r.lengthMm])).toEqual([
      ['18 1/2"', 'in', 469.9],
      ['24"', 'in', 609.5999999999999],
    ]);
  });
});

test('the small job is in inches throughout', () => {
  expect(lanternStreet().job.units).toBe('in');
  expect(lanternStreet().readings.every((r) => r.unit === 'in')).toBe(true);
  expect(lanternStreet().job.firmId).toBe(demoFirm.id);
});
