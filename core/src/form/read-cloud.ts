import { fail, ok, type Result } from '../ground/index.js';

/** Points in space one after another: x, y, z, x, y, z … in the unit of the file. */
export type Points = Float64Array;

/** More points than this are thinned while they are read: every so many is kept. */
const MOST_POINTS = 400_000;
/** Farther off, in whatever unit, no pane is; map coordinates in mm stay below it. */
const FARTHEST = 1e10;
/** A head of more kinds of things, or things of more values, is no point cloud. */
const MOST_IN_HEAD = 100;
/** Fewer say nothing of a curve. */
const LEAST_POINTS = 50;

const textOf = (bytes: Uint8Array, from = 0, to = bytes.length): string => {
  let out = '';
  for (let i = from; i < to; i += 8192) out += String.fromCharCode(...bytes.subarray(i, Math.min(to, i + 8192)));
  return out;
};

/**
 * A point cloud from a file: XYZ (three numbers a line, more are passed over) or PLY (ascii, binary little or big endian).
 * @returns the points, or a sentence that says what is wrong, where, and how to mend it
 * @source PLY: Turk, The PLY Polygon File Format (from memory)
 */
export function readCloud(bytes: Uint8Array): Result<Points> {
  const points = textOf(bytes, 0, 4).startsWith('ply') ? readPly(bytes) : readXyz(bytes);
  if (!points.ok) return points;
  const count = points.value.length / 3;
  if (count < LEAST_POINTS) return fail(`Only ${count} points in this file: at least ${LEAST_POINTS} over the whole pane are needed.`);
  for (const v of points.value) {
    if (!Number.isFinite(v)) return fail('A point in this file has no finite place. Export it again without empty points.');
    if (Math.abs(v) > FARTHEST)
      return fail(`A point in this file lies at ${v.toPrecision(3)}: no pane is that far off. Export it again, from a place near the pane.`);
  }
  return points;
}

function readXyz(bytes: Uint8Array): Result<Points> {
  const lines = textOf(bytes).split(/\r\n|\r|\n/);
  const every = Math.max(1, Math.ceil(lines.length / MOST_POINTS));
  const out: number[] = [];
  let [bad, firstBad, filled] = [0, 0, 0];
  lines.forEach((line, i) => {
    const text = line.trim();
    if (text === '' || text.startsWith('#') || text.startsWith('//')) return;
    filled++;
    const numbers = text.split(/[\s,;]+/, 3).map(Number);
    if (numbers.length < 3 || numbers.some(Number.isNaN)) {
      bad++;
      firstBad ||= i + 1;
    } else if (filled % every === 0) out.push(...numbers);
  });
  // a heading or a count on top is usual; more is no point cloud
  if (bad > Math.max(2, 0.02 * filled))
    return fail(
      `Line ${firstBad} is no point: three numbers (x y z) are expected on every line, with a point for decimals. ${bad} of ${filled} lines do not read.`,
    );
  return ok(Float64Array.from(out));
}

type Scalar = 'char' | 'uchar' | 'short' | 'ushort' | 'int' | 'uint' | 'float' | 'double';
const sizes: Record<Scalar, number> = { char: 1, uchar: 1, short: 2, ushort: 2, int: 4, uint: 4, float: 4, double: 8 };
const aliases: Record<string, Scalar> = {
  int8: 'char',
  uint8: 'uchar',
  int16: 'short',
  uint16: 'ushort',
  int32: 'int',
  uint32: 'uint',
  float32: 'float',
  float64: 'double',
};
const scalarOf = (name: string | undefined): Scalar | null => (name === undefined ? null : name in sizes ? (name as Scalar) : (aliases[name] ?? null));

interface Property {
  readonly name: string;
  readonly type: Scalar;
  /** Of a list: the type of its length. */
  readonly count: Scalar | null;
}
interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}
interface Header {
  readonly format: string;
  readonly elements: Element[];
  readonly end: number;
}

function readHeader(bytes: Uint8Array): Result<Header> {
  const head = textOf(bytes, 0, Math.min(bytes.length, 65_536));
  const mark = /end_header[ \t]*(\r\n|\n|\r)/.exec(head);
  if (!mark) return fail('This PLY file has no end_header line: it was cut off, or it is no PLY file.');
  let format = '';
  const elements: Element[] = [];
  for (const line of head.slice(0, mark.index).split(/\r\n|\n|\r/)) {
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'format') format = rest[0] ?? '';
    else if (word === 'element') elements.push({ name: rest[0] ?? '', count: Number(rest[1]), properties: [] });
    else if (word === 'property') {
      const isList = rest[0] === 'list';
      const [type, count] = isList ? [scalarOf(rest[2]), scalarOf(rest[1])] : [scalarOf(rest[0]), null];
      if (!type || (isList && !count)) return fail(`This PLY file has a property of a kind that is not known: “${line.trim()}”.`);
      elements.at(-1)?.properties.push({ name: rest.at(-1)!, type, count });
    }
  }
  if (elements.some((e) => !Number.isSafeInteger(e.count) || e.count < 0)) return fail('This PLY file does not say how many points it has.');
  if (elements.length > MOST_IN_HEAD || elements.some((e) => e.properties.length > MOST_IN_HEAD))
    return fail('The head of this PLY file names more than a point cloud has: is it one?');
  return ok({ format, elements, end: mark.index + mark[0].length });
}

