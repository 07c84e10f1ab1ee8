import type { Cause, CauseTable, Fact, Mend, MendKind, Question } from './causes.js';

const say = (kind: MendKind, text: string, caution: string | null = null): Mend => ({ kind, text, caution });
/** The same while it is fresh and after. */
const always = (mend: Mend): Pick<Cause, 'fresh' | 'set'> => ({ fresh: mend, set: mend });
const GUN = 'Hot: gloves. No gun while alcohol or promoter is smelt; keep it off sprinkler heads, detectors and plastics.';
const AGAIN = 'What was stretched is heated through afterwards, or it comes back.';

/**
 * What is seen on film that was laid dry.
 * @source common practice: what is seen, the likely cause, what to do; how often each is met: house figures
 */
const causes: readonly Cause[] = [
  {
    key: 'soft', name: 'Pressed too softly', why: 'The tool was soft or the hand light: air stayed all over, and shows a day later in the sun.', prior: 16, source: 'house figure',
    looks: { 'bubble-field': 0.72, bubble: 0.22, haze: 0.04 },
    fresh: say('mend', 'Lift it back to there and lay it again with a firmer tool, strokes overlapping.', 'Do not pull: film that is stretched creeps back.'),
    set: say('mend', 'Warm it; what shows is pricked at its edge and pressed towards the prick.', GUN),
  },
  {
    key: 'hand-only', name: 'Laid by hand only', why: 'A palm presses on its heel and leaves islands: patches without a pattern of lines.', prior: 8, source: 'house figure',
    looks: { 'bubble-field': 0.55, bubble: 0.35, 'bubble-line': 0.02 },
    ...always(say('mend', 'Go over all of it with the squeegee, overlapping; warm what stands up, press again.', GUN)),
  },
  {
    key: 'no-overlap', name: 'Strokes did not overlap', why: 'Between two strokes a line was never pressed.', prior: 9, source: 'house figure',
    looks: { 'bubble-line': 0.92, streak: 0.04 },
    ...always(say('mend', 'Stroke along the line once more, the blade over both sides of it; warm it where it stays.', GUN)),
  },
  {
    key: 'not-heated', name: 'Not heated through after it was formed', why: 'Film that was stretched over an edge or into a groove and not brought to its own figure pulls back.', prior: 14, source: 'house figure',
    looks: { 'edge-up': 0.72, fingers: 0.2, 'light-line': 0.06 },
    ...always(say('mend', 'Heat it again to the film’s own figure, read with the gun taken away, press it in and let it cool under the hand.', GUN)),
  },
  {
    key: 'no-promoter', name: 'No promoter, or not dry', why: 'Film lies on film, or on an edge that pulls, with nothing that holds it there.', prior: 8, source: 'house figure',
    looks: { 'edge-up': 0.85, fingers: 0.1 },
    ...always(say('mend', 'Lift only what is loose, clean both faces, promoter thin on both, wait until it is tacky, lay back and press.', 'Solvent: air the room, no flame and no gun until nothing is smelt.')),
  },
  {
    key: 'lets-go', name: 'The ground lets go', why: 'Loose paint, dust or grease: film holds, what is beneath does not.', prior: 8, source: 'house figure',
    looks: { 'edge-up': 0.55, 'bubble-field': 0.2, bubble: 0.2 },
    ...always(say('stop', 'Look at what is on the glue. Stop laying on this ground; take off what is loose, prepare and prime it, try a patch for a day. Then a new piece.', 'Old paint may hold lead: have it tested before it is sanded.')),
  },
  {
    key: 'damp', name: 'Damp from behind', why: 'Water in wall or board drives the film up; blisters grow.', prior: 4, source: 'house figure',
    looks: { 'bubble-field': 0.5, bubble: 0.35, 'edge-up': 0.1 },
    ...always(say('stop', 'Measure the moisture. Film comes off until the ground is dry; find out where the water comes from.', 'Near sockets and cables: switch the circuit off first, call an electrician.')),
  },
  {
    key: 'dirt', name: 'Dirt under the film', why: 'A grain or hair stayed, or came from the liner.', prior: 17, source: 'house figure',
    looks: { speck: 0.72, hair: 0.16, bubble: 0.1 },
    fresh: say('mend', 'Peel back to it, take it off with tape, lay again without pulling.', null),
    set: say('judge', 'It stays where it is. Seen from where people stand it means a new piece.', null),
  },
  {
    key: 'kink', name: 'The film was kinked', why: 'Folded sharply while it was carried or lifted, it keeps the mark.', prior: 6, source: 'house figure',
    looks: { crease: 0.95, streak: 0.02 }, ...always(say('replace', 'A crease stays. Cut the piece again.', null)),
  },
  {
    key: 'overheated', name: 'Overheated', why: 'Past its figure film tightens, shines and loses its print.', prior: 4, source: 'house figure',
    looks: { 'fine-lines': 0.75, haze: 0.12, streak: 0.1 }, ...always(say('replace', 'Tight lines stay. Cut the piece again; more distance, faster passes.', null)),
  },
  {
    key: 'crept', name: 'It crept back', why: 'Laid under tension, film shortens: a seam opens, an edge draws in.', prior: 6, source: 'house figure',
    looks: { 'light-line': 0.82, 'edge-up': 0.1, crease: 0.04 },
    ...always(say('replace', 'Warm it and see whether it comes back to the line; press it there and heat it through. Where it does not, a new piece, laid without pulling.', AGAIN)),
  },
  {
    key: 'cut-small', name: 'The piece is too small', why: 'Cut short, or trimmed away from the edge.', prior: 4, source: 'house figure',
    looks: { 'light-line': 0.95 }, ...always(say('replace', 'Nothing makes film longer. Cut the piece again; trim on the object, with the blade on the edge.', null)),
  },
  {
    key: 'joint', name: 'A joint was closed before its crossings', why: 'Air ran ahead of the roller and found its way out shut.', prior: 6, source: 'house figure',
    looks: { 'bubble-line': 0.95 },
    ...always(say('mend', 'Pierce it at its low end, heat, press towards the prick.', GUN)),
  },
  {
    key: 'not-softened', name: 'Not softened into the texture', why: 'Film touches the tops only: where it bridges, it stays pale and hollow.', prior: 7, source: 'house figure',
    looks: { haze: 0.85, 'bubble-field': 0.08, 'fine-lines': 0.03 },
    ...always(say('mend', 'Heat again just ahead of roller or pad, both at the same speed; roll or pat it in at once.', GUN)),
  },
  {
    key: 'ground-shows', name: 'The ground shows through', why: 'Every dent, grain and filler edge stands out once one colour lies over it.', prior: 9, source: 'house figure',
    looks: { speck: 0.35, streak: 0.35, scratch: 0.2, hair: 0.05 },
    ...always(say('judge', 'It is the ground. Compare with the photos of before; smooth it and lay a new piece only where that was agreed.', null)),
  },
  {
    key: 'on-top', name: 'Dirt on the face', why: 'Glue, fingerprints, dust.', prior: 6, source: 'house figure',
    looks: { haze: 0.3, speck: 0.3, streak: 0.25, hair: 0.1 },
    ...always(say('wipe', 'Soft cloth, water with a drop of soap; glue with a little alcohol, tried where nobody looks.', 'Not at edges in the first days.')),
  },
  {
    key: 'film-fault', name: 'A fault of the film', why: 'A stripe or spot of the print comes again along the roll.', prior: 2, source: 'house figure',
    looks: { streak: 0.65, speck: 0.2, haze: 0.1 },
    ...always(say('stop', 'Cut nothing more of this roll. Photograph it with lot and roll number, keep a piece, write to the maker. Then a new piece of another lot.', null)),
  },
  {
    key: 'scratched', name: 'The film was scratched', why: 'A hard card without felt, a ring, a tool put down.', prior: 5, source: 'house figure',
    looks: { scratch: 0.93, streak: 0.04 }, ...always(say('judge', 'A scratch stays. Seen from where people stand it means a new piece.', null)),
  },
  {
    key: 'cut-through', name: 'Cut into the film', why: 'A trim that slipped, or a seam cut through both layers, opens later.', prior: 3, source: 'house figure',
    looks: { crack: 0.9, 'light-line': 0.06 }, ...always(say('replace', 'A cut opens. A strip over it shows: cut the piece again, or set a seam there that was meant.', null)),
  },
]; // prettier-ignore

