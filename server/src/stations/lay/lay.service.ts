import Papa from 'papaparse';
import type {
  HeatInput,
  HeatResult,
  CorrugationAnswer,
  CorrugationInput,
  DomeAnswer,
  DomeInput,
  WrappedCornerAnswer,
  WrappedCornerInput,
  JointsAnswer,
  JointsInput,
  RecessAnswer,
  RecessInput,
  LayEntry,
  LearnedMinutes,
  RunSheetBody,
  SqueegeeRequestBody,
  SqueegeeResult,
  StepSet,
  Pane,
  Surface,
  Wall,
} from '@yellow-pane/contracts';
import {
  defaultLay,
  jointFit,
  mindsOfPanel,
  stretchLimitOf,
  texturedWallOf,
  zoneDoing,
  beforePanelWords,
  zoneName,
  learnMinutes,
  timedPanes,
  type TimedPane,
  isPane,
  laidFace,
  linesInForce,
  panesOf,
  lookText,
  pinNames,
  pinStateWords,
  rollOfPane,
  sheetOfSurface,
  spreadNames,
  shrinkRequestOf,
  strokesAskedOf,
  stepSetOf,
  unknownFigures,
  type FormedFilm,
  type LayRecords,
  type SqueegeeAnswer,
  type StrokesAsked,
} from '@yellow-pane/core';
import type { Compute } from '../../compute/runners.js';
import type { RecordGuard } from '../../db/change.service.js';
import { Refusal } from '../../problem.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { JobsService } from '../jobs/jobs.service.js';
import type { PhotoStore } from './photo-store.js';
import type { PrintedPane, PrintedZone, RunSheetDocument } from './run-sheet-pdf.js';

const logColumns = [
  'occurredAt',
  'receivedAt',
  'pane',
  'person',
  'kind',
  'step',
  'text',
  'glassC',
  'lot',
  'photo',
  'signedBy',
  'isInForce',
  'filmC',
  'stretch',
  'hollowC',
] as const;

/** Jobs that minutes are learned from, the last ones: a crew works otherwise than years ago. @source house rule */
const JOBS_LEARNED_FROM = 100;

/** Run sheets, strokes and what the log has taught. */
export class LayService {
  /** What each job has taught, at its last revision. */
  private readonly timed = new Map<string, { readonly last: number; readonly panes: readonly TimedPane[] }>();

  constructor(
    private readonly jobs: JobsService,
    private readonly records: RecordsRepository,
    private readonly compute: Compute,
  ) {}

  private async surface(jobId: string, surfaceId: string): Promise<{ surface: Surface; doc: LayRecords }> {
    const doc = await this.jobs.openWithMemo(jobId);
    const surface = doc.surfaces.find((s) => s.id === surfaceId);
    if (!surface) throw new Refusal('not-found', 'There is no such surface in this job.');
    return { surface, doc };
  }

  /** The shrink plan of a curved pane, which its strokes follow; null: it is flat, or cannot be formed. */
  private async formed(surface: Pane, doc: LayRecords): Promise<FormedFilm | null> {
    const film = doc.films.find((f) => f.id === surface.filmId);
    const asked = surface.curved && film ? shrinkRequestOf(surface, doc, film) : null;
    if (!asked || 'blocked' in asked) return null;
    const plan = await this.compute.run('shrink', asked.input);
    return plan.ok ? plan.value : null;
  }

  async runSheet(jobId: string, surfaceId: string): Promise<RunSheetBody> {
    const { surface, doc } = await this.surface(jobId, surfaceId);
    const sheet = sheetOfSurface(surface, doc);
    if (!sheet) throw new Refusal('not-layable');
    return { stepSetId: sheet.set.id, steps: sheet.steps, minutes: sheet.minutes };
  }

