import { DomeCard } from './dome-card';
import { saidOfLid } from './panel-card.testing';

test('a lid: drawn on within what its film stands, slit where it is not; a flat face has no card', async () => {
  const said = (stretchMaxPct: number | null, own: { readonly dome?: null } = {}) => saidOfLid(DomeCard, own, { stretchMaxPct });
  expect(await said(30)).toContain('Drawn on from its middle outwards: 5 % at its corners.');
  expect(await said(3)).toMatch(/Not without cuts.* about \d+ darts in all/);
  expect(await said(null)).toContain('is not in the library');
  expect(await said(30, { dome: null })).toBe('');
});
