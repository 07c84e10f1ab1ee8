import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync } from 'node:fs';
import { dirname } from 'node:path';
import { admittedDevice, type AdmittedDevice } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import * as z from 'zod';
import { keep } from './keep.js';

/** When a device was last seen is written down no more often than this. @source house rule */
const SEEN_EVERY_MS = 60_000;
const line = admittedDevice.extend({ secretHash: z.string() });
type Line = z.infer<typeof line>;

const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex');

/**
 * The devices that are let in, by the hash of a secret that each of them alone holds. Kept in a file of its own and in no backup: an older state of the
 * bench, brought back, must not let in a device that has since been taken out.
 */
export class DeviceRegister {
  private lines: Line[];
  private readonly leaving = new Set<(id: string) => void>();

  constructor(
    private readonly file: string,
    private readonly now: () => Date,
  ) {
    this.lines = this.read();
  }

  /** What does not read lets nobody in; it is kept aside, and the devices ask for codes again. */
  private read(): Line[] {
    if (!existsSync(this.file)) return [];
    try {
      return z.array(line).parse(JSON.parse(readFileSync(this.file, 'utf8')));
    } catch {
      renameSync(this.file, `${this.file}.unreadable`);
      return [];
    }
  }

  all(): AdmittedDevice[] {
    return this.lines.map(({ secretHash: _, ...device }) => device);
  }

  /** @returns the device and the secret that it has to keep; nobody else ever sees it */
  admit(who: Pick<AdmittedDevice, 'name' | 'personId'>): { readonly device: AdmittedDevice; readonly secret: string } {
    const secret = randomBytes(32).toString('base64url');
    const at = this.now().toISOString();
    const device = { id: uuidv7(), ...who, admittedAt: at, lastSeenAt: at };
    this.set([...this.lines, { ...device, secretHash: hashOf(secret) }]);
    return { device, secret };
  }

  /** The device that holds this secret, if it is let in. */
  find(secret: string): AdmittedDevice | null {
    const hash = hashOf(secret);
    const found = this.lines.find((l) => l.secretHash === hash);
    if (!found) return null;
    const { secretHash: _, ...device } = found;
    const now = this.now();
    if (now.getTime() - Date.parse(found.lastSeenAt) > SEEN_EVERY_MS)
      this.set(this.lines.map((l) => (l === found ? { ...l, lastSeenAt: now.toISOString() } : l)));
    return device;
  }

  /** @returns whether it was there */
  remove(id: string): boolean {
    if (!this.lines.some((l) => l.id === id)) return false;
    this.set(this.lines.filter((l) => l.id !== id));
    this.leaving.forEach((tell) => tell(id));
    return true;
  }

  /** Told of each device that is taken out. @returns how to stop being told */
  onRemoved(tell: (id: string) => void): () => void {
    this.leaving.add(tell);
    return () => this.leaving.delete(tell);
  }

  private set(lines: Line[]): void {
    mkdirSync(dirname(this.file), { recursive: true, mode: 0o700 });
    keep(this.file, JSON.stringify(lines));
    this.lines = lines;
  }
}