  async squeegee(jobId: string, surfaceId: string): Promise<SqueegeeResult> {
    const { surface, doc } = await this.surface(jobId, surfaceId);
    if (!isPane(surface)) throw new Refusal('not-layable');
    const asked = strokesAskedOf(surface, doc, await this.formed(surface, doc));
    if (!asked) throw new Refusal('not-layable');
    const [answer] = 'none' in asked ? [{ ok: false as const, why: asked.none }] : await this.compute.run('strokes', [asked]);
    return plain(answer!);
  }

  /** How to move a gun. */
  recess(asked: RecessInput): Promise<RecessAnswer> {
    return this.compute.run('recess', asked);
  }
  dome(asked: DomeInput): Promise<DomeAnswer> {
    return this.compute.run('dome', asked);
  }
  wrappedCorner(asked: WrappedCornerInput): Promise<WrappedCornerAnswer> {
    return this.compute.run('wrappedCorner', asked);
  }
  joints(asked: JointsInput): Promise<JointsAnswer> {
    return this.compute.run('joints', asked);
  }
  corrugation(asked: CorrugationInput): Promise<CorrugationAnswer> {
    return this.compute.run('corrugation', asked);
  }
  heat(asked: HeatInput): Promise<HeatResult> {
    return this.compute.run('heat', asked);
  }
  async plan(asked: SqueegeeRequestBody): Promise<SqueegeeResult> {
    const [answer] = await this.compute.run('strokes', [{ way: 'flat', request: asked }]);
    return plain(answer!);
  }

  /** @throws Refusal not-layable when there is nothing to lay */
  async document(jobId: string, surfaceId: string | undefined): Promise<RunSheetDocument> {
    const doc = await this.jobs.openWithMemo(jobId);
    const panes: PrintedPane[] = [];
    const strokesOf = await this.strokes(doc, surfaceId);
    for (const surface of doc.surfaces) {
      if (surfaceId !== undefined && surface.id !== surfaceId) continue;
      const sheet = sheetOfSurface(surface, doc);
      const strokes = strokesOf.get(surface.id) ?? null;
      if (!sheet || (isPane(surface) && !strokes)) continue;
      const roll = rollOfPane(surface.id, doc);
      panes.push({
        name: surface.name,
        place: doc.places.find((p) => p.id === surface.placeId)?.name ?? '',
        face: laidFace(surface),
        film: doc.films.find((f) => f.id === surface.filmId)?.name ?? '',
        roll: roll ? `roll ${roll.label}, lot ${roll.lot}` : 'roll not planned yet',
        steps: sheet.steps,
        minutes: sheet.minutes,
        plan: strokes?.ok ? strokes.plan : null,
        noPlan: strokes?.ok === false ? strokes.why : '',
        zones: surface.kind === 'wall' ? await this.zones(surface, doc) : [],
      });
    }
    if (panes.length === 0) throw new Refusal('not-layable');
    const set = stepSetOf(doc.job.firmId, doc.stepSets, doc.layEntries);
    return { job: doc.job.name, customer: doc.job.customer, units: doc.job.units, version: set.version, lock: (doc.job.lay ?? defaultLay).lock, panes };
  }

  /** Places of a textured wall that are not done yet, in their order; none of a smooth one. */
  private async zones(surface: Wall, doc: LayRecords): Promise<PrintedZone[]> {
    const wall = texturedWallOf(surface, doc);
    if (!wall) return [];
    const logged = linesInForce(doc.layEntries).flatMap((e) => (e.surfaceId === surface.id && e.zone ? [e.zone] : []));
    const border = doc.job.lay?.jointBorder ?? defaultLay.jointBorder;
    const hands = doc.job.lay?.jointHands ?? defaultLay.jointHands;
    const found = await this.compute.run('zones', { panels: wall.panels, logged, asked: { border, hands } });
    return found.flatMap((p) =>
      p.left.map((zone, i): PrintedZone => ({
        name: zoneName(zone, wall.panels, doc.job.units),
        panel: p.panel,
        zone,
        before: [...p.done, ...p.left.slice(0, i).flatMap((z) => z.strokes)],
        doing: [
          ...(i === 0 && p.placesDone === 0 ? [beforePanelWords(wall.panels, p.panel.number, doc.job.units)] : []),
          ...zoneDoing(zone, p.panel, {
            fit: jointFit(p.panel.asked.masonry, stretchLimitOf(wall.film)),
            border,
            isFirst: i === 0 && p.placesDone === 0,
            units: doc.job.units,
          }),
        ].filter((d) => d !== null),
        minds: i === 0 ? mindsOfPanel(p, doc.job.units) : [],
      })),
    );
  }

