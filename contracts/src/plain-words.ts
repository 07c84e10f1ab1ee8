import * as z from 'zod';

/** What a schema finds, as far as a sentence needs it. */
interface Issue {
  readonly code?: string;
  readonly expected?: unknown;
  readonly input?: unknown;
  readonly minimum?: unknown;
  readonly maximum?: unknown;
  readonly inclusive?: boolean;
  readonly origin?: unknown;
  readonly format?: unknown;
  readonly values?: readonly unknown[];
  readonly keys?: readonly string[];
  readonly divisor?: unknown;
}

const kindWords: Readonly<Record<string, string>> = {
  number: 'A number is needed.',
  int: 'A whole number is needed.',
  string: 'Words are needed.',
  boolean: 'Yes or no is needed.',
  array: 'A list is needed.',
  object: 'Several things are needed here, each by its name.',
};
const formatWords: Readonly<Record<string, string>> = {
  date: 'A date is needed, such as 2026-09-14.',
  datetime: 'A date and an hour are needed, such as 2026-09-14T08:00:00Z.',
  uuid: 'This is no key that Yellow Pane gave.',
  url: 'An address is needed, such as https://example.org.',
};

/** What does not fit a schema, in words for the one who typed it: no "expected", no "received", no "too small". */
function plainWords(issue: Issue): string {
  const limit = (n: unknown) => (typeof n === 'number' && Math.abs(n) >= 10_000 ? n.toLocaleString('en-GB').replaceAll(',', ' ') : String(n));
  switch (issue.code) {
    case 'invalid_type':
      if (issue.input === undefined || issue.input === null) return 'This is missing.';
      return kindWords[String(issue.expected)] ?? 'This does not read.';
    case 'too_small':
      if (issue.origin === 'string') return issue.minimum === 1 ? 'This may not be empty.' : `At least ${limit(issue.minimum)} letters.`;
      if (issue.origin === 'array' || issue.origin === 'set') return `At least ${limit(issue.minimum)} of them.`;
      return issue.inclusive === false ? `More than ${limit(issue.minimum)}.` : `At least ${limit(issue.minimum)}.`;
    case 'too_big':
      if (issue.origin === 'string') return `At most ${limit(issue.maximum)} letters.`;
      if (issue.origin === 'array' || issue.origin === 'set') return `At most ${limit(issue.maximum)} of them.`;
      return issue.inclusive === false ? `Less than ${limit(issue.maximum)}.` : `At most ${limit(issue.maximum)}.`;
    case 'invalid_format':
      return formatWords[String(issue.format)] ?? 'This is not written as it has to be.';
    case 'not_multiple_of':
      return `A multiple of ${limit(issue.divisor)}.`;
    case 'invalid_value':
      return `One of: ${(issue.values ?? []).map(String).join(', ')}.`;
    case 'unrecognized_keys':
      return `Nobody knows ${(issue.keys ?? []).map((k) => `“${k}”`).join(', ')}.`;
    case 'invalid_union':
      return 'None of the kinds that are known.';
    case undefined:
    default:
      return 'This does not read.';
  }
}

// every schema of the house speaks so, on the server as on the screen; a sentence of its own comes first
z.config({ customError: (issue) => plainWords(issue as Issue) });
