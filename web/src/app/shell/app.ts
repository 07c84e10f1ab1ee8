import { ChangeDetectionStrategy, Component, effect, inject, Injector, isDevMode, signal } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Api } from '../record/api';
import { Device } from '../record/device';
import { LocalStore } from '../record/local-store';
import { MissingPart } from './missing-part';

/** The page is usable long before; fetching all of the shell would stand in its way. */
const SHELL_AFTER_MS = 4000;

/** The page, and what is said over every page: that a newer one is here. */
@Component({
  selector: 'yp-root',
  imports: [RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <router-outlet />
    @if (api.isPutOut()) {
      <div role="alert" class="fixed right-3 bottom-3 z-50 max-w-sm border-l-4 border-ink bg-tint p-3" data-put-out>
        The bench does not let this device in any more. What you wrote stays here and is delivered once it is let in again.
        <a class="btn mt-2" href="/admit" target="_blank" rel="noopener">Type a code of the bench</a>
      </div>
    } @else if (part.isMissing()) {
      <div role="alert" class="fixed right-3 bottom-3 z-50 max-w-sm border-l-4 border-ink bg-tint p-3" data-missing-part>
        A part of this page did not come. Where there is a network again, load the page.
        <button type="button" class="btn mt-2" (click)="reload()">Load it again</button>
      </div>
    } @else if (isNewerHere()) {
      <div role="status" class="fixed right-3 bottom-3 z-50 flex max-w-sm items-center gap-3 border-l-4 border-ink bg-tint p-3">
        A newer Yellow Pane is here. <button type="button" class="btn" (click)="reload()">Load it</button>
      </div>
    } @else if (device.isOldShell()) {
      <div role="status" class="fixed right-3 bottom-3 z-50 max-w-sm border-l-4 border-ink bg-tint p-3" data-old-shell>
        The bench is newer than this page. What you tapped is delivered all the same; load the page again to see all it holds.
        <button type="button" class="btn mt-2" (click)="reload()">Load it again</button>
      </div>
    }
  `,
})
export class App {
  protected readonly api = inject(Api);
  protected readonly device = inject(Device);
  protected readonly part = inject(MissingPart);
  protected readonly isNewerHere = signal(false);

  constructor() {
    if (!isDevMode()) void this.keepShell();
    // taken out at the bench: what was kept of its jobs goes; what waits to be delivered stays
    const local = inject(LocalStore);
    effect(() => void (this.api.isPutOut() && local.forgetJobs().catch(() => undefined)));
    // taps from another day are delivered whatever page is opened
    const injector = inject(Injector);
    if (localStorage.getItem('yp-lay-pending')) void import('../record/lay-queue').then((m) => injector.get(m.LayQueue).start());
  }

  /**
   * The shell is kept on the device by Angular's service worker, so that it opens where there is no network. It is spoken to directly: the
   * client library for it weighs more than the few messages that are needed.
   */
  private async keepShell(): Promise<void> {
    const worker = navigator.serviceWorker as ServiceWorkerContainer | undefined;
    if (!worker) return;
    worker.addEventListener('message', (e: MessageEvent<{ type?: string } | null>) => e.data?.type === 'VERSION_READY' && this.isNewerHere.set(true));
    // what the page itself needs comes first
    await new Promise((r) => setTimeout(r, SHELL_AFTER_MS));
    await worker.register('/ngsw-worker.js').catch(() => undefined);
    (await worker.ready).active?.postMessage({ action: 'INITIALIZE' });
  }

  protected reload(): void {
    location.reload();
  }
}
