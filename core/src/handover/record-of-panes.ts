import type { LayEntry, Place, Plan } from '@yellow-pane/contracts';
import { dateAt, formatFine, formatLength, type UnitSystem } from '../ground/index.js';
import { boundingBox, mirrored, type Polygon } from '../geometry/index.js';
import { cutOfSurface, methodNames, paneToPiece, piecesOfPane } from '../cut/index.js';
import {
  causeName,
  countLaid,
  dryOutline,
  isWetLaidPane,
  lookText,
  pinNames,
  pinStateWords,
  type AnyLaid,
  type CheckDry,
  type CheckPane,
  type CheckRecords,
  type DateRange,
} from '../check/index.js';
import { heatCoverOf, heatProofs, laidFace, layPaneOf, linesInForce, proofText, rollOfPane, sheetOfSurface } from '../lay/index.js';

/** A thing that was seen, or a look. `where`: shares of the pane’s box, from its lower left as seen from the room. */
export interface SeenOnPane {
  readonly at: string;
  readonly where: { readonly xFrac: number; readonly yFrac: number } | null;
  readonly what: string;
  readonly became: string;
  readonly isOpen: boolean;
}
/** What a record says of one laid pane, in words and figures that can be printed. */
export interface PaneRecord {
  readonly surfaceId: string;
  readonly placeId: string;
  readonly name: string;
  readonly place: string;
  readonly size: string;
  /** As seen from the room; null: it has no size. */
  readonly outline: Polygon | null;
  readonly face: string;
  readonly film: string;
  readonly filmVersion: number;
  readonly roll: string;
  /** How it was cut: pieces, method, sizes. Reckoned when it is asked for: only paper does. */
  readonly pieces: () => string;
  readonly laidBy: string;
  readonly laidAt: string;
  readonly glassC: readonly number[];
  /** What of it was heated through and read, °C in a sentence; null: nothing was stretched, or it was laid wet. */
  readonly heated: string | null;
  /** What was logged of the work, oldest first: when, who, what. */
  readonly steps: readonly { readonly at: string; readonly who: string; readonly what: string }[];
  /** What was seen on it and what became of it. */
  readonly seen: readonly SeenOnPane[];
  readonly photos: readonly { readonly photo: string; readonly text: string; readonly at: string }[];
  /** Water that leaves through it; null: it was laid dry. */
  readonly drying: { readonly holds: DateRange; readonly touch: DateRange; readonly clear: DateRange } | null;
  /** Of what was laid dry: from when its glue holds fully; null: it was laid wet. */
  readonly dryHoldsAt: string | null;
  /** When somebody saw it clear, or looked it over where it was laid dry; null: nobody has yet. */
  readonly seenClearAt: string | null;
  /** The line by which the customer took it over; null: not yet. */
  readonly acceptedBy: LayEntry | null;
}
type Records = CheckRecords & {
  readonly persons: readonly { readonly id: string; readonly name: string }[];
  readonly places: readonly Place[];
  readonly plans: readonly Plan[];
};

const sizeText = (w: number, h: number, units: UnitSystem): string => `${formatLength(w, units)} × ${formatLength(h, units)}${units === 'mm' ? ' mm' : ''}`;

/** A film's pieces as they are reckoned for this pane; one that another pane's piece serves has none of its own. */
function piecesText(p: CheckPane, records: Records): string {
  const cut = paneToPiece(p.surface, records, p.film);
  const made = piecesOfPane(cut);
  if ('blocked' in made) return made.blocked;
  if (made.pieces.length === 0) return 'cut from the piece of another pane';
  const sizes = made.pieces.map((x) => sizeText(x.widthMm, x.heightMm, records.job.units)).join(', ');
  return `${made.pieces.length === 1 ? '1 piece' : `${made.pieces.length} pieces`}, ${methodNames[cut.used].toLowerCase()}: ${sizes}`;
}

/** A surface's pieces as they are reckoned for it. */
function dryPiecesText({ surface, film }: CheckDry, records: Records): string {
  const { answer, pieces } = cutOfSurface(surface, records, film);
  if ('blocked' in answer) return answer.blocked;
  if (pieces.length === 0) return 'cut from the piece of another surface';
  return `${pieces.length === 1 ? '1 piece' : `${pieces.length} pieces`}: ${pieces.map((x) => sizeText(x.widthMm, x.heightMm, records.job.units)).join(', ')}`;
}

