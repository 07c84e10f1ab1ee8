import type { ShrinkPlan } from '@yellow-pane/contracts';
import { boundingBox, signedArea, type Polygon } from '../geometry/index.js';
import { seededRandom } from '../ground/index.js';
import { dishOver, inputOf, readBows, sheet, strewn } from './curved-panes.testing.js';
import { frameByClicks, likelyUnit } from './cloud-frame.js';
import { placeCloud } from './place-cloud.js';
import { readCloud } from './read-cloud.js';
import { shrinkPlan } from './shrink-plan.js';

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
const grid = Array.from({ length: 64 }, (_, i) => [(i % 8) * 100, Math.floor(i / 8) * 60, -(((i % 8) - 3.5) ** 2)] as const);
const header = (format: string, extra = '') =>
  `ply\nformat ${format} 1.0\ncomment a cabin window\nelement vertex ${grid.length}\nproperty float x\nproperty float y\nproperty float z\n${extra}end_header\n`;

/** The grid as a binary file: a colour after each point, a face with a list before them. */
function binary(isLittle: boolean): Uint8Array {
  const head = bytes(`ply\nformat binary_${isLittle ? 'little' : 'big'}_endian 1.0\nelement face 1\nproperty list uchar int vertex_indices\nelement vertex ${grid.length}\nproperty double x\nproperty float y\nproperty float z\nproperty uchar red\nend_header\n`); // prettier-ignore
  const body = new DataView(new ArrayBuffer(1 + 3 * 4 + grid.length * 17));
  body.setUint8(0, 3);
  [0, 1, 2].forEach((v, i) => body.setInt32(1 + 4 * i, v, isLittle));
  grid.forEach(([x, y, z], i) => {
    const at = 13 + 17 * i;
    body.setFloat64(at, x, isLittle);
    body.setFloat32(at + 8, y, isLittle);
    body.setFloat32(at + 12, z, isLittle);
    body.setUint8(at + 16, 200);
  });
  return Uint8Array.from([...head, ...new Uint8Array(body.buffer)]);
}
const points = (r: ReturnType<typeof readCloud>) =>
  r.ok ? Array.from({ length: r.value.length / 3 }, (_, i) => [...r.value.slice(3 * i, 3 * i + 3)]) : r.message;
const wanted = grid.map((p) => [...p]);

describe('point cloud files', () => {
  test('XYZ with blanks, commas, semicolons, a heading, remarks and more columns than three', () => {
    const separators = [' ', ', ', ';', '\t'];
    const text = `x y z\n# scanned by hand\n${grid.map((p, i) => `${p.join(separators[i % 4])}${i % 5 ? '' : ' 17 200'}`).join('\r\n')}\n\n`;
    expect(points(readCloud(bytes(text)))).toEqual(wanted);
  });
  test('PLY: ascii, binary of either endianness, with colours and faces passed over', () => {
    const ascii = header('ascii') + grid.map((p) => p.join(' ')).join('\n');
    expect(points(readCloud(bytes(ascii)))).toEqual(wanted);
    expect(points(readCloud(binary(true)))).toEqual(wanted);
    expect(points(readCloud(binary(false)))).toEqual(wanted);
  });
  test('what is wrong is said with its place and its cure', () => {
    const say = (b: Uint8Array) => points(readCloud(b));
    expect(say(bytes('1 2 3\n4 5 6\n'))).toContain('Only 2 points');
    expect(say(bytes(`${grid.map((p) => p.join(' ')).join('\n')}\n${'the end of it\n'.repeat(9)}`))).toContain('Line 65 is no point');
    expect(say(bytes(grid.map(([x, y]) => `${x},5 ${y},5`).join('\n').replaceAll(' ', ' a ')))).toContain('with a point for decimals'); // prettier-ignore
    expect(say(bytes(header('ascii') + '1 2 3\n'))).toContain('ends early: point 2 of 64');
    expect(say(binary(true).slice(0, 400))).toContain('ends early');
    expect(say(bytes('ply\nformat ascii 1.0\nelement vertex 3\n'))).toContain('no end_header');
    expect(say(bytes(header('binary_pdp_endian')))).toContain('“binary_pdp_endian”');
    expect(say(bytes('ply\nformat ascii 1.0\nelement vertex 3\nproperty float u\nend_header\n1\n2\n3\n'))).toContain('no x, y and z');
  });
});

