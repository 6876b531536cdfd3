/** Calls as they were: their records, and what a plan would make of them (ENGINE E14). */
export { callRecordSchema, secondsInto, type CallRecord } from './record';
export { callOf, situationOf, type RecordedCall, type Unexplained } from './as-call';
export { readRecords, type RecordsRead } from './read';
export { replay, replaySteps, type ReplayEnd, type ReplayGroup, type ReplayResult } from './replay';
