// npm test: unit tests, then the interface driven in a real browser against the real server and database.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { postgresPrograms, startPostgres } from './postgres.mjs';
import { build, install, run } from './steps.mjs';

const chromium = () => [process.env.CHROMIUM_PATH, '/usr/bin/chromium', '/usr/bin/chromium-browser'].find((p) => p && existsSync(p));
const has = (program) => ['/usr/bin', '/usr/sbin', '/sbin', '/bin'].some((dir) => existsSync(`${dir}/${program}`));

/**
 * A browser; what the story of the phone in the shop needs: a second network address (ip) and a store of trusted certificates (certutil); and a PostgreSQL server
 * for the suites and the story of the office that has one.
 */
function ensurePrograms() {
  const missing = [!chromium() && 'chromium', !has('ip') && 'iproute2', !has('certutil') && 'libnss3-tools', !postgresPrograms() && 'postgresql'].filter(
    Boolean,
  );
  const isRoot = process.getuid?.() === 0;
  const hasApt = spawnSync('apt-get', ['--version']).status === 0;
  if (missing.length && isRoot && hasApt) {
    console.log(`Installing ${missing.join(', ')} for the browser tests …`);
    run('apt-get', ['update', '-qq']);
    run('apt-get', ['install', '-y', '-qq', ...missing]);
  }
  if (chromium()) return chromium();
  console.error('The browser tests need Chromium. Install it (Debian: sudo apt-get install chromium) or name one in CHROMIUM_PATH, then run npm test again.');
  process.exit(1);
}

install();
const browser = ensurePrograms();
const unitTests = ['--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js', '--maxWorkers=2'];
run(process.execPath, unitTests);
const postgres = postgresPrograms() ? await startPostgres() : null;
if (!postgres && process.env.CI) throw new Error('CI tests both engines, and there is no PostgreSQL server here.');
if (!postgres) console.log('No PostgreSQL server is installed (Debian: sudo apt-get install postgresql): the suites and stories on one are left out.');
const onServer = postgres ? { YELLOW_PANE_TEST_DATABASE_URL: postgres.url } : {};
if (postgres) run(process.execPath, unitTests, onServer);
build();
run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], { CHROMIUM_PATH: browser, ...onServer });
await postgres?.stop();
