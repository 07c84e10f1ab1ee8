import type { ReadyRule, StepRule, StepSet } from '@yellow-pane/contracts';
import { columnSteps } from './column-steps.js';
import { counterSteps } from './counter-steps.js';
import { signSteps } from './sign-steps.js';
import { groundSteps } from './ground-steps.js';
import { panelSteps } from './panel-steps.js';
import { wallSteps } from './wall-steps.js';
import { step } from './step-rule.js';

/** Id of the steps that come with Yellow Pane; never stored. */
export const SHIPPED_STEPS_ID = '01930000-0000-7000-8000-0000000057e9';

/** Asked before the first pane is touched. @source common practice */
const ready: readonly ReadyRule[] = [
  { key: 'clear', text: 'Blinds off, sills and furniture clear', caution: null },
  { key: 'floor', text: 'Floor covered, wet liner kept off it', caution: 'Wet liner on a floor is very slippery.' },
  { key: 'alarm', text: 'Alarm contacts and glass-break sensors known', caution: 'A sensor stuck to the glass, or a contact opened, calls the alarm: ask the key holder first.' }, // prettier-ignore
  { key: 'keys', text: 'Key holder, water, power', caution: null },
  { key: 'access', text: 'Parking, lift, permits, hours of noise', caution: null },
  { key: 'exits', text: 'Emergency exits and escape routes stay free', caution: 'An exit must not be blocked or hidden, also by film; local rules decide.' },
];

/**
 * The steps of wet-laid film on flat glass as they come with Yellow Pane; a firm writes its own over them. Times are house figures until logged ones take
 * their place.
 * @source common practice
 */
