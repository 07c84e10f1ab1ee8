import type { PaneTrait, StepRule } from '@yellow-pane/contracts';
import { step } from './step-rule.js';

const surface = ['sign' as const];
const when = { surface };
const where = (...has: PaneTrait[]) => ({ surface, has });

/**
 * The steps of letters that are carried over with transfer tape, as they come with Yellow Pane; a firm writes its own over them. Times are house figures until logged
 * ones take their place.
 * @source common practice: heat only on texture; tape hinge, liner off, transfer tape off in small parts before any heat, contact first (loose vinyl shrivels); too hot
 * to touch; pat, never rub; the air away from finished letters; a hard board behind canvas
 */
export const signSteps: readonly StepRule[] = [
  step('sign-clear', 'Off with what comes off', '{off} {round} Old letters: warm, off at a flat angle, their glue with them.', {
    purpose: 'Letters over a screw or an eyelet lift there first.', good: 'A bare ground where letters come.', tools: ['screwdrivers', 'plastic scraper'], minutes: [3, 0, 0], mood: 'dry', caution: 'Lit signs and lamps are isolated first, by a licensed electrician.', when: where('hardware')
  }), // prettier-ignore
  step('sign-board', 'A hard board behind the canvas', 'As large as the line at hand, flat against the back; a second pair of hands or two clamps hold it.', {
    purpose: 'A canvas gives way under the squeegee: air stays, letters stretch.', good: 'The canvas does not give under a thumb.', tools: ['hard board', 'clamps'], minutes: [2, 0, 0], mood: 'dry', caution: 'Overhead: nobody stands beneath board or tools.', when: where('canvas')
  }), // prettier-ignore
  step('sign-clean', 'Wipe with alcohol, feel by hand', 'Seventy parts alcohol, thirty water, where letters come and a hand’s width round them. Into the weave with a brush. Dry, then feel it.', {
    purpose: 'Small letters hold by little glue: none of it may sit on dust.', good: 'Nothing comes off on the cloth.', tools: ['alcohol 70/30', 'lint-free cloth', 'soft brush', 'gloves'], minutes: [2, 1.5, 0], mood: 'dry', caution: 'Alcohol burns: doors open, no flame, no gun until nothing is smelt. Try it on painted canvas where nobody sees it: some paints go soft.', when
  }), // prettier-ignore
  step('sign-weed', 'Weed, then transfer tape on', '{lettering} Flat on the bench, film side up: pull the waste off low over itself, the insides of letters with a point. Transfer tape from the middle out, no fold; pencil on it what the bench sheet says.', {
    purpose: 'What is lifted on the ground takes its neighbour along.', good: 'Every dot and island is there; the tape lies without a bubble.', tools: ['weeding knife', 'transfer tape', 'card', 'pencil'], minutes: [4, 6, 0], mood: 'dry', drawing: 'sign-weed', when
  }), // prettier-ignore
  step('sign-place', 'Mark the baseline', '{places} Both ends of each line from the foot, a chalk line between them; where the ground hangs crooked, go by what is seen beside it.', {
    purpose: 'Eyes see a line of letters that falls by a finger’s breadth.', good: 'The chalk line is level, or parallel to what it is seen against.', tools: ['tape', 'level', 'chalk line'], minutes: [3, 0, 0], mood: 'dry', drawing: 'sign-place', caution: 'Both hands are at work: a platform rather than rungs; local rules say how it is secured.', when
  }), // prettier-ignore
  step('sign-hang', 'Hang the sheets, read them, stand back', 'Liner on, masking tape at the upper corners of each sheet, pencilled line on the chalk line. Read it letter by letter, then from {far}.', {
    purpose: 'So far everything can still be moved.', good: 'Spelt as it was ordered, straight, the same space left and right.', tools: ['masking tape'], minutes: [2, 0, 0], mood: 'dry', drawing: 'sign-place', caution: 'Stand back on the ground, never off a platform; keep out of traffic.', when
  }), // prettier-ignore
  step('sign-hinge-top', 'Hinge along the top', 'Masking tape along the whole upper edge of the sheet, half on it, half on the ground. Swing it up.', {
    purpose: 'It comes down where it hung.', good: 'Swung down, its line lies on the chalk line.', tools: ['masking tape'], minutes: [1, 0, 0.2], mood: 'dry', drawing: 'sign-hinge', when: where('hinge-top')
  }), // prettier-ignore
  step('sign-hinge-middle', 'Hinge long sheets in the middle', 'Masking tape from top to bottom over the middle of each sheet longer than {hinge}. Swing one half back.', {
    purpose: 'A long sheet hinged at its top sags and lands beside its place.', good: 'Either half comes down on the chalk line.', tools: ['masking tape'], minutes: [1, 0, 0.2], mood: 'dry', drawing: 'sign-hinge', when: where('hinge-middle')
  }), // prettier-ignore
  step('sign-lay', 'Liner off, lay from the hinge', 'Peel the liner flat back on itself, no farther than the hinge, and cut it off there. Lay from the hinge outwards, strokes from the middle to both sides; then the other half.', {
    purpose: 'A sheet that falls on its own shuts air in.', good: 'No bubble under a letter, no letter left on the liner.', tools: ['squeegee with felt edge', 'knife'], minutes: [2, 3, 0], mood: 'dry', drawing: 'sign-liner', caution: 'A letter that stays on the liner: lay the liner back and press, do not pull. Liner on the floor is slippery.', when
  }), // prettier-ignore
  step('sign-next', 'The next sheet', 'Its line on the chalk line, its first letter as far from the last one as on the drawing: {gaps}. Hinge and lay it the same way.', {
    purpose: 'A gap that is wrong is read before the word.', good: 'The gap at the parting looks like its neighbours.', tools: ['ruler'], minutes: [2, 1, 0], mood: 'dry', drawing: 'sign-place', when: where('more-sheets')
  }), // prettier-ignore
  step('sign-tape-off', 'Transfer tape off', 'From an upper corner, flat back on itself, slowly; a letter that comes along is pressed down again and the tape drawn another way.', {
    purpose: 'Pulled straight out, it takes thin strokes with it.', good: 'Every letter stays.', tools: ['squeegee with felt edge'], minutes: [1, 1, 0], mood: 'dry', drawing: 'sign-tape-off', when: where('smooth-ground')
  }), // prettier-ignore
  step('sign-tape-off-parts', 'Transfer tape off in small parts, before any heat', 'Two or three letters at a time: tape off flat, each letter pressed on by thumb at once. No gun yet.', {
    purpose: 'Loose film shrivels in hot air, and tape that was heated does not let go.', good: 'Each letter lies on all its edges before the gun comes.', tools: ['squeegee with felt edge', 'gloves'], minutes: [2, 3, 0], mood: 'dry', drawing: 'sign-tape-off', when: where('textured')
  }), // prettier-ignore
  step('sign-heat', 'Heat, and pat it into the texture', 'Letter by letter: warm it until it is too hot to touch, then pat it with a pad or a gloved hand, never rub. Aim the air away from letters that are finished. {airOrder}', {
    purpose: 'On texture a cold letter holds by the tops alone and is gone by winter.', good: 'The weave shows through every stroke; white haze at the tops is gone.', tools: ['heat gun', 'soft pad', 'heat glove', 'infrared thermometer'], minutes: [2, 8, 0], mood: 'dry', drawing: 'sign-heat', caution: 'Too hot to touch burns: glove on the tool hand. {limit} Canvas and its paint scorch and melt: keep the gun moving, try it where nobody sees it, an extinguisher at hand.', when: where('textured')
  }), // prettier-ignore
  step('sign-truth', 'Warm air over all of it: what stands up?', 'When it has cooled: the gun a hand’s length off and quick, over all of it. Hidden air and what was not pressed stand up at once: warm it, press it; air is pricked at its low end. What does not lie then is pinned, once it is tapped done. Air away from finished letters.', {
    purpose: 'What stands up now would stand up in the first sun, before the customer.', good: 'Nothing moves under the warm air.', tools: ['heat gun', 'needle'], minutes: [1, 1, 0], mood: 'look', caution: 'No gun where alcohol or promoter is smelt; off sprinkler heads, detectors and plastics.', when: where('textured'),
  }), // prettier-ignore
  step('sign-look', 'Look along every edge', 'From beside, in raking light: corners and points of letters pressed down once more; chalk off with a dry cloth. Then read it once more.', {
    purpose: 'A corner that stands up is picked at by wind and fingers.', good: 'No corner up, no bubble, no letter missing.', tools: ['gloves', 'soft pad', 'dry cloth'], minutes: [2, 1, 0], mood: 'look', when
  }), // prettier-ignore
  step('sign-back-on', 'Back on with what came off', 'Eyelets, cords and covers as they were; the canvas no tighter than before.', {
    purpose: 'A canvas pulled tighter stretches its letters.', good: 'Nothing rubs on a letter.', tools: ['screwdrivers'], minutes: [3, 0, 0], mood: 'dry', caution: 'Electric parts go on again, and are tested, by licensed hands.', when: where('hardware')
  }), // prettier-ignore
];
