/** Minor units from an amount: the one rounding rule, halves away from zero, once per line. */
export const toMinor = (amount: number): number => Math.sign(amount) * Math.round(Math.abs(amount) * 100 + 1e-9);

/** An amount as it is told on every screen and every paper: "€12.73". @param currency three letters; anything else is put behind the amount as it stands @param whole without the minor units */
export function moneyText(amount: number, currency: string, whole = false): string {
  if (!/^[A-Za-z]{3}$/.test(currency)) return `${(toMinor(amount) / 100).toFixed(whole ? 0 : 2)} ${currency}`;
  const digits = whole ? { maximumFractionDigits: 0 } : {};
  return new Intl.NumberFormat('en-IE', { style: 'currency', currency, ...digits }).format(toMinor(amount) / 100);
}
