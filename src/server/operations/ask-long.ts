import { ask, type AnswerOf, type InputOf, type QuestionName } from '../engine';
import type { Actor } from '../access/rights';

/* Long questions of a page, which learns meanwhile how far they have come: by a ticket that it makes up and only it knows. */

const TICKET = /^[0-9a-f-]{36}$/;
const far = new Map<string, number>();

const keyOf = (actor: Actor, ticket: string) => `${actor.account} ${ticket}`;

/** Asks; whoever made the request learns by its ticket how far it has come, and stops it by going away. */
export async function askLong<N extends QuestionName>(
  name: N,
  input: InputOf<N>,
  { actor, request }: { actor: Actor; request: Request },
): Promise<AnswerOf<N>> {
  const { signal } = request;
  const ticket = request.headers.get('x-ticket') ?? '';
  if (!TICKET.test(ticket)) return ask(name, input, { signal });
  const key = keyOf(actor, ticket);
  try {
    return await ask(name, input, { signal, progress: (share) => far.set(key, share) });
  } finally {
    far.delete(key);
  }
}

/** How far a question of one's own has come, 0 to 1; null: nobody is at it. */
export const farOf = (actor: Actor, ticket: string): number | null => far.get(keyOf(actor, ticket)) ?? null;
