import type { StepRule } from '@yellow-pane/contracts';
import { step } from './step-rule.js';

const when = { surface: ['column' as const, 'panel' as const, 'wall' as const, 'counter' as const, 'sign' as const], has: ['patch' as const] };

/**
 * What comes before film that is laid dry on a ground in doubt: a square of it is tried for a day, and what came off is written down.
 * @source common practice, TRADE §5: a 6 in (150 mm) square for 24 h, then see what comes off
 */
export const groundSteps: readonly StepRule[] = [
  step('ground-patch', 'Lay a test patch, where it is hidden', 'A square of {150 mm} of this film, pressed on like the film itself: low down, behind a door. Write the hour on it.', {
    purpose: 'Doubtful paint lets go of the whole face, not of a square.', good: 'It lies flat, and everybody knows that it stays until tomorrow.', tools: ['a square of the film', 'squeegee with felt edge'], minutes: [4, 0, 0], mood: 'dry', wait: { minutes: 1440, what: 'test patch: pull it off after a day' }, caution: 'Nothing else is laid here before the patch has told.', when,
  }), // prettier-ignore
  step('ground-patch-off', 'Pull the patch off', 'After a day: look whether it has lifted by itself; then off slowly, flat along the wall. What came off goes into a note, with a photo.', {
    purpose: 'What comes off with a square would come off with the film.', good: 'Nothing of the ground came with it, and it had not lifted by itself.', minutes: [2, 0, 0], mood: 'look', caution: 'Paint came off: no film here. “Something is wrong”, prepare the ground, and try again. Old paint may hold lead: tested before it is sanded.', when,
  }), // prettier-ignore
];
