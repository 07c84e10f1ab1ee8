import type { Cause, CauseTable, Fact, Mend, MendKind, Question } from './causes.js';

const say = (kind: MendKind, text: string, caution: string | null = null): Mend => ({ kind, text, caution });
const NEVER = 'Never prick, heat or lift film on glass to cure a bubble after the first day: water goes by itself, and a lifted film is lost.';

const wait = say('wait', 'Water leaves through the film by itself; the drying clock says until when. Tell the customer that day.', NEVER);
const judge = (text: string): Mend =>
  say('judge', `${text} Hold it to your rule: seen from the agreed distance it means a new piece, not seen it stays.`, NEVER);
const late = say(
  'wait',
  'It should be clear by now. Look again in a week and see whether it has become smaller: if it has, it is a slow pane; if not, it is air.',
  NEVER,
);
const leftOver = judge('What the drying has left is air and keeps its shape.');
const liftAndFlush = say('mend', 'If it still slides: lift from the nearest corner, flush both faces, lay it back, press out over it with overlapping strokes.', 'Warm or tacked film tears and stretches: then do not lift.'); // prettier-ignore

/** @source common practice: what is seen, the likely cause, what to do; how often each is met: house figures */
const causes: readonly Cause[] = [
  {
    key: 'drying', name: 'Water that is still drying', why: 'A film of water stays behind every wet film and leaves through it, day by day.', prior: 30, source: 'house figure',
    looks: { pockets: 0.7, haze: 0.18, bubble: 0.1 }, fresh: wait, set: wait, over: late,
  },
  {
    key: 'pressed-soft', name: 'Pressed too softly: more water than usual', why: 'The hard pass was left out or hurried, so several times the usual water stayed.', prior: 6, source: 'house figure',
    looks: { pockets: 0.6, 'bubble-field': 0.25, haze: 0.12 },
    fresh: say('mend', 'Wet the face, press again: narrow blade, full weight, overlapping strokes, thick film twice.', null),
    set: say('wait', 'It takes longer than usual, the drying clock reckons with it. What is still there after its last day is air: then a new piece if it shows.', NEVER),
    over: late,
  },
  {
    key: 'missed-overlap', name: 'Two strokes did not overlap', why: 'Between them a line of water and air was never pressed.', prior: 5, source: 'house figure',
    looks: { 'bubble-line': 0.8, pockets: 0.1, streak: 0.05 },
    fresh: say('mend', 'Wet the face and press along the line, the blade lying over both sides of it.', null),
    set: say('wait', 'The water of it goes with the drying; beads of air that are left after that keep their shape. Look again on the last day of the range, then hold it to your rule.', NEVER),
    over: leftOver,
  },
  {
    key: 'air', name: 'Air shut in', why: 'Air has no way through the film worth the name: it keeps its shape.', prior: 8, source: 'house figure',
    looks: { bubble: 0.74, 'bubble-field': 0.13, pockets: 0.08 }, fresh: liftAndFlush,
    set: judge('Small ones may go with the drying; what keeps its shape stays.'),
  },
  {
    key: 'dirt', name: 'Dirt under the film', why: 'A speck, hair or lint came between glass and film, from the frame, a towel, the air or the liner.', prior: 20, source: 'house figure',
    looks: { speck: 0.62, hair: 0.18, bubble: 0.17 },
    fresh: say('mend', 'If it still slides: peel back to it, take it off with a wet finger or tape, flush both faces, lay back, press out over it.', 'Once it has tacked it stays where it is.'),
    set: judge('It stays where it is.'),
  },
  {
    key: 'water-back', name: 'Water drawn back along the edge', why: 'An edge that was not bumped draws water in again from the gasket.', prior: 7, source: 'house figure',
    looks: { fingers: 0.6, pockets: 0.2, 'edge-up': 0.13 },
    fresh: say('mend', 'Bump the edge with the card in paper towel, outwards, and once more in ten minutes.', null),
    set: say('wait', 'Press it outwards once with the card in paper towel, without lifting; what is left dries. Look again after two days.', NEVER),
    over: leftOver,
  },
  {
    key: 'shrink-small', name: 'Not shrunk enough', why: 'The film had more to lose along this edge than was taken out of it: it stands up in little fingers.', prior: 4, source: 'house figure',
    looks: { fingers: 0.84, crease: 0.09, 'edge-up': 0.05 },
    fresh: say('mend', 'If it still slides: lift it, and shrink top and bottom again on the outside; Forming says how much is to go.', 'Heat on laminated, chipped or cold glass may crack it.'),
    set: say('replace', 'A finger that has set stays up. Cut another piece and shrink it further at this edge.', NEVER),
  },
  {
    key: 'overheated', name: 'Overheated while it was formed', why: 'Heat past its figure leaves tight lines that no pressing takes out.', prior: 2, source: 'house figure',
    looks: { 'fine-lines': 0.8, haze: 0.1, crease: 0.05 }, fresh: say('replace', 'Tight lines stay. Cut another piece; more distance, faster passes.', null), set: say('replace', 'Tight lines stay. Cut another piece; more distance, faster passes.', null),
  },
  {
    key: 'kink', name: 'The film was kinked', why: 'Bent over sharply while it was carried, lifted or pressed, it keeps the mark.', prior: 6, source: 'house figure',
    looks: { crease: 0.92, streak: 0.03, 'bubble-line': 0.03 }, fresh: say('replace', 'A crease stays. Take the piece off and cut it again.', null), set: say('replace', 'A crease stays. Cut the piece again; take the old one off whole.', null),
  },
  {
    key: 'edge-touches', name: 'The edge stands on frame or gasket', why: 'Film that reaches onto rubber or frame is pushed off the glass by it.', prior: 4, source: 'house figure',
    looks: { 'edge-up': 0.7, fingers: 0.15, pockets: 0.08 },
    fresh: say('mend', 'Trim it free to the edge gap, with a new blade, and bump the edge.', 'Support the blade on the card: a scratched edge breaks glass.'),
    set: say('mend', 'Trim it free to the edge gap, with a new blade, press the edge out once. What has dust behind it stays: hold that to your rule.', 'Support the blade on the card: a scratched edge breaks glass.'),
  },
  {
    key: 'cut-small', name: 'The piece is too small', why: 'Cut short, laid crooked, or trimmed too far from the frame.', prior: 4, source: 'house figure',
    looks: { 'light-line': 0.95, 'edge-up': 0.02 },
    fresh: say('mend', 'If it still slides: bring the gap to 1–2 mm on both sides and lock again. Else a new piece, trimmed in place.', null),
    set: judge('Over 3 mm shows as a light line.'),
  },
  {
    key: 'residue', name: 'Slip that was too strong', why: 'Soap that stays behind the film leaves a veil and weak edges.', prior: 3, source: 'house figure',
    looks: { haze: 0.55, streak: 0.25, 'edge-up': 0.12, pockets: 0.05 },
    fresh: say('mend', 'If it still slides: lift, rinse both faces with clear water, lay again. Prepare says how to weaken the bottle.', null),
    set: judge('A veil of soap stays behind the film.'),
  },
  {
    key: 'hot-glass', name: 'Laid on warm or sunlit glass', why: 'The slip dries before it is pressed out; the glue grabs in stripes.', prior: 2, source: 'house figure',
    looks: { streak: 0.45, 'bubble-field': 0.2, haze: 0.12, crease: 0.1, 'fine-lines': 0.08 },
    fresh: say('replace', 'Where it has grabbed it stays. Take it off whole, let the glass cool in the shade, lay a new piece.', 'Read the glass before you lay again.'),
    set: judge('Stripes of grabbed glue stay.'),
  },
  {
    key: 'glass-fault', name: 'A fault of the glass', why: 'Scratches, chips and pimples of the glass show more once film gives them a background.', prior: 5, source: 'house figure',
    looks: { scratch: 0.65, speck: 0.2, streak: 0.1 },
    fresh: say('leave', 'It is the glass. Compare with the photos of before and show them; without one, photograph it now with a ruler beside it.', null),
    set: say('leave', 'It is the glass. Compare with the photos of before and show them; without one, photograph it now with a ruler beside it.', null),
  },
  {
    key: 'film-fault', name: 'A fault of the film', why: 'Stripes of coating, gel specks or waves come again along the roll.', prior: 1.5, source: 'house figure',
    looks: { streak: 0.5, speck: 0.25, haze: 0.1, 'fine-lines': 0.06 },
    fresh: say('stop', 'Cut nothing more of this roll. Photograph it with lot and roll number, keep a piece, write to the maker. Then a new piece of another lot.', null),
    set: say('stop', 'Cut nothing more of this roll. Photograph it with lot and roll number, keep a piece, write to the maker. Then a new piece of another lot.', null),
  },
  {
    key: 'on-top', name: 'Dirt on the face, not under the film', why: 'Dried slip, fingerprints, dust on either face of the pane.', prior: 6, source: 'house figure',
    looks: { haze: 0.3, speck: 0.3, streak: 0.25, hair: 0.08 },
    fresh: say('wipe', 'Soft cloth, water with a drop of soap.', 'Film that was laid less than 30 days ago: no rubbing at the edges, no ammonia, nothing that scours.'),
    set: say('wipe', 'Soft cloth, water with a drop of soap.', 'Film that was laid less than 30 days ago: no rubbing at the edges, no ammonia, nothing that scours.'),
  },
  {
    key: 'unit-fog', name: 'The sealed unit has failed', why: 'Fog between the panes: damp air gets in through the edge seal.', prior: 1, source: 'house figure',
    looks: { fog: 0.75, haze: 0.18, pockets: 0.05 },
    fresh: say('stop', 'It is between the panes, no film cures it. Photograph it, tell the customer: a glazier changes the unit.', null),
    set: say('stop', 'It is between the panes, no film cures it. Photograph it, tell the customer: a glazier changes the unit.', 'Film can bear on the glass maker’s warranty of the seal: look at what was signed.'),
  },
  {
    key: 'crack', name: 'The glass is cracked', why: 'Heat stress, an edge that was nicked, a blow or a load.', prior: 1.5, source: 'house figure',
    looks: { crack: 0.96, scratch: 0.02 },
    fresh: say('stop', 'Leave the film as it is: it holds the splinters. Keep people away, tape across the crack from the side, call a glazier.', 'Do not press on the pane, do not take film off a cracked pane.'),
    set: say('stop', 'Leave the film as it is: it holds the splinters. Keep people away, tape across the crack from the side, call a glazier.', 'Do not press on the pane, do not take film off a cracked pane.'),
  },
  {
    key: 'film-scratched', name: 'The film was scratched', why: 'A hard tool, a ring, grit in a cloth, or cleaning too early.', prior: 3, source: 'house figure',
    looks: { scratch: 0.85, 'fine-lines': 0.05, streak: 0.05 }, fresh: judge('A scratch stays.'), set: judge('A scratch stays.'),
  },
]; // prettier-ignore

