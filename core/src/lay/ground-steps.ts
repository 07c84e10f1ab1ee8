import type { Ground, PrepareSettings, StepRule } from '@yellow-pane/contracts';
import { groundPlan, roomOf, type FilmBox, type GroundTask, type WantedC } from '../prepare/index.js';
import { step } from './step-rule.js';

const when = { surface: ['column' as const, 'panel' as const, 'wall' as const, 'counter' as const, 'sign' as const], has: ['patch' as const] };

/**
 * What comes before film that is laid dry on a ground in doubt: a square of it is tried for a day, and what came off is written down.
 * @source common practice: a 6 in (150 mm) square for 24 h, then see what comes off
 */
export const groundSteps: readonly StepRule[] = [
  step('ground-patch', 'Lay a test patch, where it is hidden', 'A square of {150 mm} of this film, pressed on like the film itself: low down, behind a door. Write the hour on it.', {
    purpose: 'Doubtful paint lets go of the whole face, not of a square.', good: 'It lies flat, and everybody knows that it stays until tomorrow.', tools: ['a square of the film', 'squeegee with felt edge'], minutes: [4, 0, 0], mood: 'dry', wait: { minutes: 1440, what: 'test patch: pull it off after a day' }, caution: 'Nothing else is laid here before the patch has told.', when,
  }), // prettier-ignore
  step('ground-patch-off', 'Pull the patch off', 'After a day: look whether it has lifted by itself; then off slowly, flat along the wall. What came off goes into a note, with a photo.', {
    purpose: 'What comes off with a square would come off with the film.', good: 'Nothing of the ground came with it, and it had not lifted by itself.', minutes: [2, 0, 0], mood: 'look', caution: 'Paint came off: no film here. “Something is wrong”, prepare the ground, and try again. Old paint may hold lead: tested before it is sanded.', when,
  }), // prettier-ignore
];

/** Minutes of a task by the hand of one person: fixed, per m². @source house figures */
const minutesOf: Partial<Record<GroundTask['key'], readonly [number, number, number]>> = {
  putty: [5, 3, 0],
  sand: [2, 4, 0],
  degrease: [2, 3, 0],
  rinse: [2, 2, 0],
  primer: [5, 4, 0],
  'sand-primer': [2, 2, 0],
  dust: [1, 1, 0],
  warm: [5, 0, 0],
};
const toolsOf: Partial<Record<GroundTask['key'], readonly string[]>> = {
  putty: ['putty', 'filling knife'],
  sand: ['sanding block', 'vacuum', 'dust mask'],
  degrease: ['detergent', 'brush', 'gloves', 'glasses'],
  rinse: ['clear water', 'cloths'],
  primer: ['primer', 'roller', 'tray'],
  'sand-primer': ['fine paper', 'vacuum', 'dust mask'],
  dust: ['brush', 'vacuum', 'lint-free cloth'],
  warm: ['heater', 'infrared thermometer'],
};
/** The last wipe, and feeling by hand, is a step of every kind of its own. */
const isOfItsKind = (t: GroundTask, all: readonly GroundTask[]): boolean =>
  t.key === 'wipe' || (t.key === 'dust' && !all.some((x) => x.key === 'sand' || x.key === 'sand-primer'));

/**
 * What has to be done to this ground first, as steps that are logged like all others: each wait begins when its step is done, and is over when the hand has found it so.
 * @param areaM2 of film, @param prepare what the job says of primer and room, @param box the thickest roll of its film @param wanted how warm its film wants it
 * @returns empty: it is ready for the last wipe
 */
export function stepsOfGround(
  ground: Ground,
  areaM2: number,
  prepare: PrepareSettings | null | undefined,
  box: FilmBox | null = null,
  wanted?: WantedC,
): StepRule[] {
  const { tasks, coats } = groundPlan(ground, areaM2, prepare?.primer ?? 'water', roomOf(prepare), box, wanted);
  return tasks
    .filter((t) => !isOfItsKind(t, tasks))
    .flatMap((t): StepRule[] => {
      const [fixed, perM2, perM] = minutesOf[t.key] ?? [2, 0, 0];
      const times = t.key === 'primer' ? coats : 1;
      const wait = t.waitHours && { minutes: Math.max(1, Math.round(t.waitHours[0] * 60)), what: waitWords[t.key] ?? t.title };
      const work = step(`ground-${t.key}`, t.title, t.text, {
      good: wait ? '' : (t.proof ?? ''), tools: [...(toolsOf[t.key] ?? [])], minutes: [fixed * times, perM2 * times, perM], mood: t.key === 'degrease' || t.key === 'rinse' ? 'wet' : 'dry', wait, caution: t.caution,
    }); // prettier-ignore
      const proven = step(`ground-${t.key}-proven`, provenTitles[t.key] ?? 'Dry? Prove it by hand', `The hand goes before the clock. Go on when: ${t.proof}`, {
      purpose: 'Film over what is still wet comes off with it.', good: t.proof ?? '', minutes: [1, 0, 0], mood: 'look',
    }); // prettier-ignore
      return wait && t.proof ? [work, proven] : [work];
    });
}
const waitWords: Partial<Record<GroundTask['key'], string>> = {
  putty: 'putty is drying',
  rinse: 'the washed ground is drying',
  primer: 'primer is drying',
  warm: 'ground and film are warming',
};
const provenTitles: Partial<Record<GroundTask['key'], string>> = {
  putty: 'Putty dry? Prove it by hand',
  rinse: 'Ground dry? Prove it by hand',
  primer: 'Primer dry? Prove it by hand',
  warm: 'Warm all through? Read it',
};
