/** Heat into and through things: closed forms where they hold, finite volumes where they do not. SI units but °C; per square metre of surface. Model: docs/models/hot-air.md. */

/** √π exactly enough. */
const SQRT_PI = Math.sqrt(Math.PI);

/** exp(x²)·erfc(x) for x ≥ 0, to 1e-12: the series of erf below 2.5, its continued fraction above. @source Abramowitz & Stegun 7.1.6 and 7.1.14 (from memory) */
export function scaledErfc(x: number): number {
  if (x < 2.5) {
    // erf x = 2/√π · e^(−x²) · Σ 2^n x^(2n+1) / (1·3·…·(2n+1))
    let term = x;
    let sum = x;
    for (let n = 1; n < 80 && term > 1e-18; n++) {
      term *= (2 * x * x) / (2 * n + 1);
      sum += term;
    }
    return Math.exp(x * x) - (2 / SQRT_PI) * sum;
  }
  let tail = 0;
  for (let n = 60; n >= 1; n--) tail = n / 2 / (x + tail);
  return 1 / SQRT_PI / (x + tail);
}
const erfc = (x: number): number => (x < 0 ? 2 - erfc(-x) : Math.exp(-x * x) * scaledErfc(x));

/** Something thin that is as warm all through, between two sides. */
export interface Lumped {
  readonly joulePerM2K: number;
  readonly front: { readonly wPerM2K: number; readonly tempC: number };
  readonly back: { readonly wPerM2K: number; readonly tempC: number };
}
/** Where a thin thing comes to rest, and the time in which it has gone 63 % of the way. @source energy balance: C·dT/dt = Σ h·(T_side − T) */
export function lumpedEnd({ joulePerM2K, front, back }: Lumped): { readonly endC: number; readonly tauS: number } {
  const sum = front.wPerM2K + back.wPerM2K;
  return { endC: (front.wPerM2K * front.tempC + back.wPerM2K * back.tempC) / sum, tauS: joulePerM2K / sum };
}
/** How long a thin thing takes from one temperature to another; null: it never comes there. */
export function lumpedSeconds(body: Lumped, fromC: number, toC: number): number | null {
  const { endC, tauS } = lumpedEnd(body);
  const share = (endC - toC) / (endC - fromC);
  return share > 0 && share <= 1 ? -tauS * Math.log(share) : null;
}

/** What heat goes through: conductivity W/(m·K), heat of a cubic metre J/(m³·K). */
export interface Conductor {
  readonly wPerMK: number;
  readonly joulePerM3K: number;
}
const diffusivityM2PerS = ({ wPerMK, joulePerM3K }: Conductor): number => wPerMK / joulePerM3K;

/** Inside something thick whose surface is held at another temperature from one moment on. @source Incropera & DeWitt, semi-infinite solid, case 1: erf(x/2√(αt)) */
export function heldHalfSpaceC(diffusivity: number, surfaceC: number, fromC: number, seconds: number, depthM: number): number {
  return surfaceC + (fromC - surfaceC) * (1 - erfc(depthM / (2 * Math.sqrt(diffusivity * seconds))));
}
/** Inside something thick over which gas begins to flow. @source Incropera & DeWitt, semi-infinite solid, case 3 (surface convection) */
export function blownHalfSpaceC(body: Conductor, wPerM2K: number, gasC: number, fromC: number, seconds: number, depthM = 0): number {
  const root = Math.sqrt(diffusivityM2PerS(body) * seconds);
  const [u, v] = [depthM / (2 * root), (wPerM2K * root) / body.wPerMK];
  // exp(hx/k + h²αt/k²)·erfc(u + v) = exp(−u²)·exp((u + v)²)·erfc(u + v)
  return fromC + (gasC - fromC) * (erfc(u) - Math.exp(-u * u) * scaledErfc(u + v));
}

