/** The care sheet in English, in the form in which a firm adds its customers' languages. @source common practice: drying, cleaning after 30 days, what each kind does not do, a couple of weeks until film that was laid dry holds fully */
export const careEnglish = `# How the customer looks after the film. Translate what stands behind each colon; what stands in braces is filled in.
# A line that begins with a blank goes on with the one before. A line left out is printed in English.
language: en
title: How to look after your film
for: {job}. Laid by {firm}.
drying-head: The first weeks
drying: Water pockets, streaks and a light haze are normal: the film was laid wet and dries through itself.
  Expect it to be clear: {clear}. Do not press, prick or heat a bubble.
clear-now: All of it was seen clear. Water pockets that come back are none: call us.
touch: Do not touch the film before {touchTo}, and keep drop windows up until then.
clean-head: Cleaning
clean: Not before {cleanFrom}. Then: a soft, clean cloth and water with a drop of washing-up liquid, wiped dry with another soft cloth.
  No ammonia, no scouring cream, no scrapers, no rough side of a sponge.
stick: Stick nothing to the film: tape and suction cups pull it off.
kinds-head: What your film does and does not do
solar: It keeps out heat and glare. Blinds right behind the glass and dark things leaning against it make the glass hotter than the film alone: leave a hand’s breadth.
exterior-solar: Film outside lives about half as long as film inside. Its edges are sealed: do not aim a pressure washer at them.
mirror: A mirror works for whoever stands on the brighter side. At night, with the lights on, it turns round: people see in.
frosted: It keeps looks out, not light. Grease from fingers shows: wipe it off with the same soapy water.
security: It holds the glass together when it breaks and slows a break-in. It does not make the glass unbreakable. Leave it quite alone for the first days.
anti-graffiti: It takes the scratches instead of the glass. When it is scratched, have it changed.
anti-fog: It loses its effect under soap: wipe it with clean water only.
double-glazing: Film can bear on the glass maker’s warranty of the seal of double glazing: keep this sheet with what was signed before the work.
laid-dry: Film on walls, doors, columns and counters was laid dry, and its glue takes about two weeks to hold fully: until then lean nothing against seams, edges and
  corners, and do not scrub there. No solvents, no steam, and nothing hot is put down on it.
call-head: Call us
call: When something is still there after the day above, when an edge lifts, or when the glass is cracked: leave the film as it is and call {firm}. Have the seal at hand that is printed on the record.
`;
