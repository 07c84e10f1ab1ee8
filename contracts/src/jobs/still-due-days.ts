/** Days after its day for which a job still stands among those to be done. @source house rule */
export const STILL_DUE_DAYS = 14;
