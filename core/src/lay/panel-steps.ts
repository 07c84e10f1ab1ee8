import type { PaneTrait, StepRule } from '@yellow-pane/contracts';
import { step } from './step-rule.js';

const surface = ['panel' as const];
const when = { surface };
const where = (...has: PaneTrait[]) => ({ surface, has });
const flat = { surface, without: ['corrugated' as const, 'domed' as const] };

/**
 * The steps of film that is laid dry over a door, panel or front, as they come with Yellow Pane; a firm writes its own over them. Times are house figures until
 * logged ones take their place.
 * @source common practice: liner back 4 in (100 mm), centre tacked, 10 in (250 mm) at a time from the centre out; grooves straight parts first; in the cold the deepest hollow
 * first, to at most 150 °F (66 °C), and a tack test after two hours
 */
export const panelSteps: readonly StepRule[] = [
  step('panel-hardware', 'Hardware off', '{off} {round} Screws into a bag with its name; mark which hole is which.', {
    purpose: 'Film that runs under a plate does not lift at it.', good: 'A bare face; nothing left that can come off.', tools: ['screwdrivers', 'bags and labels'], minutes: [5, 0, 0], mood: 'dry', caution: 'Anything electric is isolated before its cover comes off: a licensed electrician’s work. A door must stay one that people get out by.', when: where('hardware'),
  }), // prettier-ignore
  step('panel-wedge', 'Wedge the leaf', 'Open, a wedge under it and one at the hinges; a sign on the other side.', {
    purpose: 'A leaf that moves under the knife cuts where it should not.', good: 'It does not move when it is pressed.', tools: ['door wedges'], minutes: [1, 0, 0], mood: 'dry', caution: 'A fire door is wedged only with the building’s leave, and never left so. Fingers out of the hinge side.', when: where('swings'),
  }), // prettier-ignore
  step('panel-check', 'Hold the piece against it', 'Liner on, arrow up, the pencilled face ({size}) on the face. {grain}', {
    purpose: 'A door whose grain runs across is paid twice.', good: 'It reaches past every edge as far as the bench sheet says, the right way up.', minutes: [1, 0, 0], mood: 'dry', drawing: 'panel-face', when,
  }), // prettier-ignore
  step('panel-clean', 'Wipe with alcohol, feel by hand', 'Seventy parts alcohol, thirty water: face, edges, grooves with a cloth over a card; dry, then feel all of it.', {
    purpose: 'A grain of dust stands out under film that is laid dry.', good: 'Nothing is felt, nothing comes off on the cloth.', tools: ['alcohol 70/30', 'lint-free cloth', 'gloves'], minutes: [2, 1.5, 0.2], mood: 'dry', caution: 'Alcohol burns: doors open, no flame, no gun until nothing is smelt.', when,
  }), // prettier-ignore
  step('panel-promoter', 'Promoter on edges and in grooves', 'Thin and even on every edge that film goes over, in grooves, on the walls of a recess, and where film will lie on film. Let it dry until it is tacky.', {
    purpose: 'Edges and grooves are where film pulls back.', good: 'An even thin strip, dry to the touch.', tools: ['adhesion promoter', 'gloves'], minutes: [1, 0, 0.4], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying' }, caution: 'Solvent: air the room, gloves, no flame and no gun until nothing is smelt.', when: where('wraps', 'grooves', 'recesses', 'seam-dry'),
  }), // prettier-ignore
  step('panel-hollows', 'Warm the hollows', 'The deepest first, the gun moving, to at most 66 °C in it: read it with the gun taken away. Then press in with a medium-hard tool in a thin sleeve; what only a glove touched is stroked once more with heat.', {
    purpose: 'A cold corner takes the heat out of film before it is pressed in.', good: 'Hand-warm all along, no place over 66 °C.', tools: ['heat gun', 'infrared thermometer'], minutes: [2, 1, 0], mood: 'dry', reading: 'hollow', caution: 'No gun until nothing is smelt of alcohol and promoter. Lacquer blisters and plastics warp above it.', when: where('cold-hollows'),
  }), // prettier-ignore
  step('panel-centre', 'Fold the liner back, tack the centre', 'Fold the liner back {fold} at the top. Pencilled face on the face; press in the middle of the top, then look along both sides.', {
    purpose: 'So far it can be lifted and set again.', good: 'Both sides reach over alike, the direction stands true.', tools: ['squeegee with felt edge'], minutes: [2, 0, 0], mood: 'dry', drawing: 'panel-centre', when: flat,
  }), // prettier-ignore
  step('panel-lay', 'Lay it down, {250 mm} at a time', 'Draw the liner out below, {250 mm} each time; strokes from the middle out to both sides. Over a groove film bridges: leave it hanging there, and round a recess a hand’s width loose until its turn.', {
    purpose: 'Short lengths let the air go to the sides.', good: 'No air, no pull lines; over grooves film hangs loose.', tools: ['squeegee with felt edge'], minutes: [1, 6, 0], mood: 'dry', drawing: 'panel-face', caution: 'Film that is stretched creeps back: lift it and lay it again without pulling.', when: flat,
  }), // prettier-ignore
  step('panel-corrugation', 'Over its ribs, valley by valley', '{ribs}', {
    purpose: 'Film that is pulled over a crest starves the valley before it, and lifts out of it in the first winter.', good: 'It lies on flank and foot of every valley; nothing bridges when the gun has gone.', tools: ['heat gun', 'heat glove', 'felt card cut to the groove'], minutes: [4, 10, 0], mood: 'dry', drawing: 'panel-corrugation', caution: 'Sheet edges and screw heads cut: gloves. Hot film burns: heat glove. Keep the stream off sprinkler heads and detectors.', when: where('corrugated'),
  }), // prettier-ignore
  step('panel-dome', 'Over its middle, outwards to all sides', '{dome}', {
    purpose: 'Film that is tacked at its border first has to stretch in the middle, and folds there.', good: 'No fold at the border, no white line at a corner.', tools: ['squeegee with felt edge', 'heat gun', 'heat glove'], minutes: [4, 8, 0], mood: 'dry', drawing: 'panel-dome', caution: 'Hot film burns: heat glove. Keep the stream off sprinkler heads and detectors.', when: where('domed'),
  }), // prettier-ignore
  step('panel-groove', 'Press the grooves in', 'Slack of {slack} lies in the film for them. Corners first with the knife: outer square out, the rest slit on the diagonal. Warm; straight parts in first, from the middle to the ends; diagonal pieces last.', {
    purpose: 'A corner that is not slit pulls the whole groove out again.', good: 'Film lies on the bottom and both sides; at corners the slits meet on the mitre.', tools: ['knife, new blade', 'heat gun', 'felt card cut to the groove'], minutes: [3, 2, 0], mood: 'dry', drawing: 'panel-groove', caution: 'Cut film only: a scored board shows for ever.', when: where('grooves'),
  }), // prettier-ignore
  step('panel-recess', 'Into the recess', '{recess}: the deepest first, in the order of its map. Hot, formed in with the glove, let slide; pressed when it is in; the field last of it.', {
    purpose: 'Film that is pressed too soon takes all of its stretch at the corners.', good: 'It lies in the corners without a white line; nothing bridges when the gun has gone.', tools: ['heat gun', 'heat glove', 'felt card cut to the groove'], minutes: [4, 2, 0], mood: 'dry', drawing: 'panel-recess', caution: 'Hot film burns: heat glove. Detectors and sprinkler heads above it: the building covers or shuts them off, and somebody watches for half an hour after hot work.', when: where('recesses'),
  }), // prettier-ignore
  step('panel-edges', 'Over the edges', 'At {sides}: warm the film, lay it over without a fold, {wrap} from the arris. Press from the middle of each side to its ends.', {
    purpose: 'Cold film springs back from an arris.', good: 'No white line on the arris, no air along it.', tools: ['heat gun', 'squeegee with felt edge'], minutes: [1, 0, 1], mood: 'dry', drawing: 'panel-edges', caution: 'Warm, not long: too hot it distorts and the colour changes.', when: where('wraps'),
  }), // prettier-ignore
  step('panel-corner', 'Fold the corners', '{corner}', {
    purpose: 'The last edge laid is the one that is seen.', good: 'No bare corner, nothing thicker than two films.', tools: ['knife, new blade', 'heat gun'], minutes: [4, 0, 0], mood: 'dry', drawing: 'panel-corner', when: where('corners-wrapped'),
  }), // prettier-ignore
  step('panel-corner-round', 'Draw the round corners over', '{cornerRound}', {
    purpose: 'Where two edges meet there is too much film; drawn straight down it grows narrower by just that.', good: 'No fold, no white line, no cut at the corner.', tools: ['heat gun', 'heat glove', 'squeegee with felt edge'], minutes: [4, 0, 0], mood: 'dry', drawing: 'panel-corner-round', caution: 'Hot film burns: heat glove. Keep the stream off sprinkler heads and detectors.', when: where('corners-round'),
  }), // prettier-ignore
  step('panel-seam', 'Close the seam', 'Promoter under it, a tape line along it; lay the next strip {lap} over.', {
    purpose: 'The seam is what people look at, and what lifts first.', good: 'A straight edge, pressed from end to end.', tools: ['masking tape', 'straightedge', 'adhesion promoter'], minutes: [2, 0, 0.5], mood: 'dry', when: where('seam-dry'),
  }), // prettier-ignore
  step('panel-post-heat', 'Heat edges and grooves through', 'Everything that was stretched, to {postHeat}: gun away, then read with the infrared thermometer. Let it cool before it is cut.', {
    purpose: 'Unheated, formed film creeps back in the first winter.', good: 'Each edge was read at its figure.', tools: ['heat gun', 'infrared thermometer'], minutes: [1, 0, 0.5], mood: 'dry', reading: 'film', wait: { minutes: 5, what: 'film is cooling before it is cut' }, caution: 'Hot: gloves. Plastics and locks beside it warp; keep the stream off sprinkler heads and detectors.', when: where('wraps', 'grooves', 'recesses', 'formed-in'),
  }), // prettier-ignore
  step('panel-trim', 'Trim', 'Where it is not wrapped, on the arris: blade flat on the edge, away from the face. On the back along a straightedge.', {
    purpose: 'A proud edge is caught by the first sleeve.', good: 'Flush to a finger drawn across it.', tools: ['knife, new blade', 'straightedge'], minutes: [2, 0, 0.5], mood: 'dry', when,
  }), // prettier-ignore
  step('panel-back', 'The other face', 'The same from the other side. Over what was returned it ends {3 mm} from the arris: a ruler there, the top layer cut only.', {
    purpose: 'A seam on the arris is picked open by every hand.', good: 'No film edge on an arris.', tools: ['knife, new blade', 'ruler 3 mm'], minutes: [3, 0, 0], mood: 'dry', caution: 'Cut the top layer only: a cut through both opens later.', when: where('both-faces'),
  }), // prettier-ignore
  step('panel-hardware-on', 'Hardware back on', 'Find the holes from behind or by thumb; a small cross in the film, screws by hand. Cut round what stayed.', {
    purpose: 'A screw that drags film round tears it.', good: 'Plates lie flat; latch and lock work.', tools: ['screwdrivers', 'knife, new blade'], minutes: [5, 0, 0], mood: 'dry', when: where('hardware'),
  }), // prettier-ignore
  step('panel-swing', 'Let it close by itself', 'Slowly, three times: it must not rub, and must latch.', {
    purpose: 'Film on edge and frame takes half a millimetre of the gap.', good: 'It latches by itself, nothing rubs at head, foot or lock side.', minutes: [1, 0, 0], mood: 'look', caution: 'A fire or escape door that does not open and close as before: tell the building at once, and put it right before you leave.', when: where('swings'),
  }), // prettier-ignore
  step('panel-feel', 'Feel for bubbles', 'With a gloved hand, all over. Press them out to the nearest edge, or prick and press.', {
    purpose: 'Dry film has no water that takes air away with it.', good: 'Nothing moves under the hand.', tools: ['gloves', 'needle'], minutes: [1, 0.5, 0], mood: 'look', when,
  }), // prettier-ignore
  step('panel-truth', 'Warm air over all of it: what stands up?', 'When it has cooled: the gun a hand’s length off and quick, over all of it. Hidden air and what was not pressed stand up at once: warm it, press it; air is pricked at its low end. What does not lie then is pinned, once it is tapped done.', {
    purpose: 'What stands up now would stand up in the first sun, before the customer.', good: 'Nothing moves under the warm air.', tools: ['heat gun', 'needle'], minutes: [1, 1, 0], mood: 'look', caution: 'No gun where alcohol or promoter is smelt; off sprinkler heads, detectors and plastics.', when: where('wraps', 'grooves', 'recesses', 'corrugated', 'domed'),
  }), // prettier-ignore
  step('panel-tack', 'Two hours later: does it hold?', 'At a trimmed edge, where it is hidden: under a finger nail it has to pull, not come off. What comes off is warmed through again and pressed.', {
    purpose: 'Glue that was laid on a cold ground has not flowed.', good: 'It pulls everywhere it is tried.', tools: ['heat gun'], minutes: [3, 0, 0], mood: 'look', returnAfterMinutes: 120, caution: 'Below 13 °C outdoors it stays indoors up to two days: what goes out cold lets go at its edges.', when: where('cold'),
  }), // prettier-ignore
];
