import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { SkipToWork } from './skip-to-work';
import { Logo } from './logo';

/** The head of every page outside a job. */
@Component({
  selector: 'yp-bench-bar',
  imports: [SkipToWork, RouterLink, RouterLinkActive, Logo],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-skip-to-work />
    <header class="flex h-14 items-stretch gap-1 overflow-x-auto border-b border-line bg-card px-4">
      <a routerLink="/" class="flex items-center gap-2 pr-1 font-bold sm:pr-4 whitespace-nowrap" aria-label="Yellow Pane"
        ><yp-logo /><span class="hidden sm:inline">Yellow Pane</span></a
      >
      <nav aria-label="Bench" class="flex items-stretch">
        @for (p of places; track p.path) {
          <a
            [routerLink]="p.path"
            routerLinkActive="here"
            ariaCurrentWhenActive="page"
            [routerLinkActiveOptions]="{ exact: true }"
            class="flex items-center border-b-4 border-transparent px-2 hover:bg-glass sm:px-3"
            >{{ p.name }}</a
          >
        }
      </nav>
      <span class="ml-auto hidden items-center text-soft sm:flex">{{ firm() }}</span>
      <ng-content />
    </header>
  `,
  styles: `
    .here {
      border-bottom-color: var(--color-hand);
      font-weight: 700;
    }
  `,
})
export class BenchBar {
  readonly firm = input('');
  protected readonly places = [
    { path: '/', name: 'Jobs' },
    { path: '/price', name: 'Price' },
    { path: '/films', name: 'Films' },
    { path: '/stock', name: 'Stock' },
    { path: '/firm', name: 'Firm' },
    { path: '/phones', name: 'Phones' },
  ];
}
