// The core asks no clock and throws no dice: time and chance are handed in.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const forbidden = /\bDate\.now\(|\bnew Date\(\)|\bMath\.random\(|\bperformance\.now\(/;
const faults = [];
for (const file of readdirSync('core/src', { recursive: true })) {
  if (!file.endsWith('.ts') || file.endsWith('.spec.ts')) continue;
  readFileSync(join('core/src', file), 'utf8')
    .split('\n')
    .forEach((line, i) => {
      if (forbidden.test(line)) faults.push(`core/src/${file}:${i + 1} ${line.trim()}`);
    });
}
if (faults.length) {
  console.error(`The core must get time and chance handed in:\n${faults.join('\n')}`);
  process.exit(1);
}
console.log('core: no clock, no dice');
