import { capital, formatDifference, formatRough, formatRoughRange, listed, type UnitSystem } from '../ground/index.js';
import type { HeatProof, HeatCover } from './heat-stretches.js';
import { unprovenEdges } from './heat-stretches.js';
import { tiltShare } from '../physics/index.js';
import type { HeatCase, HeatPlan, HeatSpread, SpeedBand } from './heat-pass.js';
import type { HeatTrial } from './heat-of-surface.js';

const whole = (c: number): string => c.toFixed(0);
const between = ([low, , high]: HeatSpread): string => (whole(low) === whole(high) ? `${whole(low)} °C` : `${whole(low)} to ${whole(high)} °C`);
const seconds = (s: number): string => (s < 10 ? `${s.toFixed(1)} s` : s < 90 ? `${s.toFixed(0)} s` : `${Math.ceil(s / 60)} min`);

/** A plan for the gun as one says it. Temperatures stand in °C: whoever shows it brings them into the units of the job. */
export interface HeatWords {
  /** What the hand does. */
  readonly headline: string;
  /** What follows the gun; null: nothing has to. */
  readonly follow: string | null;
  /** What each place comes to. */
  readonly places: readonly { readonly name: string; readonly range: string; readonly isWanted: boolean }[];
  /** How sure that is, and what would make it surer. */
  readonly sure: string;
  /** What does not go, or has to be minded. */
  readonly minds: readonly string[];
  readonly why: readonly string[];
}

/** No hand tells a finer speed. */
const steps = (mmPerS: number): number => (mmPerS < 20 ? Math.round(mmPerS) : Math.round(mmPerS / 5) * 5);
const speedText = (mmPerS: number, units: UnitSystem): string => `${formatRough(steps(mmPerS), units)} a second`;
const rangeText = ({ slowestMmPerS, fastestMmPerS }: SpeedBand, units: UnitSystem): string =>
  `${formatRoughRange(steps(slowestMmPerS), steps(fastestMmPerS), units)} a second`;

