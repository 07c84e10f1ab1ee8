/** What can go wrong is part of the answer: either a value, or a sentence that says what, where and how to mend it. */
export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const fail = <T = never>(message: string): Result<T> => ({ ok: false, message });

/** Thrown when a caller breaks a stated range: carries the value, its range and its unit. NaN is out of every range. */
export class OutOfRange extends RangeError {
  constructor(
    readonly quantity: string,
    readonly value: number,
    readonly range: string,
    readonly unit: string,
  ) {
    super(`${quantity} is ${value} ${unit}; it must be ${range} ${unit}.`);
  }
}

/** @throws OutOfRange unless low ≤ value ≤ high (NaN fails too) */
export function checkRange(quantity: string, value: number, low: number, high: number, unit: string): number {
  if (!(value >= low && value <= high)) throw new OutOfRange(quantity, value, `${low} … ${high}`, unit);
  return value;
}
