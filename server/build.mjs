import { cpSync, rmSync } from 'node:fs';
import { build } from 'esbuild';

process.chdir(import.meta.dirname);
rmSync('dist', { recursive: true, force: true });
await build({
  entryPoints: { main: 'src/main.ts', worker: 'src/compute/worker.ts' },
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  tsconfig: 'tsconfig.json',
  sourcemap: true,
  logLevel: 'warning',
});
cpSync('src/db/migrations', 'dist/migrations', { recursive: true });
