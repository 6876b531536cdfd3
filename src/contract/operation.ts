import { z } from 'zod';
import type { OperationName, PATHS } from './paths';
import type { Right } from './rights';

/** What an operation takes and gives, beside its method and path. */
export interface Facts {
  summary: string;
  /** needed right; `signed-in` is any account, `person` one of a person of the plan; null needs no sign-in */
  right: Right | 'signed-in' | 'person' | null;
  /** for people only: a bearer token has no account of its own to act on */
  noTokens?: true;
  query?: z.ZodType;
  body?: z.ZodType;
  /** what it answers as JSON; null: a file or a stream */
  answer: z.ZodType | null;
  /** the body is a file of at most so many octets */
  fileBytes?: number;
}

/** The parts of a path that are named in it. */
type NamesIn<P extends string> = P extends `${string}{${infer Name}}${infer Rest}` ? Name | NamesIn<Rest> : never;
export type ParamsOf<N extends OperationName> = Record<NamesIn<(typeof PATHS)[N][1]>, string>;

type Part<F, K extends 'query' | 'body', Io extends 'input' | 'output'> = F extends {
  [P in K]: infer S extends z.ZodType;
}
  ? Io extends 'input'
    ? z.input<S>
    : z.output<S>
  : undefined;

export type QueryOf<F> = Part<F, 'query', 'output'>;
export type BodyOf<F> = Part<F, 'body', 'output'>;
export type GivenQuery<F> = Part<F, 'query', 'input'>;
export type GivenBody<F> = Part<F, 'body', 'input'>;
export type AnswerIn<F> = F extends { answer: infer S extends z.ZodType } ? z.output<S> : Response;

/** What is done and has nothing to tell. */
export const done = z.strictObject({ ok: z.literal(true) });
