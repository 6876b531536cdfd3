/** The one way of editing: `useEdits` and what stands around it. */
export { EditsProvider, useDraftVersion, useWaiting } from './tab';
export * from './use-edits';
export { useOrder } from './use-order';
