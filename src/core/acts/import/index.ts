/** Sheets of people and extensions: what their columns are, what they would do to a plan, and writing them. */
export * from './columns';
export * from './check';
export * from './outcome';
export * from './export';