  /** Strokes of the panes asked for, all in one go off the main thread. */
  private async strokes(doc: LayRecords, surfaceId: string | undefined): Promise<Map<string, SqueegeeAnswer>> {
    const out = new Map<string, SqueegeeAnswer>();
    const asked: { id: string; what: StrokesAsked }[] = [];
    for (const surface of panesOf(doc.surfaces)) {
      if (surfaceId !== undefined && surface.id !== surfaceId) continue;
      const what = strokesAskedOf(surface, doc, await this.formed(surface, doc));
      if (what && 'none' in what) out.set(surface.id, { ok: false, why: what.none });
      else if (what) asked.push({ id: surface.id, what });
    }
    const answers = await this.compute.run('strokes', asked.map((a) => a.what)); // prettier-ignore
    asked.forEach((a, i) => out.set(a.id, answers[i]!));
    return out;
  }

  async logCsv(jobId: string): Promise<string> {
    const doc = await this.jobs.openWithMemo(jobId);
    const inForce = new Set(linesInForce(doc.layEntries).map((e) => e.id));
    const rows = [...doc.layEntries]
      .sort((a, b) => a.occurredAt.localeCompare(b.occurredAt) || a.id.localeCompare(b.id))
      .map((e) => ({
        occurredAt: e.occurredAt,
        receivedAt: e.receivedAt ?? '',
        pane: doc.surfaces.find((s) => s.id === e.surfaceId)?.name ?? '',
        person: doc.persons.find((p) => p.id === e.personId)?.name ?? '',
        kind: e.kind,
        step: e.stepKey ?? '',
        text: textOf(e),
        glassC: e.reading?.what === 'glass' ? e.reading.valueC : '',
        filmC: e.reading?.what === 'film' ? e.reading.valueC : '',
        stretch: e.reading?.stretch ?? '',
        hollowC: e.reading?.what === 'hollow' ? e.reading.valueC : '',
        lot: e.roll?.lot ?? '',
        photo: e.photo ?? '',
        signedBy: e.signature?.name ?? '',
        isInForce: inForce.has(e.id) ? 'yes' : 'taken back',
      }));
    return Papa.unparse({ fields: [...logColumns], data: rows.map((r) => logColumns.map((c) => r[c])) }, { newline: '\r\n', escapeFormulae: true });
  }

  async minutes(): Promise<LearnedMinutes> {
    const timed: TimedPane[] = [];
    for (const { jobId, last } of await this.records.laidJobs(JOBS_LEARNED_FROM)) {
      const known = this.timed.get(jobId);
      const now = known?.last === last ? known : { last, panes: timedPanes(await this.jobs.openWithMemo(jobId)) };
      this.timed.set(jobId, now);
      timed.push(...now.panes);
    }
    const rates = (await this.records.all('rates')).sort((a, b) => b.version - a.version)[0];
    return rates ? learnMinutes(timed, rates) : [];
  }
}

