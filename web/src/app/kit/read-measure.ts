import type { UnitSystem } from '@yellow-pane/contracts';
import { measureOf, told, type MeasureKind } from '@yellow-pane/core/ground';
import { readNumber, type NumberRule } from './read-number';

/**
 * A temperature, area, thickness … typed in the units of the job or the bench.
 * @param rule limits and sentence in °C, m², µm …: brought over for the person
 * @returns in °C, m², µm …; null when empty and that is allowed; undefined, and said so at the field, when it does not read
 */
export function readMeasure(box: HTMLInputElement, kind: MeasureKind, system: UnitSystem, rule: NumberRule): number | null | undefined {
  const { to, from } = measureOf(kind, system);
  const n = readNumber(box, { ...rule, low: to(rule.low), high: to(rule.high), message: told(rule.message, system) });
  return n == null ? n : from(n);
}