/** A pane from the room; what is laid dry as it stands before one, or from above. */
function outlineSeen(p: AnyLaid, records: Records): Polygon | null {
  if (!isWetLaidPane(p)) return dryOutline(p.surface, records);
  const outline = layPaneOf(p.surface, records)?.outline ?? null;
  return outline && p.surface.filmFace === 'street' ? mirrored(outline) : outline;
}

const problemText = (e: LayEntry): string => [e.problem!.kind.replaceAll('-', ' '), e.text].filter(Boolean).join(': ');

/** The last line by which each pane was taken over, among those in force. */
export function acceptedPanes(entries: readonly LayEntry[]): ReadonlyMap<string, LayEntry> {
  const out = new Map<string, LayEntry>();
  for (const e of linesInForce(entries)) if (e.kind === 'accepted') for (const p of e.acceptance?.panes ?? []) out.set(p.surfaceId, e);
  return out;
}

/** What was stretched and whether it was proven hot. */
function heatedText(surface: AnyLaid['surface'], records: Records): string | null {
  const cover = heatCoverOf(surface, records);
  if (!cover || cover.dueC === null) return null;
  return proofText(cover, heatProofs(cover, records.layEntries.filter((e) => e.surfaceId === surface.id || e.kind === 'correction'))); // prettier-ignore
}

/** What was taken over before the film was laid anew was another piece. */
const takenOver = (line: LayEntry | undefined, laidAt: string): LayEntry | null => (line && line.occurredAt >= laidAt ? line : null);

/** The record of everything that is laid. @param panes as Check has them */
export function recordOfPanes(panes: readonly AnyLaid[], records: Records): PaneRecord[] {
  const lines = linesInForce(records.layEntries);
  const accepted = acceptedPanes(records.layEntries);
  const who = (id: string): string => records.persons.find((p) => p.id === id)?.name ?? 'somebody of another bench';
  const byPane = new Map<string, LayEntry[]>();
  for (const e of lines) if (e.surfaceId) byPane.set(e.surfaceId, [...(byPane.get(e.surfaceId) ?? []), e]);
  return panes.map((p) => {
    const own = byPane.get(p.surface.id) ?? [];
    const outline = outlineSeen(p, records);
    const box = outline ? boundingBox(outline) : null;
    const roll = own.findLast((e) => e.roll)?.roll ?? null;
    const planned = rollOfPane(p.surface.id, records);
    const titles = new Map((sheetOfSurface(p.surface, records)?.steps ?? []).map((s) => [s.key, s.title]));
    const done = own.filter((e) => e.kind === 'step-done' || e.kind === 'pane-done' || e.kind === 'problem' || e.kind === 'mended' || e.kind === 'note');
    const say: Partial<Record<LayEntry['kind'], (e: LayEntry) => string>> = {
      'step-done': (e) => [titles.get(e.stepKey ?? '') ?? e.stepKey ?? '', e.text].filter(Boolean).join(': '),
      'pane-done': (e) => ['Laid', e.text].filter(Boolean).join(': '),
      problem: (e) => `Trouble: ${problemText(e)}`,
      mended: (e) => ['Mended', e.text].filter(Boolean).join(': '),
      note: (e) => e.text,
    };
    const pins = p.pins.map((s) => ({
      at: s.entry.occurredAt,
      where: s.pin.at,
      what: [
        pinNames[s.pin.kind],
        ...(s.pin.sizeMm === null ? [] : [formatFine(s.pin.sizeMm, records.job.units)]),
        ...(s.causeKey ? [`put down to: ${causeName(s.causeKey)}`] : []),
      ].join(', '),
      became: s.state === 'watched' && s.watchUntil ? `watched until ${s.watchUntil}` : pinStateWords[s.state],
      isOpen: s.state === 'open' || s.state === 'watched',
    }));
    const looks = p.looks.map((e) => ({
      at: e.occurredAt,
      where: null,
      what: 'Looked at',
      became: lookText(e.look!).replace('looked at: ', ''),
      isOpen: false,
    }));
    return {
      surfaceId: p.surface.id,
      placeId: p.surface.placeId,
      name: p.surface.name,
      place: records.places.find((x) => x.id === p.surface.placeId)?.name ?? '',
      size: box ? sizeText(box.maxX - box.minX, box.maxY - box.minY, records.job.units) : 'not measured',
      outline,
      face: laidFace(p.surface),
      film: p.film.name,
      filmVersion: p.film.version,
      roll: roll
        ? [records.rolls.find((r) => r.id === roll.rollId)?.label, roll.lot && `lot ${roll.lot}`].filter(Boolean).join(', ')
        : planned
          ? `planned: ${planned.label}, lot ${planned.lot}`
          : 'not logged',
      pieces: () => (isWetLaidPane(p) ? piecesText(p, records) : dryPiecesText(p, records)),
      laidBy: [...new Set(own.filter((e) => ['begin', 'step-done', 'pane-done'].includes(e.kind)).map((e) => who(e.personId)))].join(', '),
      laidAt: p.laidAt,
      glassC: own.flatMap((e) => (e.reading?.what === 'glass' ? [e.reading.valueC] : [])),
      heated: heatedText(p.surface, records),
      steps: done.map((e) => ({ at: e.occurredAt, who: who(e.personId), what: say[e.kind]!(e) })),
      seen: [...pins, ...looks].sort((a, b) => a.at.localeCompare(b.at)),
      photos: own.flatMap((e) => (e.photo ? [{ photo: e.photo, text: e.text, at: e.occurredAt }] : [])),
      drying: isWetLaidPane(p) ? { holds: p.holds, touch: p.touch, clear: p.clear } : null,
      dryHoldsAt: isWetLaidPane(p) ? null : p.holdsAt,
      seenClearAt: p.looks.findLast((e) => e.look?.water === 'none')?.occurredAt ?? null,
      acceptedBy: takenOver(accepted.get(p.surface.id), p.laidAt),
    };
  });
}

