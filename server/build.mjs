import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { build } from 'esbuild';

process.chdir(import.meta.dirname);
rmSync('dist', { recursive: true, force: true });
await build({
  entryPoints: { main: 'src/main.ts', worker: 'src/compute/worker.ts' },
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  // what is read only when it is asked for stays in parts of its own
  splitting: true,
  target: 'node20',
  // packages go into the bundle: to find and read a thousand files of them takes a start a fifth of its time. Not those that bring files of their own
  // (the embedded database, pictures, papers and their fonts) or start threads by name (the log)
  external: ['@electric-sql/pglite', 'sharp', 'pdfmake', '@expo-google-fonts/*', '@fontsource/*', 'fontkit', 'pino', 'pg', 'pg-native'],
  banner: { js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);" },
  tsconfig: 'tsconfig.json',
  sourcemap: true,
  logLevel: 'warning',
});
cpSync('src/db/migrations', 'dist/migrations', { recursive: true });

// An empty bench, made once here: a first start copies it instead of making a database from nothing, which takes several times as long.
const migrationsFolder = 'src/db/migrations';
const hash = createHash('sha256').update(JSON.parse(readFileSync('package.json', 'utf8')).dependencies['@electric-sql/pglite']);
for (const name of readdirSync(migrationsFolder).filter((f) => f.endsWith('.sql')).sort()) hash.update(readFileSync(`${migrationsFolder}/${name}`)); // prettier-ignore
const kept = `.empty-bench/${hash.digest('hex').slice(0, 16)}`;
if (!existsSync(kept)) {
  rmSync('.empty-bench', { recursive: true, force: true });
  mkdirSync('.empty-bench');
  const client = await PGlite.create('.empty-bench/making');
  await migrate(drizzle(client), { migrationsFolder });
  await client.close();
  renameSync('.empty-bench/making', kept);
}
cpSync(kept, 'dist/empty-bench', { recursive: true });