describe('a cloud of a rear window: 20 000 points, 0.4 mm of noise, a hole, three in a hundred strays', () => {
  const height = dishOver(1320, 560, 62, 12);
  const cloud = strewn(1320, 560, height);
  const placed = placeCloud(cloud, 'shuttle-rear.ply', 'mm');
  const value = placed.ok ? placed.value : null;
  test('its noise and its strays come out as they were put in', () => {
    expect(value!.noiseMm).toBeGreaterThan(0.36);
    expect(value!.noiseMm).toBeLessThan(0.45);
    expect(value!.strayCount / 20_000).toBeGreaterThan(0.025);
    expect(value!.strayCount / 20_000).toBeLessThan(0.06);
  });
  test('it is found lying right way up, and as large as it is to a few millimetres', () => {
    const box = boundingBox(value!.outline);
    expect(box).toMatchObject({ minX: expect.closeTo(0, 0), minY: expect.closeTo(0, 0) });
    expect(Math.abs(box.maxX - 1320)).toBeLessThan(5);
    expect(Math.abs(box.maxY - 560)).toBeLessThan(5);
    expect(signedArea(value!.outline) / (1320 * 560)).toBeGreaterThan(0.985);
  });
  test('the plan from the cloud is the plan from exact bows, to 1 %', () => {
    const outline = sheet(1320, 560);
    const byBows = shrinkPlan(inputOf(outline, { bows: readBows(outline, height) }));
    const byCloud = shrinkPlan(inputOf(outline, { cloud: value }));
    expect(Math.abs(byCloud.below.slackMm / byBows.below.slackMm - 1)).toBeLessThan(0.01);
    expect(byCloud.below.highMm - byCloud.below.lowMm).toBeLessThan(byBows.below.highMm - byBows.below.lowMm);
    expect(Math.abs(byCloud.anchor.middleMm - 280)).toBeLessThan(6);
    expect(byCloud.nextBow).toBeNull();
  });
  test('exact points: none is a stray, and the slack is that of exact bows to half a per cent (false heights at the corners took up to six)', () => {
    for (const [w, h, across, upright] of [[1320, 560, 62, 12], [900, 700, 30, 20], [1400, 600, 90, 15]] as const) {
      const over = dishOver(w, h, across, upright);
      const exact = placeCloud(strewn(w, h, over, { noiseMm: 0, strayFrac: 0, count: 42_000 }), 'x.ply', 'mm');
      const byCloud = shrinkPlan(inputOf(sheet(w, h), { cloud: exact.ok ? exact.value : null }));
      const byBows = shrinkPlan(inputOf(sheet(w, h), { bows: readBows(sheet(w, h), over) }));
      expect(exact.ok && exact.value.strayCount / 42_000).toBeLessThan(0.005);
      for (const side of ['below', 'above'] as const) expect(Math.abs(byCloud[side].slackMm / byBows[side].slackMm - 1)).toBeLessThan(0.005);
    }
  }); // prettier-ignore
  test('placed by three clicks it is the same pane', () => {
    const [c, s] = [Math.cos(0.4), Math.sin(0.4)];
    const file = (x: number, y: number) => [2000 + x, -500 - c * height(x, y) + s * y, 800 + s * height(x, y) + c * y] as const;
    const frame = frameByClicks(file(0, 0), file(1320, 0), file(500, 560));
    const clicked = placeCloud(cloud, 'shuttle-rear.ply', 'mm', frame.ok ? frame.value : null);
    expect(clicked.ok && boundingBox(clicked.value.outline).maxX).toBeCloseTo(1320, -1);
    const [a, b] = [value!, clicked.ok ? clicked.value : value!].map((v) => shrinkPlan(inputOf(sheet(1320, 560), { cloud: v })).below.slackMm);
    expect(b! / a!).toBeCloseTo(1, 1);
  });
  test('written in metres it is the same; in a unit that makes no pane of it, it is refused with the size that would come out', () => {
    const metres = cloud.map((v) => v / 1000);
    expect(likelyUnit(metres)).toBe('m');
    expect(likelyUnit(cloud)).toBe('mm');
    expect(likelyUnit(cloud.map((v) => v / 25.4))).toBe('in');
    const r = placeCloud(metres, 'x', 'mm');
    expect(r.ok ? '' : r.message).toMatch(/This cloud is \d mm long if it is written in mm/);
  });
  test('scanned from another side, the slack stays', () => {
    const [c, s] = [Math.cos(2.1), Math.sin(2.1)];
    const turned = cloud.slice();
    for (let i = 0; i < turned.length; i += 3) [turned[i], turned[i + 1]] = [c * cloud[i]! - s * cloud[i + 1]!, s * cloud[i]! + c * cloud[i + 1]!];
    const r = placeCloud(turned, 'x', 'mm');
    const plan = (v: NonNullable<typeof value>) => shrinkPlan(inputOf(sheet(1320, 560), { cloud: v }));
    const [a, b] = [plan(value!), plan(r.ok ? r.value : value!)];
    expect(r.ok).toBe(true);
    expect(b.below.slackMm + b.above.slackMm).toBeCloseTo(a.below.slackMm + a.above.slackMm, 0);
  });
});

