import * as z from 'zod';

/** Joints beneath one panel are counted from nought; more than this no panel has. */
export const jointIndex = z.int().min(0).max(100_000);

/** One stroke along joints, each from the end that the last one ended at; or a stretch of the border that is sealed over the joints that leave beneath it. */
export const jointStroke = z.discriminatedUnion('does', [
  z.object({ does: z.literal('press'), from: jointIndex, segments: z.array(jointIndex).min(1).max(4000) }),
  z.object({ does: z.literal('seal'), exits: z.array(jointIndex).min(1).max(4000) }),
]);

/** What was done at one place of a textured wall. */
export const wallZoneDone = z.object({
  /** From 1, in the order the panels are hung. */
  panel: z.int().min(1).max(400),
  /** Of the joints it was planned on: with others it says nothing. */
  graph: z.string().regex(/^[0-9a-f]{16}$/),
  strokes: z.array(jointStroke).max(4000),
});

/** The border of film on joints: open where a joint leaves until its course is done, or all of it set first. */
export const borderSchool = z.enum(['left-open', 'set-first']);

export type BorderSchool = z.infer<typeof borderSchool>;

/** How many people press the joints of one panel at a time: one, or two from its middle to both ends. */
export const jointHands = z.enum(['one', 'two']);
export type JointHands = z.infer<typeof jointHands>;
