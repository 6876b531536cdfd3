import pino from 'pino';

/** The application's log: one JSON line an event on standard output. Secrets never come here; these names are cut out in case. */
export const log = pino({
  level: process.env.POLYDROME_LOG ?? 'warn',
  redact: ['password', 'pin', 'token', '*.password', '*.pin', '*.token'],
});
