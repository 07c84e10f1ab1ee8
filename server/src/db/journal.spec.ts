import { appendFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Change } from '@yellow-pane/contracts';
import { Journal } from './journal.js';

let dir: string;
beforeEach(() => (dir = mkdtempSync(join(tmpdir(), 'yellow-pane-journal-'))));
afterEach(() => rmSync(dir, { recursive: true, force: true }));

const change = (id: string, text = id): Change => ({ id, label: text, patches: [] }) as unknown as Change;
const file = () => join(dir, 'journal.ndjson');
const linesOf = (name: string) => readFileSync(join(dir, name), 'utf8').split('\n').filter(Boolean);

describe('what was written comes back', () => {
  test('changes in their order, over segments; one that did not come to pass is left out', () => {
    const journal = new Journal(dir);
    journal.append(change('a'));
    journal.append(change('b'));
    journal.void('b');
    journal.rotate('2026-11-20');
    journal.append(change('c'));
    expect(journal.read().changes.map((c) => c.id)).toEqual(['a', 'c']);
    expect(new Journal(dir).read()).toMatchObject({ unreadableCount: 0, unreadableFile: null });
  });
  test('no more than ten segments are kept besides the one in hand: as many as there are daily backups', () => {
    const journal = new Journal(dir);
    for (let i = 0; i < 13; i++) {
      journal.append(change(`d${String(i).padStart(2, '0')}`));
      journal.rotate(`2026-11-${String(i + 10)}`);
    }
    expect(journal.read().changes.map((c) => c.id)).toEqual(Array.from({ length: 10 }, (_, i) => `d${String(i + 3).padStart(2, '0')}`));
  });
});

describe('taking something out of it, when a customer asks for it', () => {
  const blackened = (c: Change): Change => (c.label.includes('Maren') ? { ...c, label: 'erased' } : c);
  test('every line stays a line of its own, in every segment; what is written afterwards reads on', () => {
    const journal = new Journal(dir);
    journal.append(change('a', 'Maren signed'));
    journal.append(change('b'));
    journal.void('b');
    journal.rotate('2026-11-20');
    journal.append(change('c', 'Maren came back'));
    journal.append(change('d'));
    journal.scrub(['x'], blackened);
    expect(linesOf('journal-2026-11-20.ndjson').map((l) => JSON.parse(l) as unknown)).toEqual([
      { change: change('a', 'erased') },
      { change: change('b') },
      { void: 'b' },
    ]);
    expect(linesOf('journal.ndjson').map((l) => JSON.parse(l) as unknown)).toEqual([{ change: change('c', 'erased') }, { change: change('d') }]);
    journal.append(change('e'));
    expect(new Journal(dir).read().changes.map((c) => [c.id, c.label])).toEqual([['a', 'erased'], ['c', 'erased'], ['d', 'd'], ['e', 'e']]); // prettier-ignore
  });
  test('a line that nobody can read goes where it names what has to go; another one stays for whoever mends it', () => {
    const journal = new Journal(dir);
    journal.append(change('a'));
    appendFileSync(file(), '{"change":{"id":"torn","label":"Maren, record 0193\n');
    journal.scrub(['0193'], blackened);
    expect(linesOf('journal.ndjson')).toHaveLength(1);
    const other = new Journal(dir);
    writeFileSync(file(), `${readFileSync(file(), 'utf8')}{"change":{"id":"torn","label":"nothing\n`);
    other.scrub(['0193'], blackened);
    expect(linesOf('journal.ndjson')).toHaveLength(2);
  });
  test('where nothing is to be changed nothing is written anew', () => {
    const journal = new Journal(dir);
    journal.append(change('a'));
    const before = readFileSync(file(), 'utf8');
    journal.scrub(['x'], blackened);
    expect(readFileSync(file(), 'utf8')).toBe(before);
  });
});
