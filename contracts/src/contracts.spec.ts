import { panesIn } from '../../demo/src/index.js';
import * as z from 'zod';
import { demoFilms, demoLibrary, lanternStreet, launchAndShuttle, ternPoint } from '../../demo/src/index.js';
import { glazing } from './choose/glazing.js';
import { errorTable } from './errors.js';
import { film, type FilmOptics } from './films/film.js';
import { jobFile } from './job-document.js';
import { lengthMm } from './quantities.js';
import { routes, type RouteDefinition } from './routes.js';
import { roll } from './stock/roll.js';

describe('the job file', () => {
  test.each([
    ['Tern Point', ternPoint()],
    ['Lantern Street', lanternStreet()],
    ['Launch and shuttle', launchAndShuttle()],
  ])('of %s is read and written without loss', (_name, file) => expect(jobFile.parse(JSON.parse(JSON.stringify(file)))).toEqual(file));

  test('is refused with the path of what is wrong', () => {
    const file = ternPoint();
    const bad = { ...file, readings: [{ ...file.readings[0], lengthMm: 'wide' }] };
    const read = jobFile.safeParse(bad);
    expect(read.success).toBe(false);
    expect(read.error!.issues[0]!.path).toEqual(['readings', 0, 'lengthMm']);
  });

  test('has a published schema with units', () => {
    const schema = z.toJSONSchema(jobFile, { unrepresentable: 'any' }) as { properties: Record<string, unknown> };
    expect(Object.keys(schema.properties)).toContain('surfaces');
    expect(z.toJSONSchema(lengthMm)).toMatchObject({ unit: 'mm', minimum: 0 });
  });
});

test('a price is an exact decimal, never a float', () => {
  const one = ternPoint().rolls[0]!;
  expect(roll.safeParse({ ...one, pricePerM: '13.60' }).success).toBe(true);
  expect(roll.safeParse({ ...one, pricePerM: 13.6 }).success).toBe(false);
  expect(roll.safeParse({ ...one, pricePerM: '13,60' }).success).toBe(false);
});

test('every refusal a call can answer stands in the error table', () => {
  for (const r of Object.values(routes) as RouteDefinition[]) for (const code of r.errors) expect(errorTable[code].sentence.length).toBeGreaterThan(20);
});

describe('a film', () => {
  const sheet = demoFilms.shade.optics!;
  const refusal = (optics: FilmOptics): string =>
    film
      .safeParse({ ...demoFilms.shade, optics })
      .error?.issues.map((i) => i.message)
      .join(' ') ?? '';

  test('every film of the library is one that can be', () => {
    for (const f of demoLibrary) expect([f.name, film.safeParse(f).error?.issues ?? []]).toEqual([f.name, []]);
    expect(demoLibrary.length).toBeGreaterThanOrEqual(30);
    expect(new Set(demoLibrary.map((f) => f.id)).size).toBe(demoLibrary.length);
  });
  test('is refused with a sentence when transmission and reflection make more than all', () =>
    expect(refusal({ ...sheet, visible: { ...sheet.visible, reflectanceGlassSideFrac: 0.7 } })).toBe(
      'In the visible band transmission 35 % and reflection 70 % on the glass side make more than 100 %. Look at the sheet again.',
    ));
  test('is refused when transmission, reflection and absorption do not make 100 %', () =>
    expect(refusal({ ...sheet, solar: { ...sheet.solar, absorptanceGlassSideFrac: 0.3 } })).toContain('add up to 85 %; they must make 100 %'));
  test('rated on glass cannot reflect less than the glass face alone', () =>
    expect(refusal({ ...sheet, visible: { ...sheet.visible, reflectanceGlassSideFrac: 0.02 } })).toContain('under 4 %'));
  test('swapped ultraviolet and light are noticed', () => expect(refusal({ ...sheet, uvTransmittanceFrac: 0.9 })).toContain('swapped'));
  test('a sheet that is rounded to whole per cents may come to 101 %, and no more', () => {
    const clear = { ...sheet, visible: { ...sheet.visible, transmittanceFrac: 0.91, reflectanceGlassSideFrac: 0.1, reflectanceFreeSideFrac: 0.1 } };
    expect(refusal(clear)).toBe('');
    expect(refusal({ ...clear, visible: { ...clear.visible, reflectanceFreeSideFrac: 0.11 } })).toContain('on the free side make more than 100 %');
    expect(refusal({ ...sheet, solar: { ...sheet.solar, absorptanceGlassSideFrac: sheet.solar.absorptanceGlassSideFrac + 0.01 } })).toBe('');
  });
  test('ultraviolet may be a little more than light where a film is rated so, up to 30 % more', () => {
    expect(refusal({ ...sheet, uvTransmittanceFrac: sheet.visible.transmittanceFrac + 0.29 })).toBe('');
    expect(refusal({ ...sheet, uvTransmittanceFrac: sheet.visible.transmittanceFrac + 0.31 })).toContain('swapped');
  });
  test('of the first version reads, with what is new not yet known', () => {
    const { id, name, version, kind, wound, direction, hatch, thicknessUm, createdAt } = demoFilms.shade;
    const read = film.parse({ id, name, version, kind, wound, direction, hatch, thicknessUm, createdAt });
    expect(read).toMatchObject({ optics: null, offers: [], retiredAt: null, mounting: 'inside' });
  });
});

test('a job file of version 1 still reads: glass, exposure and wants are not yet known', () => {
  const { glazing: _g, exposure: _e, choose: _c, ...oldSurface } = panesIn(ternPoint())[0]!;
  const { choose: _w, ...oldJob } = ternPoint().job;
  const read = jobFile.parse({ ...ternPoint(), formatVersion: 1, job: oldJob, surfaces: [oldSurface] });
  expect(panesIn(read)[0]).toMatchObject({ glazing: null, exposure: null, choose: null });
  expect(read.job.choose).toBeNull();
});

test('between each two panes of a build-up there is one cavity', () => {
  const unit = panesIn(ternPoint())[0]!.glazing!;
  expect(glazing.safeParse(unit).success).toBe(true);
  expect(glazing.safeParse({ ...unit, cavities: [] }).error!.issues[0]!.message).toContain('exactly one cavity');
});