const yesNo = [
  { key: 'yes', text: 'Yes' },
  { key: 'no', text: 'No' },
] as const;

/** @source the looks and touches of the trade (common practice): a pass of heat shows hidden air at once. How often each answer is met: house figures */
const questions: readonly Question[] = [
  {
    key: 'hard', text: 'Press it with a fingertip. Is there something hard?', answers: yesNo, source: 'common practice', usual: [0.05, 0.95],
    under: { dirt: [0.85, 0.15], 'ground-shows': [0.5, 0.5], 'on-top': [0.35, 0.65], kink: [0.1, 0.9] },
  },
  {
    key: 'heat', text: 'Pass warm air over it. Does more of it stand up at once?', answers: yesNo, source: 'common practice', usual: [0.06, 0.94],
    under: { soft: [0.85, 0.15], 'hand-only': [0.85, 0.15], 'no-overlap': [0.55, 0.45], damp: [0.75, 0.25], joint: [0.6, 0.4], 'lets-go': [0.35, 0.65], 'not-softened': [0.35, 0.65] },
  },
  {
    key: 'formed', text: 'Was the film stretched or bent there: an edge, a groove, a corner?', answers: yesNo, source: 'common practice', usual: [0.3, 0.7],
    under: { 'not-heated': [0.97, 0.03], crept: [0.5, 0.5], overheated: [0.8, 0.2], 'no-promoter': [0.5, 0.5] },
  },
  {
    key: 'on-film', text: 'Does it lie on other film there?', answers: yesNo, source: 'common practice', usual: [0.1, 0.9],
    under: { 'no-promoter': [0.75, 0.25], crept: [0.4, 0.6], 'not-heated': [0.08, 0.92], 'cut-through': [0.4, 0.6] },
  },
  {
    key: 'glue', text: 'Lift a loose bit with the nail. What is on its glue?', source: 'common practice',
    answers: [{ key: 'clean', text: 'Nothing' }, { key: 'ground', text: 'Paint or dust' }, { key: 'wet', text: 'Wet' }, { key: 'fast', text: 'It is not loose' }], usual: [0.24, 0.04, 0.01, 0.71],
    under: { 'lets-go': [0.06, 0.86, 0.02, 0.06], damp: [0.2, 0.12, 0.6, 0.08], 'no-promoter': [0.86, 0.06, 0.01, 0.07], 'not-heated': [0.86, 0.06, 0.01, 0.07] },
  },
  {
    key: 'pattern', text: 'Look along the wall. Do the patches follow the lines of the tool?', answers: yesNo, source: 'common practice', usual: [0.3, 0.7],
    under: { 'hand-only': [0.04, 0.96], soft: [0.75, 0.25], 'no-overlap': [0.96, 0.04], damp: [0.04, 0.96] },
  },
  {
    key: 'in-joint', text: 'Does it lie in a joint of the wall?', answers: yesNo, source: 'common practice', usual: [0.06, 0.94], under: { joint: [0.97, 0.03], 'not-softened': [0.3, 0.7] },
  },
  {
    key: 'tops', text: 'Is it pale on the tops of a rough ground only?', answers: yesNo, source: 'common practice', usual: [0.03, 0.97], under: { 'not-softened': [0.9, 0.1] },
  },
  {
    key: 'bigger', text: 'Has it grown since it was last seen?', answers: yesNo, source: 'common practice', usual: [0.1, 0.9],
    under: { damp: [0.85, 0.15], 'lets-go': [0.6, 0.4], 'not-heated': [0.5, 0.5], crept: [0.6, 0.4], 'no-promoter': [0.4, 0.6] },
  },
  { key: 'wipes', text: 'Wipe it with a damp cloth. Does it go?', answers: yesNo, source: 'common practice', usual: [0.02, 0.98], under: { 'on-top': [0.92, 0.08] } },
  {
    key: 'again', text: 'Does it come again at the same distance, here or on another piece of the roll?', answers: yesNo, source: 'house figure', usual: [0.03, 0.97], under: { 'film-fault': [0.6, 0.4], kink: [0.1, 0.9] },
  },
  { key: 'before', text: 'Is it on the photos of before the work?', answers: yesNo, source: 'common practice', usual: [0.01, 0.99], under: { 'ground-shows': [0.8, 0.2], damp: [0.15, 0.85] } },
]; // prettier-ignore

