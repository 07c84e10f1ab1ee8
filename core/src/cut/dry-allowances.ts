import type { DryAllowances } from '@yellow-pane/contracts';

/** What is added to pieces that are laid dry where no firm says otherwise. @source common practice: largest girth + 1 in, ½ in notches, a 4 in strip of liner */
export const usualDry: DryAllowances = { lapMm: 25, notchMm: 13, linerStripMm: 100, taper: 'trim' };
