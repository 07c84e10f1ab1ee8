import type { FilmVerdict, GlazingFigures, Sight } from '@yellow-pane/contracts';
import { demoFilms } from '../../../demo/src/index.js';
import { figuresLine, figuresWhy, heatDayText, hidingText, scoreWhy, sightText, sightWhy, worstHourText } from './verdict-words.js';

const figures = {
  visibleTransmittanceFrac: 0.352,
  visibleReflectanceOutFrac: 0.191,
  visibleReflectanceInFrac: 0.12,
  solarTransmittanceFrac: 0.284,
  absorbedFrac: [0.412, 0.031],
  uvTransmittanceFrac: 0.004,
  gFrac: 0.419,
  uWPerM2K: 2.746,
} as unknown as GlazingFigures;
const sight = (part: Partial<Sight>): Sight => ({
  inwardsFrac: 0,
  outwardsFrac: 0,
  inwards: 'hidden',
  outwards: 'hidden',
  personWithinM: 0,
  faceWithinM: 0,
  ...part,
});

describe('What is said of a film on a pane', () => {
  it('light, g and U in one line; a film without values says so', () => {
    expect(figuresLine(figures)).toBe('light 35 % · g 0.42 · U 2.7');
    expect(figuresLine(null)).toBe('no values');
  });
  it('how the figures came about: what is let through and what comes inwards make g', () => {
    const film = demoFilms.shade;
    const lines = figuresWhy(film, figures);
    expect(lines[2]).toContain('g = 0.284 let through + 0.135 of what is soaked up and comes inwards = 0.419');
    expect(lines[1]).toContain('soaked up pane by pane 41.2 % and 3.1 %');
    expect(lines.at(-1)).toContain('40 % ultraviolet, 25 % light, 25 % sun heat, 10 % the room’s own');
    expect(figuresWhy({ optics: null }, figures)).toEqual([]);
    expect(figuresWhy(film, null)).toEqual([]);
  });
  it('sun heat over a clear day, and how much of it a film keeps out', () => {
    const day = { month: 7, points: [], bareWhPerM2: 2510 };
    expect(heatDayText(day, false, { name: 'Bay Silver 20', heatLessFrac: 0.4 })).toBe(
      'A clear day in July: 2.5 kWh of sun heat through each m² of bare glass, 1.5 kWh with Bay Silver 20: 40 % less.',
    );
    expect(heatDayText(day, false, null)).toBe('A clear day in July: 2.5 kWh of sun heat through each m² of bare glass.');
    expect(heatDayText(day, true, null)).toContain('no sun comes in');
  });
  it('the worst hour by the clock, half past two as 14:30', () =>
    expect(worstHourText({ hour: 14.5, month: 3, bareDifferenceK: 11.6 })).toBe('Worst at 14:30 on a clear day in March; without film 12 K.'));
  it('who sees whom; between two rooms there is no street', () => {
    expect(sightText(sight({ inwards: 'shapes', outwards: 'clear' }), false)).toEqual({
      inwards: 'From the street: shapes inside show, no faces.',
      outwards: 'From the room: the view is clear.',
    });
    expect(sightText(sight({}), true).inwards).toContain('From the other side');
  });
  it('a mirror hides only while it is brighter outside; frost says how near one must stand, in the units of the job', () => {
    expect(hidingText({ tipsAtRatio: 6.42, day: null, night: null }, 'mm')).toContain('at least 6.4 times brighter');
    expect(hidingText({ tipsAtRatio: 14.4, day: null, night: null }, 'mm')).toContain('at least 14 times brighter');
    expect(hidingText({ tipsAtRatio: null, day: null, night: null }, 'mm')).toBe('');
    const frost = { tipsAtRatio: 0, day: sight({ personWithinM: 0.42, faceWithinM: 0.06 }), night: sight({ personWithinM: 0 }) };
    expect(hidingText(frost, 'mm')).toContain('By day a person shows as a shape within 40 cm of it, a face within 5 cm. At night nobody shows');
    expect(hidingText(frost, 'in')).toContain('within 17 in of it, a face within 2 in');
  });
  it('what sight is judged by are the figures of the model: 8 periods a metre for a face', () => {
    expect(sightWhy.join(' ')).toContain('1 per metre for a person, 8 per metre for a face');
    expect(sightWhy.join(' ')).toContain('Hidden under 0.05');
  });
  it('the score as the sum it is', () => {
    const v = { score: 0.815, wants: [{ want: 'heat', weightFrac: 0.667, metFrac: 0.9, words: '', rule: 'all of it at 60 % less' }] } as unknown as FilmVerdict;
    expect(scoreWhy(v)).toEqual(['less heat, weight 67 %: 90 % met; all of it at 60 % less.', expect.stringContaining('Score 0.81')]);
    expect(scoreWhy({ score: 0, wants: [] })).toEqual([]);
  });
});
