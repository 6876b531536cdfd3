/** Load: how many channels, agents and kilobits a company needs (ENGINE E12). */
export * from './erlang';
export * from './bandwidth';
export * from './queue-spec';
export * from './simulate';
export * from './staffing';
export * from './sizing';
export { fitOf, lawBelow, patienceOf, type Fit } from './fit';
export { studentT95, type Estimate } from './interval';
