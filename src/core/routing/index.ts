/** The routing engine: a plan compiled into an exchange, and what happens to a call (ENGINE E1-E9, E13). */
export * from '../exchange/answer';
export * from '../exchange/cause';
export * from '../exchange/exchange';
export { compile } from './compile';
export { contextOf, reachableForms } from './dialling';
export * from '../exchange/reasons';
export * from '../exchange/situation';
export * from '../exchange/taken';
export { destinationOf } from './walk';
export { outcomeOf, trace } from './trace';
export { dialledFromOutside } from './incoming';
export { ruleAt } from '../exchange/context';
export { hoursNow, noticesFor } from '../exchange/hours-now';
export { ruleFits } from './incoming';
export { kbitPerCall, spokenBetween } from '../exchange/link';
export { mayWatch } from './watch';
export { activeSince } from '../exchange/number-state';
export type { CompiledRung } from '../exchange/rung';
