/** Counts up when a shell that was kept on a phone can no longer be trusted to show what the bench holds. */
export const API_VERSION = 1;
