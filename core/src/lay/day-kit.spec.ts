import { defaultPrepareSettings } from '@yellow-pane/contracts';
import { demoFirm, launchAndShuttle, ternInterior, ternPoint } from '../../../demo/src/index.js';
import { dayKit, type KitRecords } from './day-kit.js';
import { sheetOfSurface } from './lay-job.js';
import { Memo } from '../ground/index.js';
import type { Column, Panel } from '@yellow-pane/contracts';
import { promoterMm } from './dry-kit.js';

const records = (file: ReturnType<typeof ternPoint>): KitRecords => ({ ...file, firm: demoFirm, stepSets: [], layEntries: [], memo: new Memo() });
const kit = (r: KitRecords) => dayKit(r, defaultPrepareSettings, { wetAreaM2: 10 });
const words = (r: KitRecords) => kit(r).map((l) => l.what.toLowerCase());

describe('the van is packed from what is done', () => {
  const [flat, curved] = [records(ternPoint()), records(launchAndShuttle())];
  test('every tool that a step of the day names is in the van, by its own line or by one that is counted', () => {
    for (const r of [flat, curved]) {
      const lines = kit(r);
      const all = lines.map((l) => `${l.key} ${l.what}`.toLowerCase()).join(' | ');
      const tools = r.surfaces.flatMap((s) => (s.filmId ? (sheetOfSurface(s, r)?.steps ?? []) : [])).flatMap((s) => s.tools);
      expect(tools.length).toBeGreaterThan(20);
      // what a tool is, whatever stands before or behind it: squeegee, card, gun, glove, blade …
      const names = /squeegee|card|cloth|scraper|blade|towel|film|cleaner|slip|tape|gun|glove|thermometer|pad|shields|silicone|level|mallet|knife|pencil|glasses|tabs|guard|straightedge|liner/i; // prettier-ignore
      for (const tool of new Set(tools)) expect({ tool, isIn: all.includes(names.exec(tool)?.[0].toLowerCase() ?? tool.toLowerCase()) }).toEqual({ tool, isIn: true }); // prettier-ignore
      // nothing is packed twice: what the survey takes anyway is no second line because a step names it
      for (const once of ['level', 'straightedge', 'tape measure']) expect(lines.filter((l) => l.what.toLowerCase().startsWith(once))).toHaveLength(1);
      expect(new Set(lines.map((l) => l.key)).size).toBe(lines.length);
    }
  });
  test('forming takes gun, felt card, heat glove, infrared thermometer, shields and soap; flat glass does not', () => {
    for (const tool of ['heat gun', 'felt card', 'heat glove', 'infrared thermometer', 'rubber shields', 'bar soap or slip']) {
      expect(words(curved)).toContain(tool);
      expect(words(flat)).not.toContain(tool);
    }
  });
  test('where a gun is used: extinguisher, detectors, half an hour of watch, no vapour, each with what it guards against', () => {
    const hot = kit(curved).filter((l) => l.key.startsWith('hot-'));
    expect(hot.map((l) => l.key)).toEqual(['hot-extinguisher', 'hot-detectors', 'hot-watch', 'hot-air']);
    expect(hot.find((l) => l.key === 'hot-detectors')!.caution).toMatch(/57 to 68 °C/);
    expect(kit(flat).some((l) => l.key.startsWith('hot-'))).toBe(false);
  });
  test('flat work takes tape, level, straightedge and the film itself, with the rolls that the plan names', () => {
    expect(words(flat)).toEqual(expect.arrayContaining(['tape measure', 'level', 'straightedge, 1000 mm']));
    const film = kit(flat).find((l) => l.what.startsWith('Film: '))!;
    expect(film.why).toContain('no plan names its roll yet');
  });
  test('no scraper in the van where no face may be scraped', () => {
    const scraper = (r: KitRecords) => kit(r).find((l) => l.key === 'scraper')!.what;
    expect(scraper(flat)).toContain('Scraper');
    expect(scraper({ ...flat, surfaces: flat.surfaces.map((s) => ({ ...s, workedFace: 'coated' as const })) })).toBe('Soft pads');
  });
});

