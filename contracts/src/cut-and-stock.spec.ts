import { design, heightZone, jobFile, layoutInput, lengthFrom, newRoll, newPane, plotSettings, roll, routes, seam, surface } from './index.js';

const id = '01930000-0000-7000-8000-000000000001';
const faultsOf = (r: { success: boolean; error?: { issues: { path: PropertyKey[]; message: string }[] } }) =>
  (r.error?.issues ?? []).map((i) => `${i.path.join('.')}: ${i.message}`);

describe('what a seam, a design and a roll may be', () => {
  test('a seam has one line at least, and no more than twenty', () => {
    expect(seam.safeParse({ kind: 'overlap', direction: 'upright', atMm: [900] }).success).toBe(true);
    expect(faultsOf(seam.safeParse({ kind: 'glued', direction: 'upright', atMm: [900] }))[0]).toMatch(/^kind/);
    expect(seam.safeParse({ kind: 'butt', direction: 'level', atMm: [] }).success).toBe(false);
    expect(seam.safeParse({ kind: 'butt', direction: 'level', atMm: Array.from({ length: 21 }, (_, i) => i) }).success).toBe(false);
  });
  test('a band lies the right way up', () => {
    expect(heightZone.safeParse({ bottomMm: 850, topMm: 1000 }).success).toBe(true);
    expect(faultsOf(heightZone.safeParse({ bottomMm: 1000, topMm: 850 }))).toEqual(['topMm: The top of a band lies above its bottom.']);
  });
  test.each([
    ['bands without a band', { kind: 'bands', heightsFrom: 'floor', gapMm: 0, bands: [] }],
    ['heights from nowhere', { kind: 'bands', heightsFrom: 'moon', gapMm: 0, bands: [{ bottomMm: 0, topMm: 5 }] }],
    ['a figure without a path', { kind: 'figure', heightsFrom: 'sill', gapMm: 0, svgPath: ' ', widthMm: 5, acrossMm: 0, middleMm: 0 }],
    [
      'dots of no size',
      {
        kind: 'graded',
        heightsFrom: 'sill',
        gapMm: 0,
        motif: 'dots',
        zone: { bottomMm: 0, topMm: 5 },
        denseAt: 'top',
        pitchMm: 30,
        largestMm: 0,
        smallestMm: 0,
      },
    ],
    ['a kind that is none', { kind: 'marble', heightsFrom: 'sill', gapMm: 0 }],
  ])('refuses %s', (_name, value) => expect(design.safeParse(value).success).toBe(false));
  test('a roll needs a label and a width; what an older bench wrote reads with what is new as usual', () => {
    const whole = newRoll({ id, filmId: id, label: 'S-1', widthMm: 1524, lengthM: 30, pricePerM: '13.50' });
    expect(roll.parse(whole)).toEqual(whole);
    expect(faultsOf(roll.safeParse({ ...whole, label: '' }))).toEqual(['label: A roll needs a label: what you call it, or what is written on it.']);
    const old = { id, filmId: id, label: 'S-1', lot: '', widthMm: 1524, lengthM: 30, leadInMm: 0, pricePerM: '13.50', deletedAt: null };
    expect(roll.parse(old)).toMatchObject({ form: 'roll', edges: 'both', wound: null, place: '', lengthSigmaM: 0 });
  });
  test('a length is known, or found from diameters that are all there', () => {
    expect(lengthFrom.safeParse({ how: 'diameter', outsideMm: 100, coreMm: 80, thicknessUm: 100 }).success).toBe(true);
    expect(lengthFrom.safeParse({ how: 'full-roll', outsideMm: 100, coreMm: 80 }).success).toBe(false);
  });
  test('a plotter is set within what a machine can do', () => {
    const usual = { forceG: 90, speedMmPerS: 400, scaleX: 1, scaleY: 1, weeding: true, registration: true };
    expect(plotSettings.safeParse(usual).success).toBe(true);
    for (const wrong of [{ forceG: 0 }, { speedMmPerS: 5000 }, { scaleX: 1.2 }]) expect(plotSettings.safeParse({ ...usual, ...wrong }).success).toBe(false);
  });
  test('a pane of an older file has no seam, no design, and its own piece', () => {
    const { seam: _seam, design: _design, servedById: _served, ...old } = newPane({ id, jobId: id, placeId: id, name: 'W1', order: 1 });
    expect(surface.parse(old)).toMatchObject({ seam: null, design: null, servedById: null });
  });
});

describe('the calls of the API', () => {
  test('pieces without lots and repeats, as an older caller sends them, are laid as if alone', () => {
    const piece = {
      id: 'p',
      surfaceId: id,
      label: 'P',
      filmId: id,
      method: 'overhang',
      widthMm: 5,
      heightMm: 5,
      turns: [0],
      factoryEdge: null,
      trimmedEdges: [],
      why: [],
      fallback: null,
    };
    const cut = { longestPullMm: 3600, smallestStripMm: 60, crosscutAllowanceMm: 3, slitAllowanceMm: 0, largestSheetM2: null, stages: 3 };
    const read = layoutInput.parse({ filmId: id, rolls: [{ id, widthMm: 1524, availableMm: 30_000, pricePerM: 13 }], pieces: [piece], settings: cut });
    expect(read.pieces[0]).toMatchObject({ meets: null, repeat: null, isPlotted: false });
    expect([read.cutPrice, read.rolls[0]!.edges, read.settings.mixLots]).toEqual([0, 'both', false]);
  });
  test('switches in an address are read as yes and no', () => {
    const { query } = routes.plotSheet;
    expect(query.parse({})).toEqual({ weeding: true, registration: true });
    expect(query.parse({ weeding: '0' })).toEqual({ weeding: false, registration: true });
    expect(query.safeParse({ weeding: 'perhaps' }).success).toBe(false);
  });
  test('a job file of the second version reads: nothing was taken off any stock', () => {
    expect(jobFile.shape.formatVersion.safeParse(2).success).toBe(true);
    expect(jobFile.shape.stockEntries.parse(undefined)).toEqual([]);
    expect(jobFile.shape.formatVersion.safeParse(18).success).toBe(false);
  });
});
