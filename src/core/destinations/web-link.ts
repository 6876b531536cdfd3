import type { WebLink } from '../plan';
import { takesAll } from './takes-all';

/** A web address that is asked what to do with the call. */
export const webLink = takesAll<WebLink>('webLink', 'web-link', (w) => `${w.address} takes over the call.`);
