import fc from 'fast-check';
import type { LayEntry } from '@yellow-pane/contracts';
import { demoFirm, demoPersons, demoId, ternAnnex, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { checkSeal, commitmentOf, groupedSeal, sealPanes } from './seal.js';

const NOW = '2026-11-30T12:00:00.000Z';
const file = ternAnnex(NOW);
type Records = Parameters<typeof checkSeal>[1];
const records: Records = {
  firm: demoFirm, job: file.job, surfaces: file.surfaces, readings: file.readings, films: file.films, rolls: file.rolls, plans: [], stepSets: [],
  layEntries: file.layEntries, persons: demoPersons, memo: new Memo(),
} as Records; // prettier-ignore
const idOf = (name: string) => file.surfaces.find((s) => s.name === name)!.id;
const panes = [idOf('B1'), idOf('B2')];
const signedLine = (r: Records = records, ids = panes): LayEntry => ({
  ...file.layEntries[0]!, id: demoId(19_000), surfaceId: null, kind: 'accepted', occurredAt: NOW, signature: { name: 'Rowan Vale', strokes: [[[0, 0]]] }, acceptance: sealPanes(ids, r),
}); // prettier-ignore
const signed = signedLine();
const after = (more: Partial<Records>) => checkSeal(signed, { ...records, ...more, memo: new Memo() })!;
const withLines = (f: (e: LayEntry) => LayEntry) => after({ layEntries: file.layEntries.map(f) });
const ofB1 = file.layEntries.find((e) => e.surfaceId === idOf('B1') && e.kind === 'pane-done')!;

describe('a seal tells whether the record is what was signed', () => {
  test('nothing happened: unchanged, in whatever order lines and panes come', () => {
    expect(after({})).toMatchObject({ verdict: 'unchanged', says: ['Unchanged since it was signed.'], signedBy: 'Rowan Vale' });
    fc.assert(
      fc.property(fc.shuffledSubarray(file.layEntries, { minLength: file.layEntries.length }), (lines) => {
        expect(sealPanes([...panes].reverse(), { ...records, layEntries: lines }).seal).toBe(signed.acceptance!.seal);
      }),
      { numRuns: 20 },
    );
  });
  test('when the bench wrote a line down is not in it: signed out of reach it is the same seal', () => {
    expect(withLines((e) => ({ ...e, receivedAt: null })).verdict).toBe('unchanged');
  });
  test('any field of any line of its panes that is altered shows', () => {
    const own = file.layEntries.filter((e) => e.kind !== 'called' && (e.surfaceId === panes[0] || e.surfaceId === panes[1]));
    const alter: ((e: LayEntry) => LayEntry)[] = [
      (e) => ({ ...e, occurredAt: '2026-01-01T00:00:00Z' }),
      (e) => ({ ...e, personId: demoId(77) }),
      (e) => ({ ...e, text: `${e.text}!` }),
      (e) => ({ ...e, photo: 'a'.repeat(64) }),
      (e) => ({ ...e, signature: { name: 'another', strokes: [] } }),
      (e) => ({ ...e, kind: 'note' }),
      (e) => ({ ...e, stepKey: 'other' }),
      (e) => ({ ...e, reading: { what: 'glass', valueC: 40 } }),
      (e) => ({ ...e, found: 'porous' as never }),
      (e) => ({ ...e, roll: { rollId: demoId(5), lot: 'other' } }),
      (e) => ({ ...e, correctsId: demoId(6) }),
      (e) => ({ ...e, look: { water: 'none', isClean: true } }),
      (e) => ({ ...e, problem: { kind: 'air', at: null, answers: {} } }),
      (e) => ({ ...e, pin: { kind: 'hair', at: { xFrac: 0, yFrac: 0 }, seenFrom: 'room', spread: 'one', sizeMm: 3, answers: {} } }),
      (e) => ({ ...e, news: { pinId: demoId(7), answers: {}, state: 'left', causeKey: null, watchUntil: null } }),
      (e) => ({ ...e, zone: { panel: 1, graph: '0'.repeat(16), strokes: [] } }),
      (e) => ({ ...e, stepSetId: demoId(8) }),
      (e) => ({ ...e, salt: '0'.repeat(32) }),
    ];
    for (const target of own)
      for (const f of alter) {
        const is = withLines((e) => (e.id === target.id ? f(e) : e));
        expect(is.verdict).toBe('changed');
        expect(is.says.join(' ')).toContain('line');
      }
    expect(own.length).toBeGreaterThan(7);
  });
  test('a line that is gone is counted; one of another pane is none of its business', () => {
    expect(after({ layEntries: file.layEntries.filter((e) => e.id !== ofB1.id) }).says[0]).toBe('1 line of the log that it was made over is gone.');
    expect(withLines((e) => (e.surfaceId === idOf('P1') ? { ...e, text: 'other' } : e)).verdict).toBe('unchanged');
  });
  test('another film, face, name or tape is named by its pane; where it stands in the walk is none of it', () => {
    const swap = (more: object) => after({ surfaces: file.surfaces.map((s) => (s.id === panes[0] ? { ...s, ...more } : s)) });
    for (const more of [{ name: 'B9' }, { filmFace: 'street' }, { seenFrom: 'street' }, { filmId: file.surfaces.find((s) => s.name === 'P1')!.filmId }]) {
      const is = swap(more);
      expect([is.verdict, is.says[0]]).toEqual(['changed', expect.stringContaining('name' in more ? 'B9' : 'B1')]);
    }
    const longer = file.readings.map((r) => (r.surfaceId === panes[1] ? { ...r, lengthMm: r.lengthMm + 1 } : r));
    expect(after({ readings: longer }).says).toEqual(['Not as it was signed: B2 (name, faces, film, tapes or bows).']);
    const bow = { id: demoId(3), way: 'across', atMm: 300, span: null, typed: '12', unit: 'mm', depthMm: 12, personId: null, at: NOW };
    expect(swap({ curved: { bows: [bow] } }).verdict).toBe('changed');
    expect(swap({ order: 99, placeId: demoId(4) }).verdict).toBe('unchanged');
  });
  test('of a wall its breaks, of a leaf its head and its neighbour are in it; said of none of them, the seal is as it was before there were any', () => {
    const interior = ternInterior();
    const of = (name: string, more: object = {}) => {
      const surfaces = interior.surfaces.map((s) => (s.name === name ? { ...s, ...more } : s));
      return sealPanes([interior.surfaces.find((s) => s.name === name)!.id], {
        ...interior,
        firm: demoFirm,
        plans: [],
        stepSets: [],
        layEntries: [],
        memo: new Memo(),
        surfaces,
      } as unknown as Records).seal;
    };
    expect(of('Lobby pier', { breaks: [{ id: demoId(5), fromLeftMm: 300, upMm: 900, downMm: null }] })).not.toBe(of('Lobby pier'));
    expect(of('Door 1', { head: 'down' })).not.toBe(of('Door 1'));
    expect(of('Door 1', { besideId: demoId(6) })).not.toBe(of('Door 1'));
    expect(of('Reception counter', { besideId: demoId(6) })).not.toBe(of('Reception counter'));
    expect(of('Column 1', { ends: { foot: 'base', head: 'ceiling' } })).not.toBe(of('Column 1'));
    expect(of('Door 1', { head: 'any', besideId: null })).toBe(of('Door 1'));
  });
  test('a line that came later is told with who, where and when, and changes nothing of what was signed', () => {
    const later: LayEntry = { ...ofB1, id: demoId(19_001), kind: 'looked', occurredAt: '2026-12-20T09:30:00.000Z', personId: demoPersons[1]!.id, look: { water: 'none', isClean: true } }; // prettier-ignore
    const is = after({ layEntries: [...file.layEntries, later] });
    expect([is.verdict, is.says]).toEqual(['added', [`1 line came later, the last by ${demoPersons[1]!.name} on B1 at 2026-12-20 09:30 UTC.`]]);
    // of several the last one is named, in whatever order they stand
    const last: LayEntry = { ...later, id: demoId(19_005), surfaceId: null, occurredAt: '2026-12-24T08:00:00.000Z', personId: demoPersons[0]!.id };
    for (const two of [[later, last], [last, later]]) expect(after({ layEntries: [...file.layEntries, ...two] }).says).toEqual([`2 lines came later, the last by ${demoPersons[0]!.name} on the job at 2026-12-24 08:00 UTC.`]); // prettier-ignore
    // written before the signing and come in after it: it was on its way
    const onTheWay = { ...later, occurredAt: '2026-11-30T11:00:00.000Z' };
    expect(after({ layEntries: [...file.layEntries, onTheWay] })).toMatchObject({ verdict: 'added', says: ['1 line was on the way from another device, or with a photo, when it was signed.'] }); // prettier-ignore
    expect(sealPanes(panes, { ...records, layEntries: [...file.layEntries, onTheWay] }, new Set([onTheWay.id])).seal).toBe(signed.acceptance!.seal);
    // what becomes of the record itself is no part of it
    for (const kind of ['accepted', 'called', 'erased'] as const)
      expect(after({ layEntries: [...file.layEntries, { ...later, kind }] }).verdict).toBe('unchanged');
    const takenBack: LayEntry = { ...later, id: demoId(19_004), kind: 'correction', correctsId: signed.id, surfaceId: null };
    expect(after({ layEntries: [...file.layEntries, signed, takenBack] }).verdict).toBe('unchanged');
    // a later seal holds it, the first one stands beside it
    const second = signedLine({ ...records, layEntries: [...file.layEntries, later] });
    expect(checkSeal(second, { ...records, layEntries: [...file.layEntries, later] })!.verdict).toBe('unchanged');
    expect(second.acceptance!.seal).not.toBe(signed.acceptance!.seal);
  });
  test('a name, words or a photo that were erased do not break it; a forged line in the same place does', () => {
    const secret: LayEntry = { ...ofB1, id: demoId(19_002), kind: 'note', text: 'Rowan Vale, key under the mat', salt: 'ab'.repeat(16) };
    const before = { ...records, layEntries: [...file.layEntries, secret], memo: new Memo() };
    const entry = signedLine(before);
    const { salt: _gone, ...rest } = secret;
    const erased: LayEntry = { ...rest, text: '', erased: { at: NOW, byEntryId: demoId(19_003), commitment: commitmentOf(secret) } };
    const is = checkSeal(entry, { ...before, layEntries: [...file.layEntries, erased] })!;
    expect([is.verdict, is.says]).toEqual(['erased', ['1 line has had something personal erased since; the rest is proven as it was.']]);
    const forged = { ...erased, erased: { ...erased.erased!, commitment: commitmentOf({ ...secret, text: 'other' }) } };
    expect(checkSeal(entry, { ...before, layEntries: [...file.layEntries, forged] })!.verdict).toBe('changed');
    // with the salt gone nobody finds the words by trying them
    expect(commitmentOf({ ...secret, salt: 'cd'.repeat(16) })).not.toBe(commitmentOf(secret));
  });
  test('a pane that is gone breaks it and is said to be gone; a seal that was written by hand does not hold', () => {
    expect(after({ surfaces: file.surfaces.filter((s) => s.id !== panes[0]) }).says[0]).toContain('a pane that is gone');
    const byHand = { ...signed, acceptance: { ...signed.acceptance!, seal: '0'.repeat(64) } };
    expect(checkSeal(byHand, records)).toMatchObject({ verdict: 'changed', says: ['A line of the log, or the seal itself, is not as it was signed.'] });
  });
  test('it is printed in groups of four', () => expect(groupedSeal('0123456789ab')).toBe('0123 4567 89ab'));
});
