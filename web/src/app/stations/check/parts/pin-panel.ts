import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import type { PinState } from '@yellow-pane/contracts';
import {
  defaultAcceptance,
  farText,
  isCounted,
  isOpen,
  mendWords,
  oddsWords,
  pinNamesOf,
  pinStateWords,
  SEEN_FROM_THERE,
  spreadNames,
} from '@yellow-pane/core/check';
import { formatFine, toldAll } from '@yellow-pane/core/ground';
import { PhotoButton } from '../../../kit/photo-button';
import { OneMore } from '../../../record/one-more';
import { RecordStore } from '../../../record/record.store';
import { CheckStore } from '../check.store';
import { dayOf } from '../check-words';
import { PinIcon } from './pin-icon';

/** So long a thing is watched once the drying is over. @source house rule */
const WATCH_DAYS = 7;

/** One thing that was pinned: what is likely behind it, the one question worth asking, what to do, what became of it. */
@Component({
  selector: 'yp-pin-panel',
  imports: [PinIcon, PhotoButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (check.pin(); as p) {
      <div class="mb-3 flex items-center gap-3">
        <yp-pin-icon class="w-18 shrink-0" [kind]="p.pin.kind" />
        <div class="min-w-0 flex-1">
          <h3 class="text-xl leading-tight">{{ names()[p.pin.kind] }}</h3>
          <p class="text-sm text-soft">{{ facts() }}</p>
        </div>
      </div>
      @if (p.entry.photo; as photo) {
        <a class="mb-3 block" [href]="'/api/photos/' + photo" target="_blank" rel="noopener"
          ><img class="max-h-40 border border-field" [src]="'/api/photos/' + photo" alt="Photo of what is pinned"
        /></a>
      }
      @if (check.diagnosis(); as d) {
        @if (d.next; as n) {
          <div class="mb-3 border-2 border-ink bg-tint p-3" data-question>
            <p class="mb-2 text-lg leading-snug font-semibold">{{ n.question.text }}</p>
            @if (n.question.key === 'before' && check.photosBefore().length) {
              <div class="mb-2 flex gap-2 overflow-x-auto">
                @for (f of check.photosBefore(); track f.id) {
                  <a [href]="'/api/photos/' + f.photo" target="_blank" rel="noopener"
                    ><img class="h-24 border border-field" [src]="'/api/photos/' + f.photo" [alt]="f.text || 'Photo of before'"
                  /></a>
                }
              </div>
            }
            <div class="flex flex-wrap gap-2">
              @for (a of n.question.answers; track a.key) {
                <button type="button" class="btn min-h-12 flex-1 text-lg" [attr.data-answer]="a.key" (click)="answer(n.question.key, a.key)">
                  {{ a.text }}
                </button>
              }
              <button type="button" class="btn min-h-12 flex-1" data-answer="unknown" (click)="answer(n.question.key, 'unknown')">Cannot tell</button>
            </div>
          </div>
        }
        <h4 class="cap mb-1">Likely</h4>
        <ul class="mb-3">
          @for (l of d.likely; track l.cause.key) {
            <li class="mb-1.5" [attr.data-cause]="l.cause.key">
              <div class="flex items-baseline justify-between gap-2">
                <span class="leading-tight" [class.font-semibold]="$first">{{ l.cause.name }}</span><span
                  class="figure shrink-0 text-sm whitespace-nowrap text-soft"
                  >{{ words(l.odds) }}, {{ (100 * l.odds).toFixed(0) }} %</span
                >
              </div>
              <div class="h-1.5 bg-waste"><div class="h-full" [class]="$first ? 'bg-ink' : 'bg-field'" [style.width.%]="100 * l.odds"></div></div>
              @if ($first) {
                <p class="mt-0.5 text-sm text-soft">{{ l.cause.why }}</p>
              }
            </li>
          }
        </ul>
        <div class="mb-3 border-l-4 p-3" [class]="look(d.mend.kind)" data-mend>
          <p class="text-lg font-bold">{{ mends[d.mend.kind] }}{{ d.next ? ', as it looks now' : '' }}</p>
          <p>{{ d.mend.text }}</p>
          @if (d.mend.kind === 'wait') {
            <p class="mt-1">
              <strong>Until {{ day(watchUntil()) }}.</strong>
            </p>
          }
        </div>
        @if (counts() && open()) {
          <div class="mb-3 border border-hair bg-paper p-2.5" data-rule>
            <p class="cap">Your rule</p>
            <p class="mb-2">{{ ruling()?.why ?? '' }}</p>
            <p class="mb-1">Stand {{ far() }} off, at right angles, in daylight. Do you see it?</p>
            <div class="flex gap-2">
              <button type="button" class="btn flex-1" [class.btn-ink]="p.answers[seenKey] === 'yes'" (click)="answer(seenKey, 'yes')">I see it</button>
              <button type="button" class="btn flex-1" [class.btn-ink]="p.answers[seenKey] === 'no'" data-unseen (click)="answer(seenKey, 'no')">
                Not seen
              </button>
            </div>
          </div>
        }
        @if (d.mend.caution; as c) {
          <p class="mb-3 border-l-4 border-harm bg-harm-tint p-2.5" data-caution>{{ c }}</p>
        }
        @if (d.whyDone; as why) {
          <p class="mb-2 text-sm text-soft">{{ doneWords[why] }}</p>
        }
        @if (d.counted.length) {
          <p class="mb-3 text-sm text-soft">Counted from the log: {{ d.counted.join('; ') }}.</p>
        }
      }
      @if (open()) {
        @if (check.diagnosis()?.mend?.kind === 'replace' || ruling()?.verdict === 'beyond') {
          @if (isAsked()) {
            <p class="mb-2 border-l-4 border-proof bg-proof-tint p-2" role="status">A new piece is asked for: it stands in Cut, first from leftovers.</p>
          } @else {
            <button type="button" class="btn btn-ink mb-2 min-h-14 w-full text-lg" data-one-more (click)="oneMorePiece()">Ask for one more piece</button>
          }
        }
        <h4 class="cap mb-1">What became of it</h4>
        <div class="grid grid-cols-2 gap-2">
          <button type="button" class="btn min-h-12" [class.btn-hand]="check.diagnosis()?.mend?.kind === 'wait'" data-state="watched" (click)="watch()">
            Watch until {{ day(watchUntil()) }}
          </button>
          @for (s of states; track s.key) {
            <button type="button" class="btn min-h-12" [attr.data-state]="s.key" (click)="became(s.key)">{{ s.text }}</button>
          }
        </div>
        <yp-photo-button class="mt-2" label="One more photo" (taken)="check.photo($event)" />
      } @else {
        <p class="mb-2 border-l-4 border-proof bg-proof-tint p-2.5" data-became>{{ stateWords[p.state] }}</p>
        <button type="button" class="btn min-h-12" (click)="became('open')">Open it again</button>
      }
      <div class="mt-3 flex gap-2">
        <button type="button" class="btn min-h-12 flex-1" (click)="closed.emit()">To the pane</button>
        <button type="button" class="btn min-h-12" (click)="check.takeBack(p.entry.id, 'pinned by mistake')">Pinned by mistake</button>
      </div>
    }
  `,
  host: { class: 'block' },
})
export class PinPanel {
  protected readonly check = inject(CheckStore);
  private readonly record = inject(RecordStore);
  private readonly oneMore = inject(OneMore);
  readonly closed = output<void>();
  protected readonly names = computed(() => pinNamesOf(this.check.patient()));
  protected readonly mends = mendWords;
  protected readonly stateWords = pinStateWords;
  protected readonly seenKey = SEEN_FROM_THERE;
  protected readonly words = oddsWords;
  protected readonly doneWords = {
    sure: 'Nothing more is asked: it is sure enough what to do.',
    'no-change': 'Nothing more is asked: whatever the answer, the same has to be done.',
    'all-asked': 'Nothing more to ask. It stays a guess: look again another day.',
  } as const;
  protected readonly states: readonly { readonly key: PinState; readonly text: string }[] = [
    { key: 'mended', text: 'Mended' },
    { key: 'left', text: 'Left as it is' },
    { key: 'accepted', text: 'The customer accepts it' },
  ];
  protected readonly isAsked = signal(false);
  private readonly zone = computed(() => this.record.doc()?.job.zone ?? 'Etc/UTC');
  protected readonly open = computed(() => this.check.pin() !== null && isOpen(this.check.pin()!));
  protected readonly counts = computed(() => this.check.wet() !== null && isCounted(this.check.pin()!.pin.kind));
  protected readonly ruling = computed(() => this.check.rulings().find((r) => r.id === this.check.pinId()) ?? null);
  private readonly rule = computed(() => this.record.doc()?.firm.acceptance ?? defaultAcceptance);
  protected readonly far = computed(() => farText(this.rule().distanceMm, this.record.units()));
  protected readonly facts = computed(() => {
    const p = this.check.pin()!;
    const size = p.pin.sizeMm === null ? '' : `, ${formatFine(p.pin.sizeMm, this.record.units())}`;
    return toldAll(
      `${spreadNames[p.pin.spread]}${size}, seen ${this.day(p.entry.occurredAt)}${this.check.wet() ? ` from the ${p.pin.seenFrom}` : ''}`,
      this.record.units(),
    );
  });
  protected day(iso: string): string {
    return dayOf(iso, this.zone());
  }
  /** The last day of the drying, or a week from now where that is over. */
  protected readonly watchUntil = computed(() => {
    const end = this.check.wet()?.clear.to ?? '';
    const now = this.check.nowMs();
    return Date.parse(end) > now ? end : new Date(now + WATCH_DAYS * 86_400_000).toISOString();
  });
  protected look(kind: keyof typeof mendWords): string {
    return kind === 'stop' ? 'border-harm bg-harm-tint' : kind === 'wait' || kind === 'leave' ? 'border-wet bg-wet-tint' : 'border-ink bg-glass';
  }
  protected answer(key: string, answer: string): void {
    void this.check.news({ answers: { [key]: answer } }, 'an answer');
  }
  protected watch(): void {
    void this.check.news({ state: 'watched', watchUntil: this.watchUntil().slice(0, 10), causeKey: this.causeKey() }, 'watched');
  }
  protected became(state: PinState): void {
    void this.check.news({ state, causeKey: this.causeKey() }, pinStateWords[state]);
  }
  private causeKey(): string | null {
    return this.check.diagnosis()?.likely[0]?.cause.key ?? null;
  }
  protected oneMorePiece(): void {
    const here = this.check.here();
    if (!here) return;
    this.oneMore.ask(here.surface.id, null, here.surface.name, this.names()[this.check.pin()!.pin.kind].toLowerCase());
    this.isAsked.set(true);
  }
}