/** Why a pane had better not be handed over yet, in a sentence; null: nothing speaks against it. It stays the customer's to say. */
export function notReadyBecause(pane: PaneRecord, at: string): string | null {
  const open = pane.seen.filter((s) => s.isOpen && s.became === pinStateWords.open).length;
  if (open) return open === 1 ? 'Something pinned is not decided yet.' : `${open} things pinned are not decided yet.`;
  if (pane.drying === null) return pane.seenClearAt === null ? 'Nobody has looked it over since: air under dry film shows after a day.' : null;
  if (pane.seenClearAt === null && at < pane.drying.clear.to) return 'It is still drying: water that shows is no fault.';
  return null;
}

/** A thing to come back for, on a day. */
export interface CalendarDay {
  readonly uid: string;
  /** ISO date at the site. */
  readonly on: string;
  readonly title: string;
  readonly text: string;
}

/** What is to come on laid panes, one entry for each day and reason. What is due already stands on the day of the call. @param at now, an instant */
export function calendarOf(panes: readonly AnyLaid[], job: { readonly id: string; readonly name: string; readonly zone: string }, at: string): CalendarDay[] {
  const groups = new Map<string, { on: string; what: string; firstId: string; names: string[]; isGlass: boolean }>();
  const put = (when: string, what: string, { id, name, kind }: AnyLaid['surface']) => {
    const on = dateAt(Math.max(Date.parse(when), Date.parse(at)), job.zone);
    const group = groups.get(`${on}/${what}`) ?? { on, what, firstId: id, names: [], isGlass: true };
    group.isGlass &&= kind === 'pane';
    if (!group.names.includes(name)) group.names.push(name);
    groups.set(`${on}/${what}`, group);
  };
  for (const p of panes) {
    for (const d of p.due) if (d.kind !== 'decide') put(d.dueAt, d.title, p.surface);
    if (isWetLaidPane(p) && p.touch.to > at) put(p.touch.to, 'Drop windows may go down, the film may be touched', p.surface);
  }
  // named by what it is about, not by its day: a day that has moved comes in place of the old one where the file is opened again
  const times = new Map<string, number>();
  return [...groups.values()]
    .sort((a, b) => a.on.localeCompare(b.on) || a.what.localeCompare(b.what))
    .map((g) => {
      const about = `${g.firstId}-${g.what.toLowerCase().replace(/[^a-z]+/g, '-')}`;
      times.set(about, (times.get(about) ?? 0) + 1);
      return {
        uid: `${job.id}-${about}-${times.get(about)}@yellow-pane`,
        on: g.on,
        title: `${job.name}: ${g.what}`,
        text: g.names.length === 1 ? `${g.isGlass ? 'Pane ' : ''}${g.names[0]}` : `${countLaid(g.names.length, g.isGlass)}: ${g.names.join(', ')}`,
      };
    });
}
