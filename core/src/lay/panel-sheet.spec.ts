import type { DryAllowances, Panel } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { defaultLay } from './default-lay.js';
import { hollowWord } from './hollow-word.js';
import { sheetOfSurface } from './lay-job.js';
import type { LayRecords } from './lay-records.js';
import { unknownFigures } from './run-sheet.js';
import { panelSteps } from './panel-steps.js';

const file = ternInterior();
const records = (job: Partial<typeof file.job> = {}): LayRecords => ({ ...file, job: { ...file.job, ...job }, firm: demoFirm, memo: new Memo() });
const named = (name: string) => file.surfaces.find((s) => s.name === name) as Panel;
const sheet = (name: string, own: Partial<Panel> = {}, dry: Partial<DryAllowances> | null = null) => {
  const surface = { ...named(name), ...own };
  const doc = records({ dry });
  return sheetOfSurface(surface, { ...doc, surfaces: doc.surfaces.map((s) => (s.id === surface.id ? surface : s)) })!;
};
const keys = (name: string, own: Partial<Panel> = {}) => sheet(name, own).steps.map((s) => s.key);
const step = (key: string, name = 'Door 1', own: Partial<Panel> = {}, dry: Partial<DryAllowances> | null = null) => sheet(name, own, dry).steps.find((s) => s.key === key)!; // prettier-ignore

