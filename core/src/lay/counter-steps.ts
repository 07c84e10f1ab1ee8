import type { PaneTrait, StepRule } from '@yellow-pane/contracts';
import { step } from './step-rule.js';

const surface = ['counter' as const];
const when = { surface };
const where = (...has: PaneTrait[]) => ({ surface, has });

/**
 * The steps of film that is laid dry over a counter, table top or shelf, as they come with Yellow Pane; a firm writes its own over them. Times are house figures until
 * logged ones take their place.
 * @source common practice: liner sliced about 2 in (50 mm) from one end, that end tacked, then the rest pulled; never a seam on the arris (⅛ in, 3 mm ruler);
 * silicone re-run one to two days after the film
 */
export const counterSteps: readonly StepRule[] = [
  step('counter-clear', 'Clear it; off with what comes off', '{off} {round} Screws into a bag with its name; what stays is masked.', {
    purpose: 'Film that runs under a rim does not lift at it.', good: 'A bare top; nothing left that can come off.', tools: ['screwdrivers', 'bags and labels', 'masking tape'], minutes: [6, 0, 0], mood: 'dry', caution: 'Water and gas are shut off before a sink or hob is lifted, anything electric is isolated: a licensed fitter’s work. No film beside a hob or under hot dishes but by its maker’s figures.', when: where('hardware'),
  }), // prettier-ignore
  step('counter-silicone', 'Cut the old joint out', 'Along the {walls}: silicone out, both sides, and the rest of it rubbed off.', {
    purpose: 'Film does not stick to silicone.', good: 'Bare top and bare wall in the angle.', tools: ['silicone cutter'], minutes: [2, 0, 1], mood: 'dry', caution: 'Where water stands, say that the joint is open until it is run again.', when: where('at-wall'),
  }), // prettier-ignore
  step('counter-clean', 'Wipe with alcohol, feel by hand', 'Seventy parts alcohol, thirty water: top, edges, underside as far as film goes. Dry, then feel all of it.', {
    purpose: 'A grain of dust stands out under film that lies in the light of a desk.', good: 'Nothing is felt, nothing comes off on the cloth.', tools: ['alcohol 70/30', 'lint-free cloth', 'gloves'], minutes: [2, 1.5, 0.2], mood: 'dry', caution: 'Alcohol burns: doors open, no flame, no gun until nothing is smelt.', when,
  }), // prettier-ignore
  step('counter-check', 'Hold the piece over it', 'Liner on, the pencilled top ({size}) on the top. {grain}', {
    purpose: 'A top whose grain runs across is paid twice.', good: 'It reaches past every side as far as the bench sheet says, the right way round.', minutes: [1, 0, 0], mood: 'dry', drawing: 'counter-top', when,
  }), // prettier-ignore
  step('counter-promoter', 'Promoter on edges and seams', 'Thin and even on every edge that film goes over, underneath, and where film will lie on film. Let it dry until it is tacky.', {
    purpose: 'Edges are where sleeves and wet cloths pull.', good: 'An even thin strip, dry to the touch.', tools: ['adhesion promoter', 'gloves'], minutes: [1, 0, 0.4], mood: 'dry', wait: { minutes: 10, what: 'promoter is drying' }, caution: 'Solvent: air the room, gloves, no flame and no gun until nothing is smelt.', when: where('wraps', 'edge-strip', 'seam-dry'),
  }), // prettier-ignore
  step('counter-strip', 'The strip of the edge first', 'Its upper line on the arris; press the edge from the middle of its run to both ends, round the corners without a pull. Then {lap} on to the top and {under} underneath, Vs cut where it is too much, points at the arris.', {
    purpose: 'Round a tight corner one film cannot be top and edge at once.', good: 'It stands straight on the edge, no fold on it, no V open at its point.', tools: ['knife, new blade', 'squeegee with felt edge', 'heat gun'], minutes: [4, 0, 2], mood: 'dry', drawing: 'counter-strip', caution: 'Cut film only. Warm, not long: too hot it distorts and the colour changes.', when: where('edge-strip'),
  }), // prettier-ignore
  step('counter-end', 'Slice off at one end, tack that', '{liner} of liner come off at the {first}. Pencilled corners on the corners, press that end from its middle; look along front and back before anything else is peeled.', {
    purpose: 'So far it can be lifted and set again.', good: 'Both long sides reach over alike, the direction stands true.', tools: ['squeegee with felt edge'], minutes: [2, 0, 0], mood: 'dry', drawing: 'counter-end', when,
  }), // prettier-ignore
  step('counter-lay', 'Pull the rest, {250 mm} at a time', 'Draw the liner out from beneath, {250 mm} each time; strokes from the middle out to front and back. Over holes it hangs until it is cut.', {
    purpose: 'Short lengths let the air go to the sides.', good: 'No air, no pull lines.', tools: ['squeegee with felt edge'], minutes: [1, 6, 0], mood: 'dry', drawing: 'counter-top', caution: 'Film that is stretched creeps back: lift it and lay it again without pulling.', when,
  }), // prettier-ignore
  step('counter-seam', 'Close the seam', 'Promoter under it, a tape line along it; lay the next strip {lap} over, its edge away from where hands come from.', {
    purpose: 'The seam is what a cloth catches first.', good: 'A straight edge, pressed from end to end.', tools: ['masking tape', 'straightedge', 'adhesion promoter'], minutes: [2, 0, 0.5], mood: 'dry', drawing: 'counter-seam', caution: 'Solvent: air the room, no flame and no gun until nothing is smelt.', when: where('seam-dry'),
  }), // prettier-ignore
  step('counter-double-cut', 'Cut the seam double', 'Both strips {lap} over each other, a strip of liner beneath the cut; straightedge, one stroke through both with a new blade, lift both wastes and the liner, press it shut.', {
    purpose: 'Two edges that were cut together fit each other.', good: 'No gap, no ridge, no score in the top.', tools: ['straightedge', 'knife, new blade'], minutes: [3, 0, 1], mood: 'dry', drawing: 'counter-seam', caution: 'The liner beneath keeps the top from the blade: a scored board swells with the first wet cloth.', when: where('double-cut'),
  }), // prettier-ignore
  step('counter-holes', 'Cut the holes free', '{holes} A cross that ends {10 mm} short of the corners, never into them; flaps warmed, pressed down over the rim, trimmed below. Round what stays.', {
    purpose: 'A slit that runs into a corner runs on under the rim.', good: 'No slit is seen past a rim; flaps lie down without a fold.', tools: ['knife, new blade', 'heat gun'], minutes: [3, 0, 0], mood: 'dry', caution: 'Nothing live in a cable hole while there is a blade in it.', when: where('openings'),
  }), // prettier-ignore
  step('counter-edges', 'Over the edges', 'At the {sides}: warm the film, lay it over without a fold, {wrap} from the arris. Press from the middle of each side to its ends; rounds and corners last.', {
    purpose: 'Cold film springs back from an arris.', good: 'No white line on the arris, no air along it.', tools: ['heat gun', 'squeegee with felt edge'], minutes: [1, 0, 1], mood: 'dry', drawing: 'counter-edges', caution: 'Warm, not long: too hot it distorts and the colour changes.', when: where('wraps'),
  }), // prettier-ignore
  step('counter-round', 'Round the rounds', '{rounds} Warm a hand’s width of it, pull it straight down, not to the side, until no fold stands; press while it is warm. Then the Vs underneath.', {
    purpose: 'Pulled one way, film draws in sideways: that takes up what is too much.', good: 'No fold on the edge; Vs closed, their points at the lower arris.', tools: ['heat gun', 'heat glove', 'knife, new blade'], minutes: [4, 0, 0], mood: 'dry', drawing: 'counter-round', caution: 'Colour that whitens has been stretched too far: warm it back, or give the edge a strip of its own.', when: where('corners-round'),
  }), // prettier-ignore
  step('counter-corner', 'Fold the sharp corners', '{corner}', {
    purpose: 'The last edge laid is the one that is seen.', good: 'No bare corner, nothing thicker than two films.', tools: ['knife, new blade', 'heat gun'], minutes: [4, 0, 0], mood: 'dry', drawing: 'counter-corner', when: where('corners-wrapped'),
  }), // prettier-ignore
  step('counter-over', 'End the top over its strip', 'Along the {strips}: the film of the top ends {ruler} from the arris, on the strip; a ruler there, the top layer cut only.', {
    purpose: 'A seam on the arris is picked open by every hand.', good: 'A straight end, the arris in one film.', tools: ['knife, new blade', 'ruler 3 mm'], minutes: [2, 0, 0.5], mood: 'dry', drawing: 'counter-strip', caution: 'Cut the top layer only: a cut through both opens later.', when: where('edge-strip'),
  }), // prettier-ignore
  step('counter-wall', 'Trim at wall and joint', 'Filling knife into the angle, the blade behind it. At a joint of two tops along its middle: film over a joint tears when they move.', {
    purpose: 'Film that climbs a wall lets water under.', good: 'Film ends in the angle, all along; the joint is free.', tools: ['knife, new blade', 'filling knife'], minutes: [1, 0, 0.5], mood: 'dry', drawing: 'counter-top', when: where('at-wall', 'at-joint'),
  }), // prettier-ignore
  step('counter-post-heat', 'Heat edges and rounds through', 'Everything that was stretched, to {postHeat}: gun away, then read with the infrared thermometer. Let it cool before it is cut.', {
    purpose: 'Unheated, formed film creeps back in the first winter.', good: 'Each edge was read at its figure.', tools: ['heat gun', 'infrared thermometer'], minutes: [1, 0, 0.5], mood: 'dry', reading: 'film', wait: { minutes: 5, what: 'film is cooling before it is cut' }, caution: 'Hot: gloves. No gun while solvent or alcohol is smelt; plastics beside it warp; off sprinkler heads and detectors.', when: where('wraps', 'edge-strip'),
  }), // prettier-ignore
  step('counter-trim', 'Trim', 'Underneath along a straightedge; where film ends at an arris, blade flat on the edge, away from the top.', {
    purpose: 'A proud edge is caught by the first sleeve.', good: 'Flush to a finger drawn across it.', tools: ['knife, new blade', 'straightedge'], minutes: [2, 0, 0.5], mood: 'dry', when,
  }), // prettier-ignore
  step('counter-back-on', 'Back on with what came off', 'Rims over the cuts, screws by hand; sinks and taps by whoever shut them off.', {
    purpose: 'A screw that drags film round tears it.', good: 'No cut is seen; nothing rocks.', tools: ['screwdrivers'], minutes: [6, 0, 0], mood: 'dry', caution: 'Water, gas and electric parts go on again, and are tested, by licensed hands.', when: where('hardware'),
  }), // prettier-ignore
  step('counter-feel', 'Feel for bubbles', 'With a gloved hand, all over, edges last. Press them out to the nearest edge, or prick and press.', {
    purpose: 'Dry film has no water that takes air away with it.', good: 'Nothing moves under the hand.', tools: ['gloves', 'needle'], minutes: [1, 0.5, 0], mood: 'look', when,
  }), // prettier-ignore
  step('counter-truth', 'Warm air over all of it: what stands up?', 'When it has cooled: the gun a hand’s length off and quick, over all of it. Hidden air and what was not pressed stand up at once: warm it, press it; air is pricked at its low end. What does not lie then is pinned, once it is tapped done.', {
    purpose: 'What stands up now would stand up in the first sun, before the customer.', good: 'Nothing moves under the warm air.', tools: ['heat gun', 'needle'], minutes: [1, 1, 0], mood: 'look', caution: 'No gun where alcohol or promoter is smelt; off sprinkler heads, detectors and plastics.', when: where('wraps'),
  }), // prettier-ignore
  step('counter-tack', 'Two hours later: does it hold?', 'At a trimmed edge underneath: under a finger nail it has to pull, not come off. What comes off is warmed through again and pressed.', {
    purpose: 'Glue that was laid on a cold ground has not flowed.', good: 'It pulls everywhere it is tried.', tools: ['heat gun'], minutes: [3, 0, 0], mood: 'look', returnAfterMinutes: 120, caution: 'Below 13 °C outdoors it stays indoors up to two days: what goes out cold lets go at its edges.', when: where('cold'),
  }), // prettier-ignore
  step('counter-seal', 'Run the joint at the wall again', 'A day later, dry: new silicone along the {walls}, half on the film.', {
    purpose: 'An open joint lets water under the film.', good: 'A closed line, smooth, from end to end.', tools: ['silicone', 'masking tape'], minutes: [2, 0, 1], mood: 'look', returnAfterMinutes: 1440, caution: 'No water on it until it has cured by its maker’s figures.', when: where('at-wall'),
  }), // prettier-ignore
];
