// npm run crash -- 50 7: kills the built bench so often while people work with it, from that seed, and says whether anything it had acknowledged was lost.
// With node tools/postgres.mjs before it the records are on a PostgreSQL server.
import { newOfficeDatabase, officeUrl } from '../driver/office.js';
import { crash } from './crash.js';

const [cycles, seed] = [Number(process.argv[2] ?? 50), Number(process.argv[3] ?? Date.now() % 1e6)];
process.stdout.write(`${cycles} kills from seed ${seed}\n`);
const { faults, ...figures } = await crash(cycles, seed, (line) => process.stdout.write(`${line}\n`), officeUrl ? await newOfficeDatabase() : null);
process.stdout.write(`${JSON.stringify(figures)}\n${faults.join('\n')}${faults.length ? '\n' : 'nothing was lost\n'}`);
process.exit(faults.length ? 1 : 0);
