import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { realDisk, writeDurably, type Disk } from '../../db/durable.js';
import { Refusal } from '../../problem.js';

/** Longest side of a kept photo, px: a hair on the glass is still seen, a day's photos still fit on a phone. @source house rule */
const LONGEST_PX = 1600;
const QUALITY = 82;
/** More is no photo but a bomb. */
const MOST_PIXELS = 60_000_000;

/**
 * Photos beside the database: each is a file named by its content, so that the same one is kept once and none is ever changed. What a camera
 * wrote into it (place, time, maker) is left out.
 */
export class PhotoStore {
  constructor(
    private readonly dir: string | null,
    private readonly disk: Disk = realDisk,
  ) {}

  /** @returns its name. @throws Refusal when it does not read as a picture */
  async add(bytes: Uint8Array): Promise<{ photo: string; bytes: number }> {
    if (!this.dir) throw new Refusal('bad-input', 'This bench keeps no photos.');
    let kept: Buffer;
    try {
      // drawn anew: turned upright as the camera held it, then nothing but pixels
      const { default: sharp } = await import('sharp');
      const drawn = sharp(bytes, { limitInputPixels: MOST_PIXELS }).rotate().flatten({ background: '#ffffff' });
      kept = await drawn.resize({ width: LONGEST_PX, height: LONGEST_PX, fit: 'inside', withoutEnlargement: true }).jpeg({ quality: QUALITY }).toBuffer();
    } catch {
      throw new Refusal('bad-input', 'This does not read as a picture: send JPEG, PNG or WebP. Nothing was kept.');
    }
    const photo = createHash('sha256').update(kept).digest('hex');
    if (!this.isWhole(photo)) this.write(photo, kept);
    return { photo, bytes: kept.length };
  }

  has(photo: string): boolean {
    return this.dir !== null && existsSync(this.fileOf(this.dir, photo));
  }

  /** Whether it stands there and is what its name says: one that was torn, by whatever, is written anew when it comes again. */
  private isWhole(photo: string): boolean {
    if (!this.has(photo)) return false;
    return createHash('sha256').update(this.disk.read(this.fileOf(this.dir!, photo))).digest('hex') === photo; // prettier-ignore
  }

  /** @throws Refusal not-found; a torn file is none, and is put out of the way so that the device that still has the photo sends it again */
  read(photo: string): Buffer {
    if (!this.dir || !this.has(photo)) throw new Refusal('not-found', 'There is no such photo on this bench.');
    if (!this.isWhole(photo)) {
      rmSync(this.fileOf(this.dir, photo), { force: true });
      throw new Refusal('not-found', 'This photo was torn on the disk and is gone. Send it again from the device that took it.');
    }
    return readFileSync(this.fileOf(this.dir, photo));
  }

  /** @returns whether there was one */
  remove(photo: string): boolean {
    if (!this.dir || !this.has(photo)) return false;
    rmSync(this.fileOf(this.dir, photo), { force: true });
    return true;
  }

  private fileOf(dir: string, photo: string): string {
    return join(dir, photo.slice(0, 2), `${photo}.jpg`);
  }

  /** Whole and on the disk, or not there. */
  private write(photo: string, bytes: Buffer): void {
    const file = this.fileOf(this.dir!, photo);
    const folder = join(this.dir!, photo.slice(0, 2));
    mkdirSync(folder, { recursive: true });
    writeDurably(file, bytes, { disk: this.disk });
  }
}
