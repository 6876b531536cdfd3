/** Sheets of one kind of object, such as hours, inbound routes or service codes: their columns, writing them, what they would do. */
export { columnsOf, keysOf } from './columns';
export { checkObjects, writeObjects } from './check';
