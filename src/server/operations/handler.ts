import type { Answer, Body, OperationName, ParamsOf, Query } from '@/contract';
import type { Actor } from '../access/rights';

/** What an operation is given: who asks, and what was read of the request. */
export interface Knock<N extends OperationName> {
  actor: Actor;
  query: Query<N>;
  body: Body<N>;
  params: ParamsOf<N>;
  /** the file that the body is, where the operation takes one */
  file: Buffer;
  address: string;
  request: Request;
}

/** What is done answers nothing, and is told as `{ok: true}`. */
type Given<A> = A extends { ok: true } ? A | void : A;

export type Handler<N extends OperationName> = (knock: Knock<N>) => Promise<Given<Answer<N>> | Response>;
export type Handlers<N extends OperationName = OperationName> = { [K in N]: Handler<K> };

/** A handler as the door calls it, once the contract has said what it is given. */
export type AnyHandler = (knock: {
  actor: Actor;
  query: unknown;
  body: unknown;
  params: Record<string, string>;
  file: Buffer;
  address: string;
  request: Request;
}) => Promise<unknown>;
