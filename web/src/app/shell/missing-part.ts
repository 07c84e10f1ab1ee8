import { Injectable, signal } from '@angular/core';
import type { NavigationError } from '@angular/router';

/** The page is not asked for whole again within this. @source house rule */
const ONCE_IN_MS = 20_000;
const KEY = 'yp-part-missing';

/**
 * A part of the page that did not come: the phone changed its network, or the bench was renewed meanwhile. The link that was touched would do nothing; so
 * the page is asked for whole, once, and if that does not help it is said.
 */
@Injectable({ providedIn: 'root' })
export class MissingPart {
  readonly isMissing = signal(false);
  /** Replaced in tests. */
  goTo: (url: string) => void = (url) => location.assign(url);

  met(event: Pick<NavigationError, 'error' | 'url'>, nowMs = Date.now()): void {
    // each browser words it in its own way; all speak of importing a module
    if (!/import\w* .*module|module .*import/i.test(String((event.error as Error | undefined)?.message ?? event.error))) return;
    if (nowMs - Number(sessionStorage.getItem(KEY) ?? 0) < ONCE_IN_MS) return this.isMissing.set(true);
    sessionStorage.setItem(KEY, String(nowMs));
    this.goTo(event.url);
  }
}
