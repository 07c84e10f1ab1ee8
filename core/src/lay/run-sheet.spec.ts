import type { LayRecords } from './lay-records.js';
import { panesIn } from '../../../demo/src/index.js';
import { defaultBlades, defaultLaySettings, stepSet, type LaySettings, type StepSet, type Pane } from '@yellow-pane/contracts';
import { demoFirm, launchAndShuttle, ternPoint } from '../../../demo/src/index.js';
import { defaultLay, usualBlades } from './default-lay.js';
import { layPaneOf, sheetOfSurface, squeegeeOfSurface } from './lay-job.js';
import { runSheetOf, stepSetOf, unknownFigures, type LayPane } from './run-sheet.js';
import { careOfFace } from '../choose/index.js';
import { edgeGapFor, shrinkRequestOf } from '../cut/index.js';
import { shrinkPlan } from '../form/index.js';
import { SHIPPED_STEPS_ID, shippedSteps } from './shipped-steps.js';
import { Memo } from '../ground/index.js';

const file = ternPoint();
const records: LayRecords = { firm: demoFirm, job: file.job, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, stepSets: [], layEntries: [], memo: new Memo() }; // prettier-ignore
const pane = (name: string) => panesIn(file).find((s) => s.name === name)!;
const tint: LayPane = { work: 'tint', glass: 'flat', frame: 'gasket', method: 'overhang', areaM2: 1, edgeM: 4, edgeGapMm: 1.5, overhangMm: 25, bladeMm: 300, filmName: 'Tern Shade 35', care: 'blade', careWhy: 'Not hardened.', units: 'mm' }; // prettier-ignore
const set = shippedSteps(demoFirm.id);
const keys = (p: Partial<LayPane> = {}, schools: Partial<LaySettings> = {}) =>
  runSheetOf(set, { ...tint, ...p }, { ...defaultLay, ...schools }).map((s) => s.key);
const keysOf = (p: Partial<LayPane> = {}, schools: Partial<LaySettings> = {}) => runSheetOf(set, { ...tint, ...p }, { ...defaultLay, ...schools });
const at = (list: readonly string[], key: string) => list.indexOf(key);

