/** A line that was refused is asked for again after this. @source house rule */
const AGAIN_MS = 10_000;

/**
 * Server-sent events for a page in view. Out of view the line rests: over HTTP/1.1 a browser holds six connections to one address, and three pages
 * with two lines each would leave none for anything else. Back in view, or in reach, it begins anew: an old one may hang for minutes without a word.
 */
export class EventLine {
  private source: EventSource | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly look = (): void => (document.visibilityState === 'hidden' ? this.rest() : this.open());
  private readonly anew = (): void => {
    if (this.source) this.open();
  };

  /** @param url asked each time, so that it can say what was heard last */
  constructor(
    private readonly url: () => string,
    private readonly hear: (data: string) => void,
    private readonly opened: () => void = () => undefined,
    private readonly againMs = AGAIN_MS,
    /** Too much was missed to be told one by one. */
    private readonly reload: () => void = () => undefined,
  ) {
    if (typeof EventSource === 'undefined') return;
    document.addEventListener('visibilitychange', this.look);
    window.addEventListener('online', this.anew);
    this.look();
  }

  close(): void {
    document.removeEventListener('visibilitychange', this.look);
    window.removeEventListener('online', this.anew);
    this.rest();
  }

  private rest(): void {
    clearTimeout(this.timer);
    this.source?.close();
    this.source = null;
  }
  private open(): void {
    this.rest();
    const source = (this.source = new EventSource(this.url()));
    source.onopen = () => this.opened();
    source.onmessage = (e) => this.hear(e.data as string);
    source.addEventListener?.('reload', () => this.reload());
    // a lost line the browser takes up by itself; a refusal (taken out, let in again) it does not
    source.onerror = () => {
      if (source.readyState === EventSource.CLOSED && source === this.source) this.timer = setTimeout(() => this.open(), this.againMs);
    };
  }
}
