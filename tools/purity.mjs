// The core asks no clock, throws no dice and remembers nothing: time, chance and memory (Memo) are handed in.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const forbidden = /\bDate\.now\(|\bnew Date\(\)|\bMath\.random\(|\bperformance\.now\(/;
/** Of the module itself, not of a call: a variable, or a map that is filled later. */
const remembers = /^(export )?(let |const \w+(: [^=]+)? = new (Weak)?(Map|Set)\b.*\(\);)/;
/** A table of pure numbers, a few dozen rows at most; room that one sum at a time writes in; a set that stays empty. */
const allowed = ['const levelsKnown =', 'let places =', 'const noPairs: ReadonlySet'];
const faults = [];
for (const file of readdirSync('core/src', { recursive: true })) {
  if (!file.endsWith('.ts') || file.endsWith('.spec.ts')) continue;
  readFileSync(join('core/src', file), 'utf8')
    .split('\n')
    .forEach((line, i) => {
      if (forbidden.test(line) || (remembers.test(line) && !allowed.some((a) => line.startsWith(a)))) faults.push(`core/src/${file}:${i + 1} ${line.trim()}`);
    });
}
if (faults.length) {
  console.error(`The core must get time, chance and memory handed in:\n${faults.join('\n')}`);
  process.exit(1);
}
console.log('core: no clock, no dice, no memory of its own');