describe('the steps as shipped', () => {
  test('read by the contract, name no figure that does not exist, and no step asks for something no pane has', () => {
    expect(stepSet.safeParse(set).error).toBeUndefined();
    expect(set.steps.flatMap(unknownFigures)).toEqual([]);
    expect(defaultLay).toEqual(defaultLaySettings);
  });
  test('the order of the trade: lock, light pass, corners, trim, hard pass, bump, look (common practice)', () => {
    const order = keys();
    const trade = [
      'check-piece',
      'stamp',
      'wash',
      'scrape',
      'dry-edges',
      'liner-halves',
      'hang',
      'lock',
      'light',
      'corners',
      'trim-corner',
      'hard',
      'bump',
      'look',
    ];
    expect(order.filter((k) => trade.includes(k))).toEqual(trade);
  });
  test('the piece is tried before anything is wet, the glass is read before it is washed', () => {
    const order = keys();
    expect(at(order, 'check-piece')).toBeLessThan(at(order, 'wash'));
    expect(at(order, 'read-glass')).toBeLessThan(at(order, 'wash'));
    expect(runSheetOf(set, tint, defaultLay).find((s) => s.key === 'read-glass')!.reading).toBe('glass');
  });
  test('curved glass: formed outside first; film of the room side goes inside, film of the outside back to where it was formed (common practice)', () => {
    const order = (glass: LayPane['glass']) => keys({ glass }).filter((k) => k.startsWith('form-') || ['wash', 'hang', 'lock', 'bump'].includes(k));
    const formed = ['form-start', 'form-hang', 'form-line', 'form-heat', 'form-sweep'];
    expect(order('curved')).toEqual([...formed, 'form-trim', 'wash', 'form-peel', 'form-lay', 'form-quarters', 'bump', 'form-edges']);
    expect(order('curved-outside')).toEqual([...formed, 'form-lift', 'wash', 'form-back', 'form-quarters', 'form-trim-outside', 'bump', 'form-edges']);
    expect(order('flat')).toEqual(['wash', 'hang', 'lock', 'bump']);
  });
  test('the gun is on full for a tempered stamp only; laminated or chipped glass gets low heat, an unread stamp both words (common practice)', () => {
    const heat = (gun: NonNullable<LayPane['gun']>) => runSheetOf(set, { ...tint, glass: 'curved', gun }, defaultLay).find((s) => s.key === 'form-heat')!.text;
    expect(heat('full')).toMatch(/^Gun on full, 20 to 30 s to warm up\. From the root/);
    expect(heat('low')).toMatch(/^No full gun on this glass: low heat, whole pane warmed first/);
    expect(heat('low')).not.toContain('Gun on full');
    expect(heat('unproven')).toContain('Not seen: low heat');
  });
  test('the steps know the piece: seams by their kind, bands and plotted pieces by their marks, round panes without corners, cut-outs last (common practice)', () => {
    const order = (has: LayPane['has'], more: Partial<LayPane> = {}) => keys({ ...more, ...(has ? { has } : {}) });
    const own = ['weed', 'marks', 'strips', 'seam-lap', 'seam-edges', 'seam-cut', 'trim-round', 'cut-outs'];
    const only = (list: readonly string[]) => list.filter((k) => own.includes(k));
    expect(only(order(['corners']))).toEqual([]);
    expect(only(order(undefined))).toEqual([]);
    expect(only(order(['corners', 'seam-double-cut']))).toEqual(['strips', 'seam-cut']);
    expect(only(order(['corners', 'seam-overlap']))).toEqual(['strips', 'seam-lap']);
    expect(only(order(['corners', 'seam-butt']))).toEqual(['strips', 'seam-edges']);
    expect(only(order(['corners', 'bands'], { work: 'frost' }))).toEqual(['marks']);
    expect(only(order(['corners', 'plotted'], { work: 'frost', method: 'pre-cut' }))).toEqual(['weed', 'marks']);
    expect(only(order(['corners', 'cut-outs']))).toEqual(['cut-outs']);
    const round = order(['round']);
    expect(only(round)).toEqual(['trim-round']);
    expect(round.filter((k) => ['corners', 'trim-corner', 'trim-centre'].includes(k))).toEqual([]);
    // what is cut to size is not trimmed, round or not
    expect(order(['round', 'cut-outs'], { method: 'pre-cut' }).filter((k) => /trim|cut-outs|corners/.test(k))).toEqual([]);
    const cut = order(['corners', 'seam-double-cut']);
    expect(at(cut, 'light')).toBeLessThan(at(cut, 'seam-cut'));
    expect(at(cut, 'seam-cut')).toBeLessThan(at(cut, 'hard'));
    expect(keysOf({ has: ['corners', 'seam-double-cut'] }).find((x) => x.key === 'seam-cut')!.caution).toContain('Never without the liner under it');
  });
  test('panes of the terminal say it of themselves: the pieced pane, the arch, the round window, the bands', () => {
    const traits = (name: string) => layPaneOf(pane(name), records)!.has!;
    expect(traits('W2')).toEqual(['corners']);
    expect(traits('G1').some((x) => x.startsWith('seam-'))).toBe(true);
    expect(traits('T1')).toContain('corners');
    const round = panesIn(file).find((x) => x.shape?.kind === 'circle')!;
    expect(layPaneOf(round, records)!.has).toEqual(['round']);
    expect(panesIn(file).some((x) => x.design && layPaneOf(x, records)?.has?.some((t) => t === 'bands' || t === 'plotted'))).toBe(true);
  });
  test('steps that a firm wrote before there was an arch do not lay drop glass as an H', () => {
    const old = { ...set, id: '01930000-0000-7000-8000-00000000aa01', steps: set.steps.map((x) => (x.key === 'form-line' ? { ...x, text: 'A level stroke across at the heights on the drawing, then down both sides: an H. The slack now stands in fingers above and below. Two of us.' } : x)) }; // prettier-ignore
    const line = (anchor: LayPane['anchor']) =>
      runSheetOf(old, { ...tint, glass: 'curved', ...(anchor ? { anchor } : {}) }, defaultLay).find((x) => x.key === 'form-line')!.text;
    expect(line('arch')).toMatch(/^Card across the top.* Two of us\.$/);
    expect(line('arch')).not.toContain('an H');
    expect(line('h')).toContain('an H');
  });
  test('drop glass is laid as an arch, fixed glass as an H; a line of somebody’s own is the one drawn (common practice)', () => {
    const line = (anchor: LayPane['anchor']) => keysOf({ glass: 'curved', ...(anchor ? { anchor } : {}) }).find((x) => x.key === 'form-line')!.text;
    expect(line('arch')).toContain('Card across the top, which is a finished edge, then down both sides: an arch. 13 mm of glass stay free');
    expect(line('h')).toContain('then down both sides: an H');
    expect(line('own')).toContain('along the line on the drawing');
    const shuttle = launchAndShuttle();
    const on = { ...records, job: shuttle.job, surfaces: shuttle.surfaces, readings: shuttle.readings, films: shuttle.films, rolls: shuttle.rolls };
    const anchorOf = (name: string) =>
      layPaneOf(
        panesIn(shuttle).find((x) => x.name === name)!,
        on,
      )!.anchor;
    expect([anchorOf('Door glass right'), anchorOf('Door glass left'), anchorOf('Rear window')]).toEqual(['arch', 'arch', 'h']);
  });
  test('schools change the steps: liner, trim, silicone, stops', () => {
    expect(keys({}, { liner: 'pulled-down' })).toContain('liner-down');
    expect(keys({}, { liner: 'pulled-down' })).not.toContain('liner-halves');
    expect(keys({}, { trim: 'centre' })).toContain('trim-centre');
    expect(keys({ frame: 'silicone' }, { silicone: 'cut-out' })).toEqual(expect.arrayContaining(['silicone-out', 'silicone-again']));
    expect(keys({ frame: 'gasket' }, { silicone: 'cut-out' })).not.toContain('silicone-out');
    expect(keys({ frame: 'bead' }, { stops: 'off' })).toEqual(expect.arrayContaining(['stops-off', 'stops-back']));
  });
  test('a pre-cut piece is fitted and not trimmed; a dry template hangs dry first', () => {
    const precut = keys({ method: 'pre-cut' });
    expect(precut).toContain('check-fit');
    expect(precut.some((k) => k.startsWith('trim'))).toBe(false);
    const template = keys({ method: 'dry-template' });
    expect(at(template, 'template')).toBeLessThan(at(template, 'liner-halves'));
  });
  test('security film: hard pass twice, left alone one to two days, what it does not do is said; anchored only where that is the school', () => {
    const steps = runSheetOf(set, { ...tint, work: 'security' }, defaultLay);
    expect(steps.map((s) => s.key)).toEqual(expect.arrayContaining(['hard-twice', 'leave']));
    expect(steps.find((s) => s.key === 'leave')!.text).toContain('does not make glass unbreakable');
    expect(steps.find((s) => s.key === 'leave')!.wait!.minutes).toBe(2 * 24 * 60);
    expect(steps.map((s) => s.key)).not.toContain('anchor');
    expect(keys({ work: 'security' }, { edge: 'anchored' })).toContain('anchor');
    expect(edgeGapFor({ kind: 'security' }, 1.5)).toBe(2.5);
    expect(edgeGapFor({ kind: 'solar' }, 1.5)).toBe(1.5);
    expect(defaultLay.bladeMm).toBeNull();
    expect(usualBlades).toEqual(defaultBlades);
  });
  test('a caution stands where it bites: blade, coated glass, alcohol, wet liner', () => {
    const steps = runSheetOf(set, tint, defaultLay);
    const caution = (key: string) => steps.find((s) => s.key === key)!.caution;
    expect(caution('trim-corner')).toContain('A scored pane cracks later');
    expect(caution('stamp')).toContain('Never scrape coated');
    expect(caution('wash')).toContain('burns');
    expect(caution('liner-halves')).toContain('slippery');
  });
  test('the pane’s own figures stand in the words, in its units', () => {
    const text = (p: Partial<LayPane>) => runSheetOf(set, { ...tint, ...p }, defaultLay).find((s) => s.key === 'lock')!;
    expect(text({}).title).toBe('Lock the film: a T from the top centre');
    expect(text({}).text).toContain('Stop 13 mm short');
    expect(text({ units: 'in' }).text).toContain('Stop 1/2" short');
  });
  test('minutes grow with the pane: fixed, by its glass and by its edge', () => {
    const m = (areaM2: number, edgeM: number) => runSheetOf(set, { ...tint, areaM2, edgeM }, defaultLay).find((s) => s.key === 'dry-edges')!.minutes;
    expect(m(1, 4)).toBeCloseTo(0.5 + 0.5 + 1.2, 9);
    expect(m(2, 6)).toBeCloseTo(0.5 + 1 + 1.8, 9);
  });
});

