/** The draft: editing, undoing, going live, revisions. */
export * from './edit';
export * from './revisions';
export * from './told';
export * from './undo';
