import type { Conference } from '../plan';
import { takesAll } from './takes-all';

/** A conference room: whoever calls is in it. */
export const conference = takesAll<Conference>('conference', 'conference', (c) => `The caller joins ${c.name}.`);