/** What a line says, in one cell. */
function textOf(e: LayEntry): string {
  if (e.erased) return `erased on request, ${e.erased.at.slice(0, 10)}`;
  if (e.acceptance) return `taken over, seal ${e.acceptance.seal.slice(0, 16)} ${e.text}`.trim();
  if (e.problem) return `${e.problem.kind} ${e.text}`.trim();
  if (e.look) return lookText(e.look);
  if (e.pin) return [pinNames[e.pin.kind], spreadNames[e.pin.spread], ...(e.pin.sizeMm === null ? [] : [`${e.pin.sizeMm} mm`])].join(', ');
  if (e.news) return [...Object.entries(e.news.answers).map(([q, a]) => `${q}: ${a}`), ...(e.news.state ? [pinStateWords[e.news.state]] : [])].join(', ');
  return e.text;
}

const plain = (answer: SqueegeeAnswer): SqueegeeResult => structuredClone(answer) as SqueegeeResult;

/** What a line of the log and a version of the steps must hold beyond their schema. */
export const layGuard =
  (photos: PhotoStore): RecordGuard =>
  async (records, kind, record) => {
    const bad = (path: string, message: string): never => {
      throw new Refusal('bad-input', message, [{ path, message }]);
    };
    if (kind === 'stepSet') {
      const steps = record as unknown as StepSet;
      for (const [i, s] of steps.steps.entries()) {
        const [unknown] = unknownFigures(s);
        if (unknown)
          bad(
            `steps.${i}`,
            `“{${unknown}}” in step “${s.title}” stands for nothing: use {edgeGap}, {edgeStop}, {overhang}, {blade}, {lock}, {film}, {gun} or {care}; for a column {girth}, {height}, {lap}, {notch}, {strip}, {bands} or {seam}; for a panel {panel}, {size}, {fold}, {grain}, {slack}, {sides}, {wrap}, {corner}, {tab}, {lap}, {off}, {round} or {postHeat}; for a wall {start}, {drop}, {drops}, {level}, {inside}, {insideSecond}, {outside}, {outsideSecond} or {ruler}; for a counter {liner}, {first}, {under}, {walls}, {strips}, {rounds} or {holes} besides; for a sign {lettering}, {places}, {far}, {gaps}, {hinge} or {limit}.`,
          );
      }
      const newest = Math.max(1, ...(await records.all('stepSet')).map((s) => s.version));
      if (steps.version !== newest + 1) bad('version', `The next version of the steps is ${newest + 1}; somebody else has written one in the meantime.`);
    }
    if (kind !== 'layEntry') return;
    const entry = record as unknown as LayEntry;
    if ((entry.kind === 'correction') !== (entry.correctsId !== null))
      bad('correctsId', 'A correction names the line that it corrects, and only a correction does.');
    if (entry.kind === 'problem' && !entry.problem) bad('problem', 'Say what is wrong.');
    if ((entry.kind === 'found') !== (entry.found !== null)) bad('found', 'Say what the face is, in a line of that kind.');
    if ((entry.kind === 'signed' || entry.kind === 'accepted') && !entry.signature && !entry.erased) bad('signature', 'A signature is missing.');
    if ((entry.kind === 'accepted') !== (entry.acceptance != null)) bad('acceptance', 'Say which panes are taken over, in a line of that kind.');
    if ((entry.kind === 'erased') !== (entry.erasure != null)) bad('erasure', 'Say what was erased, in a line of that kind.');
    if (entry.kind === 'called' && !entry.text && !entry.erased) bad('text', 'Write down what the customer says.');
    if ((entry.kind === 'looked') !== (entry.look != null)) bad('look', 'Say what was seen, in a line of that kind.');
    if ((entry.kind === 'pin') !== (entry.pin != null)) bad('pin', 'Say what is pinned, in a line of that kind.');
    if ((entry.kind === 'pin-news') !== (entry.news != null)) bad('news', 'Say of which pin, in a line of that kind.');
    if (entry.kind === 'photo' && !entry.photo && !entry.erased) bad('photo', 'The photo is missing.');
    if (entry.photo && !entry.erased && !photos.has(entry.photo)) bad('photo', 'This photo has not come in yet: send it first.');
  };
