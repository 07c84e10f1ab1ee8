import * as z from 'zod';

/** Work is priced and timed by what film it is: tint slides, security film is heavy. */
export const workClass = z.enum(['tint', 'frost', 'security']);
export type WorkClass = z.infer<typeof workClass>;
