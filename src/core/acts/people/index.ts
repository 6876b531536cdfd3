/** People who join, move and leave, and one beside another. */
export * from './leaver';
export * from './mover';
export * from './same-as';
export * from './same-parts';
