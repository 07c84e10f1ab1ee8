import type { FormGrade } from '@yellow-pane/contracts';
import { LIES_DOWN_FRAC } from './fingers.js';

/** Up to these shares of what a film can shrink its work is easy, or can be done with care. @source house rules; the first figure of film that lies down without heat is common practice */
export const GRADE = { easy: 0.25, care: 0.8 };
/** What film gives way where it would have to stretch: any film a little, cast and urethane ones more. @source house rule */
const STRETCH = { any: 0.003, stretching: 0.05 };
/** What a window film shrinks along the roll when its sheet says nothing. @source common practice: 2–3 % */
export const USUAL_SHRINK_FRAC = 0.02;

const order: readonly FormGrade[] = ['lies-down', 'easy', 'care', 'beyond'];
export const worseGrade = (a: FormGrade, b: FormGrade): FormGrade => (order.indexOf(a) >= order.indexOf(b) ? a : b);

/** How hard it is to get rid of so much film on a stretch one finger wide. */
export function gradeOf(peakFrac: number, capacityFrac: number): FormGrade {
  if (peakFrac <= LIES_DOWN_FRAC) return 'lies-down';
  if (peakFrac <= GRADE.easy * capacityFrac) return 'easy';
  return peakFrac <= GRADE.care * capacityFrac ? 'care' : 'beyond';
}

/** How hard it is where film would have to stretch. @param leastFrac the smallest share to lose, negative where it has to stretch */
export function stretchGrade(leastFrac: number, stretches: boolean): FormGrade {
  const need = -leastFrac;
  if (need <= LIES_DOWN_FRAC) return 'lies-down';
  if (need <= (stretches ? STRETCH.stretching : STRETCH.any)) return 'care';
  return 'beyond';
}

export const gradeNames: Record<FormGrade, string> = {
  'lies-down': 'lies down without heat',
  easy: 'easy to form',
  care: 'needs care',
  beyond: 'beyond this film',
};
