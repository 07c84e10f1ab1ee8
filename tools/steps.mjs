// Small steps shared by demo, start and test: install when needed, build when needed, run with inherited output.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');
process.chdir(root);

/** Runs a command; a failure ends this one too, with its exit code. */
export function run(command, args, env = {}) {
  const done = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env }, shell: process.platform === 'win32' });
  if (done.status !== 0) process.exit(done.status ?? 1);
}

const newest = (folder) => {
  let latest = 0;
  for (const name of readdirSync(folder, { recursive: true })) {
    if (/node_modules|dist|\.angular/.test(name)) continue;
    const at = statSync(join(folder, name)).mtimeMs;
    if (at > latest) latest = at;
  }
  return latest;
};

export function install() {
  const done = 'node_modules/.package-lock.json';
  if (existsSync(done) && statSync(done).mtimeMs >= statSync('package-lock.json').mtimeMs - 1000) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
}

export function build() {
  const built = ['web/dist/browser/index.html', 'server/dist/main.js'];
  const age = Math.min(...built.map((f) => (existsSync(f) ? statSync(f).mtimeMs : 0)));
  const source = Math.max(...['contracts/src', 'core/src', 'demo/src', 'server/src', 'web/src', 'web/public'].map(newest));
  if (age > source) return;
  console.log('Building …');
  run('npm', ['run', 'build', '--silent'], { CI: '1', NG_CLI_ANALYTICS: 'false' });
}
