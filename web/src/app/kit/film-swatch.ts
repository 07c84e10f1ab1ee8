import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Film } from '@yellow-pane/contracts';

/** A film as it looks, drawn from its own values: darkness from transmission, shine from reflection, milk from haze. */
@Component({
  selector: 'yp-film-swatch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 40 40" [attr.width]="size()" [attr.height]="size()" aria-hidden="true">
      <path d="M0 0h40v40h-40z" fill="#FFFEFA" />
      @if (look(); as l) {
        <path d="M4 8l10 24M16 8l10 24M28 8l10 24" stroke="#3E6E8E" stroke-width="3" [attr.opacity]="l.view" />
        <path d="M0 0h30l10 10v30h-40z" [attr.fill]="l.color" [attr.opacity]="l.dark" />
        <path d="M0 0h30l10 10v30h-40z" fill="#FFFFFF" [attr.opacity]="l.milk" />
        <path d="M0 22L22 0h8L0 34z" fill="#FFFFFF" [attr.opacity]="l.shine" />
      } @else {
        <path d="M0 0h30l10 10v30h-40z" fill="#D8D2C2" />
        <path d="M0 10h40M0 20h40M0 30h40" stroke="#BDB6A2" />
      }
      <path d="M0.5 0.5h29.5l9.5 9.5v29.5h-39z" fill="none" stroke="#1C2226" />
      <path d="M30 0v10h10" fill="none" stroke="#1C2226" />
    </svg>
  `,
  host: { class: 'inline-block shrink-0' },
})
export class FilmSwatch {
  readonly film = input.required<Pick<Film, 'optics' | 'hazeFrac' | 'construction'>>();
  readonly size = input(40);

  protected readonly look = computed(() => {
    const { optics, hazeFrac, construction } = this.film();
    if (!optics) return null;
    const haze = hazeFrac ?? 0;
    return {
      dark: Math.min(0.95, (1 - optics.visible.transmittanceFrac / 0.9) * 1.05),
      shine: Math.min(0.9, 1.3 * optics.visible.reflectanceGlassSideFrac),
      milk: 0.75 * haze,
      view: 0.55 * (1 - haze),
      color: construction === 'dyed' || construction === 'ceramic' ? '#20262A' : '#3A444A',
    };
  });
}
