import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A real server on a data folder of its own, that can be stopped, killed and started again. */
export class BenchServer {
  readonly dataDir = mkdtempSync(join(tmpdir(), 'yellow-pane-'));
  url = '';
  private process: ChildProcess | null = null;

  async start(env: Record<string, string> = {}): Promise<void> {
    const template = process.env['YELLOW_PANE_TEMPLATE'];
    if (template && !env['YELLOW_PANE_SEED'] && readdirSync(this.dataDir).length === 0) cpSync(template, this.dataDir, { recursive: true });
    const child = spawn(process.execPath, ['server/dist/main.js'], {
      env: {
        ...process.env,
        YELLOW_PANE_DATA: this.dataDir,
        YELLOW_PANE_SEED: 'demo',
        YELLOW_PANE_PORT: this.url ? new URL(this.url).port : '0',
        YELLOW_PANE_LOG: 'error',
        ...env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.process = child;
    this.url = await new Promise<string>((resolve, reject) => {
      let said = '';
      child.stdout.on('data', (d: Buffer) => {
        said += d.toString();
        const found = /http:\/\/localhost:\d+/.exec(said);
        if (found) resolve(found[0]);
      });
      child.stderr.on('data', (d: Buffer) => (said += d.toString()));
      child.on('exit', (code) => reject(new Error(`The server ended with ${code}: ${said}`)));
    });
  }

  /** Ends it without any chance to tidy up. */
  async kill(): Promise<void> {
    await this.end('SIGKILL');
  }
  async stop(): Promise<void> {
    await this.end('SIGTERM');
  }
  private end(signal: NodeJS.Signals): Promise<void> {
    const child = this.process;
    this.process = null;
    if (!child || child.exitCode !== null) return Promise.resolve();
    return new Promise((resolve) => {
      child.removeAllListeners('exit');
      child.on('exit', () => resolve());
      child.kill(signal);
    });
  }

  async get<T>(path: string): Promise<T> {
    const answer = await fetch(this.url + path);
    return (await answer.json()) as T;
  }

  /** Where a job of the demo is. */
  async jobId(name: string): Promise<string> {
    return (await this.get<{ jobs: { id: string; name: string }[] }>('/api/jobs')).jobs.find((j) => j.name === name)!.id;
  }

  async remove(): Promise<void> {
    await this.stop();
    rmSync(this.dataDir, { recursive: true, force: true });
  }
}