/** A row of cells from the front to the back. */
export interface CellRow {
  /** Heat that each takes for a kelvin, J/(m²·K). */
  readonly joulePerM2K: readonly number[];
  /** Between each and the next, W/(m²·K): one fewer than the cells. */
  readonly wPerM2K: readonly number[];
  /** Behind the last. 0: nothing goes out there. */
  readonly back: { readonly wPerM2K: number; readonly tempC: number };
}
/** What stands before the first cell at a moment. */
export type Front = (seconds: number) => { readonly wPerM2K: number; readonly tempC: number };

/**
 * Temperatures of a row of cells as time goes on, by finite volumes, implicit (backward Euler): whatever the step, no cell is ever hotter than what heats it, and in = stored
 * + out to rounding, with what flows added up as the scheme takes it.
 * @param times seconds, ascending; the first is the beginning
 * @param seen called at every time with the cells (in °C; reused: copy what is kept)
 * @returns heat in at the front and out at the back, J/m²
 */
export function stepCells(
  row: CellRow,
  fromC: readonly number[],
  times: readonly number[],
  front: Front,
  seen: (seconds: number, tempsC: Float64Array) => void,
) {
  const n = row.joulePerM2K.length;
  const temps = Float64Array.from(fromC);
  const [start, rhs, pivot] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  let [inJ, outJ] = [0, 0];
  /** (C/Δt + L)·T = C/Δt·start + what comes from both sides. */
  const solve = (dt: number, at: { readonly wPerM2K: number; readonly tempC: number }): void => {
    for (let i = 0; i < n; i++) {
      const [before, after] = [i === 0 ? at.wPerM2K : row.wPerM2K[i - 1]!, i === n - 1 ? row.back.wPerM2K : row.wPerM2K[i]!];
      const own = row.joulePerM2K[i]! / dt;
      pivot[i] = own + before + after;
      rhs[i] = own * start[i]! + (i === 0 ? before * at.tempC : 0) + (i === n - 1 ? after * row.back.tempC : 0);
    }
    for (let i = 1; i < n; i++) {
      const w = row.wPerM2K[i - 1]!;
      const share = w / pivot[i - 1]!;
      pivot[i]! -= share * w;
      rhs[i]! += share * rhs[i - 1]!;
    }
    temps[n - 1] = rhs[n - 1]! / pivot[n - 1]!;
    for (let i = n - 2; i >= 0; i--) temps[i] = (rhs[i]! + row.wPerM2K[i]! * temps[i + 1]!) / pivot[i]!;
  };
  seen(times[0]!, temps);
  for (let k = 1; k < times.length; k++) {
    const dt = times[k]! - times[k - 1]!;
    const at = front(times[k]!);
    start.set(temps);
    solve(dt, at);
    inJ += dt * at.wPerM2K * (at.tempC - temps[0]!);
    outJ += dt * row.back.wPerM2K * (temps[n - 1]! - row.back.tempC);
    seen(times[k]!, temps);
  }
  return { inJ, outJ };
}

/** A layer of a row: how thick, of what; cells grow from the front by `growth` where it is thick. */
export interface HeatLayer extends Conductor {
  readonly thickM: number;
  readonly firstCellM: number;
  readonly growth: number;
}
/** Cells of layers that lie on each other, with what holds heat up between one and the next, m²·K/W. */
export function cellsOf(layers: readonly HeatLayer[], between: readonly number[], back: CellRow['back']): CellRow {
  const joules: number[] = [];
  const watts: number[] = [];
  let lastHalf = 0;
  layers.forEach((layer, index) => {
    let [at, size] = [0, layer.firstCellM];
    while (at < layer.thickM - 1e-12) {
      // what would be left over as a sliver goes to the last cell
      const thick = layer.thickM - at < 1.5 * size ? layer.thickM - at : size;
      const half = thick / 2 / layer.wPerMK;
      if (joules.length) watts.push(1 / (lastHalf + half + (at === 0 ? between[index - 1]! : 0)));
      joules.push(thick * layer.joulePerM3K);
      lastHalf = half;
      at += thick;
      size *= layer.growth;
    }
  });
  return { joulePerM2K: joules, wPerM2K: watts, back: back.wPerM2K > 0 ? { ...back, wPerM2K: 1 / (1 / back.wPerM2K + lastHalf) } : back };
}
