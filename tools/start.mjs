// npm start: the real bench, with its data in the user's data folder (YELLOW_PANE_DATA names another).
import { spawn } from 'node:child_process';
import { build, install } from './steps.mjs';

install();
build();
const server = spawn(process.execPath, ['server/dist/main.js'], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
