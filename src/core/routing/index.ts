/** The routing engine: a plan compiled into an exchange, and what happens to a call (ENGINE E1-E9, E13). */
export * from './answer';
export * from './cause';
export * from './exchange';
export { compile } from './compile';
export { contextOf, emergencyForms, reachableForms } from './dialling';
export * from './reasons';
export * from './situation';
export { destinationOf } from './walk';
export { outcomeOf, trace } from './trace';
export { dialledFromOutside } from './incoming';
export { ruleAt, rulesAt, dialledAll, type DialContext, type DialRule } from './context';
export { hoursNow, noticesFor, type HoursNow } from './hours-now';
export { ruleFits } from './incoming';
export { kbitPerCall, spokenBetween } from './link';
export { mayWatch } from './watch';
