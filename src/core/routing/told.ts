import type { NotTaken } from '../exchange/answer';

/** Of rules that failed for one reason so many are told one by one, the others together (ENGINE E13). */
export const TOLD_ONE_BY_ONE = 3;

/** Several rules that failed for one reason, named after the first of them. */
export function together(first: { id: string; name: string }, count: number, one: string, several: string): NotTaken {
  return {
    rule: first.id,
    label: count === 1 ? first.name : `${first.name} and ${count - 1} more`,
    code: 'told-together',
    why: count === 1 ? `is ${one}` : `are ${several}`,
    count,
  };
}
