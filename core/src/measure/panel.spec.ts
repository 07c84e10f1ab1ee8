import { newPanel, type Groove, type Hardware, type PanelMeasure, type Recess } from '@yellow-pane/contracts';
import type { TapeReading } from './adjustment.js';
import { coverOfPanel, judgePanel, type PanelParts } from './panel.js';
import { panelDoubtText, panelNumbers, panelVerdict } from './panel-words.js';

type Tapes = Partial<Record<PanelMeasure, number>>;
const tapes = (t: Tapes): TapeReading[] => Object.entries(t).map(([measure, lengthMm]) => ({ measure: measure as PanelMeasure, lengthMm }));
const door: Tapes = { widthTop: 860, widthMiddle: 860, widthBottom: 860, heightLeft: 2040, heightMiddle: 2040, heightRight: 2040, diagonalDown: Math.hypot(860, 2040), diagonalUp: Math.hypot(860, 2040), edgeThickness: 40 }; // prettier-ignore
const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
const groove = (g: Partial<Groove>): Groove => ({ id: id(10), run: { way: 'upright', fromLeftMm: 120 }, toFarEdgeMm: null, form: 'square', widthMm: 8, depthMm: 3, flatMm: 0, girthMm: null, ...g }); // prettier-ignore
const lever: Hardware = { id: id(20), what: 'Lever', handling: 'off', fromLeftMm: 780, fromFootMm: 1000, widthMm: 50, heightMm: 220, isElectric: false };
const parts = (p: Partial<PanelParts> = {}): PanelParts => ({ grooves: [], recesses: [], corrugation: null, dome: null, hardware: [], ...p });
const asked = (p: PanelParts) => ({ ...newPanel({ id: id(30), jobId: id(31), placeId: id(32), name: 'Door', order: 1 }), ...p });
const judge = (t: Tapes, p: Partial<PanelParts> = {}) => judgePanel(parts(p), tapes(t));
const verdict = (t: Tapes, p: Partial<PanelParts> = {}) => panelVerdict(judge(t, p), asked(parts(p)), 'mm');

describe('what is taped of a panel', () => {
  test('a width and a height are enough to cut; that its edge is not known is said, since film is to go over it', () => {
    expect(judge({ widthMiddle: 860 }).status).toBe('nothing');
    const two = { widthMiddle: 860, heightMiddle: 2040 };
    expect(judge(two).status).toBe('two-tapes');
    expect(verdict(two).body).toContain('Tape the thickness of its edge too');
    expect(panelVerdict(judge(two), { ...asked(parts()), wraps: { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } }, 'mm').body).not.toContain('edge'); // prettier-ignore
  });
  test('its face is judged as an opening is: a slip is found and named, and the piece covers every explanation', () => {
    const slip = { ...door, widthMiddle: 806 };
    const survey = judge(slip);
    expect(survey.status).toBe('doubtful');
    expect(verdict(slip).body).toMatch(/middle width would be 860/i);
    expect(coverOfPanel(survey)!.widthMm).toBeGreaterThan(860);
  });
  test('agreeing tapes say so, and whether it is square', () => {
    expect(verdict(door)).toEqual({ headline: 'The tapes agree.', body: 'Square and parallel within 2 mm.' });
    expect(verdict({ ...door, widthTop: 855, widthMiddle: 857.5, diagonalDown: Math.hypot(857.5, 2040), diagonalUp: Math.hypot(857.5, 2040) }).body).toContain('The top is 5 mm narrower'); // prettier-ignore
  });
  test('its edge: a rounded or moulded one is longer by the string than it is thick, never shorter', () => {
    expect(judge({ ...door, edgeGirth: 47 })).toMatchObject({ status: 'agreeing', edge: { thicknessMm: 40, girthMm: 47 } });
    const short = judge({ ...door, edgeGirth: 31 });
    expect(short).toMatchObject({ status: 'doubtful', edge: { girthMm: 40 }, doubts: [{ is: 'edge-girth', byMm: -9 }] });
    expect(verdict({ ...door, edgeGirth: 31 }).body).toBe(
      'The string over the edge is 9 mm shorter than the edge is thick: no string is. Tape one of them again.',
    );
    expect(judge({ widthTop: 860, edgeGirth: 47 }).edge).toEqual({ thicknessMm: null, girthMm: 47 });
  });
});

