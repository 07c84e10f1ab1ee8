import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import type { ProblemKind } from '@yellow-pane/contracts';
import { toldAll } from '@yellow-pane/core/ground';
import { adviceFor, problemNames, problemQuestions } from '@yellow-pane/core/lay';
import { RecordStore } from '../../../record/record.store';
import { OneMore } from '../../../record/one-more';
import { LayStore } from '../lay.store';
import { LayDrawing } from './lay-drawing';
import { PhotoButton } from '../../../kit/photo-button';

const verdictWords = { mend: 'Mend it now', wait: 'Let it dry', replace: 'A new piece', stop: 'Stop here' } as const;

/** Something is wrong: what, where, one or two questions, and then what to do. */
@Component({
  selector: 'yp-problem-sheet',
  imports: [LayDrawing, PhotoButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="flex h-full flex-col overflow-y-auto bg-card p-4 *:shrink-0" aria-label="Something is wrong">
      @if (!kind()) {
        <h2 class="mb-3 text-2xl">What do you see?</h2>
        <div class="grid grid-cols-2 gap-2">
          @for (k of kinds; track k) {
            <button type="button" class="relief min-h-16 border border-field bg-paper px-2 py-2 text-left text-[17px] leading-tight" (click)="kind.set(k)">
              {{ names[k] }}
            </button>
          }
        </div>
      } @else if (at() === undefined) {
        <h2 class="mb-1 text-2xl">Where?</h2>
        <p class="mb-2">Tap the place on the drawing, or go there with the arrows and press Enter.</p>
        @if (lay.pane(); as p) {
          <yp-lay-drawing
            class="border border-hair"
            [outline]="p.outline"
            [holes]="p.holes"
            drawing="none"
            [pickable]="true"
            label="Tap where it is"
            (tapped)="place($event)"
          />
        }
        <button type="button" class="btn mt-3 min-h-16 text-lg" (click)="place(null)">Everywhere, or the whole pane</button>
      } @else if (question(); as q) {
        <h2 class="mb-3 text-2xl">{{ q.text }}</h2>
        @for (a of q.answers; track a.key) {
          <button type="button" class="relief mb-3 min-h-20 border border-field bg-paper px-3 text-left text-xl" (click)="answer(q.key, a.key)">
            {{ a.text }}
          </button>
        }
      } @else if (advice(); as a) {
        <p class="cap">{{ names[kind()!] }}</p>
        <h2 class="mb-2 text-2xl" [class.text-harm]="a.verdict === 'stop'">{{ verdictWords[a.verdict] }}</h2>
        <p class="mb-3 text-lg" data-advice>{{ a.text }}</p>
        @if (a.caution) {
          <p class="mb-3 border-l-4 border-harm bg-harm-tint p-3">{{ a.caution }}</p>
        }
        <yp-photo-button class="mb-3" label="Photograph it" (taken)="photo($event)" />
        @if (photos()) {
          <p class="mb-3 text-sm" role="status">{{ photos() }} {{ photos() === 1 ? 'photo is' : 'photos are' }} kept.</p>
        }
        @if (a.verdict === 'replace' || kind() === 'piece-small' || kind() === 'piece-mirrored') {
          @if (isAsked()) {
            <p class="mb-3 border-l-4 border-proof bg-proof-tint p-3" role="status" data-asked-again>A new piece is asked for: it stands in Cut.</p>
          } @else if (isOfSeveral()) {
            <p class="mb-3">This pane has several pieces: ask for the one that is spoiled in Cut, under “one more”.</p>
          } @else {
            <button type="button" class="btn btn-ink mb-2 min-h-16 text-lg" data-new-piece (click)="newPiece()">Ask for a new piece</button>
          }
        }
        <button type="button" class="btn btn-hand mb-2 min-h-20 text-xl" (click)="mended()">It is right again, go on</button>
        <button type="button" class="btn min-h-16 text-lg" (click)="closed.emit(true)">Leave this pane for now</button>
      }
      @if (!isLogged()) {
        <button type="button" class="btn mt-auto min-h-14 text-lg" (click)="back()">Back</button>
      }
    </section>
  `,
  host: { class: 'block' },
})
export class ProblemSheet {
  protected readonly lay = inject(LayStore);
  /** True: the pane is left; false: nothing was wrong, or it is right again. */
  readonly closed = output<boolean>();
  protected readonly names = problemNames;
  protected readonly kinds = Object.keys(problemNames) as ProblemKind[];
  protected readonly verdictWords = verdictWords;
  protected readonly kind = signal<ProblemKind | null>(null);
  /** Undefined: not asked yet; null: the whole pane. */
  protected readonly at = signal<{ xFrac: number; yFrac: number } | null | undefined>(undefined);
  private readonly answers = signal<Readonly<Record<string, string>>>({});
  protected readonly isLogged = signal(false);
  protected readonly photos = signal(0);
  protected readonly isAsked = signal(false);
  private readonly oneMore = inject(OneMore);
  protected readonly isOfSeveral = computed(() => Boolean(this.lay.glass()?.seam ?? this.lay.glass()?.design));
  protected readonly question = computed(() => {
    const kind = this.kind();
    return (kind && problemQuestions[kind].find((q) => !(q.key in this.answers()))) ?? null;
  });
  private readonly record = inject(RecordStore);
  protected readonly advice = computed(() => (this.kind() && this.isLogged() ? toldAll(adviceFor(this.kind()!, this.answers()), this.record.units()) : null));

  protected place(at: { xFrac: number; yFrac: number } | null): void {
    this.at.set(at);
    this.logIfAsked();
  }
  protected answer(key: string, answer: string): void {
    this.answers.update((all) => ({ ...all, [key]: answer }));
    this.logIfAsked();
  }
  /** The last answer writes it down: what was seen stands, whatever is done about it. */
  private logIfAsked(): void {
    if (this.kind() && this.at() !== undefined && !this.question() && !this.isLogged()) void this.log();
  }

  private async log(): Promise<void> {
    const here = this.lay.here();
    const kind = this.kind()!;
    if (
      here &&
      (await this.lay.write('problem', `${here.surface.name}: ${problemNames[kind].toLowerCase()}`, {
        problem: { kind, at: this.at() ?? null, answers: this.answers() },
      }))
    )
      this.isLogged.set(true);
  }
  protected back(): void {
    if (this.at() !== undefined) this.at.set(undefined);
    else if (this.kind()) this.kind.set(null);
    else this.closed.emit(false);
  }
  protected async photo(blob: Blob): Promise<void> {
    if (await this.lay.write('photo', 'Photo of what is wrong', { text: problemNames[this.kind()!].toLowerCase() }, blob)) this.photos.update((n) => n + 1);
  }
  /** One more of it goes onto the roll; it stands in Cut as soon as the bench has it. */
  protected newPiece(): void {
    const here = this.lay.here();
    if (!here) return;
    this.oneMore.ask(here.surface.id, null, here.surface.name, problemNames[this.kind()!].toLowerCase());
    this.isAsked.set(true);
  }
  protected async mended(): Promise<void> {
    if (await this.lay.write('mended', `${this.lay.here()?.surface.name} is right again`)) this.closed.emit(false);
  }
}
