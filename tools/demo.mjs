// npm run demo [-- --fresh]: installs, builds, seeds and starts with the made-up harbour of Tern Point.
import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, root } from './steps.mjs';

const data = process.env.YELLOW_PANE_DATA ?? join(root, '.demo-data');
if (process.argv.includes('--fresh')) rmSync(data, { recursive: true, force: true });
install();
build();
const server = spawn(process.execPath, ['server/dist/main.js'], {
  stdio: 'inherit',
  env: { ...process.env, YELLOW_PANE_DATA: data, YELLOW_PANE_SEED: 'demo', YELLOW_PANE_LOG: process.env.YELLOW_PANE_LOG ?? 'error' },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
