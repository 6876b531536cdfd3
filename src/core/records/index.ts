/** Calls as they were: their records, and what a plan would make of them (ENGINE E14). */
export { callRecordSchema, type CallRecord } from './record';
export { callOf, extensionNamed, situationOf } from './as-call';
export { courseOf } from './course';
export { firstDifference } from './difference';
export { derived, type Derived } from './derive';
export { queueFiguresOf } from './queue-figures';
export { readRecords } from './read';
export { endsAs, replay, replayOf, type Replay, type ReplayEnd, type ReplayResult } from './replay';
export { busyHoursBy, trafficOf, type Traffic } from './traffic';