const steps: readonly StepRule[] = [
  step('check-piece', 'Hold the piece against the glass', 'Still dry, arrow up. It must cover the opening on every side; the face you work on is the right one.', {
    purpose: 'Before anything is wet: a small or mirrored piece is found here.', good: 'Film past the edge on all sides, arrow at the top.', minutes: [0.5, 0, 0], drawing: 'pane', mood: 'dry',
    when: { method: ['overhang', 'factory-edge', 'dry-template'] },
  }), // prettier-ignore
  step('check-fit', 'Try the pre-cut piece in the opening', 'Still dry, arrow up. The same gap of {edgeGap} all round, and no corner touching.', {
    purpose: 'A pre-cut piece cannot be trimmed larger.', good: 'An even line of light round the piece.', minutes: [1, 0, 0], drawing: 'pane', mood: 'dry', when: { method: ['tucked-corner', 'pre-cut'] },
  }), // prettier-ignore
  step('stops-off', 'Take the stops out', 'Number them where they sat. Film then runs under them.', {
    purpose: 'Edges under a stop hold better and show no line.', good: 'Beads and screws in order beside the pane.', tools: ['putty knife', 'mallet', 'pencil'], minutes: [2, 0, 1], mood: 'dry',
    caution: 'The pane is loose without its stops: one side at a time. Old putty can hold lead or asbestos: test first.', when: { frame: ['bead'], stops: ['off'] },
  }), // prettier-ignore
  step('silicone-out', 'Cut out silicone that stands proud', 'Only what stands on the glass. It is run again one to two days after the film.', {
    purpose: 'Film does not stick to silicone.', good: 'Bare glass up to the frame.', tools: ['silicone cutter'], minutes: [1, 0, 2], mood: 'dry',
    caution: 'A cut through the seal lets water in: stop where it holds the pane.', when: { frame: ['silicone'], silicone: ['cut-out'] },
  }), // prettier-ignore
  step('stamp', 'Find the stamp, feel the glass', 'Look for the tempered stamp. Feel the face for a coating and for grit. A test patch in a corner with pad and blade.', {
    purpose: 'Grit in tempered glass and soft coatings scratch under a blade.', good: 'No line in the test patch against the light.', minutes: [0.5, 0, 0], drawing: 'pane', mood: 'look', when: { care: ['blade', 'one-way'] },
    caution: 'Never scrape coated or plastic glazing, or across defroster and antenna lines. Scratches found now: photograph them, the customer signs.',
  }), // prettier-ignore
  step('stamp-pad', 'Find the stamp, feel the glass by hand', '{care} Bare hand and soft pad only, along the lines where there are some. No blade on this face, not even for a test.', {
    purpose: 'What a blade does to this face stays.', good: 'Known before water: scratches and chips photographed, the customer signs.', minutes: [0.5, 0, 0], drawing: 'pane', mood: 'look', when: { care: ['pad'] },
    caution: 'No scraper, no steel wool, no knife on this face.',
  }), // prettier-ignore
  step('stamp-ask', 'What is this face? Feel it before anything hard touches it', '{care} Look for the stamp in the corners; bare hand over the face for a coating, for grit, for printed lines; a test patch with the pad, not with a blade. Then say below what it is.', {
    purpose: 'A scratched facade is the costliest claim there is.', good: 'You can say which of these it is. Until you can: the pad only.', minutes: [1, 0, 0], reading: 'face', drawing: 'pane', mood: 'look', when: { care: ['ask'] },
    caution: 'No blade until it is known. Scratches found now: photograph them, the customer signs.',
  }), // prettier-ignore
  step('read-glass', 'Read the glass', 'Thermometer on a patch of dull tape, one hand away. Sun or warm glass: shade it from outside or wait.', {
    purpose: 'On warm glass the water dries and the film grabs; on cold glass it never tacks.', good: 'Between 5 °C and a hand’s warmth, and no sun on it.', tools: ['thermometer'], minutes: [0.5, 0, 0], reading: 'glass', mood: 'look',
  }), // prettier-ignore
  step('form-start', 'May the gun go on?', 'Tempered stamp seen, no chip, glass over 15 °C: full gun. Laminated or chipped: low heat, whole pane warmed, always moving, or not at all. Plastic: no gun.', {
    purpose: 'Glass cracks by a hot spot on a cold or damaged pane.', good: 'Glass warm to the hand all over, stamp photographed.', tools: ['infrared thermometer', 'heat gun', 'heat glove', 'rubber shields', 'safety glasses'], minutes: [1, 2, 0], reading: 'glass', drawing: 'pane', mood: 'dry', when: { glass: ['curved', 'curved-outside'] },
    caution: 'Under 15 °C do not start: warm the pane evenly first. 480 to 540 °C at the nozzle burns at once; air the place. No heat beside an airbag or a sensor; shield rubber and trim.',
  }), // prettier-ignore
  step('form-hang', 'Film on the outside, liner up', 'Wash the outside. A wet or soaped glass, film on it with its liner up, its width along the pane. On drop glass {25 to 50 mm} higher than it will sit, {13 mm} past the sides.', {
    purpose: 'Formed outside, laid inside; higher up so that no heat comes near the lower rubber.', good: 'Film past the sides, enough to grip above and below.', tools: ['bar soap or slip', 'film piece', 'tape measure'], minutes: [1, 1, 0], drawing: 'anchor-line', mood: 'wet', when: { glass: ['curved', 'curved-outside'] },
  }), // prettier-ignore
  step('form-line', 'Lay the line', '{anchor}', {
    purpose: 'What the film has to lose is brought where it can be shrunk, in fingers of one size.', good: 'Fingers of one size, about as many as drawn. One too big: make two.', tools: ['squeegee {blade}', 'masking tape'], minutes: [0.5, 0.3, 0], drawing: 'anchor-line', mood: 'wet', when: { glass: ['curved', 'curved-outside'] },
  }), // prettier-ignore
  step('form-heat', 'Shrink the fingers, in the order drawn', '{gun} From the root to the edge; film zig-zags: press it, go on. Never stand still.', {
    purpose: 'Film loses along the roll what hangs over.', good: 'Zig-zag texture, then soft and floating. Chaotic tight lines: too much. Smoke: burnt.', tools: ['heat gun', 'felt card', 'heat glove'], minutes: [0.8, 1.2, 0], drawing: 'forming', mood: 'dry', when: { glass: ['curved', 'curved-outside'] },
    caution: 'Burns and fumes: gloves, moving air, nobody behind the gun. Never made a finger before? Practise on glass that is yours.',
  }), // prettier-ignore
  step('form-sweep', 'Test sweep', 'Spray the film, sweep it once from the line outwards. A finger that pops up has not shrunk enough: once more there.', {
    purpose: 'What pops up outside will pop up inside.', good: 'No finger rises anywhere.', tools: ['slip', 'squeegee {blade}'], minutes: [0.3, 0.5, 0], drawing: 'forming', mood: 'wet', when: { glass: ['curved', 'curved-outside'] },
  }), // prettier-ignore
  step('form-trim', 'Trim outside', 'Fixed glass: onto the dot border. Drop glass: {1 to 2 mm} under the upper edge; below it stays long, {6 to 20 mm} go behind the seal.', {
    purpose: 'The film is its own template.', good: 'One even line, no tooth.', tools: ['new blade edge'], minutes: [0.5, 0, 0.8], drawing: 'trim', mood: 'wet', when: { glass: ['curved'] },
    caution: '{3 mm} of blade out, point only, no pressure: a scored pane cracks. Never across a heating line.',
  }), // prettier-ignore
  step('form-lift', 'Lift it on its liner', 'Lift the formed film off with its liner on, roll it up loosely, liner out, and lay it down clean. Mark the line at both sides with tape first.', {
    purpose: 'The glass under it is washed once more; the film comes back to the same place.', good: 'Tape marks of the line on the glass, film without a crease.', tools: ['masking tape'], minutes: [0.6, 0.3, 0], drawing: 'anchor-line', mood: 'wet', when: { glass: ['curved-outside'] },
  }), // prettier-ignore
  step('wash', 'Wet and scrub', 'Cleaner on the glass, non-scratch pad all over, into the corners. Do not flood the frame: dirt bleeds out of it.', {
    purpose: 'Grease and specks are under the film for ever.', good: 'The pad slides without a sound.', tools: ['cleaner', 'non-scratch pad'], minutes: [0.5, 1.5, 0],
    caution: 'Alcohol burns and its vapour too: air the room, no flame.',
  }), // prettier-ignore
  step('scrape', 'Scrape, top to bottom', 'Wet, a new blade held lightly, one direction. A hard grip digs a corner in.', {
    purpose: 'What you cannot feel you will see.', good: 'Smooth under the bare fingers.', tools: ['scraper, new blade'], minutes: [0.5, 1.5, 0], when: { care: ['blade'] },
    caution: 'Never dry. A sound of sand under the blade: stop, that is grit, go on with the pad.',
  }), // prettier-ignore
  step('scrape-one-way', 'Scrape one way only', 'There is grit in this surface, and a written go-ahead. Wet, a new blade held lightly, forward only, lifted for the way back.', {
    purpose: 'A blade drawn back drags the grit over the glass.', good: 'No line against the light after every stroke.', tools: ['scraper, new blade'], minutes: [0.5, 2.5, 0], when: { care: ['one-way'] },
    caution: 'The go-ahead is on paper and signed, or it is the pad. Stop at the first line you see.',
  }), // prettier-ignore
  step('pad', 'Soft pad instead of the blade, then the bare hand', '{care} Wet, soft pad along the lines, light, twice; then feel every hand’s breadth. What still sits there: more cleaner and time, not pressure.', {
    purpose: 'Clean without anything that can scratch.', good: 'Smooth under the bare fingers.', tools: ['soft pad'], minutes: [0.5, 2, 0], when: { care: ['pad', 'ask'] },
    caution: 'No blade, no steel wool, no powder on this face.',
  }), // prettier-ignore
  step('dry-edges', 'Squeegee, dry the edges, wet again', 'Squeegee down, dry edges and frame with a lint-free cloth, then wet the glass at once so that falling dust does not stick.', {
    purpose: 'Dirt comes out of the frame, not off the glass.', good: 'Cloth clean after the last edge.', tools: ['squeegee', 'lint-free cloth', 'slip'], minutes: [0.5, 0.5, 0.3],
  }), // prettier-ignore
  step('form-peel', 'Peel by halves, reverse roll', 'Roll the film up, liner out. Inside: peel the first half, wet its glue side, lay it; then the other.', {
    purpose: 'The formed film keeps its shape on the roll; two hands are enough.', good: 'Both faces streaming wet, no crease.', tools: ['slip', 'tape tabs'], minutes: [0.8, 0.6, 0], drawing: 'liner', mood: 'wet', when: { glass: ['curved'] },
    caution: 'Wet liner on the floor is very slippery: roll it up at once.',
  }), // prettier-ignore
  step('form-lay', 'Lay it inside', 'Lower on drop glass, below the belt seal. Spread it by hand, look for gaps of light all round.', {
    purpose: 'The shape fits in one place only.', good: 'No gap of light; edges where they will stay.', tools: ['slip'], minutes: [0.7, 0.4, 0], drawing: 'pane', mood: 'wet', when: { glass: ['curved'] },
  }), // prettier-ignore
  step('form-back', 'Peel, wet, lay it back on its line', 'Peel the first half, wet its glue side and the glass, lay it on the tape marks; then the other half. It stays outside.', {
    purpose: 'The shape fits in one place only: where it was formed.', good: 'On both marks, no gap of light all round.', tools: ['slip'], minutes: [0.9, 0.8, 0], drawing: 'anchor-line', mood: 'wet', when: { glass: ['curved-outside'] },
    caution: 'Wet liner on the ground is very slippery: roll it up at once.',
  }), // prettier-ignore
  step('form-quarters', 'Four quarters from the line', 'Squeegee out from the middle of the line, quarter by quarter, water to the side and down. Then a hard second pass.', {
    purpose: 'Water has one way out of each quarter.', good: 'No water under a firm stroke.', tools: ['squeegee {blade}', 'slip'], minutes: [0.5, 2, 0], drawing: 'quarters', mood: 'wet', when: { glass: ['curved', 'curved-outside'] },
    caution: 'Along heating lines, not across them, and lightly.',
  }), // prettier-ignore
  step('form-trim-outside', 'Trim, clear of the seal', 'After the hard pass: one even cut {1 to 3 mm} clear of rubber and trim, corners rounded. Where its maker asks for it, the edge is sealed when it is dry.', {
    purpose: 'Outside, water and brushes get under an edge that touches rubber.', good: 'One even line, round corners, no tooth.', tools: ['new blade edge'], minutes: [0.5, 0, 0.8], drawing: 'trim', mood: 'wet', when: { glass: ['curved-outside'] },
    caution: '{3 mm} of blade out, point only, no pressure: a scored pane cracks. Wipers stay off until the film has dried.',
  }), // prettier-ignore
  step('template', 'Hang it dry, level, trim the sides', 'Liner on, on damp glass. Level it, trim the sides against the frame, mark both top corners with tape. Take it off again.', {
    purpose: 'The straightest pattern there is.', good: 'Tape marks at both top corners, level lines level.', tools: ['level', 'masking tape', 'new blade edge'], minutes: [3, 1, 0.5], drawing: 'template', mood: 'dry',
    caution: '{3 mm} of blade out, point only, no pressure: a scored pane cracks later.',
    when: { glass: ['flat'], method: ['dry-template'] },
  }), // prettier-ignore
  step('weed', 'Weed the piece, then the tape', 'Flat on the bench, from a corner, slowly and low over itself: lift out what is not wanted; small islands with the point of a knife. Then application tape on, rubbed down from the middle.', {
    purpose: 'What is lifted on the glass takes its neighbour along.', good: 'Every island still there, no edge lifted, no bubble under the tape.', tools: ['weeding knife', 'application tape', 'card'], minutes: [3, 4, 0], mood: 'dry', when: { glass: ['flat'], has: ['plotted'] },
  }), // prettier-ignore
  step('marks', 'Mark the level', 'One level line over all panes of the row, on tape on the frame: each piece’s height from it is on the cut sheet. Mark both ends of every piece.', {
    purpose: 'Eyes follow the line from pane to pane; one sill is never like the next.', good: 'One line from the first pane to the last.', tools: ['level', 'masking tape', 'pencil'], minutes: [2, 0.5, 0], mood: 'dry', when: { glass: ['flat'], has: ['bands', 'plotted'] },
  }), // prettier-ignore
  step('strips', 'The strips in their order', 'Left to right, or the lower one first, as the cut sheet names them. The first strip is hung, locked and pressed on; a tape line on the glass says where its edge is; then the next.', {
    purpose: 'Where strips meet only the first can still be moved.', good: 'Its edge on the tape line from end to end.', tools: ['masking tape', 'level'], minutes: [1.5, 0.5, 0], mood: 'wet', when: { glass: ['flat'], has: ['seam-overlap', 'seam-butt', 'seam-double-cut'] },
  }), // prettier-ignore
  step('liner-halves', 'Liner off in two halves', 'Two tape tabs on a corner, pulled apart. Peel half, wet the glue side, lay it back; the other half; roll it up, hang it, unroll.', {
    purpose: 'For tall panes and dusty rooms: the glue side meets no air.', good: 'Both faces streaming wet.', tools: ['tape tabs', 'slip'], minutes: [1, 0.8, 0], drawing: 'liner', when: { glass: ['flat'], liner: ['halves'] },
    caution: 'Wet liner on the floor is very slippery: roll it up at once.',
  }), // prettier-ignore
  step('liner-down', 'Pull the liner down', 'Two tape tabs on a top corner. Wet the glue side as the liner comes off, glass wet too. Never lay film on the ground.', {
    purpose: 'Quick, and one person can do it.', good: 'Both faces streaming wet.', tools: ['tape tabs', 'slip'], minutes: [0.8, 0.6, 0], drawing: 'liner', when: { glass: ['flat'], liner: ['pulled-down'] },
    caution: 'Wet liner on the floor is very slippery: roll it up at once.',
  }), // prettier-ignore
  step('hang', 'Hang it and bring it level', 'Slide it to where it belongs, {overhang} past the frame. One hand stays on the film until it is locked.', {
    purpose: 'Its own weight pulls it down.', good: 'Even on both sides.', minutes: [0.7, 0.4, 0], drawing: 'pane', when: { glass: ['flat'], method: ['overhang'] },
  }), // prettier-ignore
  step('hang-gap', 'Hang it to the gap', 'The ready edges stay {edgeGap} off the frame: a card in the corner gives the gap. One hand stays on the film until it is locked.', {
    purpose: 'Water leaves by that gap; over {3 mm} it shows as a light line.', good: 'One even line of light, no wedge.', minutes: [1, 0.4, 0], drawing: 'pane', when: { glass: ['flat'], method: ['factory-edge', 'tucked-corner', 'dry-template', 'pre-cut'] },
  }), // prettier-ignore
  step('lock', 'Lock the film: {lock}', 'Mist the outside, then the first strokes, light. Stop {edgeStop} short of the frame.', {
    purpose: 'From here on it does not slide.', good: 'The film stays when the hand goes.', tools: ['squeegee {blade}'], minutes: [0.5, 0.2, 0], drawing: 'lock', when: { glass: ['flat'] },
  }), // prettier-ignore
  step('light', 'First pass, light', 'From the middle outwards, lane under lane, strokes overlapping. Stop {edgeStop} short of the frame: water there draws dirt in. Keep the outside wet.', {
    purpose: 'Most of the water out, nothing pulled off its place.', good: 'No fold, no fish-mouth, film flat.', tools: ['squeegee {blade}', 'slip'], minutes: [0.5, 1, 0], drawing: 'light',
    caution: 'A dry outside is scratched by every tool.', when: { glass: ['flat'] },
  }), // prettier-ignore
  step('seam-lap', 'Lay the lap', 'The next strip lies {25 mm} over the one before, the right one or the upper one on top so that water runs off. Its edge along the tape line.', {
    purpose: 'A lap that wanders is seen from the street.', good: 'One even dark line, no pocket of water along it.', tools: ['masking tape', 'hard card'], minutes: [1, 0.5, 0], mood: 'wet', when: { glass: ['flat'], has: ['seam-overlap'] },
  }), // prettier-ignore
  step('seam-edges', 'Bring the edges together', 'The roll’s own edge of each strip meets the other’s, no gap and none on top: slide while it is wet, lock at the seam first, press along it, then out from it.', {
    purpose: 'Film draws back a hair as it dries: a gap that is seen wet is wider dry.', good: 'A line that only shows from close by.', tools: ['hard card', 'slip'], minutes: [2, 1, 0], mood: 'wet', when: { glass: ['flat'], has: ['seam-butt'] },
  }), // prettier-ignore
  step('seam-cut', 'Cut both through', 'A strip of liner goes under the lap. Straightedge on the line, one stroke of a new blade through both films; lift both waste strips and the liner, wet again, press the edges shut.', {
    purpose: 'Two edges from one stroke fit each other.', good: 'Edges shut from end to end.', tools: ['straightedge', 'new blade edge', 'strip of liner'], minutes: [2, 1.5, 0], mood: 'wet', when: { glass: ['flat'], has: ['seam-double-cut'] },
    caution: 'Never without the liner under it: the blade scores the glass, and a scored pane cracks later.',
  }), // prettier-ignore
  step('corners', 'Relieve the corners', 'With a finger first, then a short cut at 45° where film stands against two sides: {3 mm} of blade out, point only, no pressure.', {
    purpose: 'A corner that pulls lifts the film after the trim.', good: 'Film lies in the corner without a fold.', tools: ['new blade edge'], minutes: [0.5, 0, 0], drawing: 'corners', when: { glass: ['flat'], has: ['corners'], method: ['overhang', 'factory-edge', 'dry-template'] },
  }), // prettier-ignore
  step('trim-corner', 'Trim from a top corner down', 'New blade edge, {3 mm} of blade out. Point only, no pressure, knife and card leaning about 70° into the frame. A long side half way, change hands, and on from there.', {
    purpose: 'A gap of {edgeGap} all round.', good: 'An even gap, no tooth, no flap.', tools: ['trim guard or card', 'new blade edge'], minutes: [0.5, 0, 0.8], drawing: 'trim', when: { glass: ['flat'], has: ['corners'], trim: ['corner'], method: ['overhang', 'factory-edge', 'tucked-corner', 'dry-template'] },
    caution: 'A scored pane cracks later: {3 mm} of blade out, point only, no pressure; the point rides on the film, not on the glass. Snapped-off blades go into the tin; safety glasses on.',
  }), // prettier-ignore
  step('trim-centre', 'Trim from the middle to the corners', 'New blade edge, {3 mm} of blade out. Point only, no pressure, from the middle of a side to each corner, knife and card leaning about 70° into the frame.', {
    purpose: 'A gap of {edgeGap} all round.', good: 'An even gap, no tooth, no flap.', tools: ['trim guard or card', 'new blade edge'], minutes: [0.5, 0, 0.9], drawing: 'trim', when: { glass: ['flat'], has: ['corners'], trim: ['centre'], method: ['overhang', 'factory-edge', 'tucked-corner', 'dry-template'] },
    caution: 'A scored pane cracks later: {3 mm} of blade out, point only, no pressure; the point rides on the film, not on the glass. Snapped-off blades go into the tin; safety glasses on.',
  }), // prettier-ignore
  step('trim-round', 'Trim round', 'New blade edge, {3 mm} of blade out. Point only, no pressure, in short turns a hand long, the card bent along with the frame; the knife stops where the hand has to change.', {
    purpose: 'A gap of {edgeGap} all round.', good: 'One even line without a flat, no tooth.', tools: ['flexible card', 'new blade edge'], minutes: [0.7, 0, 1.1], drawing: 'trim', when: { glass: ['flat'], has: ['round'], method: ['overhang', 'factory-edge', 'tucked-corner', 'dry-template'] },
    caution: 'A scored pane cracks later: {3 mm} of blade out, point only, no pressure; the point rides on the film, not on the glass. Snapped-off blades go into the tin; safety glasses on.',
  }), // prettier-ignore
  step('cut-outs', 'Round handles and holes', 'Slit the film from the cut-out to the nearest edge so that it lies flat, press it on up to there, trim round it last. Every inner corner is rounded along a coin: a sharp one tears.', {
    purpose: 'Film that stands up at a handle lifts from there.', good: 'Film flat right up to it, no sharp inner corner.', tools: ['new blade edge', 'card'], minutes: [3, 0, 0], drawing: 'trim', when: { glass: ['flat'], has: ['cut-outs'], method: ['overhang', 'factory-edge', 'tucked-corner', 'dry-template'] },
    caution: '{3 mm} of blade out, point only, no pressure. Take the handle off where that can be done.',
  }), // prettier-ignore
  step('hard', 'Hard pass', 'Wet the outside again. From the middle out to the cut edges, all your weight, strokes overlapping.', {
    purpose: 'What stays now dries for weeks.', good: 'No water runs out of the last stroke.', tools: ['squeegee {blade}', 'slip'], minutes: [0.5, 1.2, 0], drawing: 'hard', when: { glass: ['flat'], film: ['tint', 'frost'] },
  }), // prettier-ignore
  step('hard-twice', 'Hard pass, twice', 'Wet the outside again. Narrow strokes half over one another, from the middle out, all your weight. Then once more: thick film holds its water.', {
    purpose: 'Water under thick film needs weeks; none should be left to move.', good: 'No water runs out of the last stroke of the second time.', tools: ['hard squeegee {blade}', 'slip'], minutes: [1, 3, 0], drawing: 'hard', when: { glass: ['flat'], film: ['security'] },
  }), // prettier-ignore
  step('bump', 'Bump every edge', 'Card in paper towel, along every edge, out into the gap. Dry the frame.', {
    purpose: 'Water at the edge is drawn back in: small fingers.', good: 'Towel comes out dry.', tools: ['hard card', 'paper towel'], minutes: [0.3, 0, 0.4], drawing: 'edges',
    wait: { minutes: 10, what: 'water comes back to the edges' },
  }), // prettier-ignore
  step('form-edges', 'Edge fingers: heat above and below only', 'What still stands at the upper and lower edge is relaxed with a little heat. Stay {150 mm} away from the sides.', {
    purpose: 'Film cannot shrink across the roll: at the sides heat only does harm.', good: 'Edge shut, no shine of a burn.', tools: ['heat gun', 'heat glove', 'hard card'], minutes: [0.5, 0, 0.2], drawing: 'forming', mood: 'dry', when: { glass: ['curved', 'curved-outside'] },
    caution: 'Rubber, trim and fingers are a hand away: low heat, short.',
  }), // prettier-ignore
  step('look', 'Look, all round', 'From the room, two metres off, at right angles, in daylight. Then once more along the edges with the card.', {
    purpose: 'What is seen now can still be lifted, flushed and laid again.', good: 'No speck, no fold, edges shut. Haze and small pockets of water are right: they dry.', minutes: [0.7, 0.2, 0.1], drawing: 'pane', mood: 'look',
  }), // prettier-ignore
  step('anchor', 'Anchor the edge', 'When the film is dry: structural silicone, at least {10 mm} on the film and {10 mm} on the frame, tooled once. Nobody touches it for 2 to 7 days.', {
    purpose: 'Film that is not held at its edge fails there first.', good: 'An unbroken bead on all sides that are anchored.', tools: ['structural silicone', 'masking tape'], minutes: [2, 0, 2], drawing: 'anchor', mood: 'dry',
    returnAfterMinutes: 2 * 24 * 60, wait: { minutes: 7 * 24 * 60, what: 'the anchor bead cures; not to be touched' }, caution: 'The frame itself must hold. The film’s maker says which bead and which frames.', when: { film: ['security'], edge: ['anchored'] },
  }), // prettier-ignore
  step('leave', 'Leave it alone, and say so', 'One to two days nobody leans on it or cleans it. Say to the customer: this film slows a break-in and holds splinters; it does not make glass unbreakable.', {
    purpose: 'Thick film sets slowly.', good: 'A note stands on the pane.', minutes: [0.5, 0, 0], mood: 'look', wait: { minutes: 2 * 24 * 60, what: 'security film is left alone' }, when: { film: ['security'] },
  }), // prettier-ignore
  step('stops-back', 'Put the stops back', 'In their old places, over the film’s edge, when its edge has dried: a day later (where the pane cannot stay open, the same day, and nobody presses on them).', {
    purpose: 'They hold the pane and the film.', good: 'Tight, and no film caught up.', tools: ['mallet'], minutes: [2, 0, 1], mood: 'dry', returnAfterMinutes: 24 * 60, caution: 'Screws and pins at an angle can chip the edge of the glass.', when: { frame: ['bead'], stops: ['off'] },
  }), // prettier-ignore
  step('silicone-again', 'Run the silicone again', 'One to two days after the film, when its edge is dry: a thin even bead, tooled once.', {
    purpose: 'Silicone on wet film lets go.', good: 'An unbroken bead, film’s edge under it.', tools: ['silicone', 'masking tape'], minutes: [1, 0, 2], mood: 'dry', returnAfterMinutes: 24 * 60, when: { frame: ['silicone'], silicone: ['cut-out'] },
  }), // prettier-ignore
];

/** The shipped steps as a version that nobody has written over yet. */
export const shippedSteps = (firmId: string): StepSet => ({
  id: SHIPPED_STEPS_ID,
  firmId,
  version: 1,
  replacesId: null,
  note: 'As they come with Yellow Pane',
  ready: [...ready],
  steps: [...steps, ...groundSteps, ...columnSteps, ...panelSteps, ...wallSteps, ...counterSteps, ...signSteps],
  createdAt: '2026-01-01T00:00:00Z',
});
