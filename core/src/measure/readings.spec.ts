import { newPane, type Reading, type Pane } from '@yellow-pane/contracts';
import { demoId, ternPoint } from '../../../demo/src/index.js';
import { quotedSize, readingsInForce } from './index.js';

const template = ternPoint().readings[0]!;
let next = 0;
const tape = (surface: Pane, measure: Reading['measure'], lengthMm: number, more: Partial<Reading> = {}): Reading => ({
  ...template, id: demoId(90_000 + next++), surfaceId: surface.id, measure, lengthMm, typed: String(lengthMm), instrument: 'tape', supersedesId: null, withdrawnAt: null, deletedAt: null, ...more,
}); // prettier-ignore
const pane = (n: number, more: Partial<Pane> = {}): Pane => ({ ...newPane({ id: demoId(91_000 + n), jobId: template.jobId, placeId: demoId(1), name: `W${n}`, order: n }), ...more }) as Pane; // prettier-ignore
const [one, two] = [pane(1), pane(2, { measuredLikeId: demoId(91_001) })];
const all = [one, two];

describe('the size that a pane was quoted at', () => {
  const quoted = [tape(one, 'widthLargest', 900, { instrument: 'quote' }), tape(one, 'heightLargest', 1200, { instrument: 'quote' })];
  test('is known until somebody tapes one side: then it is no size any more, and never was a tape', () => {
    expect(quotedSize(one, all, quoted)).toEqual({ widthMm: 900, heightMm: 1200 });
    expect(readingsInForce(one, all, quoted)).toEqual([]);
    expect(quotedSize(one, all, [...quoted, tape(one, 'diagonalDown', 1500)])).toBeNull();
  });
  test('with one side only there is none', () => {
    expect(quotedSize(one, all, [quoted[0]!])).toBeNull();
    expect(quotedSize(one, all, [quoted[1]!])).toBeNull();
    expect(quotedSize(one, all, [])).toBeNull();
  });
  test('a pane like another one has been quoted at its size', () => expect(quotedSize(two, all, quoted)).toEqual({ widthMm: 900, heightMm: 1200 }));
  test('taped anew on one side, the quote of the other no longer makes a size', () =>
    expect(quotedSize(one, all, [...quoted, tape(one, 'widthLargest', 905, { supersedesId: quoted[0]!.id })])).toBeNull());
});
