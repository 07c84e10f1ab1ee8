import { readFileSync } from 'node:fs';
import { ternInterior } from '../../demo/src/index.js';
import {
  defaultLaySettings,
  defaultPrepareSettings,
  layReading,
  ground,
  jobFile,
  newSurface,
  surface,
  surfaceKinds,
  unknownGround,
  upgradedJobFile,
  upgradedPatch,
  upgradedRecord,
  upgrades,
  type SurfaceKind,
} from './index.js';

/** A job file as version 8 wrote it: the inch job of the demo, before surfaces had kinds. */
const fixture = (): Record<string, unknown> & { surfaces: Record<string, unknown>[] } =>
  JSON.parse(readFileSync(new URL('./fixtures/job-file-8.json', import.meta.url), 'utf8')) as never;
/** What each version did not know yet, on the records of the one after it. */
const notYet: Readonly<Record<number, { readonly file?: readonly string[]; readonly job?: readonly string[]; readonly surface?: readonly string[] }>> = {
  1: { job: ['choose'], surface: ['glazing', 'exposure', 'choose'] },
  2: { file: ['stockEntries', 'plotRuns'], surface: ['seam', 'design', 'servedById'] },
  3: { file: ['layEntries', 'stepSets'], job: ['lay'] },
  4: { surface: ['curved'] },
  5: { surface: ['workedFace'] },
};
const without = (r: Record<string, unknown>, fields: readonly string[] = []) => Object.fromEntries(Object.entries(r).filter(([k]) => !fields.includes(k)));
/** The fixture as a version of before would have written it. */
function ofVersion(version: number): unknown {
  let f: Record<string, unknown> = { ...fixture(), formatVersion: version };
  for (let v = 5; v >= version; v--) {
    const gone = notYet[v];
    f = { ...without(f, gone?.file), job: without(f['job'] as never, gone?.job), surfaces: (f['surfaces'] as Record<string, unknown>[]).map((s) => without(s, gone?.surface)) }; // prettier-ignore
  }
  return f;
}

