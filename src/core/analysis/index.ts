/** What follows from a plan: consequences of one object, reach of a ladder's rules. */
export * from './consequences';
export * from './ladder';
export { orderOfWork, workSchema, WORK_STEPS, type Work, type WorkStep } from './order-of-work';
export { OUTSIDE_CALLER, callFromOutside, callsAround, fromOutside } from './calls-around';
export * from './gate';
export * from './problem';
export * from './problems';
export * from './placement';
export * from './landing-times';
export * from './picture';
export * from './week';
export * from './week-of';
export type { RuleStretch } from './rule-week';
export * from './number-space';
export { outsideOpened, slowKeys } from './attendants';
export { spokenKeys, type SpokenKey } from './spoken-keys';
export * from './key-paths';
export { reachedFrom } from './reached';
