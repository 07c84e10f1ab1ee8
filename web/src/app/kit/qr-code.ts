import { ChangeDetectionStrategy, Component, input, resource } from '@angular/core';

/** Clear space around a code, in modules. @source ISO/IEC 18004, 9.1: 4 modules */
const QUIET = 4;

/** A text as a picture that a phone's camera reads. */
@Component({
  selector: 'yp-qr-code',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn.value(); as d) {
      <svg [attr.viewBox]="'0 0 ' + d.size + ' ' + d.size" class="block h-44 w-44 bg-white" role="img" [attr.aria-label]="label()" shape-rendering="crispEdges">
        <path [attr.d]="d.path" fill="#000" />
      </svg>
    }
  `,
})
export class QrCode {
  readonly text = input.required<string>();
  readonly label = input.required<string>();

  protected readonly drawn = resource({
    params: () => this.text(),
    loader: async ({ params }) => {
      const { default: qrcode } = await import('qrcode');
      const { modules } = qrcode.create(params, { errorCorrectionLevel: 'M' });
      const runs: string[] = [];
      for (let y = 0; y < modules.size; y++) for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) runs.push(`M${x + QUIET} ${y + QUIET}h1v1h-1z`);
      return { size: modules.size + 2 * QUIET, path: runs.join('') };
    },
  });
}
