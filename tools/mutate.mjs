// npm run mutate -- core/src/measure [--sample 40] [--seed 7] [--list] [--own]: makes small faults in the code of a folder, one at a time, and says which of them no test notices.
// --own: only the folder's own suites are asked, which is sooner done and stricter. --sample: only so many lines of it, drawn from the seed, for a quick run. --list: every fault that lived on.
import { readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { parseArgs } from 'node:util';
import { Stryker } from '@stryker-mutator/core';
import './steps.mjs';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    sample: { type: 'string' },
    seed: { type: 'string', default: '7' },
    list: { type: 'boolean', default: false },
    own: { type: 'boolean', default: false },
  },
});
const [place] = positionals;
const workspace = place?.split('/')[0];
if (!['contracts', 'core', 'demo', 'server', 'web'].includes(workspace)) {
  console.error('Say which folder or file: npm run mutate -- core/src/measure --sample 40');
  process.exit(1);
}

const files = (statSync(place).isDirectory() ? readdirSync(place, { recursive: true }).map((f) => join(place, f)) : [place])
  .filter((f) => f.endsWith('.ts') && !/\.(spec|postgres-spec|testing|d)\.ts$/.test(f))
  .sort();

/** Numbers that look random and are the same for the same seed (a linear congruential generator, Numerical Recipes' constants, from memory). */
function dice(seed) {
  let state = seed >>> 0;
  return () => (state = (Math.imul(1664525, state) + 1013904223) >>> 0) / 2 ** 32;
}

/** Lines on which something can go wrong, as file:from-to. */
function drawn(count, seed) {
  const roll = dice(seed);
  const lines = files.flatMap((f) =>
    readFileSync(f, 'utf8')
      .split('\n')
      .flatMap((text, i) => (/[<>=?!+\-*/&|]|\d|true|false/.test(text) && !/^\s*(\/\/|\/?\*|import |export \* |export type|export interface|readonly )/.test(text) ? [`${f}:${i + 1}:0-${i + 1}:${text.length}`] : [])),
  ); // prettier-ignore
  for (let i = lines.length - 1; i > 0; i--) {
    const j = Math.floor(roll() * (i + 1));
    [lines[i], lines[j]] = [lines[j], lines[i]];
  }
  return lines.slice(0, count);
}

/** Noticed: a test failed, or hung. */
const isNoticed = (r) => r.status === 'Killed' || r.status === 'Timeout';
const isLeft = (r) => r.status === 'Survived' || r.status === 'NoCoverage';
const placeOf = (r) => `${relative('.', r.fileName)}:${r.location.start.line}:${r.location.start.column}-${r.location.end.line}:${r.location.end.column}`;

/** @param suites folder whose suites are asked; empty: all of the workspace that the code is part of */
async function faultsIn(mutate, suites) {
  process.env.YELLOW_PANE_ONLY = workspace;
  process.env.YELLOW_PANE_SUITES = suites;
  return new Stryker({
    mutate,
    testRunner: 'jest',
    testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
    jest: { configFile: 'jest.config.mjs', enableFindRelatedTests: true },
    coverageAnalysis: 'perTest',
    concurrency: 2,
    timeoutMS: 15_000,
    reporters: [],
    tempDirName: '.mutants',
    cleanTempDir: 'always',
    checkers: [],
    logLevel: 'error',
    allowConsoleColors: false,
    warnings: false,
    // what only words, or only a type, would notice
    mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral', 'ArrayDeclaration'] },
  }).runMutationTest();
}

// what a run that was stopped left behind
rmSync('.mutants', { recursive: true, force: true });
// the folder's own suites notice most, and soonest; what they let pass is put to all that stand on it
const folder = place.split('/').slice(0, 3).join('/');
const own = readdirSync(folder, { recursive: true }).some((f) => f.endsWith('.spec.ts')) ? folder : workspace;
const first = await faultsIn(values.sample ? drawn(Number(values.sample), Number(values.seed)) : files, own);
const left = first.filter(isLeft);
console.log(
  `${place}: ${first.filter(isNoticed).length} of ${first.filter((r) => isNoticed(r) || isLeft(r)).length} noticed by ${own === workspace ? 'all suites' : 'its own suites'}`,
);
const second = left.length && !values.own ? await faultsIn([...new Set(left.map(placeOf))], workspace) : left;
const keyOf = (r) => `${placeOf(r)} ${r.replacement}`;
const again = new Map(second.map((r) => [keyOf(r), r]));
const counted = first.map((r) => again.get(keyOf(r)) ?? r).filter((r) => isNoticed(r) || isLeft(r));
const folders = new Map();
for (const r of counted) {
  const folder = relative('.', dirname(r.fileName));
  const tally = folders.get(folder) ?? { noticed: 0, all: 0 };
  tally.all++;
  if (isNoticed(r)) tally.noticed++;
  folders.set(folder, tally);
}
if (values.list)
  for (const r of counted.filter((c) => !isNoticed(c))) {
    const { line } = r.location.start;
    const text = readFileSync(r.fileName, 'utf8').split('\n')[line - 1];
    console.log(
      `${relative('.', r.fileName)}:${line} ${r.mutatorName} ${r.status === 'NoCoverage' ? '(no test comes here) ' : ''}→ ${r.replacement}\n    ${text?.trim()}`,
    );
  }
for (const [folder, { noticed, all }] of [...folders].sort()) console.log(`${folder}: ${noticed} of ${all} noticed (${Math.round((100 * noticed) / all)} %)`);
const noticed = counted.filter(isNoticed).length;
console.log(`${place}: ${noticed} of ${counted.length} noticed (${Math.round((100 * noticed) / counted.length)} %)`);