describe('a job that is laid dry', () => {
  const [flat, dry] = [records(ternPoint()), records(ternInterior())];
  const line = (key: string, r = dry) => kit(r).find((l) => l.key === key);
  const named = (name: string) => dry.surfaces.find((s) => s.name === name)!;
  const only = (name: string, own: object = {}): KitRecords => ({ ...dry, surfaces: [{ ...named(name), ...own }] as never, memo: new Memo() });
  test('has a van to pack as well: film, alcohol, promoter, what its grounds ask for; no slip, no glass tools', () => {
    const keys = kit(dry).map((l) => l.key);
    expect(keys).toEqual(expect.arrayContaining(['dry-degreaser', 'dry-primer', 'dry-sand', 'dry-alcohol', 'dry-promoter', 'tape', 'level']));
    expect(keys.join()).not.toMatch(/(^|,)(slip|scraper|squeegee-)/);
    // nothing twice: a step names alcohol and promoter too
    expect(kit(dry).filter((l) => /alcohol|promoter/i.test(l.what))).toHaveLength(2);
    expect(line('dry-primer')!.why).toContain('Pier');
    expect(line('dry-degreaser')!.why).toContain('Door 1');
    expect(line('film-' + named('Door 1').filmId)!.howMuch).toBe('22 surfaces');
  });
  test('promoter by the metre: both layers of a seam, edges that film goes over, grooves (common practice: along every one of them)', () => {
    const door = { ...(named('Door 1') as Panel), grooves: [] };
    const of = (name: string, own: object = {}) => promoterMm({ ...named(name), ...own } as Panel, only(name, own));
    const face = 2040 + 2 * (1 + 0.0001 * 2040);
    expect(of('Door 1', { grooves: [] }) / 2).toBeGreaterThan(2040);
    expect(of('Door 1', { grooves: [] }) / 2).toBeLessThan(face + 2);
    expect(of('Door 1') - of('Door 1', { grooves: [] })).toBeCloseTo(2 * (600 + 700) + 2 * (600 + 880), 6);
    expect(of('Door 1', { wraps: { ...door.wraps, left: 'trimmed', right: 'trimmed' }, grooves: [] })).toBe(0);
    // a lift wall in two strips: one seam, both layers, and its groove
    expect(of('Goods lift, back wall')).toBeGreaterThan(3 * 2100);
    // a column in two pieces has two seams
    const column = named('Column 1') as Column;
    expect(promoterMm(column, dry)).toBeGreaterThan(4 * 2500);
    expect(promoterMm({ ...column, filmId: null }, only('Column 1', { filmId: null }))).toBeLessThan(2.1 * 2510);
  });
  test('how much, by hand: 60 ml of alcohol and 100 ml of promoter for a square metre, primer 0.12 l a coat and half of it thinner (house figures)', () => {
    const ml = (text: string) => Number(/([\d.]+) ml/.exec(text)?.[1] ?? 1000 * Number(/([\d.]+) l/.exec(text)![1]));
    // Column 2: 1.257 m round, 2.502 m high; rounded up to 50 ml
    expect(ml(line('dry-alcohol', only('Column 2'))!.howMuch)).toBe(Math.ceil((60 * 1.257 * 2.502) / 50) * 50);
    const promoter = line('dry-promoter')!;
    const metres = Number(/([\d.]+) m of strip/.exec(promoter.why)![1]);
    expect(metres).toBeGreaterThan(60);
    expect(Math.abs(ml(promoter.howMuch) - metres * 0.025 * 100)).toBeLessThanOrEqual(51);
    // the pier: 1.004 m round, 2.64 m high, concrete, one coat
    const put = 120 * 1.004 * 2.64;
    expect(ml(line('dry-primer', only('Pier'))!.howMuch)).toBe(Math.ceil(put / 2 / 50) * 50);
    expect(ml(line('dry-primer', only('Pier'))!.why)).toBe(Math.ceil(put / 50) * 50);
  });
  test('what is higher than one reaches takes a platform; on a job with glass as well each thing is packed once', () => {
    expect(line('ladder')!.why).toContain('Column 1');
    expect(line('ladder')!.why).not.toContain('Door 1');
    expect(line('ladder', only('Door 1'))).toBeUndefined();
    const both: KitRecords = { ...flat, surfaces: [...flat.surfaces.slice(0, 4), ...dry.surfaces], readings: [...flat.readings, ...dry.readings], films: [...flat.films, ...dry.films.filter((f) => !flat.films.some((x) => x.id === f.id))], memo: new Memo() }; // prettier-ignore
    const keys = kit(both).map((l) => l.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toEqual(expect.arrayContaining(['blade-tin', 'dry-alcohol', 'slip']));
  });
  test('a ground that is sound and dry needs no primer, putty or washing', () => {
    const keys = kit(only('Column 2')).map((l) => l.key);
    expect(keys.filter((k) => k.startsWith('dry-'))).toEqual(['dry-alcohol', 'dry-promoter']);
    expect(kit(only('Pier')).map((l) => l.key)).toEqual(expect.arrayContaining(['dry-primer', 'dry-sand']));
  });
  test('a gun comes with what hot work needs; every liquid that burns says so', () => {
    expect(kit(only('Door 1')).map((l) => l.key)).toEqual(expect.arrayContaining(['hot-extinguisher', 'hot-watch']));
    for (const key of ['dry-alcohol', 'dry-promoter', 'dry-primer']) expect(line(key)!.caution).toMatch(/no flame/);
  });
});