function readPly(bytes: Uint8Array): Result<Points> {
  const header = readHeader(bytes);
  if (!header.ok) return header;
  const { format, elements } = header.value;
  const vertex = elements.find((e) => e.name === 'vertex');
  if (!vertex) return fail('This PLY file has no points (no element vertex).');
  if (!['x', 'y', 'z'].every((n) => vertex.properties.some((p) => p.name === n && !p.count))) return fail('The points of this PLY file have no x, y and z.');
  if (format === 'ascii') return readAscii(bytes, header.value, vertex);
  if (format === 'binary_little_endian' || format === 'binary_big_endian') return readBinary(bytes, header.value, vertex, format === 'binary_little_endian');
  return fail(`This PLY file is written as “${format}”: ascii, binary_little_endian and binary_big_endian can be read.`);
}

const thinned = (count: number): number => Math.max(1, Math.ceil(count / MOST_POINTS));
const tooShort = (name: string, i: number, count: number): Result<never> =>
  fail(`This PLY file ends early: ${name} ${i + 1} of ${count} is not there. Send or export it again.`);

function readAscii(bytes: Uint8Array, { elements, end }: Header, vertex: Element): Result<Points> {
  const lines = textOf(bytes, end).split(/\r\n|\n|\r/);
  while (lines.at(-1)?.trim() === '') lines.pop();
  // limits before work: what the head promises must be there
  for (const e of elements) if (e.count > lines.length) return tooShort(e === vertex ? 'point' : e.name, lines.length, e.count);
  let at = 0;
  for (const e of elements) {
    if (e !== vertex) {
      at += e.count;
      continue;
    }
    const columns = ['x', 'y', 'z'].map((n) => e.properties.findIndex((p) => p.name === n));
    const every = thinned(e.count);
    const out: number[] = [];
    for (let i = 0; i < e.count; i += every) {
      const numbers = lines[at + i]?.trim().split(/\s+/).map(Number);
      if (!numbers || numbers.length < e.properties.length) return tooShort('point', i, e.count);
      const point = columns.map((c) => numbers[c]!);
      if (point.some(Number.isNaN)) return fail(`Point ${i + 1} of this PLY file is no number: “${lines[at + i]!.trim()}”.`);
      out.push(...point);
    }
    return ok(Float64Array.from(out));
  }
  return fail('This PLY file has no points (no element vertex).');
}

function readBinary(bytes: Uint8Array, { elements, end }: Header, vertex: Element, isLittle: boolean): Result<Points> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const scalar = (type: Scalar, at: number): number => {
    switch (type) {
      case 'char':
        return view.getInt8(at);
      case 'uchar':
        return view.getUint8(at);
      case 'short':
        return view.getInt16(at, isLittle);
      case 'ushort':
        return view.getUint16(at, isLittle);
      case 'int':
        return view.getInt32(at, isLittle);
      case 'uint':
        return view.getUint32(at, isLittle);
      case 'float':
        return view.getFloat32(at, isLittle);
      case 'double':
        return view.getFloat64(at, isLittle);
    }
  };
  let at = end;
  for (const e of elements) {
    // limits before work: each takes its bytes, a list at least those of its length; one without any takes none, however many there are
    const leastBytes = e.properties.reduce((s, p) => s + sizes[p.count ?? p.type], 0);
    if (leastBytes === 0 && e !== vertex) continue;
    if (e.count * leastBytes > bytes.length - at)
      return tooShort(e === vertex ? 'point' : e.name, Math.floor((bytes.length - at) / Math.max(1, leastBytes)), e.count);
    const every = thinned(e.count);
    const out: number[] = [];
    for (let i = 0; i < e.count; i++) {
      const point = [0, 0, 0];
      for (const p of e.properties) {
        if (at + sizes[p.count ?? p.type] > bytes.length) return tooShort(e === vertex ? 'point' : e.name, i, e.count);
        if (p.count) {
          at += sizes[p.count] + scalar(p.count, at) * sizes[p.type];
          continue;
        }
        const k = ['x', 'y', 'z'].indexOf(p.name);
        if (k >= 0) point[k] = scalar(p.type, at);
        at += sizes[p.type];
      }
      if (e === vertex && i % every === 0) out.push(...point);
    }
    if (e === vertex) return ok(Float64Array.from(out));
  }
  return fail('This PLY file has no points (no element vertex).');
}