export function heatWords(c: HeatCase, plan: HeatPlan, trial: HeatTrial | null, units: UnitSystem): HeatWords {
  const { asked, passes, speedMmPerS, sure, expected, factor, jet } = plan;
  const off = formatRough(c.distanceMm, units);
  const wanted = plan.places.find((p) => p.place.key === asked.place.key)!;
  const hottest = plan.places.find((p) => p.place.key === asked.hottest.key)!;
  const speed = speedText(speedMmPerS, units);
  const what = asked.aim === 'warm' ? 'the ground' : 'film';
  const headline =
    passes === null
      ? plan.hindered === 'cold'
        ? `Not from ${off} away: ${what} does not come to ${whole(asked.wantC)} °C there. Go nearer.`
        : `Not from ${off} away: something is too hot before ${what} comes to ${whole(asked.wantC)} °C.`
      : `${off} off, ${speed}${passes === 1 ? ', once' : `, to and fro ${passes} times over a hand’s length`}.`;
  const followMm = plan.softS * speedMmPerS;
  const follow =
    passes === null || asked.aim === 'post-heat' || asked.aim === 'warm'
      ? null
      : plan.softS < 0.15
        ? 'It is soft under the gun only: hand or roller beside it, or more slowly.'
        : `${asked.aim === 'relax' ? 'Form it' : 'Roller or pad'} within ${seconds(plan.softS)}${passes === 1 && followMm < 600 ? `: ${formatRough(Math.floor(followMm / 5) * 5, units)} behind the gun at most` : ''}.`;
  const isCorrected = trial?.says.is === 'corrected';
  const doubtPct = Math.round((100 * (factor.high - factor.mid)) / factor.mid);
  const how = isCorrected
    ? `Corrected by the reading of ${whole(trial.readC)} °C on this ground: what the gun gives is known to ±${doubtPct} %.`
    : `What a gun gives is known to ±${doubtPct} % only; a reading after one pass corrects it for this gun and this ground.`;
  const band = sure
    ? `In one pass sure: ${rangeText(sure, units)}.`
    : expected && passes === 1
      ? `No one speed is sure yet; ${rangeText(expected, units)} is expected to do.`
      : passes === null
        ? ''
        : 'Go by the reading, not by the count.';
  const minds = [
    plan.hindered === 'ground'
      ? `${capital(c.ground.name)} is spoilt at about ${c.ground.limitC} °C, before its film has ${whole(asked.wantC)} °C: ask the film’s maker for another way, or do without stretching it.`
      : '',
    hottest.place.key !== wanted.place.key && hottest.peakC[2] > asked.limitC ? `${capital(hottest.place.name)} may scorch (about ${asked.limitC} °C): try a place nobody sees, and go quicker where joints run.${asked.aim === 'faces' && speedMmPerS > 55 ? ` The usual ${speedText(50, units)} is for faces without deep joints.` : ''}` : '',
    asked.aim === 'post-heat' && passes !== null ? (plan.coolS === null ? 'It stays warm for more than ten minutes: let it cool before a knife comes to it.' : plan.coolS > 5 ? `Let it cool for ${seconds(plan.coolS)} before a knife comes to it.` : '') : '',
    c.ground.isNamed ? '' : `Nobody named its ground: it is taken for ${c.ground.name}. Say what it is in Measure.`,
    c.groundC < 15 ? `Its ground is at ${whole(c.groundC)} °C: film that is laid dry wants 15 to 25 °C.` : '',
  ].filter(Boolean); // prettier-ignore
  return {
    headline,
    follow,
    places: plan.places.map(({ place, peakC }) => ({ name: capital(place.name), range: `${between(peakC)} (about ${whole(peakC[1])} °C)`, isWanted: place.key === asked.place.key })),
    sure: [how, band].filter(Boolean).join(' '),
    minds,
    why: [
      `Wanted: ${whole(asked.wantC)} °C at ${asked.place.name}; not over ${whole(asked.limitC)} °C at ${asked.hottest.name}, nor over ${whole(c.ground.limitC)} °C in ${c.ground.name}.`,
      `The gun: ${formatDifference(c.gun.nozzleMm, units)} nozzle, ${whole(c.gun.setC)} °C, ${whole(c.gun.powerW)} W${(c.gun.angleDeg ?? 90) < 90 ? `, held at ${whole(c.gun.angleDeg!)}° to the face (${Math.round(100 * (1 - tiltShare(c.gun.angleDeg!)))} % less than straight on)` : ''}. At ${off} its stream is ${whole(jet.middleC)} °C in the middle, half of it is left ${formatRough(Math.round(jet.halfWidthMm), units)} beside that; convection ${whole(jet.wPerM2K)} W/(m²·K)${jet.isInRange ? '' : ', outside the range in which its formula was measured (±40 %)'}.`,
      `Film and ground as layers, heat in and out by finite volumes; air at ${whole(c.airC)} °C, ground at ${whole(c.groundC)} °C before the gun comes (docs/models/hot-air.md).`,
    ],
  }; // prettier-ignore
}

/** What a trial that corrects nothing says. */
export function trialText(trial: HeatTrial | null): string | null {
  if (!trial || trial.says.is === 'corrected') return null;
  return trial.says.is === 'says-nothing'
    ? 'The last trial says nothing: read sooner after the gun, where film lies on.'
    : `The last trial cannot be: between ${whole(trial.says.betweenC[0])} and ${whole(trial.says.betweenC[1])} °C was to be expected. Gun away, the spot no wider than what was heated, emissivity 0.95; read again.`;
}

/** What is proven and what is not, in a sentence. */
export function proofText(cover: HeatCover, proofs: ReadonlyMap<string, HeatProof>): string {
  const all = cover.edges.reduce((sum, e) => sum + e.stretches.length, 0);
  const proven = [...proofs.values()].filter((p) => p.isProven).length;
  if (proven === all)
    return `All ${all} stretches were read at ${cover.dueC} °C or more, the coldest at ${whole(Math.min(...[...proofs.values()].map((p) => p.readC)))} °C.`;
  return `${proven} of ${all} stretches are proven hot. Not yet: ${listed(unprovenEdges(cover, proofs))}.`;
}
