// Packs the built interface once, as densely as it goes: the server hands the packed files out as they are.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';

const pack = promisify(brotliCompress);
const folder = join(import.meta.dirname, 'dist/browser');
const texts = readdirSync(folder, { recursive: true }).filter((name) => /-[A-Z0-9]{8}\.(js|css|svg)$/.test(name));
await Promise.all(
  texts.map(async (name) => {
    const text = readFileSync(join(folder, name));
    const packed = await pack(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: text.length } });
    if (packed.length < text.length) writeFileSync(join(folder, `${name}.br`), packed);
  }),
);