const yesNo = [
  { key: 'yes', text: 'Yes' },
  { key: 'no', text: 'No' },
] as const;

/** @source the looks and touches of the trade (common practice): water moves and shrinks, air keeps its shape, a hard speck is dirt. How often each answer is met: house figures */
const questions: readonly Question[] = [
  {
    key: 'hard', text: 'Press it gently with a fingertip. Is there something hard in the middle?', answers: yesNo, source: 'common practice', usual: [0.05, 0.95],
    under: { dirt: [0.8, 0.2], 'glass-fault': [0.3, 0.7], 'film-fault': [0.25, 0.75], 'on-top': [0.4, 0.6], kink: [0.12, 0.88] },
  },
  {
    key: 'moves', text: 'Press it from one side. Does it wander or change its shape?', answers: yesNo, source: 'common practice', usual: [0.04, 0.96],
    under: { drying: [0.85, 0.15], 'pressed-soft': [0.85, 0.15], 'water-back': [0.7, 0.3], 'missed-overlap': [0.5, 0.5], air: [0.1, 0.9], 'edge-touches': [0.5, 0.5], 'shrink-small': [0.35, 0.65] },
  },
  {
    key: 'smaller', text: 'Is it smaller than when it was last seen?', answers: yesNo, source: 'common practice', usual: [0.03, 0.97],
    under: { drying: [0.85, 0.15], 'pressed-soft': [0.7, 0.3], 'missed-overlap': [0.5, 0.5], 'water-back': [0.4, 0.6], air: [0.08, 0.92] },
  },
  {
    key: 'felt', text: 'Draw a fingernail over it, on both faces. Where do you feel it?', source: 'common practice',
    answers: [{ key: 'film', text: 'On the film' }, { key: 'glass', text: 'On the bare glass' }, { key: 'nowhere', text: 'Nowhere' }], usual: [0.08, 0.02, 0.9],
    under: {
      dirt: [0.5, 0.02, 0.48], air: [0.5, 0.02, 0.48], kink: [0.7, 0.02, 0.28], 'edge-touches': [0.6, 0.02, 0.38], 'shrink-small': [0.75, 0.02, 0.23], 'missed-overlap': [0.3, 0.02, 0.68],
      'on-top': [0.4, 0.4, 0.2], 'glass-fault': [0.05, 0.6, 0.35], crack: [0.1, 0.6, 0.3], 'film-scratched': [0.85, 0.02, 0.13],
    },
  },
  {
    key: 'wipes', text: 'Wipe both faces with a damp cloth. Does it go?', answers: yesNo, source: 'common practice', usual: [0.02, 0.98], under: { 'on-top': [0.92, 0.08] },
  },
  {
    key: 'depth', text: 'Look at it aslant, from both sides. Where does it lie?', source: 'common practice',
    answers: [{ key: 'film', text: 'At the film' }, { key: 'deeper', text: 'In the glass or between the panes' }], usual: [0.94, 0.06],
    under: { 'unit-fog': [0.05, 0.95], 'glass-fault': [0.5, 0.5], crack: [0.4, 0.6], 'on-top': [0.7, 0.3] },
  },
  {
    key: 'again', text: 'Does it come again at the same distance, on this pane or another one of the roll?', answers: yesNo, source: 'house figure', usual: [0.03, 0.97],
    under: { 'film-fault': [0.55, 0.45], kink: [0.1, 0.9], 'missed-overlap': [0.3, 0.7] },
  },
  {
    key: 'before', text: 'Is it on the photos of before the work?', answers: yesNo, source: 'common practice', usual: [0.01, 0.99],
    under: { 'glass-fault': [0.85, 0.15], 'unit-fog': [0.5, 0.5], crack: [0.15, 0.85], 'on-top': [0.05, 0.95] },
  },
]; // prettier-ignore

