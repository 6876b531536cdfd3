/** Inbound routes written as call handling in CPL, and made from it. */
export * from './cpl-of-route';
export * from './times-of-leads';
