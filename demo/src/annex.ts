import type { JobFile, LayEntry, Pin } from '@yellow-pane/contracts';
import { demoFilms } from './films.js';
import { demoJob, demoPersons } from './firm.js';
import { ternGlass } from './glass.js';
import { demoId } from './ids.js';
import { JobWriter, two } from './job-writer.js';

const HOUR_MS = 3_600_000;
/** What a camera would see of the scratch: a street behind glass, out of focus, and a fine bright line across it. */
export const demoScratchSvg = `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="720" viewBox="0 0 960 720">
<defs><filter id="far"><feGaussianBlur stdDeviation="22"/></filter><filter id="near"><feGaussianBlur stdDeviation="0.8"/></filter>
<linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#b9cbd6"/><stop offset="1" stop-color="#7f97a3"/></linearGradient></defs>
<rect width="960" height="720" fill="url(#sky)"/>
<g filter="url(#far)"><rect x="-40" y="430" width="1040" height="320" fill="#5d6a6c"/><rect x="90" y="210" width="240" height="300" fill="#8c7d6a"/><rect x="420" y="150" width="180" height="380" fill="#6d7f86"/><rect x="690" y="260" width="320" height="260" fill="#947f68"/><circle cx="560" cy="110" r="50" fill="#eef3f4"/></g>
<path d="M372 268 C 448 306 520 372 642 437" fill="none" stroke="#f7fbfc" stroke-width="3.4" filter="url(#near)"/>
<path d="M374 272 C 450 311 521 377 640 441" fill="none" stroke="#33424a" stroke-width="1.3" opacity="0.6"/>
<path d="M610 420 l26 -6 M598 428 l18 22" stroke="#eaf2f4" stroke-width="1.6"/>
<rect x="0" y="660" width="960" height="60" fill="#2d3437"/><rect x="900" y="0" width="60" height="720" fill="#343c40"/>
</svg>`;

/** A line that somebody made up draws with a pen: shares of the field's width. */
export const demoSignature: [number, number][][] = [
  Array.from({ length: 60 }, (_, i): [number, number] => [0.12 + i * 0.011, 0.2 - 0.05 * Math.sin(i * 0.42) * Math.exp(-i * 0.018) - 0.03 * Math.cos(i * 0.9)]),
  [[0.18, 0.26], [0.72, 0.235]],
]; // prettier-ignore

/** The steps as they are shipped. */
const SHIPPED_STEPS = '01930000-0000-7000-8000-0000000057e9';

/**
 * The annex of Tern Point, finished: what one finds when one comes back. Water pockets on day 3, a line between two strokes, specks to argue about, a scratch that was
 * there before, a security film on day 20, a pane that is clear.
 * @param now an instant: the days are counted back from it
 */
export function ternAnnex(now: string): JobFile {
  const job = demoJob(103, {
    name: 'Tern Point annex',
    customer: 'Tern Point Ferries',
    address: 'Pier Road 3, Tern Point',
    units: 'mm',
    dueOn: null,
    method: 'overhang',
  });
  const w = new JobWriter(job, 11_000);
  const hall = w.place('Booking hall');
  const front = { filmId: demoFilms.shade.id, frame: 'gasket', revealMm: 60, ...ternGlass.west } as const;
  const panes = ['B1', 'B2', 'B3', 'B4'].map((name) => w.pane(hall, name, two('1096', '1850'), front));
  const store = w.place('Parcel store');
  const guarded = w.pane(store, 'P1', two('1402', '1108'), { filmId: demoFilms.guard.id, frame: 'silicone', ...ternGlass.office });
  const clear = w.pane(store, 'P2', two('880', '1420'), { ...front, ...ternGlass.office });
  const file = w.file();

  let next = 12_000;
  const line = (surfaceId: string, hoursAgo: number, kind: LayEntry['kind'], more: Partial<LayEntry> = {}, who = 0): LayEntry => {
    const at = new Date(Date.parse(now) - hoursAgo * HOUR_MS).toISOString();
    return {
      id: demoId(next++), jobId: job.id, surfaceId, personId: demoPersons[who]!.id, occurredAt: at, clockOffsetMs: 0, receivedAt: at, stepSetId: SHIPPED_STEPS, kind,
      stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more,
    }; // prettier-ignore
  };
  const pinned = (surfaceId: string, hoursAgo: number, kind: Pin['kind'], xFrac: number, yFrac: number, more: Partial<Pin> = {}) =>
    line(surfaceId, hoursAgo, 'pin', { pin: { kind, at: { xFrac, yFrac }, seenFrom: 'room', spread: 'one', sizeMm: null, answers: {}, ...more } });
  const [b1, b2, b3, b4] = panes as [string, string, string, string];
  const DAY3 = 70;
  const entries = [
    line(b1, DAY3 + 2, 'begin'),
    line(b1, DAY3 + 1.9, 'reading', { reading: { what: 'glass', valueC: 17.5 } }),
    line(b1, DAY3 + 1.2, 'pane-done'),
    line(b1, 3.5, 'called', { text: 'There are bubbles in the first window of the hall' }),
    pinned(b1, 3, 'pockets', 0.35, 0.4, { spread: 'field' }),
    // step by step, and the strokes left a line
    line(b2, DAY3 + 1.1, 'begin', {}, 1),
    line(b2, DAY3 + 0.9, 'step-done', { stepKey: 'light' }, 1),
    line(b2, DAY3 + 0.86, 'step-done', { stepKey: 'hard' }, 1),
    line(b2, DAY3 + 0.8, 'step-done', { stepKey: 'bump' }, 1),
    line(b2, DAY3 + 0.7, 'pane-done', {}, 1),
    pinned(b2, 2.9, 'bubble-line', 0.55, 0.52, { spread: 'line' }),
    line(b3, DAY3, 'pane-done'),
    pinned(b3, 2.8, 'speck', 0.3, 0.62, { sizeMm: 1 }),
    pinned(b3, 2.8, 'speck', 0.42, 0.58, { sizeMm: 1 }),
    pinned(b3, 2.8, 'speck', 0.66, 0.35, { sizeMm: 1.5 }),
    pinned(b3, 2.8, 'speck', 0.97, 0.2, { sizeMm: 2 }),
    // what the glass had before the film came
    line(b4, DAY3 + 3, 'problem', { problem: { kind: 'glass-scratch', at: { xFrac: 0.7, yFrac: 0.3 }, answers: {} } }),
    line(b4, DAY3 + 2.9, 'mended', { text: 'the customer knows' }),
    line(b4, DAY3 - 0.5, 'pane-done'),
    pinned(b4, 2.7, 'scratch', 0.7, 0.3, { sizeMm: 25 }),
    line(guarded, 20 * 24, 'pane-done'),
    line(guarded, 2.6, 'looked', { look: { water: 'some', isClean: true } }),
    line(clear, 33 * 24, 'pane-done'),
    line(clear, 2.5, 'looked', { look: { water: 'none', isClean: true } }),
  ];
  return { ...file, layEntries: entries };
}
