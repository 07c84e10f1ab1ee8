import { surveySurface } from '../../core/src/index.js';
import { demoFirm, lanternStreet, ternPoint } from './index.js';

const file = ternPoint();
const surveyOf = (name: string) =>
  surveySurface(
    file.surfaces.find((s) => s.name === name)!,
    file,
  ).survey;

describe('Tern Point', () => {
  test('is the same every time it is laid out', () => expect(ternPoint()).toEqual(file));
  test('has 46 flat panes in 7 places and three rolls', () => expect([file.surfaces.length, file.places.length, file.rolls.length]).toEqual([46, 7, 3]));
  test('most panes have two tapes, some are fully taped', () => {
    const status = file.surfaces.map((s) => surveySurface(s, file).survey.status);
    expect(status.filter((s) => s === 'two-tapes').length).toBeGreaterThan(20);
    expect(status.filter((s) => s === 'agreeing').length).toBeGreaterThan(5);
  });
  test('one planted slip and one bowed side, and nothing else in doubt', () => {
    const doubtful = file.surfaces.filter((s) => surveySurface(s, file).survey.status === 'doubtful').map((s) => s.name);
    expect(doubtful).toEqual(['Toilet 2', 'Toilet 3']);
    expect(surveyOf('Toilet 2').suspects[0]!.hypothesis).toEqual({ kind: 'slip', measure: 'widthBottom' });
    expect(surveyOf('Toilet 3').suspects[0]!.hypothesis.kind).toBe('bowed');
  });
  test('the arches, rakes, stair panes and the round window agree with themselves', () => {
    for (const name of ['T1', 'T6', 'S2', 'Q1', 'Round']) expect([name, surveyOf(name).status]).toEqual([name, 'agreeing']);
  });
  test('the office doors were taped in inches', () => {
    const door = file.surfaces.find((s) => s.name === 'D1')!;
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
