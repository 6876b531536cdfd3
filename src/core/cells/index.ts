/** Phones, digits and moments cut into finitely many parts in which the plan decides alike (ENGINE E14). */
export * from './callers';
export * from './dialling';
export * from './leading-out';
export * from './measure';
export * from './measured';
export * from './sending';
export * from './pairs';
export * from './phones';
export * from './times';
