/** Call logs of other systems: their columns, moments, durations and rows, as records. */
export * from './columns';
export { readDuration, readMoment } from './moments';
export { plainId, readLog } from './rows';
