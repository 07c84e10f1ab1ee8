import { readdirSync, readFileSync } from 'node:fs';
import presets from 'jest-preset-angular/presets/index.js';

const { createEsmPreset } = presets;

/** Tells the suites of one run from those of another. */
const benchRun = `${Date.now()}-${process.pid}`;

const node = (name, tsconfig, setupFiles = []) => ({
  displayName: name,
  rootDir: `<rootDir>/${name}`,
  testEnvironment: 'node',
  setupFiles,
  globals: { benchRun },
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  extensionsToTreatAsEsm: ['.ts'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transform: { '^.+\\.ts$': ['ts-jest', { useESM: true, tsconfig, diagnostics: false }] },
});

/** What is written on paper and into files is the same from either engine: the embedded one tests it. */
const fromRecordsAlone = /stations\/(cut|form|choose)\//;
/** With a PostgreSQL server at hand: the other suites that stand on a bench, and those of that engine itself. */
const onServer = !!process.env.YELLOW_PANE_TEST_DATABASE_URL;
const suitesOnServer = () =>
  readdirSync('server/src', { recursive: true })
    .filter(
      (f) =>
        f.endsWith('.postgres-spec.ts') ||
        (f.endsWith('.spec.ts') && !fromRecordsAlone.test(f) && readFileSync(`server/src/${f}`, 'utf8').includes('openBench(')),
    )
    .map((f) => `<rootDir>/src/${f}`);

/** One workspace alone, with the others beside it as they are in this tree: for tools/mutate.mjs, which works on a copy of it. */
const only = process.env.YELLOW_PANE_ONLY;
const alone = (name) => ({
  testEnvironment: 'node',
  setupFiles: name === 'core' ? ['<rootDir>/tools/property-seed.mjs'] : [],
  globals: { benchRun },
  testTimeout: 60_000,
  testMatch: [`<rootDir>/${process.env.YELLOW_PANE_SUITES || name}/**/*.spec.ts`],
  extensionsToTreatAsEsm: ['.ts'],
  moduleNameMapper: {
    '^(\\.{1,2}/.*)\\.js$': '$1',
    '^@yellow-pane/(\\w+)$': '<rootDir>/$1/src/index.ts',
    '^@yellow-pane/(\\w+)/(\\w+)$': '<rootDir>/$1/src/$2/index.ts',
  },
  transform: {
    '^.+\\.ts$': [
      'ts-jest',
      { useESM: true, tsconfig: `<rootDir>/${name === 'server' ? 'server/tsconfig.json' : 'core/tsconfig.spec.json'}`, diagnostics: false },
    ],
  },
});

const everything = {
  // generous: a test that hangs is caught all the same, and a busy machine is no fault of the code
  testTimeout: 300_000,
  globalTeardown: '<rootDir>/tools/clear-up.mjs',
  projects: onServer
    ? [{ ...node('server', '<rootDir>/tsconfig.json'), displayName: 'server on PostgreSQL', testMatch: suitesOnServer() }]
    : [
        node('contracts', '<rootDir>/../core/tsconfig.spec.json'),
        node('core', '<rootDir>/tsconfig.spec.json', ['<rootDir>/../tools/property-seed.mjs']),
        node('demo', '<rootDir>/../core/tsconfig.spec.json'),
        node('server', '<rootDir>/tsconfig.json'),
        {
          ...createEsmPreset({ tsconfig: '<rootDir>/tsconfig.spec.json' }),
          displayName: 'web',
          rootDir: '<rootDir>/web',
          testMatch: ['<rootDir>/src/**/*.spec.ts'],
          setupFilesAfterEnv: ['<rootDir>/src/test-setup.ts'],
          moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
        },
      ],
};

export default only ? alone(only) : everything;
