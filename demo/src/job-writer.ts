import {
  newColumn,
  newCounter,
  newPanel,
  newSign,
  newWall,
  newPane,
  type Column,
  type Counter,
  type JobFile,
  type Pane,
  type Panel,
  type Sign,
  type Wall,
  type Job,
  type MeasureKey,
  type Place,
  type Reading,
  type Surface,
} from '@yellow-pane/contracts';
import { demoFilms } from './films.js';
import { demoPersons, demoRolls } from './firm.js';
import { demoAt, demoId } from './ids.js';

/** What was typed, by measure. */
export type Tapes = Partial<Record<MeasureKey, string>>;
/** Two tapes, the usual case. */
export const two = (width: string, height: string): Tapes => ({ widthLargest: width, heightLargest: height });
/** Eight tapes in walking order: three widths, three heights, both diagonals. */
export const eight = (...t: [string, string, string, string, string, string, string, string]): Tapes => ({
  widthTop: t[0],
  widthMiddle: t[1],
  widthBottom: t[2],
  heightLeft: t[3],
  heightMiddle: t[4],
  heightRight: t[5],
  diagonalDown: t[6],
  diagonalUp: t[7],
});

const inchMm = (text: string): number => {
  const m = /^(?:(\d+)\s+)?(?:(\d+)\/(\d+)|(\d+))"$/.exec(text);
  if (!m) return Number(text);
  const whole = Number(m[1] ?? 0) + (m[4] ? Number(m[4]) : Number(m[2]) / Number(m[3]));
  return whole * 25.4;
};

/** Writes a demo job record by record, ids counted up from a base. */
export class JobWriter {
  private readonly places: Place[] = [];
  private readonly surfaces: Surface[] = [];
  private readonly readings: Reading[] = [];
  private next: number;
  private minute = 0;

  constructor(
    private readonly job: Job,
    base: number,
  ) {
    this.next = base;
  }

  private id(): string {
    return demoId(this.next++);
  }

  place(name: string): string {
    const id = this.id();
    this.places.push({ id, jobId: this.job.id, name, order: this.places.length + 1, deletedAt: null });
    return id;
  }

  /** A pane with its tapes; `like` shares the tapes of an earlier one. */
  pane(placeId: string, name: string, tapes: Tapes, more: Partial<Omit<Pane, 'kind'>> = {}): string {
    const id = this.id();
    const order = this.surfaces.length + 1;
    this.surfaces.push(newPane({ id, jobId: this.job.id, placeId, name, order, frame: 'gasket', filmId: demoFilms.shade.id, ...more }));
    this.tape(id, tapes);
    return id;
  }

  /** Equal panes between glazing bars: the first is taped, the others are like it. */
  grid(placeId: string, name: string, rows: number, columns: number, tapes: Tapes, more: Partial<Omit<Pane, 'kind'>> = {}): string[] {
    const groupId = this.id();
    const ids: string[] = [];
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        const first = ids[0] ?? null;
        ids.push(this.pane(placeId, `${name}${ids.length + 1}`, first ? {} : tapes, { ...more, grid: { groupId, row, column }, measuredLikeId: first }));
      }
    return ids;
  }

  /** A column with its tapes; `like` shares the tapes of an earlier one. */
  column(placeId: string, name: string, tapes: Tapes, more: Partial<Omit<Column, 'kind'>> = {}): string {
    const surface = newColumn({ id: this.id(), jobId: this.job.id, placeId, name, order: this.surfaces.length + 1, ...more });
    this.surfaces.push(surface);
    this.tape(surface.id, tapes);
    return surface.id;
  }

  /** A door or panel with its tapes. */
  panel(placeId: string, name: string, tapes: Tapes, more: Partial<Omit<Panel, 'kind'>> = {}): string {
    const surface = newPanel({ id: this.id(), jobId: this.job.id, placeId, name, order: this.surfaces.length + 1, ...more });
    this.surfaces.push(surface);
    this.tape(surface.id, tapes);
    return surface.id;
  }

  /** A counter or table top with its tapes. */
  counter(placeId: string, name: string, tapes: Tapes, more: Partial<Omit<Counter, 'kind'>> = {}): string {
    const surface = newCounter({ id: this.id(), jobId: this.job.id, placeId, name, order: this.surfaces.length + 1, ...more });
    this.surfaces.push(surface);
    this.tape(surface.id, tapes);
    return surface.id;
  }

  /** A sign with its tapes. */
  sign(placeId: string, name: string, tapes: Tapes, more: Partial<Omit<Sign, 'kind'>> = {}): string {
    const surface = newSign({ id: this.id(), jobId: this.job.id, placeId, name, order: this.surfaces.length + 1, ...more });
    this.surfaces.push(surface);
    this.tape(surface.id, tapes);
    return surface.id;
  }

  /** A wall with its tapes. */
  wall(placeId: string, name: string, tapes: Tapes, more: Partial<Omit<Wall, 'kind'>> = {}): string {
    const surface = newWall({ id: this.id(), jobId: this.job.id, placeId, name, order: this.surfaces.length + 1, ...more });
    this.surfaces.push(surface);
    this.tape(surface.id, tapes);
    return surface.id;
  }
  /** Film of a wall that was written down goes on round its right corner to another. */
  goesOn(wallId: string, nextId: string): void {
    const at = this.surfaces.findIndex((s) => s.id === wallId);
    const wall = this.surfaces[at];
    if (wall?.kind === 'wall') this.surfaces[at] = { ...wall, nextId };
  }

  /** A top or leaf that was written down stands at the right of another: film goes on, or ends, at their joint. */
  standsBeside(surfaceId: string, leftId: string): void {
    const at = this.surfaces.findIndex((s) => s.id === surfaceId);
    const surface = this.surfaces[at];
    if (surface?.kind === 'counter' || surface?.kind === 'panel') this.surfaces[at] = { ...surface, besideId: leftId };
  }

  private tape(surfaceId: string, tapes: Tapes): void {
    for (const [measure, typed] of Object.entries(tapes)) {
      const isInch = typed.endsWith('"');
      this.readings.push({
        id: this.id(),
        jobId: this.job.id,
        surfaceId,
        measure: measure as MeasureKey,
        typed,
        unit: isInch ? 'in' : 'mm',
        lengthMm: inchMm(typed),
        instrument: 'tape',
        personId: demoPersons[0]!.id,
        at: demoAt(this.minute++),
        supersedesId: null,
        withdrawnAt: null,
        deletedAt: null,
      });
    }
  }

  file(): JobFile {
    return {
      format: 'yellow-pane job',
      formatVersion: 12,
      writtenAt: demoAt(0),
      job: this.job,
      places: this.places,
      surfaces: this.surfaces,
      readings: this.readings,
      films: Object.values(demoFilms),
      rolls: demoRolls,
      plans: [],
      entries: [],
      stockEntries: [],
      plotRuns: [],
      layEntries: [],
      stepSets: [],
    };
  }
}
