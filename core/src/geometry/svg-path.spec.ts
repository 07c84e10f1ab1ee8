import { signedArea } from './polygon.js';
import { ringsFromSvgPath } from './svg-path.js';

const said = (d: string) => {
  const r = ringsFromSvgPath(d);
  return r.ok ? '' : r.message;
};

describe('figures drawn as an SVG path', () => {
  test('a square and a hole in it; curves to within the chord error, y turned up', () => {
    const r = ringsFromSvgPath('M0 0H100V100H0Z M50 20 a30 30 0 1 0 0.001 0 Z');
    if (!r.ok) throw new Error(r.message);
    expect(r.rings).toHaveLength(2);
    expect(Math.abs(signedArea(r.rings[0]!))).toBeCloseTo(10_000, 6);
    expect(Math.abs(Math.abs(signedArea(r.rings[1]!)) / (Math.PI * 900) - 1)).toBeLessThan(0.01);
  });
  test.each(['M0 0 C 1e17 0 0 1e17 5 5 Z', 'M 1e17 1e17 L 0 0 Z', 'M0 0 q 1e17 1e17 5 5 Z', 'M0 0 A 1e17 1e17 0 1 1 5 5 Z'])(
    'a light year away: refused at once, %s',
    (d) => expect(said(d)).toContain('reaches farther than 1000000 units'),
  );
  test('what is no path, and one of more points than a knife follows, in a sentence', () => {
    expect(said('not a path')).toContain('does not read');
    expect(said(`M0 0 ${'L1 1 L2 0 '.repeat(15_000)}Z`)).not.toBe('');
  });
});