describe('the steps of a door', () => {
  test('a door with grooves, a lever and wrapped edges has them all in the order of the trade', () =>
    expect(keys('Door 1')).toEqual(['panel-hardware', 'ground-degrease', 'ground-rinse', 'ground-rinse-proven', 'panel-wedge', 'panel-check', 'panel-clean', 'panel-promoter', 'panel-centre', 'panel-lay', 'panel-groove', 'panel-edges', 'panel-post-heat', 'panel-trim', 'panel-hardware-on', 'panel-swing', 'panel-feel', 'panel-truth'])); // prettier-ignore
  test('a smooth panel that does not swing, trimmed all round, has the few it needs', () => {
    const trimmed = { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } as const;
    expect(keys('Door 1', { hinges: 'none', grooves: [], hardware: [], wraps: trimmed, ground: { ...named('Door 1').ground, isGreasy: false } })).toEqual(['panel-check', 'panel-clean', 'panel-centre', 'panel-lay', 'panel-trim', 'panel-feel']); // prettier-ignore
  });
  test('corners, the other face and a seam come where they are', () => {
    expect(keys('Door 1', { wraps: { left: 'edge', right: 'edge', top: 'edge', bottom: 'trimmed' } })).toContain('panel-corner');
    expect(keys('Door 1', { faces: 'both' })).toContain('panel-back');
    expect(keys('Goods lift, back wall')).toContain('panel-seam');
    expect(keys('Door 1')).not.toContain('panel-seam');
  });
  test('figures are this door’s: what comes off, how deep it is wrapped, what lies in the film for its grooves, the film’s own heat', () => {
    expect(step('panel-hardware').text).toContain('Off: Lever and plate.');
    expect(step('panel-hardware', 'Door 5').text).toContain('Stays and is cut round: Peephole.');
    expect(step('panel-edges').text).toContain('At left, right: warm the film, lay it over without a fold, 40 mm from the arris');
    expect(step('panel-groove').text).toContain('Slack of 3 mm');
    expect(step('panel-post-heat').text).toContain('to 90 °C');
    expect(step('panel-check').text).toMatch(/86\d × 204\d mm|86\d mm × 204\d mm/);
    expect(step('panel-check').text).toContain('Its direction runs upright.');
  });
  test('a scratch of a groove, whose girth is not half a millimetre more than its mouth, is rolled over like the face: no step, no slack; half a millimetre is one', () => {
    const groove = { ...named('Goods lift, back wall').grooves[0]!, run: { way: 'upright', fromLeftMm: 400 } as const, toFarEdgeMm: null };
    const of = (depthMm: number) => ({ grooves: [{ ...groove, depthMm }] });
    expect(keys('Door 1', of(0.2))).not.toContain('panel-groove');
    expect(step('panel-groove', 'Door 1', of(0.25)).text).toContain('Slack of');
    // beside a real one it is not told of either
    const two = { grooves: [{ ...groove, depthMm: 5 }, { ...groove, id: named('Door 1').grooves[0]!.id, run: { way: 'upright', fromLeftMm: 200 } as const, depthMm: 0.2 }] }; // prettier-ignore
    expect(step('panel-groove', 'Door 1', two).text).toContain('Slack of 10 mm lies');
  });
  test('recesses have a step of their own before edges are wrapped, the deepest named first; promoter on their walls, heated through afterwards', () => {
    const of = keys('Archive door, left');
    expect(of.indexOf('panel-recess')).toBeGreaterThan(of.indexOf('panel-lay'));
    expect(of.indexOf('panel-recess')).toBeLessThan(of.indexOf('panel-edges'));
    expect(step('panel-recess', 'Archive door, left').text).toContain('560 mm × 980 mm, 14 mm deep; 560 mm × 620 mm, 8 mm deep: the deepest first');
    expect(of).toEqual(expect.arrayContaining(['panel-promoter', 'panel-hollows', 'panel-post-heat', 'panel-tack']));
    const bare = { recesses: [], wraps: { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } } as const;
    expect(
      keys('Archive door, left', { ...bare, recesses: [] }).filter((k) => ['panel-recess', 'panel-promoter', 'panel-hollows', 'panel-post-heat'].includes(k)),
    ).toEqual([]);
    expect(keys('Archive door, left', { ...bare, recesses: named('Archive door, left').recesses })).toContain('panel-post-heat');
  });
  test('a corrugated sheet: over its ribs instead of down the face, by the way that was chosen; only what was formed in is heated through; warm air over it when it has cooled', () => {
    const own = { ...named('Key hut, front').corrugation!, way: 'fed' as const };
    const formed = keys('Key hut, front');
    expect(formed).toEqual(expect.arrayContaining(['panel-hollows', 'panel-corrugation', 'panel-post-heat', 'panel-truth']));
    for (const key of ['panel-centre', 'panel-lay']) expect(formed).not.toContain(key);
    expect(step('panel-corrugation', 'Key hut, front').text).toContain('Relax it all over: wrinkles appear, then vanish.');
    const fed = { corrugation: own };
    expect(step('panel-corrugation', 'Key hut, front', fed).text).toContain('film comes in from the free side');
    expect(keys('Key hut, front', fed)).not.toContain('panel-post-heat');
    expect(keys('Key hut, front', fed)).toContain('panel-truth');
    // more film under the hands than the sheet is large
    expect(step('panel-corrugation', 'Key hut, front').minutes).toBeGreaterThan(step('panel-corrugation', 'Key hut, front', { corrugation: { ...own, way: 'bridged', depthMm: 2, girthMm: null } }).minutes); // prettier-ignore
    expect(keys('Door 1')).not.toContain('panel-corrugation');
  });
  test('a domed lid: from its middle outwards; its border is heated through where it was drawn on, not where it is slit', () => {
    const of = keys('Key hut, lid');
    expect(of).toEqual(expect.arrayContaining(['panel-dome', 'panel-post-heat', 'panel-truth']));
    for (const key of ['panel-centre', 'panel-lay']) expect(of).not.toContain(key);
    expect(step('panel-dome', 'Key hut, lid').text).toContain('draw the film outwards just so far that nothing gathers');
    const trimmed = { wraps: { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } } as const;
    const flat = { ...trimmed, dome: { acrossBowMm: 20, upBowMm: 10 } };
    expect(step('panel-dome', 'Key hut, lid', flat).text).toContain('strokes like spokes');
    expect(keys('Key hut, lid', flat)).not.toContain('panel-post-heat');
    // 31 % at its corners, and this film stands 30
    const ball = { ...trimmed, dome: { acrossBowMm: 105, upBowMm: 95 } };
    expect(step('panel-dome', 'Key hut, lid', ball).text).toContain('Slit each from the border');
    expect(keys('Key hut, lid', ball)).not.toContain('panel-post-heat');
  });
  test('round corners: drawn over without a knife where its film stands that; else folded as the bench sheet says', () => {
    const drawn = keys('Key hut, lid');
    expect(drawn).toContain('panel-corner-round');
    expect(drawn).not.toContain('panel-corner');
    expect(step('panel-corner-round', 'Key hut, lid').text).toContain('23 % at its end, nothing left over');
    expect(step('panel-corner-round', 'Key hut, lid').tools.join(' ')).not.toContain('knife');
    for (const corners of [null, { radiusMm: 12, arrisMm: 2 }]) {
      expect(keys('Key hut, lid', { corners })).toContain('panel-corner');
      expect(keys('Key hut, lid', { corners })).not.toContain('panel-corner-round');
    }
    // one edge alone has no corner
    expect(keys('Key hut, lid', { wraps: { left: 'edge', right: 'edge', top: 'trimmed', bottom: 'trimmed' } })).not.toContain('panel-corner-round');
  });
  test('a bare hollow by the thermometer: hand-warm from 35 °C on, no more than 66 °C (common practice)', () => {
    expect([34, 35, 66, 67].map((c) => hollowWord(c).isGood)).toEqual([false, true, true, false]);
    expect(hollowWord(20).text).toContain('Warm it on, to 35 °C');
    expect(hollowWord(80).text).toContain('Let it cool');
    expect(step('panel-hollows', 'Archive door, left').reading).toBe('hollow');
    // common practice in the cold: the tool, and the glove that is not enough; on steel magnets
    expect(step('panel-hollows', 'Archive door, left').text).toContain('what only a glove touched is stroked once more with heat');
    expect(step('ground-warm', 'Key hut, front').text).toContain('Magnets hold the film on steel.');
    expect(step('ground-warm', 'Archive door, left').text).not.toContain('Magnets');
  });
  test('a cold door (common practice): warmed with its film, its hollows by themselves to at most 66 °C once alcohol and promoter are off, tried two hours later; as long as it is cold outside it stays in', () => {
    const cold = { ground: { ...named('Door 1').ground, isGreasy: false, surfaceTempC: 12 } };
    const all = keys('Door 1', cold);
    const order = [
      'ground-warm',
      'ground-warm-proven',
      'panel-clean',
      'panel-promoter',
      'panel-hollows',
      'panel-centre',
      'panel-groove',
      'panel-feel',
      'panel-tack',
    ];
    expect(all.filter((k) => order.includes(k))).toEqual(order);
    expect(all.at(-1)).toBe('panel-tack');
    expect(step('ground-warm', 'Door 1', cold).title).toBe('Bring it to 15 to 25 °C');
    expect(step('panel-hollows', 'Door 1', cold).text).toContain('The deepest first');
    expect(step('panel-hollows', 'Door 1', cold).text).toContain('at most 66 °C');
    expect(step('panel-tack', 'Door 1', cold).returnAfterMinutes).toBe(120);
    expect(step('panel-tack', 'Door 1', cold).caution).toContain('stays indoors up to two days');
    // a smooth one has no hollows; a warm one none of it
    expect(keys('Door 1', { ...cold, grooves: [] })).not.toContain('panel-hollows');
    expect(keys('Door 1', { ...cold, grooves: [] })).toContain('panel-tack');
    for (const key of ['ground-warm', 'panel-hollows', 'panel-tack']) expect(keys('Door 1')).not.toContain(key);
  });
  test('cast film that is to be stretched wants ground and film at 21 °C (common practice: 70 °F): at 17 °C it is warmed, a smooth panel is not', () => {
    const films = file.films.map((f) => (f.id === named('Door 1').filmId ? { ...f, construction: 'cast-vinyl' as const } : f));
    const of = (own: Partial<Panel>) => {
      const surface = { ...named('Door 1'), ground: { ...named('Door 1').ground, isGreasy: false, surfaceTempC: 17 }, ...own };
      const doc = { ...records(), films };
      return sheetOfSurface(surface, { ...doc, surfaces: doc.surfaces.map((s) => (s.id === surface.id ? surface : s)) })!.steps;
    };
    expect(of({}).find((s) => s.key === 'ground-warm')!.title).toBe('Bring it, and the film, to 21 °C');
    expect(of({}).map((s) => s.key)).toContain('panel-tack');
    const trimmed = { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } as const;
    expect(of({ grooves: [], wraps: trimmed }).map((s) => s.key).filter((k) => /warm|tack/.test(k))).toEqual([]); // prettier-ignore
  });
  test('two schools: heated through before its edge is trimmed, or after; then it need not cool for the knife', () => {
    const of = (postHeat: 'before-trim' | 'after-trim') => {
      const doc = { ...records(), job: { ...file.job, lay: { ...defaultLay, postHeat } } };
      return sheetOfSurface(named('Door 1'), doc)!.steps.filter((s) => /post-heat|trim/.test(s.key));
    };
    expect(of('before-trim').map((s) => s.key)).toEqual(['panel-post-heat', 'panel-trim']);
    expect(of('before-trim')[0]!.text).toContain('Let it cool before it is cut.');
    expect(of('after-trim').map((s) => s.key)).toEqual(['panel-trim', 'panel-post-heat']);
    expect(of('after-trim')[1]!.text).not.toContain('before it is cut');
    expect(of('before-trim')[0]!.wait!.minutes).toBe(5);
    expect(of('after-trim')[1]!.wait).toBeNull();
    expect(keys('Door 1').length).toBe(sheetOfSurface(named('Door 1'), { ...records(), job: { ...file.job, lay: { ...defaultLay, postHeat: 'after-trim' } } })!.steps.length); // prettier-ignore
  });
  test('the deepest wrap is told, and trimming takes as long as the edge is', () => {
    const wraps = { left: 'edge', right: 'trimmed', top: 'return', bottom: 'trimmed' } as const;
    expect(step('panel-edges', 'Door 1', { wraps }).text).toContain('65 mm from the arris');
    // 2 min and half a minute for each metre round its face
    expect(step('panel-trim').minutes).toBeCloseTo(2 + 0.5 * 2 * (0.86 + 2.04), 1);
  });
  test('corners are folded by the school of the job', () => {
    const wraps = { left: 'edge', right: 'edge', top: 'edge', bottom: 'edge' } as const;
    const text = (corner: DryAllowances['corner']) => step('panel-corner', 'Door 1', { wraps }, { corner }).text;
    expect(text('relief')).toContain('tab of 13 mm');
    expect(text('mitre')).toContain('45°');
    expect(text('envelope')).toContain('like a parcel');
  });
  test('a fire door is asked about before anything is touched, electricity where covers come off, the leaf before one leaves', () => {
    const first = (fire: Panel['fire']) => sheet('Door 1', { fire }).steps[0]!.caution!;
    expect(first('rated')).toContain('no film without the written yes');
    expect(first('unknown')).toContain('Ask first whether it is a fire door');
    expect(first('no')).not.toContain('fire door');
    expect(first('no')).toContain('licensed electrician');
    expect(step('panel-swing').caution).toContain('fire or escape door');
    expect(step('panel-edges').caution).toContain('air until nothing is smelt');
  });
  test('every figure in the shipped words is known', () => expect(panelSteps.flatMap(unknownFigures)).toEqual([]));
  test('film on both faces takes longer; its minutes are those of its own size', () =>
    expect(sheet('Door 1', { faces: 'both' }).minutes).toBeGreaterThan(1.4 * sheet('Door 1').minutes));
});
