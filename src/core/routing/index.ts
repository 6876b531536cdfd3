/** The routing engine: a plan compiled into an exchange, and what happens to a call (ENGINE E1-E9, E13). */
export * from './answer';
export * from './cause';
export * from './exchange';
export { compile } from './compile';
export { contextOf, reachableForms } from './dialling';
export * from './reasons';
export * from './situation';
export { destinationOf } from './walk';
export { outcomeOf, trace } from './trace';
export { dialledFromOutside } from './incoming';
export { ruleAt } from './context';
export { hoursNow, noticesFor } from './hours-now';
export { ruleFits } from './incoming';
export { kbitPerCall, spokenBetween } from './link';
export { mayWatch } from './watch';
export { activeSince } from './number-state';
export type { CompiledRung } from './rung';
