/** A plan prepared for questions, and the words in which they are asked and answered. */
export * from './answer';
export * from './cause';
export * from './exchange';
export * from './reasons';
export * from './situation';
export * from './situation-errors';
export * from './taken';
