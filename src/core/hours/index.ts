/** Opening hours: weekly spans, holidays, exceptions, notices, clock changes (ENGINE E10). */
export * from './week';
export * from './date';
export * from './hours';
export * from './words';
export * from './faults';
export * from './end-of-day';
export * from './paint';
export * from './clock-change';
export * from './compare';
export { clockOf, isoAt, momentOf, wallAt } from './zone';
export * from './calendar-write';
export * from './calendar-read';
