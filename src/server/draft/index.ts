/** The draft: editing, undoing, going live, revisions. */
export * from './edit';
export { agreeGoing, goLiveDue, listGoings, planGoing, withdrawGoing } from './going';
export { bringBack, bringBackOne, goLive, goingPolicy, listRevisions } from './revisions';
export * from './told';
export * from './undo';