const spread: Question = {
  key: 'spread', text: 'How does it lie?', source: 'house figure',
  answers: [{ key: 'one', text: 'By itself' }, { key: 'line', text: 'Along a line' }, { key: 'edge', text: 'At an edge' }, { key: 'field', text: 'All over a part' }], usual: [0.4, 0.2, 0.2, 0.2],
  under: {
    soft: [0.1, 0.08, 0.02, 0.8], 'hand-only': [0.25, 0.02, 0.03, 0.7], 'no-overlap': [0.02, 0.95, 0.01, 0.02], 'not-heated': [0.1, 0.15, 0.73, 0.02], 'no-promoter': [0.08, 0.2, 0.71, 0.01],
    'lets-go': [0.2, 0.05, 0.45, 0.3], damp: [0.25, 0.05, 0.15, 0.55], dirt: [0.72, 0.04, 0.09, 0.15], kink: [0.75, 0.2, 0.04, 0.01], overheated: [0.35, 0.15, 0.25, 0.25], crept: [0.03, 0.35, 0.61, 0.01],
    'cut-small': [0.02, 0.1, 0.87, 0.01], joint: [0.05, 0.92, 0.01, 0.02], 'not-softened': [0.12, 0.05, 0.03, 0.8], 'ground-shows': [0.5, 0.25, 0.05, 0.2], 'on-top': [0.5, 0.15, 0.1, 0.25],
    'film-fault': [0.25, 0.5, 0.02, 0.23], scratched: [0.6, 0.33, 0.05, 0.02], 'cut-through': [0.2, 0.5, 0.28, 0.02],
  },
}; // prettier-ignore