describe('recesses', () => {
  const recess = (r: Partial<Recess> = {}): Recess => ({ id: id(40), fromLeftMm: 130, fromFootMm: 200, acrossMm: 600, upMm: 700, depthMm: 12, slopeMm: 9, cornerMm: 20, way: null, ...r }); // prettier-ignore
  const doubts = (r: Partial<Recess>, more: Recess[] = []) => judge(door, { recesses: [recess(r), ...more] }).doubts;
  test('one that can be is taken; each wall takes √(slope² + depth²) − slope more film', () => {
    const survey = judge(door, { recesses: [recess()] });
    expect(survey).toMatchObject({ status: 'agreeing', doubts: [], recesses: [{ slackMm: 6 }] });
    expect(panelNumbers(survey, asked(parts({ recesses: [recess()] })), 'mm')).toContainEqual({
      name: 'Film in recess 1',
      value: '12 more than it is wide and high',
    });
  });
  test('past the face, through the board, no field left, over another one: each is named with what to tape again', () => {
    expect(doubts({ fromLeftMm: 300 })).toEqual([{ is: 'recess-outside', part: id(40), byMm: 40 }]);
    expect(doubts({ fromLeftMm: 262 })).toEqual([]);
    expect(doubts({ depthMm: 40 })).toMatchObject([{ is: 'recess-through' }]);
    expect(doubts({ cornerMm: 301 })).toMatchObject([{ is: 'recess-narrow', byMm: 2 }]);
    expect(doubts({ cornerMm: 300 })).toEqual([]);
    expect(doubts({ slopeMm: 300 })).toMatchObject([{ is: 'recess-narrow' }]);
    const [beside, over] = [recess({ id: id(41), fromFootMm: 900 }), recess({ id: id(41), fromFootMm: 890 })];
    expect(doubts({}, [beside])).toEqual([]);
    expect(doubts({}, [over])).toEqual([{ is: 'recess-overlap', part: id(41), byMm: 10 }]);
    const all = [recess(), over];
    const text = (part: string, is: 'recess-overlap' | 'recess-outside') => panelDoubtText({ is, part, byMm: 10 }, parts({ recesses: all }), 'mm');
    expect(text(id(41), 'recess-overlap')).toBe('Recess 2 would lie 10 mm over another one. Tape the place of both again.');
    expect(text(id(40), 'recess-outside')).toBe('Recess 1 reaches 10 mm past the face. Tape its place again.');
  });
});

