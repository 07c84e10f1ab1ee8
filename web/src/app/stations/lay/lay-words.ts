import type { FaceFound, LayEntry, LayReading } from '@yellow-pane/contracts';
import { lookText, pinNames, pinStateWords } from '@yellow-pane/core/check';
import { problemNames, type LayState } from '@yellow-pane/core/lay';

export const stateWords: Record<LayState, string> = { 'not-begun': 'to do', 'in-hand': 'in hand', stopped: 'stopped', done: 'laid' };

/** What a face was felt to be, as one says it. */
export const foundWords: Record<FaceFound, string> = {
  unknown: 'not felt yet',
  plain: 'smooth and bare',
  coated: 'coated',
  lines: 'printed lines on it',
  grit: 'tempered, with grit',
  'grit-agreed': 'grit, scraping agreed in writing',
};

/** What was read, and where. */
const readingText = ({ what, valueC, stretch, gun }: LayReading): string =>
  `${what} ${valueC.toFixed(what === 'film' ? 0 : 1)} °C${stretch ? ` at ${stretch.replaceAll('-', ' ')}` : gun ? ', a trial of the gun' : ''}`;

/** A day as one says it, at the site. */
export const dayAt = (iso: string, zone: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: zone });

/** A wait in the largest unit that says enough. */
export const leftText = (minutes: number): string => {
  if (minutes < 1) return `${Math.max(1, Math.ceil(minutes * 60))} s`;
  if (minutes < 100) return `${Math.ceil(minutes)} min`;
  return minutes < 48 * 60 ? `${Math.ceil(minutes / 60)} h` : `${Math.ceil(minutes / 60 / 24)} days`;
};

export const timerText = (ms: number): string => {
  const s = Math.max(0, Math.floor(ms / 1000));
  return s < 3600
    ? `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
    : `${Math.floor(s / 3600)}:${String(Math.floor(s / 60) % 60).padStart(2, '0')} h`;
};

export const clockAt = (iso: string, zone: string): string => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone });

/** What a line of the log says. @param titles of the steps, by key */
export function lineText(e: LayEntry, titles: ReadonlyMap<string, string>): string {
  if (e.erased) return 'erased on request';
  switch (e.kind) {
    case 'begin':
      return 'in hand';
    case 'step-done':
      return `${titles.get(e.stepKey ?? '') ?? e.stepKey ?? 'a step'}${e.text ? `: ${e.text}` : ''}`;
    case 'pane-done':
      return `${e.roll ? `laid, film of lot ${e.roll.lot || 'unknown'}` : 'laid'}${e.text ? `: ${e.text}` : ''}`;
    case 'problem':
      return e.problem ? problemNames[e.problem.kind].toLowerCase() : 'something is wrong';
    case 'mended':
      return 'mended, it goes on';
    case 'reading':
      return e.reading ? readingText(e.reading) : 'a reading';
    case 'found':
      return `face: ${foundWords[e.found ?? 'unknown']}`;
    case 'photo':
      return `photo${e.text ? `: ${e.text}` : ''}`;
    case 'zone-done':
      return `pressed: ${e.text.charAt(0).toLowerCase()}${e.text.slice(1)}`;
    case 'ready':
      return 'asked, and it is so';
    case 'signed':
      return `signed by ${e.signature?.name ?? ''}`;
    case 'looked':
      return e.look ? lookText(e.look) : 'looked at';
    case 'pin':
      return e.pin ? `pinned: ${pinNames[e.pin.kind].toLowerCase()}` : 'pinned';
    case 'pin-news':
      return e.news?.state ? `what was pinned is ${pinStateWords[e.news.state]}` : 'more about what was pinned';
    case 'accepted':
      return `taken over by ${e.signature?.name ?? ''}`;
    case 'called':
      return `the customer called: ${e.text}`;
    case 'erased':
      return `something was erased: ${e.text}`;
    case 'note':
    case 'correction':
      return e.text;
  }
}
