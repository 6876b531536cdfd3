import type { Fax } from '../plan';
import { takesAll } from './takes-all';

/** A fax end takes the pages, silently. */
export const fax = takesAll<Fax>(
  'fax',
  'fax',
  (f) => `${f.name} takes the pages${f.email ? ` and mails them to ${f.email}` : ''}.`,
);
