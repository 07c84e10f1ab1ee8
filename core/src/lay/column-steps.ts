import type { StepRule } from '@yellow-pane/contracts';
import { step } from './step-rule.js';

const when = { surface: ['column' as const] };

/**
 * The steps of film that goes round a column, as they come with Yellow Pane; a firm writes its own over them. Times are house figures until logged ones take
 * their place.
 * @source common practice: the strip in the middle of the liner first, 2 in (50 mm) of width at a time, bottom then top, short trims as it goes
 */
export const columnSteps: readonly StepRule[] = [
  step('column-check', 'Hold the piece round the column', 'Liner on, arrow up. It must go round ({girth}) with {lap} over at the seam, and its notches must meet base and top ({height}).', {
    purpose: 'A piece too short shows before it sticks.', good: 'The lap is there all the way up; the notched strip fits between base and top.', minutes: [1, 0, 0], mood: 'dry', drawing: 'column-piece', when,
  }), // prettier-ignore
  step('column-clean', 'Wipe with alcohol, feel by hand', 'Seventy parts alcohol, thirty water; wipe, dry, then feel the whole face with a clean hand.', {
    purpose: 'A grain of dust stands out under film that is laid dry.', good: 'Nothing is felt, nothing comes off on the cloth.', tools: ['alcohol 70/30', 'lint-free cloth', 'gloves'], minutes: [1, 1.5, 0], mood: 'dry', caution: 'Alcohol burns: doors open, no flame, no gun until nothing is smelt.', when,
  }), // prettier-ignore
  step('column-plumb', 'Hang a line on the front', 'Mark its middle from base to top where people come from. The strip lies along it; the seam comes to the back by itself.', {
    purpose: 'Round a column nothing else tells whether the grain stands upright.', good: 'A thin pencil line, plumb.', tools: ['plumb line', 'pencil'], minutes: [2, 0, 0], mood: 'dry', drawing: 'column-plumb', when,
  }), // prettier-ignore
  step('column-promoter', 'Promoter where the seam will lie', 'A strip {lap} wide on the back, and another on the film that will lie under. Let it dry until it is tacky.', {
    purpose: 'Film holds on film, and at an edge that pulls, only with promoter.', good: 'An even thin strip, dry to the touch.', tools: ['adhesion promoter', 'masking tape', 'gloves'], minutes: [1, 0, 0.3], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying' }, caution: 'Solvent: air the room, gloves, no flame and no gun until nothing is smelt.', when,
  }), // prettier-ignore
  step('column-strip', 'Lay the middle strip', 'Take off the {strip} strip of liner in the middle only. Hang it on the line, notches to base and top; press from half height up and down.', {
    purpose: 'The rest is still on its liner: what hangs crooked can be lifted once more.', good: 'Plumb, notches met, no fold.', tools: ['squeegee with felt edge'], minutes: [2, 0, 1], mood: 'dry', drawing: 'column-strip', when,
  }), // prettier-ignore
  step('column-round', 'Go round, {50 mm} at a time', 'One side, then the other: draw the liner away {50 mm}, press from the middle, first to the bottom, then to the top; trim short lengths as you go. About {bands} times in all.', {
    purpose: 'A wide front of loose film folds; a narrow one lies down.', good: 'No air, no pull lines; the grain stands upright.', tools: ['squeegee with felt edge', 'knife, new blade', 'blade guard 3 mm'], minutes: [2, 5, 0.5], mood: 'dry', drawing: 'column-round', caution: 'Film that is stretched creeps back: lift it and lay it again without pulling.', when,
  }), // prettier-ignore
  step('column-seam', 'Close the seam', 'A tape line keeps the lap straight. Lay it over by {lap}, press along it. {seam}', {
    purpose: 'The seam is what people look at, and what lifts first.', good: 'A straight edge, plumb, pressed from end to end.', tools: ['masking tape', 'straightedge', 'knife, new blade'], minutes: [2, 0, 0.5], mood: 'dry', drawing: 'column-seam', caution: 'Cut the top layer only: a cut through both opens later.', when,
  }), // prettier-ignore
  step('column-trim', 'Trim base and top', 'Guard against base and top, point only; a finger into the corner first.', {
    purpose: 'What stands on base or ceiling is caught by the mop.', good: 'A line as even as the guard.', tools: ['knife, new blade', 'blade guard 3 mm'], minutes: [1, 0, 0.5], mood: 'dry', when,
  }), // prettier-ignore
  step('column-feel', 'Feel for bubbles', 'With a gloved hand, all round. Press them out to the nearest edge, or prick and press.', {
    purpose: 'Dry film has no water that takes air away with it.', good: 'Nothing moves under the hand.', tools: ['gloves', 'needle'], minutes: [1, 0.5, 0], mood: 'look', when,
  }), // prettier-ignore
];
