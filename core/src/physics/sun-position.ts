import { getPosition } from 'suncalc';
import { checkRange } from '../ground/index.js';

/** Where the sun stands: azimuth from true north, clockwise; altitude above the horizon with refraction. */
export interface SunPosition {
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
}

/**
 * The one door to the sun library.
 * @param atMs instant in milliseconds since 1970 UTC: daylight saving never enters here
 * @throws OutOfRange for a place that is not on Earth
 * @source suncalc 2; against NREL/TP-560-34302 and a second library in the specification, within 0.05°
 */
export function sunPosition(atMs: number, latDeg: number, lonDeg: number): SunPosition {
  checkRange('Latitude', latDeg, -90, 90, '°');
  checkRange('Longitude', lonDeg, -180, 180, '°');
  const { azimuth, altitude } = getPosition(new Date(atMs), latDeg, lonDeg);
  return { azimuthDeg: ((azimuth % 360) + 360) % 360, altitudeDeg: altitude };
}

/** Angle between the sun and the outward normal of a plane, degrees; above 90 the sun stands behind it. @param tiltDeg 0 level, 90 upright */
export function incidenceDeg(sun: SunPosition, facadeDeg: number, tiltDeg: number): number {
  const rad = Math.PI / 180;
  const [h, a, t] = [sun.altitudeDeg * rad, (sun.azimuthDeg - facadeDeg) * rad, tiltDeg * rad];
  const cos = Math.sin(h) * Math.cos(t) + Math.cos(h) * Math.sin(t) * Math.cos(a);
  return Math.acos(Math.max(-1, Math.min(1, cos))) / rad;
}

/** Vertical shadow angle: the sun's altitude as it appears in a cut square to the facade, degrees. Meaningful while the sun is before the facade. */
export function profileAngleDeg(sun: SunPosition, facadeDeg: number): number {
  const rad = Math.PI / 180;
  return Math.atan2(Math.tan(sun.altitudeDeg * rad), Math.cos((sun.azimuthDeg - facadeDeg) * rad)) / rad;
}

/** What an overhang and a reveal keep in shadow, mm from the top and from the side that the sun stands at. */
export function shadowOnPane(sun: SunPosition, facadeDeg: number, overhangMm: number, revealMm: number): { fromTopMm: number; fromSideMm: number } {
  const rad = Math.PI / 180;
  const beside = (sun.azimuthDeg - facadeDeg) * rad;
  if (sun.altitudeDeg <= 0 || Math.cos(beside) <= 0) return { fromTopMm: 0, fromSideMm: 0 };
  return { fromTopMm: overhangMm * Math.tan(profileAngleDeg(sun, facadeDeg) * rad), fromSideMm: revealMm * Math.abs(Math.tan(beside)) };
}