describe('no blade where a blade ruins (common practice)', () => {
  const careOf = (more: Partial<LayPane>) => runSheetOf(set, { ...tint, ...more }, defaultLay);
  const scraping = (steps: readonly { key: string; tools: readonly string[]; text: string }[]) => steps.filter((s) => s.tools.some((t) => /scraper/.test(t)) || /with pad and blade/.test(s.text)).map((s) => s.key); // prettier-ignore
  test('pad-only faces get pad and hand instead of scraping and of a test patch with the blade; the reason stands in the step', () => {
    const steps = careOf({ care: 'pad', careWhy: 'Heating lines are printed on this face.' });
    expect(scraping(steps)).toEqual([]);
    expect(steps.map((s) => s.key)).toEqual(expect.arrayContaining(['stamp-pad', 'pad']));
    expect(steps.find((s) => s.key === 'pad')!.text).toMatch(/^Heating lines are printed on this face\. Wet, soft pad along the lines/);
  });
  test('an unknown face is asked about first, and until then it is the pad', () => {
    const steps = careOf({ care: 'ask', careWhy: 'Nobody has said what glass it is.' });
    expect(scraping(steps)).toEqual([]);
    expect(steps.find((s) => s.key === 'stamp-ask')!.reading).toBe('face');
    expect(steps.findIndex((s) => s.key === 'stamp-ask')).toBeLessThan(steps.findIndex((s) => s.key === 'wash'));
  });
  test('grit with a written go-ahead is scraped one way; bare float is scraped as ever', () => {
    expect(careOf({ care: 'one-way' }).map((s) => s.key)).toEqual(expect.arrayContaining(['scrape-one-way']));
    expect(careOf({ care: 'one-way' }).map((s) => s.key)).not.toContain('scrape');
    expect(careOf({}).map((s) => s.key)).toContain('scrape');
  });
  test('steps that a firm wrote before anybody asked do not bring the blade back', () => {
    const old: StepSet = { ...set, steps: set.steps.filter((s) => s.key !== 'pad').map((s) => (s.key === 'scrape' ? { ...s, key: 'our-own', title: 'Blade it', when: { ...s.when, care: [] } } : s)) }; // prettier-ignore
    const sheet = (care: LayPane['care']) => runSheetOf(old, { ...tint, care }, defaultLay).map((s) => s.key);
    expect(sheet('blade')).toContain('our-own');
    expect(sheet('pad')).not.toContain('our-own');
    expect(sheet('pad')).toContain('pad');
  });
  test('what is known of the glass decides: coating on the face worked, plastic, lines, hardened, unknown', () => {
    const w = pane('W1');
    const [p] = w.glazing!.panes;
    const made = (more: Partial<Pane>, glass: Partial<NonNullable<Pane['glazing']>['panes'][number]> = {}) =>
      careOfFace({ ...w, workedFace: 'unknown', curved: null, filmFace: 'room', glazing: { ...w.glazing!, panes: [{ ...p!, kind: 'float', coating: 'none', ...glass }], cavities: [] }, ...more }).care; // prettier-ignore
    expect(made({})).toBe('blade');
    expect(made({}, { coating: 'low-e-hard', coatingFace: 'inner' })).toBe('pad');
    // the same coating on the other face does not meet the blade
    expect(made({}, { coating: 'low-e-hard', coatingFace: 'outer' })).toBe('blade');
    expect(made({ filmFace: 'street' }, { coating: 'low-e-hard', coatingFace: 'outer' })).toBe('pad');
    expect(made({}, { kind: 'plastic' })).toBe('pad');
    expect(made({}, { kind: 'tempered' })).toBe('ask');
    expect(made({}, { kind: 'unknown' })).toBe('ask');
    expect(made({}, { coating: 'unknown' })).toBe('ask');
    expect(made({ glazing: null })).toBe('ask');
    expect(made({ workedFace: 'grit' }, { kind: 'tempered' })).toBe('pad');
    expect(made({ workedFace: 'grit-agreed' }, { kind: 'tempered' })).toBe('one-way');
    expect(made({ workedFace: 'plain' }, { kind: 'tempered' })).toBe('blade');
    // a finger that felt nothing does not take back what is known
    expect(made({ workedFace: 'plain' }, { coating: 'low-e-hard', coatingFace: 'inner' })).toBe('pad');
  });
  test('the van’s rear window has heating lines on the room face: no step of it scrapes; what was felt on the spot counts by the log, and can be taken back', () => {
    const van = launchAndShuttle();
    const of = { ...records, ...van, firm: demoFirm, layEntries: [], stepSets: [] } as unknown as LayRecords;
    const rear = panesIn(van).find((s) => s.curved?.defroster)!;
    expect(scraping(sheetOfSurface(rear, of)!.steps)).toEqual([]);
    const w = { ...pane('W1'), glazing: null };
    const line = (id: string, more: object) => ({ id, surfaceId: w.id, kind: 'found', stepSetId: SHIPPED_STEPS_ID, occurredAt: `2026-12-03T09:0${id}:00Z`, receivedAt: null, correctsId: null, personId: 'a', stepKey: null, ...more }) as never; // prettier-ignore
    const steps = (entries: never[]) => sheetOfSurface(w, { ...records, surfaces: panesIn(records).map((s) => (s.id === w.id ? w : s)), layEntries: entries })!.steps.map((s) => s.key); // prettier-ignore
    expect(steps([])).toContain('stamp-ask');
    expect(steps([line('1', { found: 'plain' })])).toContain('scrape');
    expect(steps([line('1', { found: 'plain' }), line('2', { found: 'coated' })])).toContain('pad');
    expect(steps([line('1', { found: 'plain' }), line('2', { kind: 'correction', correctsId: '1' })])).toContain('stamp-ask');
  });
});

