import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import metadata from 'libphonenumber-js/max/metadata';
import type { CallKind } from '@/core/numbers';
import { COUNTRY_FACTS } from '@/core/numbers/facts';
import type { Plan } from '@/core/plan';
import { takes } from './maps';

/* Numbers (ENGINE E5) by the library itself; only the tables of short numbers are those of the core. */

const CODES: Record<string, string> = { GB: '44', SE: '46', DE: '49' };

export interface Read {
  e164: string | null;
  significant: string;
  kind: CallKind;
  valid: boolean;
}

type Site = Plan['sites'][number];

/** What stands before a national number in GB: the national prefix, or the access code of text relay with it. */
const GB_BEFORE = /^(0|180020)/;

/** Digits as an outbound rule or a trunk says they are to be read, seen from a site. */
export function read(plan: Plan, digits: string, reading: string, site: Site): Read {
  const none = (kind: CallKind, valid: boolean): Read => ({ e164: null, significant: digits, kind, valid });
  if (reading === 'private') return none('private', true);
  if (!/^[0-9]+$/.test(digits)) return none('unknown', false);
  const facts = COUNTRY_FACTS[site.country]!;
  if (reading === 'national' && facts.emergency.includes(digits)) return none('emergency', true);
  if (reading === 'national' && facts.service.some((s) => takes(s.map, digits))) return none('service', true);
  const code = CODES[site.country]!;
  const text =
    reading === 'international'
      ? `+${digits}`
      : reading === 'subscriber'
        ? `+${code}${site.area ?? ''}${digits}`
        : `+${code}${digits.replace(site.country === 'GB' ? GB_BEFORE : /^0/, '')}`;
  return about(plan, text, site);
}

/** The country of a caller: as the library tells it; what is no number in use is of the main country of its code. */
function callerIsFrom(e164: string, country: string): boolean {
  const read = parsePhoneNumberFromString(e164);
  if (read?.number === e164 && read.isValid()) return read.country === country;
  const codes = metadata.country_calling_codes as unknown as Record<string, string[]>;
  const code = Object.keys(codes).find((c) => e164.startsWith(`+${c}`));
  return code !== undefined && codes[code]![0] === country;
}

/** Whether an inbound route is for a caller; null is one who withholds the number. */
export function callerFits(route: Plan['inboundRoutes'][number], e164: string | null): boolean {
  const forSome = route.callingMap || route.callingCountries.length > 0 || route.callingNumbers.length > 0;
  if (e164 === null) return route.callingWithheld || !forSome;
  if (!forSome) return !route.callingWithheld;
  if (route.callingNumbers.includes(e164)) return true;
  if (route.callingCountries.some((country) => callerIsFrom(e164, country))) return true;
  return route.callingMap !== null && takes(route.callingMap, e164);
}

/** What a number in E.164 is, seen from a site. */
export function about(plan: Plan, e164: string, site: Site): Read {
  const added = plan.numberAdditions.find((a) => a.from.length === e164.length && a.from <= e164 && e164 <= a.to);
  const parsed = parsePhoneNumberFromString(e164);
  const code = parsed?.countryCallingCode ?? CODES[site.country]!;
  const significant = e164.slice(1 + code.length);
  const here = CODES[site.country] === code;
  const home = (type: string | undefined): CallKind => {
    switch (type) {
      case 'MOBILE':
        return 'mobile';
      case 'TOLL_FREE':
        return 'freephone';
      case 'SHARED_COST':
      case 'PERSONAL_NUMBER':
      case 'PAGER':
      case 'UAN':
      case 'VOICEMAIL':
        return 'shared-cost';
      case 'PREMIUM_RATE':
        return 'premium';
      default:
        return site.area && significant.startsWith(site.area) ? 'local' : 'national';
    }
  };
  if (added)
    return {
      e164,
      significant,
      valid: true,
      kind:
        added.country !== site.country
          ? 'international'
          : added.kind === 'national'
            ? home(undefined)
            : (added.kind as CallKind),
    };
  // An international number has five digits at least.
  const global = /^\+(800|808|979|870|878|88[1238])(?=\d{2})/.exec(e164);
  if (global) {
    const kinds: Record<string, CallKind> = { '800': 'freephone', '808': 'shared-cost', '979': 'premium' };
    const valid = parsed?.isValid() ?? false;
    return { e164: valid ? e164 : null, significant, kind: kinds[global[1]!] ?? 'satellite', valid };
  }
  if (!parsed?.isValid() || parsed.number !== e164)
    return { e164: parsed?.isPossible() ? e164 : null, significant, kind: 'unknown', valid: false };
  return {
    e164,
    significant,
    valid: true,
    kind: here && parsed.country === site.country ? home(parsed.getType()) : 'international',
  };
}

/** A number as a trunk wants it, seen from the site where it ends. */
export function write(e164: string, form: string, site: Site): string {
  const code = CODES[site.country]!;
  const home = e164.startsWith(`+${code}`);
  const significant = e164.slice(1 + code.length);
  const abroad = `00${e164.slice(1)}`;
  if (form === 'plus') return e164;
  if (form === 'digits') return e164.slice(1);
  if (form === 'significant') return home ? significant : abroad;
  if (form === 'subscriber' && home && site.area && significant.startsWith(site.area))
    return significant.slice(site.area.length);
  return home ? `0${significant}` : abroad;
}