describe('grooves and hardware', () => {
  test('places from both edges check each other, on a face out of parallel by its whole taper', () => {
    expect(judge(door, { grooves: [groove({ toFarEdgeMm: 732 })] }).status).toBe('agreeing');
    const wrong = judge(door, { grooves: [groove({ toFarEdgeMm: 723 })] });
    expect(wrong).toMatchObject({ status: 'doubtful', doubts: [{ is: 'groove-sum', byMm: expect.closeTo(-9, 6) as number }] });
    const leaning = { widthTop: 850, widthBottom: 860, heightLeft: 2040, heightRight: 2040 };
    for (const far of [723, 732]) expect(judge(leaning, { grooves: [groove({ toFarEdgeMm: far })] }).doubts).toEqual([]);
    expect(judge(leaning, { grooves: [groove({ toFarEdgeMm: 745 })] }).doubts).toHaveLength(1);
  });
  test('a level groove is checked by the height, a frame by its far side', () => {
    const level = groove({ run: { way: 'level', fromFootMm: 900 }, toFarEdgeMm: 1132 });
    expect(judge(door, { grooves: [level] }).doubts).toEqual([]);
    const frame = groove({ run: { way: 'frame', fromLeftMm: 120, fromFootMm: 150, acrossMm: 620, upMm: 700 }, toFarEdgeMm: 120 });
    expect(judge(door, { grooves: [frame] }).doubts).toEqual([]);
    expect(judge(door, { grooves: [{ ...frame, toFarEdgeMm: 210 }] }).doubts).toMatchObject([{ is: 'groove-sum', byMm: expect.closeTo(90, 6) as number }]);
  });
  test('one that does not lie on the face, or would go through the board, is a slip', () => {
    expect(judge(door, { grooves: [groove({ run: { way: 'upright', fromLeftMm: 1200 } })] }).doubts).toMatchObject([{ is: 'groove-outside' }]);
    expect(judge(door, { grooves: [groove({ run: { way: 'frame', fromLeftMm: 120, fromFootMm: 1500, acrossMm: 620, upMm: 700 } })] }).doubts).toMatchObject([{ is: 'groove-outside', byMm: expect.closeTo(160, 0) as number }]); // prettier-ignore
    expect(judge(door, { grooves: [groove({ depthMm: 40 })] }).doubts).toMatchObject([{ is: 'groove-through' }]);
    expect(judge(door, { grooves: [groove({ form: 'moulding', depthMm: 40, girthMm: 12 })] }).doubts).toEqual([]);
  });
  test('a frame narrower than two of its sides is a slip: it was taped from inside to inside', () => {
    const frame = (acrossMm: number, upMm: number) =>
      judge(door, { grooves: [groove({ widthMm: 20, run: { way: 'frame', fromLeftMm: 120, fromFootMm: 150, acrossMm, upMm } })] }).doubts;
    expect([frame(40, 700), frame(620, 40)]).toEqual([[], []]);
    expect([frame(39, 700), frame(620, 25)]).toEqual([[{ is: 'groove-narrow', part: id(10), byMm: 1 }], [{ is: 'groove-narrow', part: id(10), byMm: 15 }]]);
    expect(verdict(door, { grooves: [groove({ widthMm: 20, run: { way: 'frame', fromLeftMm: 120, fromFootMm: 150, acrossMm: 25, upMm: 700 } })] }).body).toBe('The frame of grooves 1 would be 15 mm narrower than its own two sides. Tape it from outside to outside.'); // prettier-ignore
  });
  test('a lever may reach past the arris; a whole plate beside the door is a slip', () => {
    expect(judge(door, { hardware: [{ ...lever, fromLeftMm: 840 }] }).doubts).toEqual([]);
    expect(judge(door, { hardware: [{ ...lever, fromLeftMm: 8400 }] }).doubts).toMatchObject([{ is: 'hardware-outside', part: lever.id }]);
  });
  test('every doubt is told in words that say what would settle it', () => {
    const p = parts({ grooves: [groove({ girthMm: 30, toFarEdgeMm: 600 }), groove({ id: id(11), run: { way: 'level', fromFootMm: 5000 }, depthMm: 60 })], hardware: [{ ...lever, fromFootMm: 9000 }] }); // prettier-ignore
    const survey = judgePanel(p, tapes({ ...door, edgeGirth: 10 }));
    const said = survey.doubts.map((d) => panelDoubtText(d, p, 'mm'));
    expect(said).toHaveLength(6);
    for (const s of said) expect(s).toMatch(/again\.$/);
    expect(said.join(' ')).toMatch(/The upright groove 1: the string is 16 mm longer.*come to 132 mm less.*level groove 2 would be deeper.*level groove 2 reaches .* past the face.*Lever would stand/); // prettier-ignore
  });
  test('a groove keeps its number where the survey was worked out from the records of before', () => {
    const p = parts({ grooves: [groove({}), groove({ id: id(11), run: { way: 'level', fromFootMm: 900 } })] });
    const survey = judgePanel(structuredClone(p), tapes(door));
    expect(
      panelNumbers(survey, p, 'mm')
        .map((n) => n.name)
        .slice(1),
    ).toEqual(['Girth of upright groove 1', 'Girth of level groove 2']);
  });
  test('what film goes over is told beside the drawing', () => {
    const p = parts({ grooves: [groove({})] });
    expect(panelNumbers(judgePanel(p, tapes(door)), p, 'mm')).toEqual([
      { name: 'Film over its edge', value: '40' },
      { name: 'Girth of upright groove 1', value: '14, 6 more than it is wide' },
    ]);
  });
});
