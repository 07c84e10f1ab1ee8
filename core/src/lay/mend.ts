import type { ProblemKind } from '@yellow-pane/contracts';

/** A question with the answers a wet hand can tap. */
export interface ProblemQuestion {
  readonly key: 'slides' | 'hard' | 'often';
  readonly text: string;
  readonly answers: readonly { readonly key: string; readonly text: string }[];
}
/** What to do: mend it now, wait, cut another piece, or stop and fetch somebody. */
export interface Advice {
  readonly verdict: 'mend' | 'wait' | 'replace' | 'stop';
  readonly text: string;
  readonly caution: string | null;
}

const slides: ProblemQuestion = {
  key: 'slides',
  text: 'Does the film still slide?',
  answers: [
    { key: 'yes', text: 'Yes, it is fresh' },
    { key: 'no', text: 'No, it has tacked' },
  ],
};
const hard: ProblemQuestion = {
  key: 'hard',
  text: 'Press it. Is there something hard in the middle?',
  answers: [
    { key: 'yes', text: 'Yes, a speck' },
    { key: 'no', text: 'No, it gives' },
  ],
};

/** What can be seen, in the installer’s words. */
export const problemNames: Record<ProblemKind, string> = {
  'piece-small': 'The piece is too small',
  'piece-mirrored': 'Wrong side or wrong way up',
  grabs: 'It grabs, will not slide',
  'slides-off': 'It will not stick, rolls off',
  speck: 'Specks, hairs, lint',
  air: 'A bubble that keeps its shape',
  water: 'Water pockets, haze',
  crease: 'A crease',
  'edge-fingers': 'Little fingers along an edge',
  'edge-line': 'A light line at an edge',
  'glass-scratch': 'A scratch or chip in the glass',
  'glass-crack': 'The glass is cracked',
};

/** The questions that the advice hangs on; two at most. */
export const problemQuestions: Record<ProblemKind, readonly ProblemQuestion[]> = {
  'piece-small': [],
  'piece-mirrored': [],
  grabs: [slides],
  'slides-off': [],
  speck: [slides],
  air: [hard, slides],
  water: [hard],
  crease: [],
  'edge-fingers': [],
  'edge-line': [slides],
  'glass-scratch': [],
  'glass-crack': [],
};

const NEVER_PRICK = 'Never prick, heat or lift film on glass to cure a bubble after the first day.';
const say = (verdict: Advice['verdict'], text: string, caution: string | null = null): Advice => ({ verdict, text, caution });

/**
 * Mend or stop, for wet film on glass on the day it is laid.
 * @param answers to the questions of this kind; unanswered ones count as the graver answer
 * @source common practice
 */
export function adviceFor(kind: ProblemKind, answers: Readonly<Record<string, string>>): Advice {
  const isFresh = answers['slides'] === 'yes';
  const isHard = answers['hard'] !== 'no';
  switch (kind) {
    case 'piece-small':
      return say('stop', 'Keep it dry and put it aside: Cut says under “Piece in hand” which pane it would serve. This pane needs another piece.');
    case 'piece-mirrored':
      return say(
        'stop',
        'Keep it dry. With plain film and a true rectangle it may serve turned over on another pane; Cut says under “Piece in hand”. Else cut it again, the right face up.',
      );
    case 'grabs':
      return isFresh
        ? say('mend', 'Lift it slowly from the nearest corner, flood both faces, bring it back. If the glass is warm or in the sun: shade it from outside and wait.')
        : say('replace', 'Do not tear at it: glue stays behind and the film stretches. Take it off whole, clean, wait until the glass is cool, lay a new piece.', 'Warm glass is the usual cause: read it before you lay again.'); // prettier-ignore
    case 'slides-off':
      return say(
        'mend',
        'Too much slip, or too cold. Rinse the glue side and the glass with clean water, squeegee, lock again. Bottles in Prepare says how to weaken the mix. Under 5 °C it will not tack today.',
      );
    case 'speck':
      return isFresh
        ? say('mend', 'Peel back to the speck, take it off with a wet finger or tape, flush both faces, lay back, squeegee out over it.')
        : say('replace', 'It stays where it is. If it shows from two metres: a new piece. If it does not, leave it and note it.', NEVER_PRICK);
    case 'air':
      if (isHard) return isFresh ? say('mend', 'Dirt in the middle: lift, flush, lay again.') : say('replace', 'Dirt under tacked film: a new piece if it shows from two metres.', NEVER_PRICK); // prettier-ignore
      return isFresh ? say('mend', 'Lift to the bubble, flush, lay again, strokes overlapping.') : say('wait', 'Small ones may go with the drying. Look again in a few days; what keeps its shape means a new piece.', NEVER_PRICK); // prettier-ignore
    case 'water':
      return isHard
        ? say('mend', 'A pocket with a speck in it: while it slides, lift, flush, lay again.', NEVER_PRICK)
        : say(
            'wait',
            'That is normal drying: it moves and shrinks. Thin film is clear in up to 30 sunny days, thick film takes longer, double in winter or shade. Tell the customer.',
            NEVER_PRICK,
          );
    case 'crease':
      return say('replace', 'A crease stays. Take the piece off, cut it again.');
    case 'edge-fingers':
      return say('mend', 'Water drawn back. Bump the edge again with the card in paper towel, outwards, and once more in ten minutes.');
    case 'edge-line':
      return isFresh
        ? say('mend', 'Slide it until the gap is 1–2 mm on both sides, lock again.')
        : say('replace', 'Over 3 mm shows as a light line. If the customer minds: a new piece, trimmed in place.');
    case 'glass-scratch':
      return say('stop', 'Photograph it now, with a ruler beside it. The customer sees and signs before anything else is done on this pane.');
    case 'glass-crack':
      return say(
        'stop',
        'Leave the film as it is, it holds the splinters. Keep people away, tape across the crack from the side, tell the customer, call a glazier.',
        'Do not press on the pane, do not take film off a cracked pane.',
      );
  }
}
