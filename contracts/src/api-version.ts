/** Counts up when a shell that was kept on a phone can no longer be trusted to show what the bench holds. 2: the list of jobs comes page by page. */
export const API_VERSION = 2;
