import type { LayEntry, Pin, PinState } from '@yellow-pane/contracts';

/** Something that was seen, with everything said of it since. */
export interface PinLine {
  readonly entry: LayEntry;
  readonly pin: Pin;
  readonly state: PinState;
  readonly answers: Readonly<Record<string, string>>;
  readonly causeKey: string | null;
  readonly watchUntil: string | null;
  /** Further lines, oldest first. */
  readonly news: readonly LayEntry[];
}

/** The pins of one pane with what became of each, oldest first. What was seen before the film was laid anew went with the old piece. */
export function pinsOf(lines: readonly LayEntry[], laidAt: string | null): PinLine[] {
  return lines.flatMap((entry): PinLine[] => {
    if (entry.kind !== 'pin' || !entry.pin) return [];
    const news = lines.filter((e) => e.kind === 'pin-news' && e.news?.pinId === entry.id);
    const last = <T>(pick: (n: NonNullable<LayEntry['news']>) => T | null): T | null => news.reduce<T | null>((v, e) => pick(e.news!) ?? v, null);
    const isOfOldPiece = laidAt !== null && entry.occurredAt < laidAt;
    return [
      {
        entry,
        pin: entry.pin,
        state: isOfOldPiece ? 'replaced' : (last((n) => n.state) ?? 'open'),
        answers: Object.assign({}, entry.pin.answers, ...news.map((e) => e.news!.answers)) as Record<string, string>,
        causeKey: last((n) => n.causeKey),
        watchUntil: last((n) => n.watchUntil),
        news,
      },
    ];
  });
}
/** Whether somebody still has to do or decide something. */
export const isOpen = (s: Pick<PinLine, 'state'>): boolean => s.state === 'open' || s.state === 'watched';
