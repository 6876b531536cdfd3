import { compileKnownMap, run, type Automaton } from '@/core/digits';

/** The automaton of a digit map in text; throws on a bad one. */
export const automaton = (map: string): Automaton => compileKnownMap(map).automaton;

/** Whether a string belongs to an automaton's set. */
export function has(a: Automaton, text: string): boolean {
  const state = run(a, text);
  return state >= 0 && a.accepts[state]!.length > 0;
}
