/** Digit maps: reading, matching, set algebra (ENGINE E2, E3; RFC 3435 section 2.1.5). */
export * from './symbols';
export * from './parse';
export { positionsOf, positionsOfLiteral } from './positions';
export * from './automaton';
export * from './literals';
export * from './compile';
export * from './match';
export * from './algebra';
export * from './minimise';
export * from './relate';
export { Rows } from './rows';
export * from './examples';
export * from './simplify';
export { mapInWords } from './words';
