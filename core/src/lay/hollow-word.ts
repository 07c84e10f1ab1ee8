import { BARE_C } from './heat-pass.js';

/** A hand does not tell this much less from hand-warm, K. @source house figure */
const NEAR_K = 5;

/** What the thermometer says of a hollow that is warmed before film goes into it. @param readC the coldest place of it, gun away */
export function hollowWord(readC: number): { readonly text: string; readonly isGood: boolean } {
  const c = readC.toFixed(0);
  const leastC = BARE_C.wantC - NEAR_K;
  if (readC < leastC) return { text: `${c} °C: it still takes the heat out of film. Warm it on, to ${leastC} °C at least.`, isGood: false };
  if (readC > BARE_C.limitC) return { text: `${c} °C is too hot: lacquer blisters above ${BARE_C.limitC} °C. Let it cool, read again.`, isGood: false };
  return { text: `${c} °C: warm enough. Film goes in before it is cold again.`, isGood: true };
}
