import type { z } from 'zod';
import type { Right } from '../access/rights';

/** One operation of the API: what validates a request and what the OpenAPI document says are the same object. */
export interface Operation<Q extends z.ZodType = z.ZodType, B extends z.ZodType = z.ZodType> {
  method: 'get' | 'post' | 'put' | 'delete';
  /** below /api/v1, with `{name}` for parts of the path */
  path: string;
  summary: string;
  /** needed right; `signed-in` is any account; null needs no sign-in */
  right: Right | 'signed-in' | null;
  query?: Q;
  body?: B;
  answer?: z.ZodType;
  /** the body is a file of at most so many octets */
  fileBytes?: number;
}

/** Gives an operation its precise types. */
export const operation = <Q extends z.ZodType = z.ZodNever, B extends z.ZodType = z.ZodNever>(
  o: Operation<Q, B>,
): Operation<Q, B> => o;
