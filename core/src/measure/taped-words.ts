import { capital, formatDifference, type UnitSystem } from '../ground/index.js';
import type { TapedSurvey } from './judge-taped.js';
import { oddsText, suspectText } from './words.js';

const lower = (s: string): string => s[0]!.toLowerCase() + s.slice(1);

/** Headline and body of tapes that disagree: the likeliest slip, or two that fit about equally well. */
export function slipVerdict(
  { suspects, disagreeMm }: Pick<TapedSurvey<unknown>, 'suspects' | 'disagreeMm'>,
  system: UnitSystem,
): { headline: string; body: string } {
  const [first, second] = suspects.filter((s) => s.hypothesis.kind !== 'no-slip');
  const headline = `These tapes disagree by about ${formatDifference(disagreeMm, system)}.`;
  if (!first) return { headline, body: 'Tape the marked ones again.' };
  if (second && second.probability > 0.5 * first.probability)
    return { headline, body: `Two explanations fit about equally well. ${suspectText(first, system)}; or: ${lower(suspectText(second, system))}.` };
  return { headline, body: `${capital(oddsText(first.probability))}: ${lower(suspectText(first, system))}.` };
}

/** How a verdict came about. @param taken how true each tape is taken for @param sought the numbers that are sought, with their model’s page */
export function adjustedWhy({ adjustment: a, cannotCheck }: Pick<TapedSurvey<unknown>, 'adjustment' | 'cannotCheck'>, taken: string, sought: string): string[] {
  if (!a) return [taken];
  return [
    taken,
    a.redundancy > 0
      ? `${a.readings.length} tapes adjusted together by least squares, ${a.redundancy} of them redundant. Σ(residual/σ)² = ${a.chiSquare.toFixed(1)}, limit ${a.limit.toFixed(1)}.`
      : 'No redundancy: no tape checks another.',
    sought,
    ...cannotCheck,
  ];
}
