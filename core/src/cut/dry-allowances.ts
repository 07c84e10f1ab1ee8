import type { DryAllowances } from '@yellow-pane/contracts';

/** What is added to pieces that are laid dry where no firm says otherwise. @source common practice: largest girth + 1 in, ½ in notches, a 4 in strip of liner; panels 2 in a side, ½ in round a corner; 1 in on to the back is a house rule; ½ in into an inside corner, 1½ in of liner slit there, 2 in for a double cut, 2 in of liner sliced off one end of a table top; 2 in round an outside one is a house rule */
export const usualDry: DryAllowances = {
  lapMm: 25,
  notchMm: 13,
  linerStripMm: 100,
  taper: 'trim',
  panelMm: 50,
  returnMm: 25,
  corner: 'relief',
  cornerTabMm: 13,
  insideReturnMm: 13,
  cornerLinerMm: 38,
  outsideWrapMm: 50,
  doubleCutMm: 50,
  endLinerMm: 50,
  weedMm: 15,
  sheetMm: 1500,
};
