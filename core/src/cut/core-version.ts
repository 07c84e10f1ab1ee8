/** Raised whenever the same input may give another plan. */
export const CORE_VERSION = '0.4.0';
