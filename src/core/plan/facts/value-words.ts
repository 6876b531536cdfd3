import { choiceWords } from './choice-words';

/* What stands in a field, in words for people: used wherever something was and will be. */

/** Fields whose values are choices that read otherwise than they are written. */
export const CHOICE_FIELDS: ReadonlySet<string> = new Set([
  'kind',
  'deliveredForm',
  'writes',
  'isdnNumberType',
  'directDialling',
  'scope',
  'phrase',
  'service',
  'activity',
  'state',
  'reading',
  'show',
  'numberSpace',
]);

const LANGUAGES = new Intl.DisplayNames('en', { type: 'language' });
const COUNTRIES = new Intl.DisplayNames('en', { type: 'region' });

const named = (names: Intl.DisplayNames, code: string): string => {
  try {
    return names.of(code) ?? code;
  } catch {
    // Neither code is any that the standard has.
    return code;
  }
};

/** The name of a language by its tag (BCP 47). */
export const languageName = (tag: string): string => named(LANGUAGES, tag);
/** The name of a country by its code (ISO 3166-1 alpha-2). */
export const countryName = (code: string): string => named(COUNTRIES, code);

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

/** The value of a field in words; `nameOf` tells the name of what an id stands for. */
export function valueWords(field: string, value: unknown, nameOf: (id: string) => string | undefined): string {
  if (value === null || value === undefined || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map((v) => valueWords(field, v, nameOf)).join(', ') || 'none';
  if (isRecord(value)) return recordWords(value, nameOf);
  const text = String(value);
  if (field === 'country' || field === 'callingCountries') return countryName(text);
  if (field === 'language') return languageName(text);
  return nameOf(text) ?? (CHOICE_FIELDS.has(field) ? choiceWords(text) : text);
}

/** A range, the state of a recording, what a class may do, or any other structure. */
function recordWords(value: Record<string, unknown>, nameOf: (id: string) => string | undefined): string {
  if ('from' in value && 'to' in value) return `${String(value.from)} to ${String(value.to)}`;
  if ('version' in value) return `version ${String(value.version)}`;
  if (typeof value.allow === 'boolean') {
    const parts = [value.allow ? 'yes' : 'no', value.pin ? 'PIN' : '', value.forward ? 'forward' : ''];
    return [...parts, value.transfer ? 'transfer' : ''].filter(Boolean).join(', ');
  }
  return Object.entries(value)
    .map(([k, v]) => `${k.replaceAll('-', ' ')}: ${valueWords(k, v, nameOf)}`)
    .join('; ');
}