test('three clicks on one line are no frame; points on no surface are refused', () => {
  expect(frameByClicks([0, 0, 0], [1, 0, 0], [2, 0, 0])).toMatchObject({ ok: false });
  const random = seededRandom(2);
  const fog = Float64Array.from({ length: 600 }, () => 1000 * random());
  const r = placeCloud(fog, 'fog', 'mm');
  expect(r.ok ? r.value.noiseMm > 20 || 'taken for a pane' : r.message).not.toBe('taken for a pane');
});
test('points along an edge or a string are no pane, and it is said what to scan', () => {
  const random = seededRandom(4);
  const string = Float64Array.from({ length: 6000 }, (_, i) => (i % 3 === 0 ? i / 4 : random()));
  expect(placeCloud(string, 'edge.xyz', 'mm')).toMatchObject({ ok: false, message: expect.stringContaining('from side to side') });
});

describe('the outline of a cloud', () => {
  const outlineOf = (height: (x: number, y: number) => number, isGlass: (x: number, y: number) => boolean) => {
    const r = placeCloud(strewn(1320, 560, height, { isGlass, count: 30_000 }), 'x.ply', 'mm');
    return r.ok ? r.value.outline : [];
  };
  const height = dishOver(1320, 560, 62, 12);
  const deepest = (outline: Polygon) => Math.min(...outline.filter((p) => Math.abs(p.x - 660) < 60 && p.y < 280).map((p) => p.y));
  test('a lower edge that is bent inwards by 45 mm is followed, not bridged: its slack hangs from where the glass is', () => {
    const outline = outlineOf(height, (x, y) => y > 45 * (1 - (x / 660 - 1) ** 2));
    expect(deepest(outline)).toBeGreaterThan(40);
    expect(deepest(outline)).toBeLessThan(50);
    // two thirds of 45 over the whole length are missing
    const glass = 1320 * (560 - 30);
    expect(signedArea(outline) / glass).toBeGreaterThan(0.985);
    expect(signedArea(outline) / glass).toBeLessThan(1.002);
  });
  test('and the plan from it is the plan from exact bows over that outline, to 3 % and 5 mm of height; bridged it would be a tenth too much', () => {
    const rim = (x: number) => 45 * (1 - (x / 660 - 1) ** 2);
    const glass: Polygon = [...Array.from({ length: 41 }, (_, i) => ({ x: 33 * i, y: rim(33 * i) })), { x: 1320, y: 560 }, { x: 0, y: 560 }];
    const [byBows, bridged] = [glass, sheet(1320, 560)].map((o) => shrinkPlan(inputOf(o, { bows: readBows(o, height) }))) as [ShrinkPlan, ShrinkPlan];
    const r = placeCloud(strewn(1320, 560, height, { isGlass: (x, y) => y > rim(x), count: 30_000 }), 'x.ply', 'mm');
    const byCloud = shrinkPlan(inputOf(r.ok ? r.value.outline : [], { cloud: r.ok ? r.value : null }));
    expect(Math.abs(byCloud.below.slackMm / byBows.below.slackMm - 1)).toBeLessThan(0.03);
    expect(Math.abs(byCloud.anchor.middleMm - byBows.anchor.middleMm)).toBeLessThan(5);
    expect(bridged.below.slackMm / byBows.below.slackMm).toBeGreaterThan(1.1);
  });
  test('a gap in the border as wide as a hand, where glare took the points, takes no more than 3 mm off', () => {
    const outline = outlineOf(height, (x, y) => Math.abs(x - 660) > 45 || y > 90);
    expect(deepest(outline)).toBeLessThan(3 + 1.5);
    expect(signedArea(outline) / (1320 * 560)).toBeGreaterThan(0.985);
  });
});
