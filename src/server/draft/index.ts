/** The draft: editing, undoing, going live, revisions. */
export * from './edit';
export * from './revisions';
export * from './undo';
