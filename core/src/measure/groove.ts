import type { Groove } from '@yellow-pane/contracts';

/** A section that film is pressed into. Lengths in mm; a moulding has no section, only its girth. */
export type GrooveSection = Pick<Groove, 'form' | 'widthMm' | 'depthMm' | 'flatMm' | 'girthMm'>;

/** Width and depth of a groove by a folding rule, and its girth by a string pressed in, 1 σ. @source house rule */
const SIGMA_MM = { rule: 0.5, string: 1 };
/** Two claims are told apart from this many standard deviations on. @source as the single tapes: 1 % */
const APART = 2.58;

/**
 * The way of film across a groove, from its width, depth and form.
 * @returns mm; null: a moulding, which only a string can tell
 * @source closed form: sloping sides `b + 2·√(((w − b)/2)² + d²)`; straight ones with b = w; a round bottom is an arc over the mouth, or a half circle under
 * straight sides where it is deeper than half its width (docs/models/panels.md §3)
 */
export function girthOfSection({ form, widthMm: w, depthMm: d, flatMm }: GrooveSection): number | null {
  switch (form) {
    case 'moulding':
      return null;
    case 'square':
      return w + 2 * d;
    case 'vee': {
      const flat = Math.min(flatMm, w);
      return flat + 2 * Math.hypot((w - flat) / 2, d);
    }
    case 'round': {
      if (d >= w / 2) return (Math.PI * w) / 2 + 2 * (d - w / 2);
      const radius = (w * w) / (8 * d) + d / 2;
      return 2 * radius * Math.asin(w / 2 / radius);
    }
  }
}

/** What is known of one groove for the film that goes into it. */
export interface GrooveGirth {
  /** The longer of what the string and the section say; null: neither says anything. */
  readonly girthMm: number | null;
  /** Film that is more than the groove is wide. */
  readonly slackMm: number;
  /** How far string and section are apart where that is more than both can err; null: they agree, or there is one of them. */
  readonly apartMm: number | null;
}

/** Weighs the string against the section. A piece takes the longer: what is too much is trimmed, what is missing is not. */
export function grooveGirth(g: GrooveSection): GrooveGirth {
  const bySection = girthOfSection(g);
  const girths = [bySection, g.girthMm].filter((x): x is number => x !== null);
  if (girths.length === 0) return { girthMm: null, slackMm: 0, apartMm: null };
  const girthMm = Math.max(...girths);
  const slackMm = Math.max(0, girthMm - g.widthMm);
  if (bySection === null || g.girthMm === null) return { girthMm, slackMm, apartMm: null };
  const by = (part: 'widthMm' | 'depthMm') => girthOfSection({ ...g, [part]: g[part] + 0.01 })! - bySection;
  const sigma = Math.hypot(SIGMA_MM.string, (by('widthMm') / 0.01) * SIGMA_MM.rule, (by('depthMm') / 0.01) * SIGMA_MM.rule);
  const apart = g.girthMm - bySection;
  return { girthMm, slackMm, apartMm: Math.abs(apart) > APART * sigma ? apart : null };
}
