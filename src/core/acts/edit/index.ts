/** How edits of one draft by many people come together: fields merged, places between neighbours, acts with names. */
export * from './merge';
export * from './name';
export * from './place';
export * from './undo';
