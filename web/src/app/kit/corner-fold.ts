import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { CornerSchool } from '@yellow-pane/contracts';

/** How two wrapped edges meet at a corner, by the school of it: the film laid flat, the face below left. */
@Component({
  selector: 'yp-corner-fold',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 220 220" class="block w-full" role="img" [attr.aria-label]="label()">
      <rect x="36" y="76" width="74" height="74" fill="#FFE9A8" stroke="#1C2226" stroke-width="1.5" />
      <text x="73" y="117" text-anchor="middle" font-size="12">face</text>
      @if (school() === 'relief') {
        <path d="M110 76V136H156V150H110Z" fill="#FFF6DC" stroke="none" />
        <rect x="110" y="76" width="46" height="74" fill="#F6D98A" stroke="#1C2226" stroke-width="1.2" />
        <rect x="110" y="64" width="46" height="12" fill="#F6D98A" stroke="#1C2226" stroke-width="1.2" />
        <text x="162" y="73" font-size="11">tab, 1st</text>
      } @else {
        <rect x="110" y="76" width="46" height="74" fill="#F6D98A" stroke="#1C2226" stroke-width="1.2" />
      }
      @if (school() === 'mitre') {
        <path d="M110 76L156 30V76Z" fill="#F6D98A" stroke="#1C2226" stroke-width="1.2" />
        <path d="M110 76L156 30H36V76Z" fill="#FFE9A8" stroke="#1C2226" stroke-width="1.2" />
      } @else {
        <rect x="36" y="30" width="74" height="46" fill="#FFE9A8" stroke="#1C2226" stroke-width="1.2" />
      }
      @if (school() === 'envelope') {
        <path d="M110 76L156 76L156 30L110 30Z" fill="#FFF6DC" stroke="#1C2226" stroke-width="1.2" stroke-dasharray="4 3" />
        <path d="M110 76L156 30" stroke="#1C2226" stroke-dasharray="3 3" />
        <text x="162" y="52" font-size="11">ear behind</text>
      }
      <text x="133" y="118" text-anchor="middle" font-size="11">side 1st</text>
      <text x="73" y="57" text-anchor="middle" font-size="11">end last</text>
      <text x="20" y="200" font-size="11" fill="#56626A">the film laid flat; it folds at the face’s lines</text>
    </svg>
  `,
})
export class CornerFold {
  readonly school = input.required<CornerSchool>();
  readonly label = input.required<string>();
}
