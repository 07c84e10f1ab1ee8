import { ChangeDetectionStrategy, Component } from '@angular/core';

/** The first thing that Tab reaches on every page: past its head, straight to what is worked on. Seen only while it has the focus. */
@Component({
  selector: 'yp-skip-to-work',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="btn btn-ink sr-only focus:not-sr-only focus:absolute focus:top-1 focus:left-1 focus:z-50 focus:px-4!" (click)="toWork()">
      Skip to the work
    </button>
  `,
  host: { class: 'contents' },
})
export class SkipToWork {
  protected toWork(): void {
    const main = document.querySelector('main');
    if (!main) return;
    main.tabIndex = -1;
    main.focus();
  }
}
