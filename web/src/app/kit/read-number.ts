/** What a number field takes, and the sentence for everything else. */
export interface NumberRule {
  readonly low: number;
  readonly high: number;
  readonly message: string;
  /** An empty field is an answer: null. */
  readonly mayBeEmpty?: boolean;
}

/** A number typed in a field (comma or point); null when empty and that is allowed; undefined, and said so at the field, when it does not read. */
export function readNumber(box: HTMLInputElement, rule: NumberRule): number | null | undefined {
  const text = box.value.trim().replace(',', '.');
  const n = Number(text);
  const isGood = text === '' ? (rule.mayBeEmpty ?? false) : n >= rule.low && n <= rule.high;
  box.setCustomValidity(isGood ? '' : rule.message);
  if (isGood) return text === '' ? null : n;
  box.reportValidity();
  return undefined;
}
