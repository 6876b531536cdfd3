/** The draft: reading, editing, undoing, going live, revisions. */
export * from './store';
export * from './edit';
export * from './pending';
export * from './revisions';
export * from './add-extension';
export * from './undo';
