/** What can be proved of a plan: answers over all calls there can be, not some (ENGINE E14). */
export * from './atlas';
export { atlasThrough, atlasesApart } from './atlas-apart';
export type { AskedCall } from './asked';
export { askAhead } from './ask-ahead';
export { cutAhead } from './cut-ahead';
export { callWords, callersWords } from './call-words';
export type { ImpactGroup, ToldEnd } from './grouped';
export * from './impact';
export * from './impact-groups';
export * from './drills';
export { concernsMany } from './entries';
export * from './noticed';
export { promiseFrom } from './promises/from-call';
export { brokenBy } from './promises/broken-by';
export * from './promises/check';
export { promiseWords } from './promises/words';
export { entrancesOf, reachOf, whoReaches, type Entrance } from './reach';
export * from './regions';