/** What log and survey can say. @source common practice that each does harm or rules something out; how much: house figures */
const facts: readonly Fact[] = [
  { key: 'not-post-heated', text: 'no step of heating it through was ticked', source: 'house figure', times: { 'not-heated': 3, crept: 1.5 } },
  { key: 'promoter-left-out', text: 'the promoter step was left out', source: 'house figure', times: { 'no-promoter': 4 } },
  { key: 'ground-loose', text: 'the ground was found chalking, peeling or greasy', source: 'house figure', times: { 'lets-go': 4 } },
  { key: 'ground-damp', text: 'it was found damp, or nobody measured a ground that can be', source: 'house figure', times: { damp: 4 } },
  { key: 'ground-dry', text: 'the ground cannot hold water, or was measured dry', source: 'common practice', times: { damp: 0.1 } },
  { key: 'cold', text: 'the ground was under 15 °C', source: 'house figure', times: { 'not-heated': 2, 'no-promoter': 1.5, soft: 1.3 } },
  { key: 'smooth', text: 'the ground is smooth, without joints', source: 'common practice', times: { joint: 0, 'not-softened': 0 } },
  { key: 'flat', text: 'film goes over no edge and into no groove', source: 'common practice', times: { 'not-heated': 0 } },
]; // prettier-ignore

/** Film that was laid dry. */
export const dryFilm: CauseTable & { readonly spread: Question } = { causes, questions, facts, spread };
