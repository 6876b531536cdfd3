/** Sound as samples: cutting, fading, loudness (ITU-R BS.1770), and what is wrong with a recording. */
export * from './sound';
export * from './loudness';
export * from './faults';
export * from './resample';
export * from './g711';
