import type { Film, Ground } from '@yellow-pane/contracts';
import { isLaidDry } from '../films/index.js';

/** Whether a film may go on a ground, and what has to happen first. The hardest grade of its reasons counts. */
export interface GroundVerdict {
  readonly grade: 'suits' | 'prepare' | 'ask' | 'do-not';
  readonly reasons: readonly { readonly grade: GroundVerdict['grade']; readonly words: string }[];
  /** A square of film is laid for a day first, and looked at. */
  readonly needsPatch: boolean;
}

/** Days that paint, and concrete or render, have to stand before film goes on. @source common practice: 30 and 28 days */
const PAINT_DAYS = 30;
const CONCRETE_DAYS = 28;
/** Between these a ground takes film that is laid dry. @source common practice: 59–77 °F (15–25 °C) */
const DRY_GROUND_C = { min: 15, max: 25 } as const;
const ORDER: readonly GroundVerdict['grade'][] = ['suits', 'prepare', 'ask', 'do-not'];
const porous: ReadonlySet<Ground['material']> = new Set(['plasterboard', 'plaster', 'concrete', 'brick', 'wood', 'wood-board']);
const DAY_MS = 86_400_000;
const isRough = (g: Ground): boolean => g.material === 'brick' || (g.material === 'concrete' && g.finish !== 'laminated');

/** What one kind of film makes of a ground. @source common practice */
const byKind: Partial<
  Record<Film['kind'], readonly { readonly grade: GroundVerdict['grade']; readonly when: (g: Ground) => boolean; readonly words: string }[]>
> = {
  interior: [{ grade: 'prepare', when: isRough, words: 'Thick embossed film lies over hollows: fill and smooth it first, or take film for textured walls.' }],
  'printed-decor': [{ grade: 'prepare', when: isRough, words: 'A printed film shows every grain: smooth it first.' }],
  'textured-wall': [
    {
      grade: 'ask',
      when: (g) => !isRough(g) && g.material !== 'unknown',
      words: 'Made for rough walls and heat: on a smooth ground thin film shows every grain of dust.',
    },
  ],
  lettering: [{ grade: 'ask', when: () => true, words: 'Film for letters: cut into figures, not laid over a whole ground; every seam shows.' }],
};
/** What one kind of film makes of a ground where it is cut into letters. @source common practice; house rules on embossed film and its plotter */
const letters: typeof byKind = {
  interior: [{ grade: 'ask', when: () => true, words: 'Thick embossed film is hard to plot and to weed: cut one word first.' }],
  'printed-decor': [{ grade: 'ask', when: () => true, words: 'A print runs on from letter to letter only where they are cut out of one length.' }],
  lettering: [{ grade: 'prepare', when: isRough, words: 'On so rough a ground letters need heat, and cast film rather than calendered.' }],
};

/**
 * The rules of what film that is laid dry may be laid on.
 * @param on the day it is to be laid, YYYY-MM-DD
 * @param isLetters it is cut into letters and figures, not laid over the whole ground
 * @source common practice; the makers' instructions go before it
 */
export function verdictOnGround(film: Pick<Film, 'name' | 'kind' | 'drying' | 'mounting'>, ground: Ground, on: string, isLetters = false): GroundVerdict {
  const reasons: GroundVerdict['reasons'][number][] = [];
  const say = (grade: GroundVerdict['grade'], words: string) => void reasons.push({ grade, words });
  if (!isLaidDry(film)) say('do-not', `${film.name} is film for glass and laid wet: choose one that is laid dry.`);
  for (const r of (isLetters ? letters : byKind)[film.kind] ?? []) if (r.when(ground)) say(r.grade, r.words);
  if (ground.material === 'unknown' || ground.finish === 'unknown') say('ask', 'Nobody has said yet what it is made of, or how it is finished.');
  if (ground.state === 'peeling' || ground.state === 'chalking')
    say('do-not', `The ${ground.finish === 'painted' ? 'paint' : 'surface'} is ${ground.state}: no film until it is off, or bound and primed. Old paint may hold lead: have it tested before it is sanded.`); // prettier-ignore
  if (ground.state === 'damaged') say('prepare', 'Fill it, let it dry, sand it flush: every edge shows through.');
  if (ground.isDamp) say('do-not', 'It was found damp: film lifts and blisters. Find out where it comes from, let it dry, measure again.');
  if (ground.isDamp === null && (ground.material === 'concrete' || ground.material === 'plaster'))
    say('ask', 'Concrete and plaster: measure whether it is dry.');
  if (ground.madeOn) {
    const [what, days] = ground.finish === 'painted' ? ['Paint', PAINT_DAYS] : ground.material === 'concrete' || ground.material === 'plaster' ? ['Concrete and render', CONCRETE_DAYS] : [null, 0]; // prettier-ignore
    const from = new Date(Date.parse(ground.madeOn) + days * DAY_MS).toISOString().slice(0, 10);
    if (what && on < from) say('do-not', `${what} stand ${days} days before film goes on: not before ${from}.`.replace('Paint stand', 'Paint stands'));
  }
  if (ground.isGreasy) say('prepare', 'Grease: degrease, rinse twice with clear water, let it dry overnight.');
  if (ground.finish === 'bare' && porous.has(ground.material)) say('prepare', 'A bare ground that drinks: prime it, and prove it dry by hand.');
  if (ground.finish === 'painted' && ground.gloss === 'gloss') say('ask', 'Gloss paint lets film go: matt it, or lay a patch first.');
  if (ground.finish === 'painted' && ground.madeOn === null && ground.state === 'unknown')
    say('ask', 'Paint of unknown age that nobody has tried: lay a patch first.');
  if (ground.surfaceTempC !== null && (ground.surfaceTempC < DRY_GROUND_C.min || ground.surfaceTempC > DRY_GROUND_C.max))
    say('prepare', `It was measured at ${ground.surfaceTempC} °C: film that is laid dry wants ${DRY_GROUND_C.min} to ${DRY_GROUND_C.max} °C.`);
  const grade = reasons.reduce<GroundVerdict['grade']>((worst, r) => (ORDER.indexOf(r.grade) > ORDER.indexOf(worst) ? r.grade : worst), 'suits');
  return { grade, reasons, needsPatch: grade === 'ask' };
}

/** How a patch is tried. @source common practice: a 6 in (150 mm) square for 24 h */
export const PATCH_WORDS =
  'Lay a square of {150 mm}, press it, leave it a day, pull it off slowly: nothing of the ground may come with it, and it must not have lifted by itself.';
