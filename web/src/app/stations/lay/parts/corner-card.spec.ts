import { CornerCard } from './corner-card';
import { saidOfLid } from './panel-card.testing';

test('round corners of a lid: drawn over in goes; a tighter round says how far film gets before its cut; without them there is no card', async () => {
  const drawn = await saidOfLid(CornerCard);
  expect(drawn).toContain('Drawn over without a cut: 23 % at its end.');
  expect(drawn).toContain('In 3 goes: lift back to the arris');
  expect(await saidOfLid(CornerCard, { corners: { radiusMm: 15, arrisMm: 3 } })).toMatch(/Not without a cut.*as far as \d+ mm from where the face ends/);
  expect(await saidOfLid(CornerCard, {}, { stretchMaxPct: null })).toContain('is not in the library');
  expect(await saidOfLid(CornerCard, { corners: null })).toBe('');
});