/** How a thing lies, which is told with the pin itself: one, line, edge, field. */
const spread: Question = {
  key: 'spread', text: 'How does it lie?', source: 'house figure',
  answers: [{ key: 'one', text: 'By itself' }, { key: 'line', text: 'Along a line' }, { key: 'edge', text: 'At an edge' }, { key: 'field', text: 'All over a part' }], usual: [0.4, 0.2, 0.2, 0.2],
  under: {
    drying: [0.25, 0.08, 0.2, 0.47], 'pressed-soft': [0.1, 0.1, 0.1, 0.7], 'missed-overlap': [0.05, 0.85, 0.05, 0.05], air: [0.7, 0.08, 0.12, 0.1], dirt: [0.6, 0.05, 0.2, 0.15],
    'water-back': [0.1, 0.05, 0.84, 0.01], 'shrink-small': [0.05, 0.05, 0.85, 0.05], overheated: [0.4, 0.1, 0.2, 0.3], kink: [0.7, 0.25, 0.04, 0.01], 'edge-touches': [0.05, 0.05, 0.89, 0.01],
    'cut-small': [0.02, 0.08, 0.89, 0.01], residue: [0.1, 0.1, 0.2, 0.6], 'hot-glass': [0.2, 0.25, 0.05, 0.5], 'glass-fault': [0.7, 0.2, 0.08, 0.02], 'film-fault': [0.3, 0.4, 0.02, 0.28],
    'on-top': [0.5, 0.15, 0.1, 0.25], 'unit-fog': [0.2, 0.02, 0.3, 0.48], crack: [0.3, 0.4, 0.29, 0.01], 'film-scratched': [0.6, 0.3, 0.08, 0.02],
  },
}; // prettier-ignore

