// npm run mutate -- core/src/measure [--sample 40] [--seed 7] [--reach 4] [--list] [--hands 2]: makes small faults in the code of a folder, one at a time, and says which of them no test notices.
// The suites that stand nearest to a fault are asked first: those that read its file, then those that read what reads it. --reach: how many, 0 for all of the workspace; by default the four nearest.
// --sample: only so many lines of it, drawn from the seed, for a quick run. --list: every fault that lived on. --hands: so many at a time.
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname, join, relative, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { createInjector } from 'typed-inject';
import { commonTokens } from '@stryker-mutator/api/plugin';
import { createInstrumenter } from '@stryker-mutator/instrumenter';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    sample: { type: 'string' },
    seed: { type: 'string', default: '7' },
    reach: { type: 'string', default: '4' },
    hands: { type: 'string', default: String(Math.max(1, Math.min(4, availableParallelism()))) },
    list: { type: 'boolean', default: false },
  },
});
const [place] = positionals;
const workspace = place?.split('/')[0];
if (!['contracts', 'core', 'demo', 'server'].includes(workspace)) {
  console.error('Say which folder or file: npm run mutate -- core/src/measure --sample 40');
  process.exit(1);
}
const reach = Number(values.reach) || Infinity;

const isCode = (f) => f.endsWith('.ts') && !/\.(spec|postgres-spec|testing|d)\.ts$/.test(f);
const below = (folder) => readdirSync(folder, { recursive: true }).map((f) => join(folder, f));
const files = (statSync(place).isDirectory() ? below(place) : [place]).filter(isCode).sort();

/** Numbers that look random and are the same for the same seed (a linear congruential generator, Numerical Recipes' constants, from memory). */
function dice(seed) {
  let state = seed >>> 0;
  return () => (state = (Math.imul(1664525, state) + 1013904223) >>> 0) / 2 ** 32;
}

/** Lines on which something can go wrong. */
function drawn(count, seed) {
  const roll = dice(seed);
  const lines = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((text, line) => (/[<>=?!+\-*/&|]|\d|true|false/.test(text) && !/^\s*(\/\/|\/?\*|import |export \* |export type|export interface|readonly )/.test(text) ? [{ file, line }] : [])),
  ); // prettier-ignore
  for (let i = lines.length - 1; i > 0; i--) {
    const j = Math.floor(roll() * (i + 1));
    [lines[i], lines[j]] = [lines[j], lines[i]];
  }
  return lines.slice(0, count);
}

const quiet = {
  debug() {},
  info() {},
  warn() {},
  error: console.error,
  trace() {},
  fatal: console.error,
  isDebugEnabled: () => false,
  isInfoEnabled: () => false,
};

/** Every small fault of a file: what only words, or only a type, would notice left out. */
async function faultsOf(file, lines) {
  const content = readFileSync(file, 'utf8');
  const instrumenter = createInjector().provideValue(commonTokens.logger, quiet).injectFunction(createInstrumenter);
  const mutator = { plugins: null, excludedMutations: ['StringLiteral', 'ObjectLiteral', 'ArrayDeclaration'] };
  const { mutants } = await instrumenter.instrument([{ name: resolve(file), mutate: true, content }], { ignorers: [], ...mutator, noHeader: true });
  const starts = [0];
  for (const [i, c] of [...content].entries()) if (c === '\n') starts.push(i + 1);
  const at = ({ line, column }) => starts[line] + column;
  return mutants
    .filter((m) => m.status !== 'Ignored' && (!lines || (lines.has(m.location.start.line) && m.location.end.line === m.location.start.line)))
    .map((m) => ({
      file,
      line: m.location.start.line,
      name: m.mutatorName,
      instead: m.replacement,
      text: content.slice(0, at(m.location.start)) + m.replacement + content.slice(at(m.location.end)),
    }));
}

/** What each file of the workspace reads of it. */
const readers = new Map();
for (const file of below(`${workspace}/src`).filter((f) => f.endsWith('.ts') && !f.endsWith('.postgres-spec.ts')))
  for (const [, from] of readFileSync(file, 'utf8').matchAll(/(?:from|import)\s+'(\.[^']*)\.js'/g)) {
    const target = join(dirname(file), `${from}.ts`);
    readers.set(target, [...(readers.get(target) ?? []), file]);
  }

