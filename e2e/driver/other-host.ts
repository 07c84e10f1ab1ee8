import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser } from '@playwright/test';

const run = (program: string, ...args: string[]) => execFileSync(program, args, { stdio: 'pipe' }).toString();

/** Why a second host cannot be made here; null: it can. */
export function whyNoOtherHost(): string | null {
  if (process.getuid?.() !== 0) return 'a network namespace needs root';
  for (const program of ['ip', 'certutil'])
    try {
      run('which', program);
    } catch {
      return `${program} is not installed`;
    }
  return null;
}

/** A phone with an address of its own: a network namespace, tied to this machine by one cable, with a browser and a store of trusted certificates. */
export class OtherHost {
  private readonly n = 1 + Math.floor(Math.random() * 250);
  private readonly space = `yp-phone-${process.pid}-${this.n}`;
  private readonly home = mkdtempSync(join(tmpdir(), 'yp-phone-'));
  /** This machine's address on the cable, and the phone's. */
  readonly benchAddress = `10.83.${this.n}.1`;
  readonly ownAddress = `10.83.${this.n}.2`;

  plugIn(): void {
    run('ip', 'netns', 'add', this.space);
    run('ip', 'link', 'add', `ypb${this.n}`, 'type', 'veth', 'peer', 'name', `ypp${this.n}`, 'netns', this.space);
    run('ip', 'addr', 'add', `${this.benchAddress}/30`, 'dev', `ypb${this.n}`);
    run('ip', 'link', 'set', `ypb${this.n}`, 'up');
    run('ip', '-n', this.space, 'addr', 'add', `${this.ownAddress}/30`, 'dev', `ypp${this.n}`);
    run('ip', '-n', this.space, 'link', 'set', `ypp${this.n}`, 'up');
    run('ip', '-n', this.space, 'link', 'set', 'lo', 'up');
    const nss = this.nss();
    mkdirSync(nss, { recursive: true });
    run('certutil', '-N', '--empty-password', '-d', `sql:${nss}`);
    const wrapper = this.wrapper();
    writeFileSync(wrapper, `#!/bin/sh\nexec ip netns exec ${this.space} ${process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium'} "$@"\n`);
    chmodSync(wrapper, 0o755);
  }
  /** Out of reach of the bench, and back. */
  cable(state: 'up' | 'down'): void {
    run('ip', '-n', this.space, 'link', 'set', `ypp${this.n}`, state);
  }
  /** As its settings do it: this certificate is trusted as an authority. */
  trust(file: string): void {
    run('certutil', '-A', '-d', `sql:${this.nss()}`, '-n', 'bench', '-t', 'C,,', '-i', file);
  }
  browser(): Promise<Browser> {
    return chromium.launch({
      executablePath: this.wrapper(),
      env: { ...(process.env as Record<string, string>), HOME: this.home },
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
    }); // prettier-ignore
  }
  unplug(): void {
    run('ip', 'netns', 'del', this.space);
    rmSync(this.home, { recursive: true, force: true });
  }

  private nss = () => join(this.home, '.pki', 'nssdb');
  private wrapper = () => join(this.home, 'chromium-elsewhere');
}
