/** Calls as they were: their records, and what a plan would make of them (ENGINE E14). */
export { callRecordSchema, type CallRecord } from './record';
export { callOf } from './as-call';
export { readRecords } from './read';
export { replay, replaySteps, type ReplayEnd, type ReplayResult } from './replay';
export { trafficOf, type Traffic } from './traffic';
