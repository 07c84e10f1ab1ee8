import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { CallBack } from '@yellow-pane/contracts';
import { BenchBar } from '../../kit/bench-bar';
import { Api } from '../../record/api';
import { Device } from '../../record/device';

/** A rest in typing. */
const TYPING_MS = 200;

/** Calls of customers after the work, over all jobs: what is behind them is looked for by lot, film and cause. Nobody is ranked. */
@Component({
  selector: 'yp-call-backs-page',
  imports: [RouterLink, BenchBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-bench-bar [firm]="device.firm()?.name ?? ''" />
    <main class="mx-auto max-w-5xl p-6">
      <h1 class="mb-1 text-2xl">Calls after the work</h1>
      <p class="mb-3 text-[15px]">
        Each with what its pane is known by. Search a lot, a film, a cause, a customer: several of one lot are worth a call to its maker.
      </p>
      <input
        class="field mb-3 max-w-96"
        type="search"
        maxlength="120"
        placeholder="Lot, film, cause, customer, street"
        aria-label="Search the calls"
        (input)="find($any($event.target).value)"
      />
      @if (message()) {
        <div role="alert" class="mb-4 border-l-4 border-ink bg-tint p-3">{{ message() }}</div>
      }
      @if (calls(); as list) {
        <div class="overflow-x-auto">
          <table class="w-full min-w-[720px] border-t border-line bg-card text-sm">
            <thead>
              <tr class="border-b border-line text-left">
                <th class="p-2">Called</th>
                <th class="p-2">Job and pane</th>
                <th class="p-2">What they say</th>
                <th class="p-2">Film and lot</th>
                <th class="p-2">Put down to</th>
              </tr>
            </thead>
            <tbody>
              @for (c of list; track c.entryId) {
                <tr class="border-b border-hair align-top" data-call-back>
                  <td class="p-2 whitespace-nowrap">
                    {{ c.calledAt.slice(0, 10)
                    }}<span class="block text-soft">{{
                      c.daysAfterLaying === null ? '' : c.daysAfterLaying === 1 ? '1 day after' : c.daysAfterLaying + ' days after'
                    }}</span>
                  </td>
                  <td class="p-2">
                    <a class="font-bold underline" [routerLink]="['/jobs', c.jobId, 'hand-over']">{{ c.job }}</a>{{ c.pane ? ', ' + c.pane : '' }}
                    <span class="block text-soft">{{ c.customer }}{{ c.address ? ', ' + c.address : '' }}</span>
                  </td>
                  <td class="p-2">{{ c.says || '(erased)' }}</td>
                  <td class="p-2">
                    {{ c.film
                    }}<span class="block text-soft"
                      >{{ c.lot ? 'lot ' + c.lot : c.film ? 'lot not logged' : '' }}{{ c.laidBy ? ', laid by ' + c.laidBy : '' }}</span
                    >
                  </td>
                  <td class="p-2">{{ c.causes.join(', ') || 'not looked at yet' }}</td>
                </tr>
              } @empty {
                <tr>
                  <td colspan="5" class="p-6 text-center">
                    {{ isSearching() ? 'No call holds these words.' : 'Nobody has called. A call is written down in Hand over of its job.' }}
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      } @else if (!message()) {
        <p class="text-soft" aria-busy="true">Looking for calls …</p>
      }
    </main>
  `,
})
export class CallBacksPage {
  private readonly api = inject(Api);
  protected readonly device = inject(Device);
  protected readonly calls = signal<readonly CallBack[] | null>(null);
  protected readonly message = signal('');
  protected readonly isSearching = signal(false);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private asked = '';

  constructor() {
    void this.device.connect().catch(() => undefined);
    void this.load();
  }

  protected find(words: string): void {
    this.asked = words.trim();
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.load(), TYPING_MS);
  }
  private async load(): Promise<void> {
    const search = this.asked;
    try {
      const calls = await this.api.callBacks({ query: search ? { search } : {} });
      if (search !== this.asked) return;
      this.calls.set(calls);
      this.isSearching.set(search !== '');
      this.message.set('');
    } catch (error) {
      this.message.set((error as Error).message);
    }
  }
}
