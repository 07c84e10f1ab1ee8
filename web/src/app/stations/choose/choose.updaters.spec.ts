import { defaultChooseSettings, pane as paneSchema } from '@yellow-pane/contracts';
import { demoLibrary, panesIn, ternPoint } from '../../../../../demo/src/index';
import { choicePatches, exposurePatches, filmsToOffer, panesInScope, settingsOf, settingsPatches, tapWant, verdictInputOf } from './choose.updaters';

const file = { ...ternPoint(), films: demoLibrary };
const pane = (name: string) => panesIn(file).find((s) => s.name === name)!;
const film = (name: string) => demoLibrary.find((f) => f.name === name)!;
const names = (list: readonly { name: string }[]) => list.map((s) => s.name);

describe('for which panes', () => {
  test('one pane, those between the same bars, the whole place, everything that looks the same way', () => {
    expect(names(panesInScope(file, pane('W2'), 'pane'))).toEqual(['W2']);
    expect(names(panesInScope(file, pane('W2'), 'group'))).toEqual(['W1', 'W2', 'W3', 'W4', 'W5', 'W6']);
    expect(panesInScope(file, pane('W2'), 'place')).toHaveLength(12);
    expect(panesInScope(file, pane('W2'), 'facade')).toHaveLength(19);
  });
  test('a pane between two rooms has no facade: its place stands in', () => expect(panesInScope(file, pane('M1'), 'facade')).toHaveLength(8));
  test('a pane of its own is its own group', () => expect(names(panesInScope(file, pane('H3'), 'group'))).toEqual(['H3']));
});

describe('a choice', () => {
  test('sets film and face on each pane, and nothing where they are already so', () => {
    const patches = choicePatches([pane('W1'), pane('W2')], film('Tern Shade 35'), file.rolls, () => 'x');
    expect(patches).toEqual([]);
    const other = choicePatches([pane('W1')], film('Weather Side 20'), file.rolls, () => '01930000-0000-7000-8000-00000000000f');
    expect(other.map((p) => (p.op === 'set' ? [p.field, p.value] : [p.kind]))).toEqual([
      ['filmId', film('Weather Side 20').id],
      ['filmFace', 'street'],
      ['roll'],
    ]);
  });
  test('of a film without a roll puts one to order on the bench, the widest it is sold in', () => {
    const patches = choicePatches([pane('M1')], film('Kelp Ceramic 45'), file.rolls, () => '01930000-0000-7000-8000-00000000000f');
    const roll = patches.at(-1)!;
    expect(roll.op === 'add' && roll.value).toMatchObject({ label: 'to order 1829', isToOrder: true, widthMm: 1829, lengthM: 30.5 });
  });
  test('what is offered: newest versions, none retired, but what is on a pane stays', () => {
    const offered = filmsToOffer(file);
    expect(names(offered)).not.toContain('Dawn Bronze 30');
    const used = { ...file, surfaces: [{ ...pane('W1'), filmId: film('Dawn Bronze 30').id }] };
    expect(names(filmsToOffer(used))).toContain('Dawn Bronze 30');
    const renewed = { ...film('Ebb Grey 5'), id: 'new', version: 2, replacesId: film('Ebb Grey 5').id };
    expect(filmsToOffer({ ...file, films: [...demoLibrary, renewed] }).filter((f) => f.name === 'Ebb Grey 5')).toEqual([renewed]);
  });
});

describe('wants and places', () => {
  test('tapped in order of importance, tapped again gone', () => {
    expect(tapWant(['heat'], 'light')).toEqual(['heat', 'light']);
    expect(tapWant(['heat', 'light'], 'heat')).toEqual(['light']);
  });
  test('a pane wants what it says itself, else what the job says, else what is usual', () => {
    expect(settingsOf({ job: { ...file.job, choose: null } }, { ...pane('W1'), choose: null })).toEqual(defaultChooseSettings);
    const [patch] = settingsPatches({ job: file.job }, [pane('W1')], { leastVisibleFrac: 0.35 });
    expect(patch!.op === 'set' && patch!.value).toMatchObject({ leastVisibleFrac: 0.35, climate: defaultChooseSettings.climate });
  });
  test('one fact about a facade leaves the other facts of each pane alone', () => {
    const patches = exposurePatches([pane('O1'), pane('Toilet 1')], { facadeDeg: 90 });
    const values = patches.map((p) => p.op === 'set' && p.value);
    expect(values).toEqual([
      { ...pane('O1').exposure, facadeDeg: 90 },
      { ...pane('Toilet 1').exposure, facadeDeg: 90 },
    ]);
    for (const v of values) expect(paneSchema.shape.exposure.safeParse(v).success).toBe(true);
  });
  test('without glass there is nothing to judge; without a place the temperate middle is taken', () => {
    const size = { widthMm: 900, heightMm: 1200 };
    expect(verdictInputOf(file, { ...pane('W1'), glazing: null }, size, 2026, 0)).toBeNull();
    expect(verdictInputOf({ job: { ...file.job, latDeg: null, lonDeg: null } }, pane('W1'), size, 2026, 0)).toMatchObject({ latDeg: 50, lonDeg: 10 });
  });
});