/** What the log can say. @source common practice that each does harm; how much: house figures */
const facts: readonly Fact[] = [
  { key: 'hard-pass-hurried', text: 'the hard pass was left out, or much shorter than its strokes need', source: 'house figure', times: { 'pressed-soft': 4, air: 1.5, drying: 1.3, 'missed-overlap': 1.5 } },
  { key: 'glass-warm', text: 'the glass was over 32 °C or in the sun when it was laid', source: 'house figure', times: { 'hot-glass': 8, air: 1.5 } },
  { key: 'slip-strong', text: 'the slip was mixed too strong', source: 'house figure', times: { residue: 5, 'edge-touches': 1.3 } },
  { key: 'edge-not-bumped', text: 'the edges were not bumped', source: 'house figure', times: { 'water-back': 4 } },
  { key: 'overlap-small', text: 'the strokes were planned to overlap by less than 20 mm', source: 'house figure', times: { 'missed-overlap': 3 } },
  { key: 'flat', text: 'the pane is flat', source: 'common practice', times: { 'shrink-small': 0, overheated: 0 } },
  { key: 'single', text: 'there is one pane of glass', source: 'common practice', times: { 'unit-fog': 0 } },
  { key: 'no-gap', text: 'the film is cut to the frame without a gap', source: 'house figure', times: { 'edge-touches': 3 } },
  { key: 'fault-noted', text: 'a fault of the glass was noted before the work', source: 'house figure', times: { 'glass-fault': 3 } },
]; // prettier-ignore

/** Wet film on glass. */
export const wetFilm: CauseTable & { readonly spread: Question } = { causes, questions, facts, spread };
