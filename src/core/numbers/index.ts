/** Telephone numbers: reading, writing, kinds of call (ENGINE E5; ITU-T E.164, E.129). */
export * from './kinds';
export * from './number';
export { GLOBAL_CODES } from './global';
export { mainCountryOf, rangeAutomaton, type RangeData } from './ranges';
export * from './facts';
export * from './short';
export * from './read';
export * from './reader';
export * from './write';
export * from './callers';
