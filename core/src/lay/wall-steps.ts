import type { PaneTrait, StepRule } from '@yellow-pane/contracts';
import { step } from './step-rule.js';

const surface = ['wall' as const];
const when = { surface };
const hung = { surface, without: ['lies-level' as const] };
const where = (...has: PaneTrait[]) => ({ surface, has });

/**
 * The steps of film that is laid dry over a wall, as they come with Yellow Pane; a firm writes its own over them. Times are house figures until logged ones take
 * their place.
 * @source common practice: promoter on both walls of an inside corner before anything is laid there, a return by the ½ in (13 mm) guide, the second film
 * trimmed along a ⅛ in (3 mm) ruler; seams lapped 1 in with a tape line or cut double with liner beneath; liner back 4 in (100 mm), 10 in (250 mm) at a time from the centre out
 */
export const wallSteps: readonly StepRule[] = [
  step('wall-covers', 'Covers off', '{off} {round} Screws into a bag with its name; floor and skirting under a sheet.', {
    purpose: 'Film that runs under a cover does not lift at it.', good: 'A bare wall; nothing left that can come off.', tools: ['screwdrivers', 'bags and labels', 'dust sheet'], minutes: [5, 0, 0], mood: 'dry', caution: 'Anything electric is isolated before its cover comes off: a licensed electrician’s work. Signs and doors of an escape route stay seen and free.', when: where('hardware'),
  }), // prettier-ignore
  step('wall-clean', 'Brush, wipe, feel by hand', 'Brush it down, joints and corners as well; seventy parts alcohol, thirty water, a clean cloth; dry, then feel all of it.', {
    purpose: 'What is left on a wall is what film lets go of.', good: 'Nothing is felt, nothing comes off on the cloth.', tools: ['brush', 'alcohol 70/30', 'lint-free cloth', 'gloves'], minutes: [2, 1, 0], mood: 'dry', caution: 'Alcohol burns: doors open, no flame, no gun until nothing is smelt. Old paint may hold lead: brushed only once it was tested.', when,
  }), // prettier-ignore
  step('wall-test', 'Pull at the joints’ paint', 'Press a strip of tape over a joint and a face, pull it off hard.', {
    purpose: 'Painted block lets go at its joints first.', good: 'The tape comes away clean.', tools: ['masking tape'], minutes: [2, 0, 0], mood: 'dry', when: where('masonry'),
  }), // prettier-ignore
  step('wall-corner-promoter', 'Promoter into the corner first', 'On both walls along the whole inside corner, a hand wide, before any film is laid there. Let it dry until it is tacky.', {
    purpose: 'Once the first film lies, nobody comes into the corner any more.', good: 'An even thin strip on both walls, from floor to ceiling, dry to the touch.', tools: ['adhesion promoter', 'gloves'], minutes: [1, 0, 0.4], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying in the corner' }, drawing: 'wall-inside', caution: 'Solvent: air the room, gloves, no flame and no gun until nothing is smelt.', when: where('corner-inside'),
  }), // prettier-ignore
  step('wall-outside-second', 'Promoter on what comes round the arris', '{outsideSecond}', {
    purpose: 'The first drop of this wall lies on film there, and film holds on film only with promoter.', good: 'A thin even strip up to the tape line, dry to the touch.', tools: ['adhesion promoter', 'masking tape', 'gloves'], minutes: [2, 0, 0.4], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying beside the arris' }, drawing: 'wall-outside-second', caution: 'Solvent: air the room, gloves, no flame and no gun until nothing is smelt.', when: where('corner-outside-second'),
  }), // prettier-ignore
  step('wall-plumb', 'Strike a plumb line', 'At {start}: a plumb line {drop} from the end of the wall, where the inner edge of the first drop comes. Never by the corner or the ceiling. {level}', {
    purpose: 'The first drop leads all the others.', good: 'A fine line from floor to ceiling, checked with level or laser.', tools: ['laser or plumb line', 'pencil'], minutes: [3, 0, 0], mood: 'dry', drawing: 'wall-plumb', when: hung,
  }), // prettier-ignore
  step('wall-level', 'Strike a level line', 'Along the wall {levelLine} above the highest place of its floor, where the upper edge of the first length comes. Never by floor or ceiling. {level}', {
    purpose: 'The first length leads all the others.', good: 'One fine line from end to end, checked with the laser at both and in the middle.', tools: ['laser', 'chalk line', 'pencil'], minutes: [3, 0, 0], mood: 'dry', drawing: 'wall-level', when: where('lies-level'),
  }), // prettier-ignore
  step('wall-hold', 'Hold it against the wall', 'Liner on, arrow up, number as on the bench sheet: {drops}. It reaches past floor and ceiling as far as the sheet says.', {
    purpose: 'Film that is too short shows when its liner is gone.', good: 'Right number, right way up, long enough at both ends.', minutes: [1, 0, 0], mood: 'dry', drawing: 'wall-drops', when,
  }), // prettier-ignore
  step('wall-lay', 'Top first, then down, {250 mm} at a time', 'Fold the liner back {fold} at the top, edge to the plumb line, tack the middle of the top; look along both edges. Draw the liner out below, {250 mm} each time; strokes from the middle out to both sides.', {
    purpose: 'Short lengths let the air go to the sides.', good: 'Edge on its line, no air, no pull lines.', tools: ['squeegee with felt edge'], minutes: [2, 5, 0], mood: 'dry', drawing: 'wall-drops', caution: 'Two people and a platform for a whole drop: both hands are on the film. Film that is stretched creeps back: lift it and lay it again without pulling.', when: hung,
  }), // prettier-ignore
  step('wall-lay-level', 'One end first, then along, {250 mm} at a time', 'The length at the foot first. Fold the liner back {fold} at {start}, upper edge to the level line, tack the middle of that end; look along the edge. Draw the liner out as you go, {250 mm} each time; strokes from the middle out to both edges.', {
    purpose: 'Short lengths let the air go up and down.', good: 'Edge on its line, no air, no pull lines.', tools: ['squeegee with felt edge'], minutes: [2, 5, 0], mood: 'dry', drawing: 'wall-drops', caution: 'Two people for a whole length, one at the roll: both hands are on the film. Film that is stretched creeps back: lift it and lay it again without pulling.', when: where('lies-level'),
  }), // prettier-ignore
  step('wall-faces', 'Heat the faces, towards an open edge', 'Set the border first, gun {150 to 250 mm} away and pointing away. Then the faces: gun full, {25 mm} off, just ahead of the roller, both at {50 mm} a second, strokes overlapping {50 mm}, always towards an edge that is open.', {
    purpose: 'Film lies on the tops of a rough wall only, until heat softens it.', good: 'The texture shows through everywhere, no white haze at the tops.', tools: ['heat gun', 'foam roller', 'heat glove'], minutes: [2, 4, 0], mood: 'dry', caution: 'Full gun: no solvent or alcohol vapour in the room, the building’s hot-work leave, detectors isolated by the building, sprinkler heads clear, an extinguisher at hand, half an hour of fire watch. No heat on the faces of glazed block.', when: where('masonry'),
  }), // prettier-ignore
  step('wall-joints', 'Then the joints: short ones first', 'Course by course the short upright joints before the long level one that would close them, each stroke towards an exit. Where air is shut in: pierce at the low end and press it out.', {
    purpose: 'Air in a joint whose crossings are closed cannot leave.', good: 'Film lies on the bottom of every joint, no long thin air line.', tools: ['heat gun', 'joint roller', 'needle', 'heat glove'], minutes: [2, 3, 0], mood: 'dry', caution: 'Hot film and a hot tool: glove on the tool hand.', when: where('masonry'),
  }), // prettier-ignore
  step('wall-seam', 'The next one over it', 'Promoter on the strip that is lapped, a tape line to keep it straight, 5 to 15 minutes; lay the next one {lap} over, its roll edge on the line.', {
    purpose: 'The seam is what people look at, and what lifts first.', good: 'A straight edge, pressed from end to end, the pattern running on.', tools: ['masking tape', 'straightedge', 'adhesion promoter'], minutes: [2, 0, 0.5], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying on the lap' }, drawing: 'wall-seam', caution: 'Solvent: air the room, gloves, no flame and no gun until nothing is smelt.', when: where('seam-dry'),
  }), // prettier-ignore
  step('wall-double-cut', 'Cut the seam double', 'Both drops {lap} over each other, a strip of liner beneath the cut; straightedge, one stroke through both with a new blade, lift both wastes and the liner, press it shut.', {
    purpose: 'Two edges that were cut together fit each other.', good: 'No gap, no ridge, no score in the wall.', tools: ['straightedge', 'knife, new blade'], minutes: [3, 0, 1], mood: 'dry', drawing: 'wall-seam', caution: 'The liner beneath keeps the wall from the blade: a scored wall opens the seam later.', when: where('double-cut'),
  }), // prettier-ignore
  step('wall-inside-second', 'Close the inside corner', '{insideSecond}', {
    purpose: 'A ruler makes the second film straight where the corner is not.', good: 'No bare wall along the corner, a lap all the way up.', tools: ['knife, new blade', 'ruler {3 mm}'], minutes: [5, 0, 1], mood: 'dry', drawing: 'wall-inside-second', caution: 'Cut the top layer only, and hold the ruler while the waste is lifted.', when: where('corner-inside-second'),
  }), // prettier-ignore
  step('wall-inside', 'Round the inside corner', '{inside}', {
    purpose: 'A corner wanders; film that is cut to it does not close.', good: 'Film lies in the corner without air; a straight return all the way up.', tools: ['knife, new blade', 'guide'], minutes: [6, 0, 1], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying on the return' }, drawing: 'wall-inside', caution: 'Cut film only, and no deeper. Solvent in the promoter: air the room, no flame and no gun until nothing is smelt.', when: where('corner-inside'),
  }), // prettier-ignore
  step('wall-outside', 'Round the outside corner', '{outside}', {
    purpose: 'A seam on an arris is picked open by every sleeve.', good: 'No film edge on the arris, no air along it.', tools: ['squeegee with felt edge', 'heat gun'], minutes: [4, 0, 1], mood: 'dry', drawing: 'wall-outside', caution: 'Warm, not long: too hot it distorts. Keep the stream off sprinkler heads and detectors.', when: where('corner-outside'),
  }), // prettier-ignore
  step('wall-openings', 'Cut the openings free', '{round} A cross from corner to corner, first with the drop hanging loose over it; then trimmed along its sides, inner corners round.', {
    purpose: 'Film over an opening pulls at its corners until it is cut.', good: 'No corner torn, nothing bare beside the frame.', tools: ['knife, new blade'], minutes: [3, 0, 0], mood: 'dry', caution: 'Doors and signs of an escape route stay free and seen.', when: where('openings'),
  }), // prettier-ignore
  step('wall-trim', 'Trim at floor, ceiling and ends', 'Knife along a broad filling knife that is pushed into the angle; the blade stays behind it.', {
    purpose: 'A proud edge collects dust, a short one shows paint.', good: 'Film ends in the angle, all along.', tools: ['knife, new blade', 'filling knife'], minutes: [2, 0, 0.5], mood: 'dry', when,
  }), // prettier-ignore
  step('wall-post-heat', 'Heat what was bent', 'Corners and everything that was stretched, to {postHeat}: gun away, then read with the infrared thermometer. Let it cool before it is cut.', {
    purpose: 'Unheated, bent film creeps back in the first winter.', good: 'Each corner was read at its figure.', tools: ['heat gun', 'infrared thermometer'], minutes: [2, 0, 0.5], mood: 'dry', reading: 'film', wait: { minutes: 5, what: 'film is cooling' }, caution: 'Hot: gloves. No gun while solvent or alcohol is smelt; off sprinkler heads and detectors; hot work needs the building’s leave.', when: where('corner-inside', 'corner-outside'),
  }), // prettier-ignore
  step('wall-covers-on', 'Covers back on', 'Find the holes by thumb, a small cross in the film; screws by hand.', {
    purpose: 'A screw that drags film round tears it.', good: 'Covers lie flat and hide their cuts.', tools: ['screwdrivers', 'knife, new blade'], minutes: [4, 0, 0], mood: 'dry', caution: 'Electric ones go on again by whoever isolated them.', when: where('hardware'),
  }), // prettier-ignore
  step('wall-feel', 'Feel for bubbles', 'With a gloved hand, all over, seams and corners last. Press them out to the nearest edge, or prick and press.', {
    purpose: 'Dry film has no water that takes air away with it.', good: 'Nothing moves under the hand.', tools: ['gloves', 'needle'], minutes: [1, 0.4, 0], mood: 'look', when,
  }), // prettier-ignore
  step('wall-truth', 'Warm air over all of it: what stands up?', 'When it has cooled: the gun a hand’s length off and quick, over all of it. Hidden air and what was not pressed stand up at once: warm it, press it; air is pricked at its low end. What does not lie then is pinned, once it is tapped done.', {
    purpose: 'What stands up now would stand up in the first sun, before the customer.', good: 'Nothing moves under the warm air.', tools: ['heat gun', 'needle'], minutes: [1, 1, 0], mood: 'look', caution: 'No gun where alcohol or promoter is smelt; off sprinkler heads, detectors and plastics.', when: where('masonry'),
  }), // prettier-ignore
];
