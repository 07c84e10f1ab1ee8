import { ChangeDetectionStrategy, Component } from '@angular/core';

/** A pane of yellow with one corner lifted. */
@Component({
  selector: 'yp-logo',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg viewBox="0 0 32 32" width="24" height="24" aria-hidden="true">
    <path d="M4 4h16l8 8v16H4z" fill="#F4B400" />
    <path d="M20 4v8h8z" fill="#1C2226" />
  </svg>`,
  host: { class: 'inline-flex' },
})
export class Logo {}
