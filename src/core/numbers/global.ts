import type { NumberType } from './kinds';

/** Calling codes that belong to no country, and the kind they decide by themselves (ENGINE E5; ITU-T E.164 Annex to OB). */
export const GLOBAL_CODES: Readonly<Record<string, NumberType>> = {
  800: 'freephone',
  808: 'shared-cost',
  979: 'premium',
  870: 'satellite',
  878: 'satellite',
  881: 'satellite',
  882: 'satellite',
  883: 'satellite',
  888: 'satellite',
};
