/** Counts up when a shell that was kept on a phone can no longer be trusted to show what the bench holds. 2: the list of jobs comes page by page. 3: looks and pins after the work. 4: handed over, called back, erased. 5: surfaces of several kinds. 6: panels among them. 7: walls. 8: counters. 9: signs. 10: walls that break, leaves side by side. */
export const API_VERSION = 10;
