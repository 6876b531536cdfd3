/** The one way of editing: `useEdits` and what stands around it. */
export { EditsProvider, useAccount, useDraftVersion, useWaiting } from './tab';
export * from './use-edits';
export type { Together } from './store';
export { useOrder } from './use-order';
