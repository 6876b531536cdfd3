import type { Tone } from '../plan';
import { takesAll } from './takes-all';

/** A tone that the caller hears before the release (ITU-T E.180). */
export const tone = takesAll<Tone>('tone', 'tone', (t) => `The caller hears the ${t.tone} tone.`);
