import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** How film is drawn over a round corner where two wrapped edges meet: the corner from the front, its edges laid flat beside it. */
@Component({
  selector: 'yp-corner-round',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 220 220" class="block w-full" role="img" [attr.aria-label]="label()">
      <path d="M20 34H112A74 74 0 0 1 186 108V190H20Z" fill="#F6D98A" stroke="#A97C00" stroke-dasharray="5 3" />
      <path d="M20 60H112A48 48 0 0 1 160 108V190H20Z" fill="#FFE9A8" stroke="#1C2226" stroke-width="1.5" />
      <text x="76" y="132" text-anchor="middle" font-size="12">face</text>
      <path d="M120 100L178 42m-10 2l10-2l-2 10" fill="none" stroke="#1C2226" stroke-width="2.4" />
      <text x="182" y="36" text-anchor="middle" font-size="12" font-weight="700">2</text>
      <text x="46" y="52" text-anchor="middle" font-size="12" font-weight="700">1</text>
      <text x="173" y="172" text-anchor="middle" font-size="12" font-weight="700">1</text>
      <path d="M138 56l-24-8m8-3l-8 3l5 7M163 84l9 22m-8-5l8 5l3-9" fill="none" stroke="#1C2226" stroke-width="1.6" />
      <text x="128" y="46" font-size="12" font-weight="700">3</text>
      <text x="20" y="203" font-size="11" fill="#56626A">1 edges first, to a hand off it</text>
      <text x="20" y="217" font-size="11" fill="#56626A">2 drawn on, warm; 3 pressed</text>
    </svg>
  `,
})
export class CornerRound {
  readonly label = input.required<string>();
}