/** The suites of a file, the nearest first: of its own name, then by how many files lie between, then those of its own folder. */
function suitesOf(file) {
  const distance = new Map([[file, 0]]);
  for (const [at, d] of distance) for (const reader of readers.get(at) ?? []) if (!distance.has(reader)) distance.set(reader, d + 1);
  const rank = (s) => (s === file.replace(/\.ts$/, '.spec.ts') ? 0 : distance.get(s)) + (dirname(s) === dirname(file) ? 0 : 0.5);
  return [...distance.keys()]
    .filter((f) => f.endsWith('.spec.ts'))
    .sort((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1))
    .slice(0, reach);
}

/** A copy of the tree for each hand, so that nobody's work is touched. */
function bench(n) {
  const root = resolve('.mutants', String(n));
  rmSync(root, { recursive: true, force: true });
  mkdirSync(root, { recursive: true });
  for (const name of ['contracts', 'core', 'demo', 'server', 'tools', 'jest.config.mjs', 'package.json', 'tsconfig.base.json'])
    cpSync(name, join(root, name), { recursive: true, filter: (f) => !/(^|\/)(node_modules|dist|bench)$/.test(relative('.', f)) || name === 'tools' });
  symlinkSync(resolve('node_modules'), join(root, 'node_modules'));
  return root;
}

/** Whether the suites pass there. @returns false too where they hang */
function asked(root, suites, limitMs) {
  return new Promise((done) => {
    const jest = ['--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js', '-i', '--bail', '--forceExit', '--runTestsByPath', ...suites];
    const env = { ...process.env, YELLOW_PANE_ONLY: workspace, YELLOW_PANE_SUITES: '' };
    const child = spawn('nice', ['node', ...jest], { cwd: root, env, stdio: 'ignore', detached: true });
    const clock = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), limitMs);
    child.on('exit', (code) => {
      clearTimeout(clock);
      done(code === 0);
    });
  });
}

const lines = values.sample ? drawn(Number(values.sample), Number(values.seed)) : null;
const faults = [];
for (const file of files) {
  const own = lines && new Set(lines.filter((l) => l.file === file).map((l) => l.line));
  if (!own || own.size) faults.push(...(await faultsOf(file, own)));
}
if (faults.length === 0) {
  console.log(`${place}: nothing in these lines could be made wrong; draw more`);
  process.exit(0);
}
console.log(`${place}: ${faults.length} faults in ${new Set(faults.map((f) => f.file)).size} files`);

/** How long the suites of a file take as the code is; at the first look they are compiled too. */
const usual = new Map();
const queue = [...faults];
const left = [];
let done = 0;
async function hand(n) {
  const root = bench(n);
  for (let fault = queue.shift(); fault; fault = queue.shift()) {
    const suites = suitesOf(fault.file);
    if (suites.length && !usual.has(fault.file)) {
      const began = Date.now();
      if (!(await asked(root, suites, 1_200_000))) {
        console.error(`The suites of ${fault.file} fail as the code is: ${suites.join(', ')}`);
        process.exit(1);
      }
      usual.set(fault.file, Date.now() - began);
    }
    const path = join(root, fault.file);
    const sound = readFileSync(path, 'utf8');
    writeFileSync(path, fault.text);
    // the nearest one alone first: most faults end there
    const limitMs = 3 * (usual.get(fault.file) ?? 0) + 30_000;
    const lived = (await asked(root, suites.slice(0, 1), limitMs)) && (suites.length < 2 || (await asked(root, suites.slice(1), limitMs)));
    writeFileSync(path, sound);
    done++;
    if (lived) {
      left.push(fault);
      if (values.list)
        console.log(
          `${fault.file}:${fault.line + 1} ${fault.name}${suites.length ? '' : ' (no suite comes here)'} → ${fault.instead}\n    ${sound.split('\n')[fault.line]?.trim()}`,
        );
    }
    if (done % 10 === 0) console.log(`${done} of ${faults.length}, ${done - left.length} noticed`);
  }
}
await Promise.all(Array.from({ length: Math.min(Number(values.hands), faults.length) }, (_, i) => hand(i)));
rmSync('.mutants', { recursive: true, force: true });

const folders = new Map();
for (const f of faults) {
  const tally = folders.get(dirname(f.file)) ?? { noticed: 0, all: 0 };
  tally.all++;
  if (!left.includes(f)) tally.noticed++;
  folders.set(dirname(f.file), tally);
}
for (const [folder, { noticed, all }] of [...folders].sort()) console.log(`${folder}: ${noticed} of ${all} noticed (${Math.round((100 * noticed) / all)} %)`);
console.log(`${place}: ${faults.length - left.length} of ${faults.length} noticed (${Math.round((100 * (faults.length - left.length)) / faults.length)} %)`);
