import type * as z from 'zod';
import type { RouteName, routes } from './routes.js';

type Definition<N extends RouteName> = (typeof routes)[N];
type Part = 'params' | 'query' | 'body';
type PartsOf<N extends RouteName> = Extract<keyof Definition<N>, Part>;
type SchemaOf<N extends RouteName, P extends Part> = Definition<N> extends Record<P, infer S extends z.ZodType> ? S : never;

/** What a caller hands to a call: its values in the address, after the question mark and in the body, as far as the call has them. */
export type Sent<N extends RouteName> = {
  readonly [P in PartsOf<N> as IsOptional<N, P> extends true ? never : P]: z.input<SchemaOf<N, P>>;
} & { readonly [P in PartsOf<N> as IsOptional<N, P> extends true ? P : never]?: z.input<SchemaOf<N, P>> };
/** A part in which nothing has to be said. */
type IsOptional<N extends RouteName, P extends Part> = P extends 'body' ? false : object extends z.input<SchemaOf<N, P>> ? true : false;
/** One part of it after it was read: defaults filled in, texts trimmed. Undefined where the call has no such part. */
export type Received<N extends RouteName, P extends Part> = [SchemaOf<N, P>] extends [never] ? undefined : z.output<SchemaOf<N, P>>;

/** Calls that answer with a document; the others with a file or a stream. */
export type DocumentCall = { [N in RouteName]: Definition<N>['result'] extends null ? never : N }[RouteName];
/** What a call answers. */
export type Answer<N extends DocumentCall> = Definition<N>['result'] extends infer S extends z.ZodType ? z.output<S> : never;
/** Calls without anything to hand over may be made with nothing. */
export type SentArgs<N extends RouteName> = object extends Sent<N> ? [sent?: Sent<N>] : [sent: Sent<N>];