describe('the knife says how much of it is out', () => {
  test('every step that trims on the glass: 3 mm of blade, point only, no pressure (common practice)', () => {
    const all = [
      keysOf({}),
      keysOf({}, { trim: 'centre' }),
      keysOf({ glass: 'curved' }),
      keysOf({ glass: 'curved-outside' }),
      keysOf({ method: 'dry-template' }),
    ].flat();
    const cuts = all.filter((s) => s.key.startsWith('trim') || s.key.startsWith('form-trim') || s.key === 'template');
    expect(cuts.length).toBeGreaterThan(4);
    for (const s of cuts) expect(`${s.text} ${s.caution}`).toMatch(/3 mm of blade out, point only, no pressure/i);
    expect(keysOf({ units: 'in' }).find((s) => s.key === 'trim-corner')!.caution).toContain('1/8');
  });
  test('a gun after the alcohol wash waits for air; before it there is none to wait for', () => {
    const steps = keysOf({ glass: 'curved' });
    expect(steps.find((s) => s.key === 'form-edges')!.caution).toMatch(/^Alcohol was used here: open all doors/);
    expect(steps.find((s) => s.key === 'form-heat')!.caution).not.toContain('Alcohol');
  });
});

describe('versions of the firm’s steps', () => {
  const own = (version: number, id: string): StepSet => ({ ...set, id, version, note: `version ${version}` });
  const two = [own(2, 'b'), own(3, 'c')];
  test('without its own the firm works by the shipped ones; else by its newest', () => {
    expect(stepSetOf(demoFirm.id, [], []).id).toBe(SHIPPED_STEPS_ID);
    expect(stepSetOf(demoFirm.id, two, []).id).toBe('c');
  });
  test('a running job keeps the version of its first entry, whatever came in first', () => {
    const entries = [
      { stepSetId: 'c', occurredAt: '2026-12-03T10:00:00Z' },
      { stepSetId: 'b', occurredAt: '2026-12-03T09:00:00Z' },
    ];
    expect(stepSetOf(demoFirm.id, two, entries).id).toBe('b');
    expect(stepSetOf(demoFirm.id, two, [{ stepSetId: SHIPPED_STEPS_ID, occurredAt: '2026-12-03T09:00:00Z' }]).id).toBe(SHIPPED_STEPS_ID);
  });
});

