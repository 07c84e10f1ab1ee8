import * as z from 'zod';

/**
 * The one error table: every refusal the server can answer with. `sentence` is what the installer reads when nothing more
 * exact is known; a place that knows more says more in `detail`.
 */
export const errorTable = {
  'bad-input': { status: 400, sentence: 'Something in what was sent does not read. Nothing was changed.' },
  'not-found': { status: 404, sentence: 'That is not here, or no longer here.' },
  'job-not-found': { status: 404, sentence: 'There is no such job on this bench.' },
  conflict: { status: 409, sentence: 'Someone else changed the same thing in the meantime. Look at both before you go on.' },
  'undo-conflict': { status: 409, sentence: 'Someone has since changed what you want to undo. Undo it all the same?' },
  'nothing-to-undo': { status: 409, sentence: 'There is nothing of yours left to undo in this job.' },
  'nothing-to-redo': { status: 409, sentence: 'There is nothing of yours left to redo in this job.' },
  'sequence-gap': { status: 409, sentence: 'An earlier edit from this device has not arrived yet.' },
  'fact-stands': { status: 409, sentence: 'What was done is done: write a further entry that corrects it.' },
  'plan-refused': { status: 422, sentence: 'This cut plan does not pass the check.' },
  'not-cuttable': { status: 422, sentence: 'There is nothing that can be cut yet.' },
  'films-known': { status: 409, sentence: 'Some of these films are already here by name.' },
  'quote-not-found': { status: 404, sentence: 'There is no such quote on this bench.' },
  'quote-accepted': { status: 409, sentence: 'This quote has already become a job.' },
  'no-price': { status: 422, sentence: 'There is no honest price yet for this film and these windows.' },
  'stock-promised': { status: 409, sentence: 'That film is promised to another job.' },
  'stock-short': { status: 409, sentence: 'There is not that much film on this roll.' },
  'rolls-known': { status: 409, sentence: 'Some of these rolls are already here by their labels.' },
  'not-plotted': { status: 422, sentence: 'This piece is not cut by the plotter.' },
  'plotter-busy': { status: 409, sentence: 'The plotter is at work on another piece.' },
  'plotter-away': { status: 503, sentence: 'The plotter does not answer.' },
  'not-layable': { status: 422, sentence: 'This pane has no size or no wet-laid film yet.' },
  'nothing-laid': { status: 422, sentence: 'No pane of this job is laid yet: there is nothing to hand over.' },
  'not-formable': { status: 422, sentence: 'There is no curved pane with a film and enough bows here yet.' },
  'no-weather': { status: 422, sentence: 'No weather service is connected to this bench.' },
  'no-place': { status: 422, sentence: 'Nobody has said where on earth the site is.' },
  'instrument-away': { status: 503, sentence: 'That instrument does not answer. Type what you read.' },
  'wrong-origin': { status: 403, sentence: 'This address is not one that Yellow Pane answers to.' },
  'not-admitted': { status: 401, sentence: 'This device is not let in. Ask for a code at the bench.' },
  'wrong-code': { status: 403, sentence: 'This code does not fit, was used already, or is too old. Ask for a new one at the bench.' },
  'wrong-person': { status: 403, sentence: 'This device was let in for somebody else: it writes in their name only.' },
  'wrong-media': { status: 415, sentence: 'What was sent is packed or written in a way that is not read here. Send UTF-8, plain or gzip.' },
  'took-too-long': { status: 503, sentence: 'This took too long and was stopped. Nothing was changed; ask for less at once.' },
  'bench-only': { status: 403, sentence: 'Who is let in is settled at the bench itself, not from another device.' },
  'address-away': { status: 409, sentence: 'This machine cannot be reached at that address.' },
  'database-away': { status: 503, sentence: 'The database of the bench does not answer. Nothing was changed; what you typed is sent again when it does.' },
  'disk-full': { status: 507, sentence: 'The disk of the bench is full. Make room on it; nothing was changed.' },
  'read-only': { status: 507, sentence: 'The data folder of the bench can only be read. Make it writable again; nothing was changed.' },
  'too-large': { status: 413, sentence: 'That file is larger than Yellow Pane takes (8 MB).' },
  'too-many': { status: 429, sentence: 'Too many requests at once. Wait a moment and try again.' },
  internal: { status: 500, sentence: 'Yellow Pane itself failed at this. What you typed is still on the screen.' },
} as const satisfies Record<string, { status: number; sentence: string }>;

export type ErrorCode = keyof typeof errorTable;

/** One fault at one place of what was sent: `path` names row and field, `message` says how to mend it. */
export const fault = z.object({ path: z.string(), message: z.string() });
export type Fault = z.infer<typeof fault>;

/** RFC 9457 problem details, with the faults of the input beside it. */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  code: z.enum(Object.keys(errorTable) as [ErrorCode, ...ErrorCode[]]),
  instance: z.string().optional(),
  faults: z.array(fault).optional(),
});
export type Problem = z.infer<typeof problem>;
