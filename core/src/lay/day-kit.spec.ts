import { defaultPrepareSettings } from '@yellow-pane/contracts';
import { demoFirm, launchAndShuttle, ternPoint } from '../../../demo/src/index.js';
import { dayKit, type KitRecords } from './day-kit.js';
import { sheetOfSurface } from './lay-job.js';
import { Memo } from '../ground/index.js';

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