test.each([1, 2, 3, 4, 5, 6, 7, 8])('a job file of version %d reads: every surface is a pane, and nothing that it knew is lost', (version) => {
  const old = ofVersion(version) as { surfaces: Record<string, unknown>[]; readings: unknown[] };
  const read = jobFile.parse(upgradedJobFile(old));
  expect(read.surfaces.map((s) => s.kind)).toEqual(old.surfaces.map(() => 'pane'));
  expect(read.surfaces).toMatchObject(old.surfaces.map((s) => ({ ...s, kind: 'pane' })));
  expect(read.readings).toEqual(old.readings);
  expect(jobFile.parse(JSON.parse(JSON.stringify({ ...read, formatVersion: 17 })))).toEqual({ ...read, formatVersion: 17 });
});
test('a job file of version 16 reads: its drops hang one way, its corners are sharp, its gun is held straight on, one person presses joints, and nobody knows when film is read', () => {
  const file = ternInterior();
  const { jointHands: _h, ...lay } = defaultLaySettings;
  const { angleDeg: _a, ...gun } = lay.gun;
  const old = {
    ...file,
    formatVersion: 16,
    job: { ...file.job, lay: { ...lay, gun } },
    films: file.films.map((f) => without(f as never, ['readAfterS'])),
    surfaces: file.surfaces.map((s) => without(s as never, ['hanging', 'lie', 'corners'])),
  };
  const read = jobFile.parse(upgradedJobFile(JSON.parse(JSON.stringify(old))));
  expect([read.job.lay!.gun.angleDeg, read.job.lay!.jointHands]).toEqual([90, 'one']);
  for (const f of read.films) expect(f.readAfterS).toBeNull();
  const ofKind = (kind: SurfaceKind) => read.surfaces.filter((s) => s.kind === kind);
  expect(ofKind('wall').length * ofKind('panel').length).toBeGreaterThan(0);
  for (const s of read.surfaces) {
    if (s.kind === 'wall') expect([s.hanging, s.lie]).toEqual(['one-way', 'upright']);
    if (s.kind === 'panel') expect(s.corners).toBeNull();
  }
});
test('a job file of version 14 reads: its gun is the usual one, what was read in it was glass', () => {
  const file = ternInterior();
  const { gun: _g, ...lay } = defaultLaySettings;
  const old = { ...file, formatVersion: 14, job: { ...file.job, lay } };
  const read = jobFile.parse(upgradedJobFile(JSON.parse(JSON.stringify(old))));
  expect(read.job.lay).toEqual(defaultLaySettings);
  expect(layReading.parse({ what: 'glass', valueC: 17.5 })).toEqual({ what: 'glass', valueC: 17.5 });
});
test('a job file of version 13 reads: its walls run straight, its leaves stand alone with their heads as the film allows, its primer is thinned with water', () => {
  const file = ternInterior();
  const { primer: _p, ...prepare } = defaultPrepareSettings;
  const old = {
    ...file,
    formatVersion: 13,
    job: { ...file.job, prepare },
    surfaces: file.surfaces.map((s) => without(s as never, ['breaks', 'head', 'besideId', 'ends'])),
  };
  const read = jobFile.parse(upgradedJobFile(JSON.parse(JSON.stringify(old))));
  expect(read.job.prepare!.primer).toBe('water');
  for (const s of read.surfaces) {
    if (s.kind === 'wall') expect(s.breaks).toEqual([]);
    if (s.kind === 'panel') expect([s.head, s.besideId]).toEqual(['any', null]);
    if (s.kind === 'counter') expect(s.besideId).toBeNull();
    if (s.kind === 'column') expect(s.ends).toEqual({ foot: 'floor', head: 'ceiling' });
  }
  // all else is as it was
  const rest = (list: readonly object[]) => list.map((s) => without(s as never, ['breaks', 'head', 'besideId', 'ends']));
  expect(rest(read.surfaces)).toEqual(rest(file.surfaces));
});

test('without the upgrade it does not read: the fixture is really of before', () => {
  expect(fixture().surfaces.every((s) => s['kind'] === 'flat-pane')).toBe(true);
  expect(jobFile.safeParse(fixture()).success).toBe(false);
});

test('a surface of any kind that nobody has looked at is one that can be', () => {
  expect(ground.parse({})).toEqual(unknownGround);
  const known = {
    id: '01930000-0000-7000-8000-00000000e001',
    jobId: '01930000-0000-7000-8000-00000000e002',
    placeId: '01930000-0000-7000-8000-00000000e003',
    name: 'New',
    order: 1,
  };
  for (const kind of Object.keys(surfaceKinds) as SurfaceKind[]) expect(surface.parse(newSurface(kind, known))).toEqual(newSurface(kind, known));
});

test('only the kind that changed its shape is touched, and today’s records not at all', () => {
  const pane = { ...fixture().surfaces[0]!, kind: 'pane' };
  expect(upgradedRecord('surface', pane)).toBe(pane);
  const place = { id: 'x', kind: 'flat-pane' };
  expect(upgradedRecord('place', place)).toBe(place);
  expect(upgradedRecord('surface', null)).toBeNull();
  expect(upgradedJobFile('no file')).toBe('no file');
});

test('an edit that a device kept since then comes in as one of today', () => {
  const value = fixture().surfaces[0]!;
  const id = value['id'] as string;
  expect(upgradedPatch({ op: 'add', kind: 'surface', id, value })).toEqual({ op: 'add', kind: 'surface', id, value: { ...value, kind: 'pane' } });
  const set = { op: 'set', kind: 'surface', id, field: 'name', value: 'x' } as const;
  expect(upgradedPatch(set)).toBe(set);
});

test('every change of shape has a name and the version of the file that has it', () => {
  expect(new Set(upgrades.map((u) => u.name)).size).toBe(upgrades.length);
  for (const u of upgrades) expect(u.fileVersion).toBeGreaterThan(8);
});
