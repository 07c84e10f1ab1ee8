import fc from 'fast-check';
import type { Change, JobDocument, Patch } from '@yellow-pane/contracts';
import { ternPointDocument } from './fake-api.testing';
import { held, numbered, refused, replicaOf, shown, told, isNext, type Replica } from './replica';
import { applyPatches } from './updaters';

const start = (): JobDocument => ({ ...ternPointDocument(), revision: 1 });
const names = ['T1', 'W1', 'O1'];
const pane = (doc: JobDocument, name: string) => doc.surfaces.find((s) => s.name === name)!;

/** The bench as far as it matters here: one order for all, each edit once, a reading supersedes whichever is in force. */
class Bench {
  doc = start();
  readonly log: Change[] = [];
  take(id: string, patches: readonly Patch[]): Change {
    const known = this.log.find((c) => c.id === id);
    if (known) return known;
    const written = patches.map((p): Patch => {
      if (p.op !== 'add' || p.kind !== 'reading') return p;
      const inForce = this.doc.readings.filter((r) => r.surfaceId === p.value['surfaceId'] && r.measure === p.value['measure'] && !this.doc.readings.some((x) => x.supersedesId === r.id)); // prettier-ignore
      return { ...p, value: { ...p.value, supersedesId: inForce.at(-1)?.id ?? null } };
    });
    this.doc = { ...applyPatches(this.doc, written), revision: this.doc.revision + 1 };
    const change = { id, patches: written, revision: this.doc.revision } as unknown as Change;
    this.log.push(change);
    return change;
  }
}
/** A page: its replica, what it has sent, what is under way to it. */
class Page {
  replica: Replica = replicaOf(start());
  readonly toBench: { id: string; patches: Patch[] }[] = [];
  readonly answers: Change[] = [];
  readonly stream: Change[] = [];
  make(id: string, patches: Patch[]): void {
    this.replica = held(this.replica, id, patches);
    this.toBench.push({ id, patches });
  }
}
const byId = <T extends { id: string }>(list: readonly T[]): T[] => [...list].sort((a, b) => a.id.localeCompare(b.id));
const plain = (d: JobDocument) => ({ surfaces: byId(d.surfaces), readings: byId(d.readings), places: byId(d.places), job: d.job });

test('two pages and the bench end with the same document, however edits, answers and the stream overtake one another, get lost or come twice', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('edit', 'tape', 'deliver', 'answer', 'stream', 'lose', 'drop-stream'), fc.nat(1), fc.nat(2), fc.nat(99)), { minLength: 10, maxLength: 120 }), // prettier-ignore
      (steps) => {
        const bench = new Bench();
        const pages = [new Page(), new Page()];
        let n = 0;
        const deliver = (from: Page) => {
          const sent = from.toBench[0];
          if (!sent) return;
          const isNew = !bench.log.some((c) => c.id === sent.id);
          const change = bench.take(sent.id, sent.patches);
          if (isNew) for (const p of pages) p.stream.push(change);
          from.answers.push(change);
          from.toBench.shift();
        };
        const answer = (to: Page) => {
          const change = to.answers.shift();
          if (!change) return;
          to.replica = isNext(to.replica, change.revision) ? told(to.replica, [change])! : numbered(to.replica, change);
        };
        const catchUp = (p: Page) => void (p.replica = told(p.replica, bench.log.filter((c) => c.revision > p.replica.base.revision), bench.doc.revision)!); // prettier-ignore
        for (const [what, who, which, value] of steps) {
          const page = pages[who]!;
          const doc = shown(page.replica);
          const target = pane(doc, names[which]!);
          if (what === 'edit') page.make(`e${n++}`, [{ op: 'set', kind: 'surface', id: target.id, field: 'note', value: `n${value}` }]);
          if (what === 'tape') {
            const old = doc.readings.filter((r) => r.surfaceId === target.id && r.measure === 'widthTop').at(-1);
            const id = `r${String(n).padStart(4, '0')}`;
            page.make(`e${n++}`, [{ op: 'add', kind: 'reading', id, value: { id, surfaceId: target.id, measure: 'widthTop', lengthMm: value, supersedesId: old?.id ?? null } }]); // prettier-ignore
          }
          if (what === 'deliver') deliver(page);
          if (what === 'answer') answer(page);
          if (what === 'stream' && page.stream.length) page.replica = told(page.replica, [page.stream.shift()!])!;
          // the answer is lost on the way: the same edit is sent again
          if (what === 'lose' && page.answers.length) {
            const lost = page.answers.shift()!;
            page.toBench.unshift({ id: lost.id, patches: [...lost.patches] });
          }
          // the line is cut: what was under way on it never comes, and is asked for when it is open again
          if (what === 'drop-stream') {
            page.stream.length = 0;
            catchUp(page);
          }
        }
        for (const p of pages) while (p.toBench.length) deliver(p);
        for (const p of pages) {
          while (p.answers.length) answer(p);
          catchUp(p);
        }
        for (const p of pages) {
          expect(p.replica.pending).toEqual([]);
          expect(plain(shown(p.replica))).toEqual(plain(bench.doc));
        }
        // exactly one reading of each measure is in force
        for (const name of names) {
          const all = bench.doc.readings.filter((r) => r.surfaceId === pane(bench.doc, name).id && r.measure === 'widthTop');
          const inForce = all.filter((r) => !all.some((x) => x.supersedesId === r.id));
          expect(inForce.length).toBeLessThanOrEqual(1);
        }
      },
    ),
    { numRuns: 60, seed: 20261128 },
  ));

describe('an edit on its way', () => {
  const note = (value: string): Patch => ({ op: 'set', kind: 'surface', id: pane(start(), 'T1').id, field: 'note', value });
  const noteOf = (r: Replica) => pane(shown(r), 'T1').note;
  test('is shown at once, over what others make in the meantime; refused, it is gone and theirs stands', () => {
    let r = held(replicaOf(start()), 'mine', [note('mine')]);
    r = told(r, [{ id: 'theirs', patches: [note('theirs')], revision: 2 }])!;
    expect([noteOf(r), pane(r.base, 'T1').note]).toEqual(['mine', 'theirs']);
    expect(noteOf(refused(r, 'mine'))).toBe('theirs');
  });
  test('numbered before an earlier one of somebody else has come in, it does not go in before its turn', () => {
    let r = numbered(held(replicaOf(start()), 'mine', [note('mine')]), { id: 'mine', patches: [note('mine')], revision: 3 });
    expect(r.base.revision).toBe(1);
    r = told(r, [{ id: 'mine', patches: [note('mine')], revision: 3 }, { id: 'theirs', patches: [note('theirs')], revision: 2 }])!; // prettier-ignore
    expect([noteOf(r), r.pending, r.base.revision]).toEqual(['mine', [], 3]);
  });
});