describe('the demo harbour', () => {
  test('every pane with wet-laid film has a sheet and strokes that press all of it, or says why not', () => {
    let planned = 0;
    for (const s of panesIn(file)) {
      const sheet = sheetOfSurface(s, records);
      const film = file.films.find((f) => f.id === s.filmId);
      if (!film || film.drying === 'dry-applied') expect(sheet).toBeNull();
      if (!sheet) continue;
      expect(sheet.steps.length).toBeGreaterThan(8);
      const plan = squeegeeOfSurface(s, records)!;
      if (plan.ok) planned++;
      else expect(plan.why).toMatch(/by hand|narrower|overlap/);
    }
    expect(planned).toBeGreaterThan(45);
  });
  test('lengths in the words of a step are told in the units of the job: an inch job reads no millimetre', () => {
    const words = (units: LayPane['units']) =>
      (['flat', 'curved', 'curved-outside'] as const).flatMap((glass) =>
        (['overhang', 'tucked-corner'] as const).flatMap((method) =>
          (['tint', 'security'] as const).flatMap((work) => runSheetOf(set, { ...tint, glass, method, work, units }, { ...defaultLay, edge: 'anchored' })),
        ),
      );
    const text = (units: LayPane['units']) => words(units).map((s) => `${s.title} ${s.text} ${s.purpose} ${s.good} ${s.caution ?? ''} ${s.tools.join(' ')}`).join('\n'); // prettier-ignore
    expect(text('in')).not.toMatch(/\d mm\b|[{}]/);
    expect(text('mm')).not.toMatch(/\d"|[{}]/);
    expect(text('in')).toContain('On drop glass 1" to 2" higher than it will sit, 1/2" past the sides');
    expect(text('mm')).toContain('On drop glass 25 to 50 mm higher than it will sit, 13 mm past the sides');
    expect(text('in')).toContain('Stay 6" away from the sides');
  });
  test('what forbids film on flat glass stands at the first step, once, and nowhere else (common practice)', () => {
    const patterned = pane('Toilet 4');
    const frost = pane('Toilet 1').filmId;
    const says = (more: Partial<Pane>, words: string) =>
      sheetOfSurface({ ...patterned, filmId: frost, ...more }, records)!.steps.flatMap((s) => (s.caution?.includes(words) ? [s.key] : []));
    expect(says({}, 'it touches only the tops')).toEqual(['check-piece']);
    const clear = { ...pane('Toilet 1').glazing! };
    expect(says({ glazing: { ...clear, isLeaded: true } }, 'Leaded lights')).toEqual(['check-piece']);
    expect(says({ glazing: { ...clear, isFireRated: true } }, 'the maker’s written yes')).toEqual(['check-piece']);
    expect(layPaneOf(pane('Toilet 1'), records)).toMatchObject({ refusal: null, ask: null });
  });
  test('clear film on lookout glass is not refused: the authority is asked first', () => {
    const front = pane('Gable 1');
    const guard = file.films.find((f) => f.kind === 'security')!;
    const shade = file.films.find((f) => f.kind === 'solar')!;
    const glazing = { ...pane('Toilet 1').glazing!, isLookout: true };
    const of = (filmId: string) => layPaneOf({ ...front, filmFace: 'room', filmId, glazing }, records)!;
    expect(of(guard.id)).toMatchObject({ refusal: null, ask: expect.stringContaining('ask the authority') });
    expect(of(shade.id)).toMatchObject({ refusal: expect.stringContaining('no tint'), ask: null });
    expect(sheetOfSurface({ ...front, filmId: guard.id, glazing }, records)!.steps[0]!.caution).toContain('ask the authority');
  });
  test('strokes are seen from the face that is worked on: film on the street face of a pane taped in the room comes out mirrored', () => {
    const rake = pane('Gable 1');
    const from = (face: 'room' | 'street') => layPaneOf({ ...rake, seenFrom: 'room', filmFace: face }, records)!.outline;
    expect(
      from('street')
        .map((p) => -p.x)
        .sort(),
    ).toEqual(
      from('room')
        .map((p) => p.x)
        .sort(),
    );
  });
});

test('in an inch job no step, no caution and no kit line tells °C, m² or µm', () => {
  const inInches: LayRecords = { ...records, job: { ...records.job, units: 'in' } };
  const panes = panesIn(file).filter((x) => x.filmId);
  const words = panes.flatMap((x) => sheetOfSurface(x, inInches)?.steps ?? []).map((x) => [x.title, x.text, x.purpose, x.good, x.caution].join(' ')).join(' '); // prettier-ignore
  expect(words).toMatch(/\d °F/);
  expect(words).not.toMatch(/°C|\d m²|µm|\d m\/s/);
  expect(panes.flatMap((x) => sheetOfSurface(x, records)?.steps ?? []).map((x) => x.text + x.good).join(' ')).not.toContain('°F'); // prettier-ignore
});

describe('curved panes of the demo', () => {
  const van = launchAndShuttle();
  const of: LayRecords = { firm: demoFirm, job: van.job, surfaces: van.surfaces, readings: van.readings, films: van.films, rolls: van.rolls, stepSets: [], layEntries: [], memo: new Memo() }; // prettier-ignore
  const rear = panesIn(van).find((s) => s.name === 'Rear window')!;
  const gunOf = (curved: Partial<NonNullable<Pane['curved']>>, more: Partial<Pane> = {}) =>
    layPaneOf({ ...rear, ...more, curved: { ...rear.curved!, ...curved } }, of)!.gun;
  test('what gun they take, by stamp, chip and make-up', () => {
    expect(gunOf({ stamp: 'tempered', isChipped: false })).toBe('full');
    expect(gunOf({ stamp: 'unknown', isChipped: false })).toBe('unproven');
    expect(gunOf({ stamp: 'laminated' })).toBe('low');
    expect(gunOf({ stamp: 'tempered', isChipped: true })).toBe('low');
  });
  test('lookout glass and plastic: what forbids it stands at the first step and wherever the gun comes, on the run sheet too', () => {
    const cautions = (s: Pane) =>
      sheetOfSurface(s, of)!.steps.flatMap((x) => (x.caution?.includes('no tint on it unless') || x.caution?.includes('A plastic window') ? [x.key] : []));
    const wheelhouse = { ...rear, glazing: { ...panesIn(van).find((s) => s.name === 'Wheelhouse windscreen')!.glazing! } };
    const hot = ['form-start', 'form-heat', 'form-sweep', 'form-edges'];
    expect(cautions(wheelhouse)).toEqual(['check-piece', ...hot]);
    expect(cautions({ ...rear, curved: { ...rear.curved!, stamp: 'plastic' } })).toEqual(['check-piece', ...hot]);
    expect(cautions(rear)).toEqual([]);
    const heat = sheetOfSurface({ ...rear, curved: { ...rear.curved!, stamp: 'plastic' } }, of)!.steps.find((s) => s.key === 'form-heat')!;
    expect(heat.text).toMatch(/^No heat gun on plastic/);
    // what the step says of its own accord is not lost
    expect(heat.caution).toContain('Burns and fumes');
  });
  test('a blade that lies on the bend, and no strokes before their shrink plan is known', () => {
    expect(layPaneOf(rear, of)!.bladeMm).toBe(150);
    expect(squeegeeOfSurface(rear, of)).toMatchObject({ ok: false, why: expect.stringContaining('see Forming in Choose') });
  });
  test('under an arch strokes go out from where it runs across the top, down the pane; every place of it is pressed', () => {
    const door = panesIn(van).find((x) => x.name === 'Door glass right')!;
    const request = shrinkRequestOf(
      door,
      of,
      van.films.find((f) => f.id === door.filmId)!,
    );
    if (!request || !('input' in request)) throw new Error('no plan is asked for');
    const plan = shrinkPlan(request.input);
    const top = Math.max(...plan.finished.map((p) => p.y));
    expect(plan.anchor.kind).toBe('arch');
    // its heights are those over the pane, not those down its sides
    for (const mm of [plan.anchor.leftMm, plan.anchor.middleMm, plan.anchor.rightMm]) expect(Math.abs(mm - top)).toBeLessThan(5);
    const answer = squeegeeOfSurface(door, of, plan)!;
    if (!answer.ok) throw new Error(answer.why);
    const heights = answer.plan.passes[0]!.strokes.filter((x) => x.how === 'pull').map((x) => x.path[0]!.y);
    expect(heights[0]!).toBeGreaterThan(0.6 * top);
    expect(heights[0]).toBe(Math.max(...heights));
    const left = answer.plan.passes[0]!.strokes.filter((x) => x.how === 'pull' && x.path[1]!.x < x.path[0]!.x).map((x) => x.path[0]!.y);
    expect(left).toEqual([...left].sort((a, b) => b - a));
  });
  test('strokes go out from the line of the plan; on the face that is worked on left and right change places', () => {
    const finished = [[0, 0], [1200, 0], [1100, 500], [50, 500]].map(([x, y]) => ({ x: x!, y: y! })); // prettier-ignore
    const formed = { finished, anchor: { line: [{ x: 0, y: 180 }, { x: 600, y: 200 }, { x: 1200, y: 220 }] } }; // prettier-ignore
    const strokes = (face: Pane['filmFace']) => {
      const answer = squeegeeOfSurface({ ...rear, filmFace: face, seenFrom: 'street' }, of, formed)!;
      if (!answer.ok) throw new Error(answer.why);
      return answer.plan;
    };
    const [inside, outside] = [strokes('room'), strokes('street')];
    expect(outside.stopLine.every((p) => p.x >= 0)).toBe(true);
    expect(inside.stopLine.every((p) => p.x <= 0)).toBe(true);
    // the line rises to the right seen from the street, to the left from the room
    const slope = (p: typeof inside) => {
      const [a, b] = p.passes[0]!.strokes[0]!.path;
      return (b!.y - a!.y) / (b!.x - a!.x);
    };
    expect(slope(outside)).toBeCloseTo(40 / 1200, 6);
    expect(slope(inside)).toBeCloseTo(-40 / 1200, 6);
    // on either face the first quarter is the upper one at the left of whoever works: out from the middle of the line, and above it afterwards
    for (const p of [inside, outside]) {
      const mine = p.passes[0]!.strokes.filter((x) => x.how === 'pull');
      expect(mine[0]!.path[1]!.x).toBeLessThan(mine[0]!.path[0]!.x);
      const firstRight = mine.findIndex((x) => x.path[1]!.x > x.path[0]!.x);
      expect(Math.min(...mine.slice(0, firstRight).map((x) => x.path[0]!.y))).toBeGreaterThan(200);
    }
  });
});
