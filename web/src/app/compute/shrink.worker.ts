import { expose, transfer } from 'comlink';
import type { MeshStation, PaneCloud, ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import {
  cloudOfPane,
  formedPane,
  likelyFrame,
  Memo,
  meshOf,
  practicePane,
  readCloud,
  shrinkPlan,
  tryLine,
  type CloudUnit,
  type Result,
} from '@yellow-pane/core';

/** A line while it is dragged: what hangs from it, and the map. */
export interface DraggedLine {
  readonly line: readonly { x: number; y: number }[];
  readonly aboveMm: number;
  readonly belowMm: number;
  readonly mesh: MeshStation[];
}
/** Some of the points of a cloud as they lie in its main plane, to point at; with their places in the file. */
export interface CloudPreview {
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly file: Float64Array;
}

/** Somebody has asked for something. */
let isAsked = false;
/** What this worker has had worked out: the slow part of a pane is kept while only the line, the film or the school changes. */
const memo = new Memo();

/** What the measures do not allow is an answer in words. */
const told = <T>(work: () => T): Result<T> => {
  isAsked = true;
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (error instanceof RangeError) return { ok: false, message: error.message };
    throw error;
  }
};

const api = {
  plan: (input: ShrinkInput): Result<ShrinkPlan> => told(() => shrinkPlan(input, memo)),
  drag: (input: ShrinkInput): Result<DraggedLine> =>
    told(() => {
      const pane = formedPane({ ...input, stepMm: 20 }, memo);
      const { line, field } = tryLine(pane, input);
      return {
        line: line.map((p) => ({ x: p.u, y: p.v })),
        aboveMm: field.toGoAboveMm,
        belowMm: field.toGoBelowMm,
        mesh: meshOf(pane.fit, field),
      };
    }),
  cloud: (bytes: Uint8Array, fileName: string, unit: CloudUnit | null, clicks: [number[], number[], number[]] | null): Result<PaneCloud> =>
    cloudOfPane(bytes, fileName, unit, clicks),
  preview(bytes: Uint8Array): Result<CloudPreview> {
    const read = readCloud(bytes);
    if (!read.ok) return read;
    const points = read.value;
    const frame = likelyFrame(points);
    const n = points.length / 3;
    const step = Math.max(1, Math.floor(n / 6000));
    const count = Math.floor(n / step);
    const [x, y, file] = [new Float32Array(count), new Float32Array(count), new Float64Array(3 * count)];
    for (let i = 0; i < count; i++) {
      const d = [0, 1, 2].map((k) => points[3 * i * step + k]!);
      const from = d.map((v, k) => v - frame.origin[k as 0]);
      const along = (a: readonly number[]) => from[0]! * a[0]! + from[1]! * a[1]! + from[2]! * a[2]!;
      [x[i], y[i]] = [along(frame.right), along(frame.up)];
      file.set(d, 3 * i);
    }
    return { ok: true, value: transfer({ x, y, file }, [x.buffer, y.buffer, file.buffer]) };
  },
};

export type ShrinkWorker = typeof api;
expose(api);

/** Made-up panes planned before anybody asks; in between, a question that has come is answered, and then there is no more practising. */
const ROUNDS = 3;
function practise(round: number): void {
  if (isAsked || round >= ROUNDS) return;
  shrinkPlan(practicePane(round));
  setTimeout(() => practise(round + 1), 30);
}
setTimeout(() => practise(0), 30);
